using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Documents;
using Wexel.Core.Packages;
using Wexel.Core.Surveys;
using Wexel.Data;

namespace Wexel.Server.Tests;

/// <summary>What learners say of a lesson: taken once, with nothing beside it that tells who said it where that was promised.</summary>
public sealed class SurveyTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private const string Asked = """
        {"title":"=The lesson","named":NAMED,"items":[
        {"kind":"scale","id":"i1","text":"It helps","steps":5,"low":"no","high":"yes"},
        {"kind":"comment","id":"i2","text":"What was missing?"}]}
        """;

    private async Task<(HttpClient Trainer, Guid Lesson, string Token)> AskingAsync(bool named)
    {
        var cancel = TestContext.Current.CancellationToken;
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        var asked = Asked.Replace("NAMED", named ? "true" : "false", StringComparison.Ordinal);
        var now = JsonNode.Parse(await trainer.GetStringAsync($"/api/lessons/{lesson}", cancel))!;
        now["document"]!["survey"] = JsonNode.Parse(asked);
        var saved = await trainer.PutAsJsonAsync(
            $"/api/lessons/{lesson}/document",
            new { basedOn = now["revision"]!.GetValue<int>(), document = now["document"] },
            cancel
        );
        saved.StatusCode.ShouldBe(HttpStatusCode.OK, await saved.Content.ReadAsStringAsync(cancel));
        await using var scope = fixture.Server.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        await db.SurveyReplies.ExecuteDeleteAsync(cancel);
        await db.SurveyMarks.ExecuteDeleteAsync(cancel);
        var release = await db.Releases.FirstAsync(r => r.LessonId == lesson && r.Outlet!.Kind == "channel", cancel);
        var page = PlayerLesson.Format.Read(release.Player) with { Survey = WexelJson.Read<Survey>(asked) };
        release.Player = PlayerLesson.Format.Write(page);
        await db.SaveChangesAsync(cancel);
        return (trainer, lesson, release.Token);
    }

    private static async Task<(HttpStatusCode Status, string Said)> SayAsync(HttpClient learner, string token, string key, object values)
    {
        var cancel = TestContext.Current.CancellationToken;
        var sent = await learner.PostAsJsonAsync($"/watch/{token}/survey", new { learner = key, values }, cancel);
        var body = await sent.Content.ReadAsStringAsync(cancel);
        var said = sent.StatusCode == HttpStatusCode.UnprocessableEntity ? JsonDocument.Parse(body).RootElement.GetProperty("detail").GetString()! : "";
        return (sent.StatusCode, said);
    }

    [Fact]
    public async Task An_anonymous_reply_is_kept_without_whoever_gave_it_and_shown_from_five_on()
    {
        var cancel = TestContext.Current.CancellationToken;
        var (trainer, lesson, token) = await AskingAsync(named: false);
        (await fixture.Anonymous().GetStringAsync($"/watch/{token}", cancel)).ShouldContain("wexel-survey.js");
        (await trainer.JsonAsync($"/api/lessons/{lesson}/results/survey")).GetProperty("named").GetBoolean().ShouldBeFalse();
        var known = await fixture.SignedInAsync();
        (await SayAsync(known, token, "x", new { i1 = new[] { "5" }, i2 = new[] { "Nothing." } })).Status.ShouldBe(HttpStatusCode.NoContent);
        (await SayAsync(known, token, "y", new { i1 = new[] { "1" } })).ShouldBe(
            (HttpStatusCode.UnprocessableEntity, "You said what you think of this lesson before. It counts once.")
        );
        (await known.JsonAsync($"/watch/{token}/progress?learner=x")).GetProperty("surveyed").GetBoolean().ShouldBeTrue();
        (await SayAsync(fixture.Anonymous(), token, "n", new { i1 = (string[]?)null })).Said.ShouldBe("Nothing is filled in yet.");
        (await SayAsync(fixture.Anonymous(), token, "e", new { i1 = new[] { "9" }, i7 = new[] { "x" } })).Said.ShouldBe("Nothing is filled in yet.");
        foreach (var i in Enumerable.Range(0, 3))
            await SayAsync(fixture.Anonymous(), token, $"k{i}", new { i1 = new[] { "2" }, i2 = new[] { "=1+1" } });

        await using var scope = fixture.Server.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        var rows = await db.SurveyReplies.AsNoTracking().ToListAsync(cancel);
        rows.Count.ShouldBe(4);
        rows.ShouldAllBe(r => r.LearnerKey == null && r.Name == null && r.At == null);
        // Nothing of it is in the log, which knows times.
        (await db.LearningLog.Select(e => e.Data).ToListAsync(cancel)).ShouldAllBe(data => !data.Contains("Nothing."));

        var few = (await trainer.JsonAsync($"/api/lessons/{lesson}/results/survey")).GetProperty("results");
        (few.GetProperty("replies").GetInt32(), few.GetProperty("items").GetArrayLength()).ShouldBe((4, 0));
        (await trainer.GetStringAsync($"/api/lessons/{lesson}/survey.csv", cancel)).TrimEnd().Split('\n').Length.ShouldBe(1);
        await SayAsync(fixture.Anonymous(), token, "k9", new { i1 = new[] { "2" } });
        var enough = (await trainer.JsonAsync($"/api/lessons/{lesson}/results/survey")).GetProperty("results").GetProperty("items");
        enough[0].GetProperty("mean").GetDouble().ShouldBe(2.6);
        enough[1].GetProperty("comments").EnumerateArray().Select(c => c.GetString()).ShouldBe(["=1+1", "=1+1", "=1+1", "Nothing."]);
        var group = await trainer.JsonAsync($"/api/lessons/{lesson}/results/survey?group={Guid.NewGuid()}");
        group.GetProperty("results").GetProperty("withheld").GetString().ShouldBe("Replies are anonymous: which group said what is not known.");
        var csv = await trainer.GetStringAsync($"/api/lessons/{lesson}/survey.csv", cancel);
        csv.ShouldContain("'=1+1");
        csv.ShouldNotContain("Mara");
    }

    [Fact]
    public async Task A_named_reply_is_shown_with_its_name_and_goes_with_its_person()
    {
        var cancel = TestContext.Current.CancellationToken;
        var (trainer, lesson, token) = await AskingAsync(named: true);
        const string mail = "ivo.lund@brackwater.example";
        var id = await fixture.PersonAsync(mail, "Ivo Lund");
        (await SayAsync(await fixture.SignedInAsync(mail), token, "x", new { i1 = new[] { "4" }, i2 = new[] { "The keys." } })).Status.ShouldBe(
            HttpStatusCode.NoContent
        );
        var shown = await trainer.JsonAsync($"/api/lessons/{lesson}/results/survey");
        (shown.GetProperty("named").GetBoolean(), shown.GetProperty("results").GetProperty("items").GetArrayLength()).ShouldBe((true, 2));
        (await trainer.GetStringAsync($"/api/lessons/{lesson}/survey.csv", cancel)).ShouldContain("Ivo Lund");
        (await trainer.GetStringAsync($"/api/people/{id}/data", cancel)).ShouldContain("The keys.");

        (await trainer.PutAsync($"/api/people/{id}/disabled", null, cancel)).EnsureSuccessStatusCode();
        (await trainer.DeleteAsync($"/api/people/{id}/data", cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await trainer.GetStringAsync($"/api/lessons/{lesson}/survey.csv", cancel)).ShouldNotContain("Ivo Lund");
    }

    [Fact]
    public async Task A_lesson_without_a_survey_takes_none_and_says_so()
    {
        var cancel = TestContext.Current.CancellationToken;
        var (trainer, lesson, token) = await AskingAsync(named: true);
        await fixture.WithAsync(async db =>
        {
            var release = await db.Releases.FirstAsync(r => r.Token == token, cancel);
            release.Player = PlayerLesson.Format.Write(PlayerLesson.Format.Read(release.Player) with { Survey = null });
            await db.SaveChangesAsync(cancel);
        });
        (await SayAsync(fixture.Anonymous(), token, "z", new { i1 = new[] { "4" } })).ShouldBe(
            (HttpStatusCode.UnprocessableEntity, "That survey is not asked any more. Load the page again.")
        );
        (await SayAsync(fixture.Anonymous(), "no-such-page", "z", new { i1 = new[] { "4" } })).Status.ShouldBe(HttpStatusCode.NotFound);
        (await fixture.Anonymous().GetAsync($"/api/lessons/{lesson}/results/survey", cancel)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await trainer.GetAsync($"/api/lessons/{Guid.NewGuid()}/results/survey", cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }
}
