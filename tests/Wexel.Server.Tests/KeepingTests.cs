using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Data;
using Wexel.Server.Lessons;

namespace Wexel.Server.Tests;

/// <summary>Keeping house: courses and what stands in them, the bin, and what lessons say.</summary>
public sealed class KeepingTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    [Fact]
    public async Task Courses_are_made_named_described_put_in_order_and_deleted()
    {
        var trainer = await fixture.SignedInAsync();
        var before = await CoursesAsync(trainer);
        var first = before[0];
        var deck = await AddAsync(trainer, "  Deck \n crew ");
        (await CoursesAsync(trainer)).Select(c => c.Title).ShouldBe([.. before.Select(c => c.Title), "Deck crew"]);
        (await trainer.PutAsJsonAsync($"/api/courses/{deck}", new { title = "On deck", description = "Lines, ramps, weather." })).EnsureSuccessStatusCode();
        var course = (await trainer.JsonAsync("/api/lessons"))[before.Count];
        (course.GetProperty("title").GetString(), course.GetProperty("description").GetString()).ShouldBe(("On deck", "Lines, ramps, weather."));

        (await trainer.PutAsJsonAsync("/api/courses/order", new { courses = before.Select(c => c.Id).Prepend(deck) })).EnsureSuccessStatusCode();
        (await CoursesAsync(trainer)).Select(c => c.Id).ShouldBe([deck, .. before.Select(c => c.Id)]);
        (await CodeAsync(await trainer.PutAsJsonAsync("/api/courses/order", new { courses = new[] { deck } }))).ShouldBe("courses-others");

        (await trainer.DeleteAsync($"/api/courses/{deck}")).EnsureSuccessStatusCode();
        (await CodeAsync(await trainer.DeleteAsync($"/api/courses/{first.Id}"))).ShouldBe("course-has-lessons");
        (await trainer.DeleteAsync($"/api/courses/{deck}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData("", "course-no-title")]
    [InlineData("  \t", "course-no-title")]
    [InlineData("Ticket desk basics", "course-title-taken")]
    public async Task A_course_is_told_from_others_by_its_title(string title, string code)
    {
        var trainer = await fixture.SignedInAsync();
        var first = (await CoursesAsync(trainer))[0];
        (await trainer.PutAsJsonAsync($"/api/courses/{first.Id}", new { title = "Ticket desk basics" })).EnsureSuccessStatusCode();
        (await CodeAsync(await trainer.PostAsJsonAsync("/api/courses", new { title }))).ShouldBe(code);
        (await CoursesAsync(trainer)).Count(c => c.Title == title).ShouldBeLessThan(2);
    }

    [Fact]
    public async Task Lessons_are_copied_and_moved_and_their_places_have_no_gaps()
    {
        var trainer = await fixture.SignedInAsync();
        var (course, lesson) = await FirstAsync(trainer);
        var one = await CopyAsync(trainer, lesson);
        var two = await CopyAsync(trainer, one);
        (await PlacesAsync(trainer, course)).Take(3).ShouldBe([(lesson, 1), (one, 2), (two, 3)]);
        var (before, after) = (await trainer.JsonAsync($"/api/lessons/{lesson}"), await trainer.JsonAsync($"/api/lessons/{one}"));
        after.GetProperty("document").GetProperty("title").GetString().ShouldBe(before.GetProperty("document").GetProperty("title").GetString() + ", copy");
        after.GetProperty("document").GetProperty("sections").ToString().ShouldBe(before.GetProperty("document").GetProperty("sections").ToString());
        (await trainer.JsonAsync($"/api/lessons/{one}/releases")).EnumerateArray().ShouldAllBe(o => o.GetProperty("release").ValueKind == JsonValueKind.Null);

        var other = await AddAsync(trainer, "For later");
        (await trainer.PostAsJsonAsync("/api/lessons/move", new { lessons = new[] { two, one }, courseId = other })).EnsureSuccessStatusCode();
        (await PlacesAsync(trainer, other)).ShouldBe([(two, 1), (one, 2)]);
        (await PlacesAsync(trainer, course)).Select(p => p.Position).ShouldBe(Enumerable.Range(1, (await PlacesAsync(trainer, course)).Count));
        (await CodeAsync(await trainer.PostAsJsonAsync("/api/lessons/move", new { lessons = new[] { one }, courseId = Guid.NewGuid() }))).ShouldBe(
            "course-gone"
        );
        (await CodeAsync(await trainer.PostAsJsonAsync("/api/lessons/move", new { lessons = new[] { Guid.NewGuid() }, courseId = course }))).ShouldBe(
            "lesson-gone"
        );

        // What was moved once is moved: again, it stays where it is.
        (await trainer.PostAsJsonAsync("/api/lessons/move", new { lessons = new[] { two }, courseId = other })).EnsureSuccessStatusCode();
        (await PlacesAsync(trainer, other)).ShouldBe([(two, 1), (one, 2)]);
    }

    [Fact]
    public async Task What_is_put_into_the_bin_is_nowhere_until_it_is_taken_out()
    {
        var trainer = await fixture.SignedInAsync();
        var (course, lesson) = await FirstAsync(trainer);
        // What learners would look for is taken down first.
        var refused = await trainer.PostAsJsonAsync("/api/bin", new { lessons = new[] { lesson } });
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("detail").GetString()!.ShouldContain("Take these down first");

        var copy = await CopyAsync(trainer, lesson);
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { copy }, profiles = new[] { "small-480p" } })).EnsureSuccessStatusCode();
        (await trainer.PostAsJsonAsync("/api/bin", new { lessons = new[] { copy } })).EnsureSuccessStatusCode();
        (await PlacesAsync(trainer, course)).ShouldNotContain(p => p.Id == copy);
        foreach (var address in new[] { $"/api/lessons/{copy}", $"/api/lessons/{copy}/picture.jpg", $"/api/lessons/{copy}/releases" })
            (await trainer.GetAsync(address)).StatusCode.ShouldBe(HttpStatusCode.NotFound, address);
        (await trainer.JsonAsync("/api/board")).GetProperty("lessons").EnumerateArray().ShouldNotContain(l => l.GetProperty("lessonId").GetGuid() == copy);
        (await trainer.JsonAsync("/api/queue")).ToString().ShouldNotContain(copy.ToString());
        (await FoundAsync(trainer, "copy")).ShouldNotContain(copy);
        var binned = (await trainer.JsonAsync("/api/bin")).EnumerateArray().Single(l => l.GetProperty("id").GetGuid() == copy);
        (binned.GetProperty("goneAt").GetDateTimeOffset() - binned.GetProperty("binnedAt").GetDateTimeOffset()).ShouldBe(TimeSpan.FromDays(30));

        (await trainer.PostAsync($"/api/bin/{copy}/restore", null)).EnsureSuccessStatusCode();
        (await PlacesAsync(trainer, course))[^1].Id.ShouldBe(copy);
        (await trainer.GetAsync($"/api/lessons/{copy}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await trainer.PostAsync($"/api/bin/{copy}/restore", null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task After_its_days_a_lesson_is_gone_and_its_recording_stays_while_another_is_made_of_it()
    {
        var trainer = await fixture.SignedInAsync();
        var (_, lesson) = await FirstAsync(trainer);
        var hash = (await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("document").GetProperty("recordingHash").GetString()!;
        var (old, young) = (await CopyAsync(trainer, lesson), await CopyAsync(trainer, lesson));
        (await trainer.PostAsJsonAsync("/api/bin", new { lessons = new[] { old, young } })).EnsureSuccessStatusCode();
        await using (var db = await DbAsync())
        {
            var long_ = DateTimeOffset.UtcNow - TimeSpan.FromDays(30) - TimeSpan.FromMinutes(1);
            await db.Lessons.IgnoreQueryFilters().Where(l => l.Id == old).ExecuteUpdateAsync(set => set.SetProperty(l => l.BinnedAt, long_));
        }

        using (var scope = fixture.Server.Services.CreateScope())
            await scope.ServiceProvider.GetRequiredService<LessonKeeper>().DoAsync(TestContext.Current.CancellationToken);
        var bin = (await trainer.JsonAsync("/api/bin")).EnumerateArray().Select(l => l.GetProperty("id").GetGuid()).ToList();
        bin.ShouldContain(young);
        bin.ShouldNotContain(old);
        await using (var db = await DbAsync())
        {
            (await db.LessonRevisions.AnyAsync(r => r.LessonId == old)).ShouldBeFalse();
            (await db.Recordings.AnyAsync(r => r.Hash == hash)).ShouldBeTrue();
        }

        (await trainer.DeleteAsync($"/api/bin/{young}")).EnsureSuccessStatusCode();
        (await trainer.DeleteAsync($"/api/bin/{young}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.DeleteAsync($"/api/bin/{lesson}")).StatusCode.ShouldBe(HttpStatusCode.NotFound, "What is not in the bin is not deleted from it.");
        File.Exists(Path.Combine(fixture.Data, "recordings", hash)).ShouldBeTrue();
    }

    [Fact]
    public async Task The_list_says_what_each_lesson_waits_for()
    {
        var trainer = await fixture.SignedInAsync();
        var (_, lesson) = await FirstAsync(trainer);
        var copy = await CopyAsync(trainer, lesson);
        JsonElement Row(JsonElement list, Guid id) =>
            list.EnumerateArray().SelectMany(c => c.GetProperty("lessons").EnumerateArray()).Single(l => l.GetProperty("id").GetGuid() == id);
        (string?, string?) Next(JsonElement row) =>
            (row.GetProperty("next").GetProperty("stage").GetString(), row.GetProperty("next").GetProperty("words").GetString());
        var list = await trainer.JsonAsync("/api/lessons");
        Next(Row(list, copy)).ShouldBe(("tidy", "Tidy it"));
        Next(Row(list, lesson)).Item1.ShouldBe("deliver");
        await SayAsync(trainer, copy, d => d["title"] = "");
        Next(Row(await trainer.JsonAsync("/api/lessons"), copy)).ShouldBe(("bringIn", "Give it a title"));
        await SayAsync(trainer, copy, d =>
        {
            d["title"] = "A copy of its own";
            d["details"] = JsonNode.Parse("""{ "shortTitle": "Copy", "author": { "name": "Mara Tarn" } }""");
        });
        var row = Row(await trainer.JsonAsync("/api/lessons"), copy);
        Next(row).ShouldBe(("markUp", "Mark it up, then deliver"));
        (row.GetProperty("shortTitle").GetString(), row.GetProperty("author").GetString()).ShouldBe(("Copy", "Mara Tarn"));
    }

    [Fact]
    public async Task What_lessons_say_is_found_as_they_stand_with_its_place()
    {
        var trainer = await fixture.SignedInAsync();
        var (_, lesson) = await FirstAsync(trainer);
        var copy = await CopyAsync(trainer, lesson);
        await SayAsync(trainer, copy, d =>
        {
            d["title"] = "100 % of_the\\float";
            d["sections"] = JsonNode.Parse("""[{ "id": "s1", "at": 2000, "title": "Gangway in heavy seas", "nested": false }]""");
            d["details"] = JsonNode.Parse("""{ "tags": ["zebra"] }""");
        });
        (await FoundAsync(trainer, "zebra GANGWAY")).ShouldBe([copy]);
        var hit = (await trainer.JsonAsync("/api/search?words=heavy%20seas")).GetProperty("lessons")[0].GetProperty("hits")[0];
        (hit.GetProperty("kind").GetString(), hit.GetProperty("at").GetInt64()).ShouldBe(("section", 2000));
        hit.GetProperty("found").GetArrayLength().ShouldBe(2);
        // What means something to the database means nothing here.
        (await FoundAsync(trainer, "% of_the\\")).ShouldBe([copy]);
        (await FoundAsync(trainer, "100_%")).ShouldBeEmpty();
        (await FoundAsync(trainer, "   ")).ShouldBeEmpty();

        // What is said no more is found no more.
        await SayAsync(trainer, copy, d => d["sections"] = new JsonArray());
        (await FoundAsync(trainer, "gangway")).ShouldBeEmpty();
    }

    private async Task<WexelDb> DbAsync() => await fixture.Server.Services.GetRequiredService<IDbContextFactory<WexelDb>>().CreateDbContextAsync();

    private static async Task<List<Guid>> FoundAsync(HttpClient trainer, string words) =>
        [
            .. (await trainer.JsonAsync($"/api/search?words={Uri.EscapeDataString(words)}"))
                .GetProperty("lessons")
                .EnumerateArray()
                .Select(l => l.GetProperty("lessonId").GetGuid()),
        ];

    private static async Task SayAsync(HttpClient trainer, Guid lesson, Action<JsonNode> change)
    {
        var now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = JsonNode.Parse(now.GetProperty("document").GetRawText())!;
        change(document);
        var answer = await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = now.GetProperty("revision").GetInt32(), document });
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
    }

    private static async Task<List<(Guid Id, string Title)>> CoursesAsync(HttpClient trainer) =>
        [.. (await trainer.JsonAsync("/api/lessons")).EnumerateArray().Select(c => (c.GetProperty("id").GetGuid(), c.GetProperty("title").GetString()!))];

    /// <summary>The course of the lesson that was released first, and that lesson.</summary>
    private static async Task<(Guid Course, Guid Lesson)> FirstAsync(HttpClient trainer)
    {
        var course = (await trainer.JsonAsync("/api/lessons")).EnumerateArray().First(c => c.GetProperty("lessons").GetArrayLength() > 0);
        return (course.GetProperty("id").GetGuid(), course.GetProperty("lessons")[0].GetProperty("id").GetGuid());
    }

    private static async Task<List<(Guid Id, int Position)>> PlacesAsync(HttpClient trainer, Guid course) =>
        [
            .. (await trainer.JsonAsync("/api/lessons"))
                .EnumerateArray()
                .Single(c => c.GetProperty("id").GetGuid() == course)
                .GetProperty("lessons")
                .EnumerateArray()
                .Select(l => (l.GetProperty("id").GetGuid(), l.GetProperty("position").GetInt32())),
        ];

    private static async Task<Guid> AddAsync(HttpClient trainer, string title)
    {
        var answer = await trainer.PostAsJsonAsync("/api/courses", new { title });
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
        return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetGuid();
    }

    private static async Task<Guid> CopyAsync(HttpClient trainer, Guid lesson)
    {
        var answer = await trainer.PostAsync($"/api/lessons/{lesson}/copy", null);
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
        return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetGuid();
    }

    private static async Task<string?> CodeAsync(HttpResponseMessage answer)
    {
        answer.IsSuccessStatusCode.ShouldBeFalse();
        return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString();
    }
}
