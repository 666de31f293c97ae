using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Learning;
using Wexel.Data;

namespace Wexel.Server.Tests;

/// <summary>What learners say of moments of lessons, and what is answered.</summary>
public sealed class NoteTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private const string Browser = "0123456789abcdef0123456789abcdef";

    [Fact]
    public async Task Whoever_makes_lessons_gets_from_the_page_to_the_captions_at_that_moment_and_a_learner_does_not()
    {
        var (page, lesson) = await ChannelAsync();
        var (trainer, learner) = (await fixture.SignedInAsync(), await fixture.SignedInAsync(ServerFixture.Learner));
        (await trainer.GetStringAsync(page)).ShouldContain($"\"correcting\":\"{page}/correct\"");
        (await learner.GetStringAsync(page)).ShouldContain("\"correcting\":null");
        (await fixture.Anonymous().GetAsync($"{page}/correct?at=500")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await learner.GetAsync($"{page}/correct?at=500")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        foreach (var (at, there) in new[] { ("500", 500), ("-1", 0), ("NaN", 0) })
        {
            var answer = await trainer.GetAsync($"{page}/correct?at={at}");
            (answer.StatusCode, answer.Headers.Location!.OriginalString).ShouldBe((HttpStatusCode.Redirect, $"/lessons/{lesson}/mark-up?at={there}"));
        }
    }

    [Fact]
    public async Task A_note_waits_in_the_sheet_and_its_answer_goes_to_whoever_left_it()
    {
        var (page, lesson) = await ChannelAsync();
        const string ada = "ada.knoll@brackwater.example";
        await fixture.PersonAsync(ada, "Ada Knoll");
        var (owner, learner, stranger) = (await fixture.SignedInAsync(), await fixture.SignedInAsync(ada), fixture.Anonymous());
        (await LeaveAsync(learner, page, "outOfDate", 1000, " The float is 200 now. ")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await LeaveAsync(stranger, page, "notUnderstood", 2000, "")).StatusCode.ShouldBe(HttpStatusCode.OK);

        var waiting = (await owner.JsonAsync($"/api/lessons/{lesson}/notes")).EnumerateArray().ToList();
        waiting
            .ConvertAll(n =>
                (n.GetProperty("kind").GetString(), n.GetProperty("text").GetString(), n.GetProperty("at").GetInt64(), n.GetProperty("tellsThem").GetBoolean())
            )
            .ShouldBe([("outOfDate", "The float is 200 now.", 1000, true), ("notUnderstood", "", 2000, false)]);
        // Nobody reads what others wrote, and learners do not see the desk's list.
        (await OwnAsync(learner, page)).Count.ShouldBe(1);
        (await OwnAsync(stranger, page, "f" + Browser[1..])).ShouldBeEmpty();
        (await learner.GetAsync($"/api/lessons/{lesson}/notes")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        async Task<HttpStatusCode> AnswerAsync(int note, string text) =>
            (await owner.PostAsJsonAsync($"/api/lessons/{lesson}/notes/{waiting[note].GetProperty("id").GetGuid()}/answer", new { text })).StatusCode;
        (await AnswerAsync(0, new string('a', NoteRules.LongestText + 1))).ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await AnswerAsync(0, "Thank you, mended.")).ShouldBe(HttpStatusCode.NoContent);
        (await AnswerAsync(1, " ")).ShouldBe(HttpStatusCode.NoContent);
        (await owner.JsonAsync($"/api/lessons/{lesson}/notes")).GetArrayLength().ShouldBe(0);
        var answered = (await OwnAsync(learner, page)).Single();
        (answered.GetProperty("answer").GetString(), answered.GetProperty("answered").GetBoolean()).ShouldBe(("Thank you, mended.", true));
        var seenTo = (await OwnAsync(stranger, page)).Single();
        (seenTo.GetProperty("answer").ValueKind, seenTo.GetProperty("answered").GetBoolean()).ShouldBe((JsonValueKind.Null, true));
        var mail = await fixture.Outside.MailAsync(ada);
        mail.GetProperty("text").GetString()!.ShouldContain("> The float is 200 now.");
        mail.GetProperty("text").GetString()!.ShouldContain("Thank you, mended.");
        (await owner.PostAsJsonAsync($"/api/lessons/{lesson}/notes/{Guid.NewGuid()}/answer", new { text = "" })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task What_is_no_note_is_refused_with_a_sentence_and_a_flood_is_stopped()
    {
        var (page, lesson) = await ChannelAsync();
        var stranger = fixture.Anonymous();
        foreach (
            var (at, text, code) in new[]
            {
                (-1L, "", "note-outside"),
                (3_600_000L, "", "note-outside"),
                (long.MaxValue, "", "note-outside"),
                (0L, new string('a', NoteRules.LongestText + 1), "note-too-long"),
            }
        )
        {
            var refused = await LeaveAsync(stranger, page, "outOfDate", at, text);
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await refused.ProblemAsync()).GetProperty("code").GetString().ShouldBe(code);
        }

        (await LeaveAsync(stranger, page, "advert", 0, "")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await LeaveAsync(stranger, "/watch/nothing", "outOfDate", 0, "")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var left = 0;
        string? stopped = null;
        for (var i = 0; i < 2 * NoteRules.MostWaiting && stopped is null; i++)
        {
            var answer = await LeaveAsync(stranger, page, "outOfDate", 0, $"{i}", "e" + Browser[1..]);
            if (answer.IsSuccessStatusCode)
                left++;
            else
                stopped = (await answer.ProblemAsync()).GetProperty("code").GetString();
        }

        left.ShouldBeLessThanOrEqualTo(NoteRules.MostWaiting);
        stopped.ShouldBeOneOf("notes-too-many", "too-often");
        using var scope = fixture.Server.Services.CreateScope();
        var kept = scope.ServiceProvider.GetRequiredService<WexelDb>().LearnerNotes.Where(n => n.LessonId == lesson && n.LearnerKey.StartsWith("link-e"));
        (await kept.ExecuteDeleteAsync(TestContext.Current.CancellationToken)).ShouldBe(left);
    }

    private static Task<HttpResponseMessage> LeaveAsync(HttpClient who, string page, string kind, long at, string text, string learner = Browser) =>
        who.PostAsJsonAsync(
            page + "/notes",
            new
            {
                learner,
                kind,
                at,
                text,
            }
        );

    private static async Task<List<JsonElement>> OwnAsync(HttpClient who, string page, string learner = Browser) =>
        [.. (await who.JsonAsync($"{page}/notes?learner={learner}")).EnumerateArray()];

    private async Task<(string Page, Guid Lesson)> ChannelAsync()
    {
        using var scope = fixture.Server.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        var one = await db.Releases.FirstAsync(r => r.Outlet!.Kind == "channel", TestContext.Current.CancellationToken);
        return ($"/watch/{one.Token}", one.LessonId);
    }
}
