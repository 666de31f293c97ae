using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Encoding;
using Wexel.Data;

namespace Wexel.Server.Tests;

public sealed class BatchTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private static async Task<Guid> LessonAsync(HttpClient trainer)
    {
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        return lesson;
    }

    private static async Task<JsonElement> AskAsync(HttpClient trainer, IEnumerable<Guid> lessons, params string[] profiles) =>
        await (await trainer.PostAsJsonAsync("/api/renditions", new { lessons, profiles })).EnsureSuccessStatusCode().Content.ReadFromJsonAsync<JsonElement>();

    private static async Task<List<JsonElement>> EndedAsync(HttpClient trainer, JsonElement asked)
    {
        var ids = asked.GetProperty("renditions").EnumerateArray().Select(r => r.GetProperty("id").GetGuid()).ToList();
        List<JsonElement> Of(JsonElement queue) => [.. queue.EnumerateArray().Where(r => ids.Contains(r.GetProperty("id").GetGuid()))];
        return Of(await trainer.UntilAsync("/api/queue", q => Of(q).All(r => r.GetProperty("state").GetString() is "done" or "failed" or "cancelled")));
    }

    [Fact]
    public async Task Several_files_of_a_lesson_are_made_in_one_pass_and_one_mail_tells_of_all_of_them()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var ended = await EndedAsync(trainer, await AskAsync(trainer, [lesson], "small-480p", "web-720p", "open-formats"));
        ended.ShouldAllBe(r => r.GetProperty("state").GetString() == "done");
        ended.SelectMany(r => r.GetProperty("check").EnumerateArray()).Where(f => f.GetProperty("verdict").GetString() == "wrong").ShouldBeEmpty();
        // One pass: they began and ended together.
        ended
            .Select(r => r.GetProperty("endedAt").GetDateTimeOffset())
            .Max()
            .ShouldBeLessThan(ended.Select(r => r.GetProperty("endedAt").GetDateTimeOffset()).Min() + TimeSpan.FromSeconds(2));
        foreach (var rendition in ended)
        {
            using var file = await trainer.GetAsync($"/api/renditions/{rendition.GetProperty("id").GetGuid()}/file", HttpCompletionOption.ResponseHeadersRead);
            file.Content.Headers.ContentType!.MediaType.ShouldBe(
                rendition.GetProperty("profileId").GetString() switch
                {
                    "open-formats" => "video/webm",
                    _ => "video/mp4",
                }
            );
        }

        var mail = await MailAsync("Ready: 3 files");
        mail.ShouldContain("Small 480p");
        mail.ShouldContain("Web 720p");
        mail.ShouldContain("Open formats");

        // What is encoded already is not encoded again for a profile that differs only in what is put around it.
        var same = JsonNode
            .Parse(
                (await trainer.JsonAsync("/api/profiles"))
                    .EnumerateArray()
                    .First(p => p.GetProperty("profile").GetProperty("id").GetString() == "small-480p")
                    .GetProperty("profile")
                    .GetRawText()
            )!
            .AsObject();
        same["chapters"] = false;
        var copy = await (await trainer.PostAsJsonAsync("/api/profiles", same)).Content.ReadFromJsonAsync<JsonElement>();
        var offer = (await trainer.JsonAsync($"/api/lessons/{lesson}/deliver"))
            .GetProperty("profiles")
            .EnumerateArray()
            .First(p => p.GetProperty("id").GetString() == copy.GetProperty("id").GetString());
        offer.GetProperty("nothingToEncode").GetBoolean().ShouldBeTrue();
    }

    [Fact]
    public async Task A_pass_takes_no_more_pictures_than_the_machine_has_room_for()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var share = fixture.Server.Services.GetRequiredService<MachineShare>();
        var profiles = new List<string>();
        for (var i = 0; i <= share.Pictures; i++)
        {
            var profile = JsonNode
                .Parse(
                    (await trainer.JsonAsync("/api/profiles"))
                        .EnumerateArray()
                        .First(p => p.GetProperty("profile").GetProperty("id").GetString() == "small-480p")
                        .GetProperty("profile")
                        .GetRawText()
                )!
                .AsObject();
            (profile["title"], profile["picture"]!["rate"]!["quality"], profile["picture"]!["effort"]) = ($"Small {i}", 30 + i, "fastest");
            profiles.Add(
                (await (await trainer.PostAsJsonAsync("/api/profiles", profile)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!
            );
        }

        var ended = await EndedAsync(trainer, await AskAsync(trainer, [lesson], [.. profiles]));
        ended.ShouldAllBe(r => r.GetProperty("state").GetString() == "done");
        await using var db = await fixture.Server.Services.GetRequiredService<IDbContextFactory<WexelDb>>().CreateDbContextAsync();
        var began = await db.Renditions.Where(r => profiles.Contains(r.ProfileId)).Select(r => r.StartedAt!.Value).ToListAsync();
        // What is made in one pass begins at one time.
        began.CountBy(at => at).OrderBy(at => at.Key).Select(at => at.Value).ShouldBe([share.Pictures, 1]);
    }

    [Fact]
    public async Task What_cannot_be_rendered_is_said_and_the_rest_goes_on()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var exact = JsonNode.Parse((await trainer.JsonAsync("/api/profiles"))[0].GetProperty("profile").GetRawText())!.AsObject();
        exact["title"] = "Wall screen";
        exact["picture"]!["size"] = new JsonObject
        {
            ["rule"] = "exact",
            ["width"] = 3840,
            ["height"] = 2160,
        };
        var wall = (await (await trainer.PostAsJsonAsync("/api/profiles", exact)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!;
        var asked = await AskAsync(trainer, [lesson], wall, "full-hd");
        asked.GetProperty("renditions").GetArrayLength().ShouldBe(1);
        asked.GetProperty("refused")[0].GetProperty("profileTitle").GetString().ShouldBe("Wall screen");
        var alone = await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { wall } });
        alone.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await alone.ProblemAsync()).GetProperty("code").GetString().ShouldBe("size-scales-up");
        (await (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "podcast-sound" } })).ProblemAsync())
            .GetProperty("code")
            .GetString()
            .ShouldBe("lesson-without-sound");
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = Array.Empty<Guid>(), profiles = new[] { "web" } })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        await EndedAsync(trainer, asked);
    }

    [Fact]
    public async Task What_waits_can_be_made_the_next_kept_for_later_and_gone_on_with()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        // The worker is kept busy by the slowest there is, so that others wait.
        var slow = JsonNode
            .Parse(
                (await trainer.JsonAsync("/api/profiles"))
                    .EnumerateArray()
                    .First(p => p.GetProperty("profile").GetProperty("id").GetString() == "open-formats")
                    .GetProperty("profile")
                    .GetRawText()
            )!
            .AsObject();
        slow["title"] = "Slow";
        slow["picture"]!["effort"] = "smallest";
        slow["picture"]!["timing"] = new JsonObject { ["rule"] = "asRecorded" };
        var slowId = (await (await trainer.PostAsJsonAsync("/api/profiles", slow)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!;
        Guid Of(JsonElement asked) => asked.GetProperty("renditions")[0].GetProperty("id").GetGuid();
        string State(JsonElement queue, Guid id) => queue.EnumerateArray().First(r => r.GetProperty("id").GetGuid() == id).GetProperty("state").GetString()!;
        List<Guid> Waiting(JsonElement queue) =>
            [.. queue.EnumerateArray().Where(r => r.GetProperty("state").GetString() == "waiting").Select(r => r.GetProperty("id").GetGuid())];
        async Task<HttpStatusCode> ActAsync(Guid id, string act) => (await trainer.PostAsync($"/api/renditions/{id}/{act}", null)).StatusCode;

        var working = Of(await AskAsync(trainer, [lesson], slowId));
        await trainer.UntilAsync("/api/queue", q => State(q, working) == "working");
        var (one, two) = (Of(await AskAsync(trainer, [lesson], "full-hd")), Of(await AskAsync(trainer, [lesson], "master")));
        Waiting(await trainer.JsonAsync("/api/queue")).ShouldBe([one, two]);
        (await ActAsync(two, "first")).ShouldBe(HttpStatusCode.NoContent);
        Waiting(await trainer.JsonAsync("/api/queue")).ShouldBe([two, one]);
        // Any order, as it was dragged; what does not wait is left out.
        async Task OrderAsync(params Guid[] renditions) =>
            (await trainer.PutAsJsonAsync("/api/queue/order", new { renditions })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await OrderAsync(working, one, two);
        Waiting(await trainer.JsonAsync("/api/queue")).ShouldBe([one, two]);
        await OrderAsync(two, one);
        Waiting(await trainer.JsonAsync("/api/queue")).ShouldBe([two, one]);
        (await ActAsync(one, "hold")).ShouldBe(HttpStatusCode.NoContent);
        (await ActAsync(one, "first")).ShouldBe(HttpStatusCode.Conflict);
        // Stopping the one that is worked on ends its encoder, and the next one's turn comes; what is kept for later stays.
        (await ActAsync(working, "cancel")).ShouldBe(HttpStatusCode.NoContent);
        await trainer.UntilAsync("/api/queue", q => State(q, two) == "done");
        State(await trainer.JsonAsync("/api/queue"), one).ShouldBe("held");
        (await ActAsync(two, "go-on")).ShouldBe(HttpStatusCode.Conflict);
        (await ActAsync(one, "go-on")).ShouldBe(HttpStatusCode.NoContent);
        await trainer.UntilAsync("/api/queue", q => State(q, one) == "done");
        (await ActAsync(one, "cancel")).ShouldBe(HttpStatusCode.Conflict);
    }

    private async Task<string> MailAsync(string subject)
    {
        JsonElement? Found(JsonElement mails) =>
            mails.EnumerateArray().Cast<JsonElement?>().FirstOrDefault(m => m!.Value.GetProperty("subject").GetString() == subject);
        var mails = await fixture.Outside.Client.UntilAsync("mail.json", m => Found(m) is not null);
        return Found(mails)!.Value.GetProperty("text").GetString()!;
    }
}
