using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Contents;
using Wexel.Data;

namespace Wexel.Server.Tests;

/// <summary>Contents are proposed unasked, from what is read on the screen; they are taken, left, and go out and in as files.</summary>
public sealed class ProposalTests(ProposalTests.Reading fixture) : IClassFixture<ProposalTests.Reading>
{
    public sealed class Reading : ServerFixture
    {
        internal string? Lesson { get; set; }

        protected override void Set(IWebHostBuilder host)
        {
            host.UseSetting("Wexel:ReadScreens", "true");
            host.UseSetting("Wexel:SpeechEvery", "00:00:00.2");
        }
    }

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>The demo's recorder wrote down when its page was another, and what stood on it as heading.</summary>
    [Fact]
    public async Task The_pages_of_a_recording_are_proposed_where_its_recorder_says_that_they_change()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var view = await ReadAsync(trainer, lesson);
        view.GetProperty("missing").GetArrayLength().ShouldBe(0);
        var pages = ContentsText.Read(await File.ReadAllTextAsync(Path.Combine(Recordings, "late.pages.txt"), Cancel)).Lines;
        var proposed = view.GetProperty("proposals")
            .EnumerateArray()
            .Select(p => (At: p.GetProperty("at").GetInt64(), Title: p.GetProperty("title").GetString()))
            .ToList();
        foreach (var page in pages)
            proposed.ShouldContain(p => Math.Abs(p.At - page.At.TotalMilliseconds) <= 3000 && p.Title == page.Title, page.Title);
    }

    [Fact]
    public async Task What_is_left_or_there_is_not_proposed_and_few_are_fewer_than_many()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var all = (await ReadAsync(trainer, lesson)).GetProperty("proposals");
        var second = all[1].GetProperty("at").GetInt64();
        var left = await SaveAsync(trainer, lesson, 0.5, second);
        left.GetProperty("proposals").EnumerateArray().ShouldAllBe(p => p.GetProperty("at").GetInt64() != second);
        var few = (await SaveAsync(trainer, lesson, 0)).GetProperty("proposals").GetArrayLength();
        (await SaveAsync(trainer, lesson, 7)).GetProperty("proposing").GetProperty("amount").GetDouble().ShouldBe(1);
        var many = (await trainer.JsonAsync(Proposals(lesson))).GetProperty("proposals").GetArrayLength();
        many.ShouldBeGreaterThanOrEqualTo(few);
        (await SaveAsync(trainer, lesson, 0.5)).GetProperty("proposals").GetArrayLength().ShouldBe(all.GetArrayLength());

        await WithSectionsAsync(trainer, lesson, (second + 1000, "Mine"));
        (await trainer.JsonAsync(Proposals(lesson))).GetProperty("proposals").EnumerateArray().ShouldAllBe(p => p.GetProperty("at").GetInt64() != second);
        await WithSectionsAsync(trainer, lesson);
    }

    [Fact]
    public async Task What_stands_on_the_screen_is_found_with_its_moment()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await ReadAsync(trainer, lesson);
        var found = (await trainer.JsonAsync("/api/search?words=change%20refund")).GetProperty("lessons").EnumerateArray().Single();
        found.GetProperty("lessonId").GetString().ShouldBe(lesson);
        var hit = found.GetProperty("hits").EnumerateArray().First(h => h.GetProperty("kind").GetString() == "screen");
        hit.GetProperty("text").GetString().ShouldBe("Change or refund");
        hit.GetProperty("at").GetInt64().ShouldBeInRange(12_000, 18_000);
    }

    [Theory]
    [InlineData("txt", "text/plain")]
    [InlineData("vtt", "text/vtt")]
    [InlineData("json", "application/json+chapters")]
    public async Task Contents_go_out_as_files_and_are_read_again(string ending, string type)
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await WithSectionsAsync(trainer, lesson, (0, "Looking first"), (12_500, "Choices & <more>"));
        var answer = await trainer.GetAsync($"/api/lessons/{lesson}/contents.{ending}", Cancel);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe(type);
        answer.Content.Headers.ContentDisposition!.FileNameStar!.ShouldEndWith($"-contents.{ending}");
        var text = await answer.Content.ReadAsStringAsync(Cancel);
        var read = await (await trainer.PostAsJsonAsync("/api/contents/read", new { text }, Cancel)).Content.ReadFromJsonAsync<JsonElement>(Cancel);
        read.GetProperty("lines")
            .EnumerateArray()
            .Select(l => (l.GetProperty("at").GetInt64(), l.GetProperty("title").GetString()))
            .ShouldBe([(0, "Looking first"), (12_500, "Choices & <more>")]);
        await WithSectionsAsync(trainer, lesson);
        (await trainer.GetAsync($"/api/lessons/{lesson}/contents.exe", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.GetAsync($"/api/lessons/{Guid.NewGuid()}/contents.txt", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.GetAsync($"/api/lessons/{Guid.NewGuid()}/proposals", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private static string Recordings => Path.Combine(ServerFixture.Home, "demo", "recordings");

    private static string Proposals(string lesson) => $"/api/lessons/{lesson}/proposals";

    /// <summary>What failed three times is not tried for ever; somebody who knows better has it tried again.</summary>
    [Fact]
    public async Task A_screen_that_could_not_be_read_is_read_again_when_somebody_asks()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        (await ReadAsync(trainer, lesson)).GetProperty("canTryAgain").GetBoolean().ShouldBeFalse();
        await using (var scope = fixture.Server.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
            await db.Recordings.ExecuteUpdateAsync(
                set => set.SetProperty(r => r.ScreenFailure, "tesseract failed: it lost its glasses").SetProperty(r => r.ScreenReadAs, (string?)null),
                Cancel
            );
        }

        var failed = await trainer.JsonAsync(Proposals(lesson));
        failed.GetProperty("missing")[0].GetString().ShouldBe("tesseract failed: it lost its glasses");
        failed.GetProperty("canTryAgain").GetBoolean().ShouldBeTrue();
        (await trainer.PostAsync(Proposals(lesson) + "/again", null, Cancel)).EnsureSuccessStatusCode();
        (await ReadAsync(trainer, lesson)).GetProperty("missing").GetArrayLength().ShouldBe(0);
        (await trainer.PostAsync(Proposals(Guid.NewGuid().ToString()) + "/again", null, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private static Task<JsonElement> ReadAsync(HttpClient trainer, string lesson) =>
        trainer.UntilAsync(Proposals(lesson), v => v.GetProperty("waiting").GetString() == "");

    private static async Task<JsonElement> SaveAsync(HttpClient trainer, string lesson, double amount, params long[] left) =>
        await (await trainer.PutAsJsonAsync(Proposals(lesson), new { amount, left }, Cancel)).Content.ReadFromJsonAsync<JsonElement>(Cancel);

    private static async Task WithSectionsAsync(HttpClient trainer, string lesson, params (long At, string Title)[] sections)
    {
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = view.GetProperty("document").Deserialize<Dictionary<string, JsonElement>>()!;
        document["sections"] = JsonSerializer.SerializeToElement(
            sections.Select(s => new
            {
                id = $"s{s.At}",
                at = s.At,
                title = s.Title,
                nested = false,
            })
        );
        var body = new { basedOn = view.GetProperty("revision").GetInt32(), document };
        (await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", body, Cancel)).EnsureSuccessStatusCode();
    }

    private async Task<string> LessonAsync(HttpClient trainer)
    {
        if (fixture.Lesson is { } there)
            return there;
        await using var bytes = File.OpenRead(Path.Combine(Recordings, "when we are late.mkv"));
        var content = new StreamContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };
        var answer = await trainer.PutAsync("/api/recordings?fileName=late.mkv", content, Cancel);
        return fixture.Lesson = (await answer.Content.ReadFromJsonAsync<JsonElement>(Cancel)).GetProperty("lessonId").GetString()!;
    }
}
