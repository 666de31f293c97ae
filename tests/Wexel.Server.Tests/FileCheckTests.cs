using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Wexel.Server.Tests;

public sealed class FileCheckTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    [Fact]
    public async Task A_file_that_is_wrong_is_not_released_until_somebody_lets_it_pass_with_a_reason()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        // The poorest quality that there is: text gets blurred.
        var poor = JsonNode.Parse((await trainer.JsonAsync("/api/profiles"))[0].GetProperty("profile").GetRawText())!.AsObject();
        poor["title"] = "Poor";
        poor["picture"]!["rate"]!["quality"] = 51;
        poor["picture"]!["size"] = new JsonObject { ["rule"] = "atMostHeight", ["height"] = 360 };
        var profile = (await (await trainer.PostAsJsonAsync("/api/profiles", poor)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!;
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { profile } })).EnsureSuccessStatusCode();
        JsonElement Mine(JsonElement d) => d.GetProperty("renditions").EnumerateArray().First(r => r.GetProperty("profileId").GetString() == profile);
        var done = Mine(await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => Mine(d).GetProperty("state").GetString() == "done"));
        var wrong = done.GetProperty("check").EnumerateArray().Where(f => f.GetProperty("verdict").GetString() == "wrong").ToList();
        wrong.Select(f => f.GetProperty("code").GetString()).ShouldContain("sharpness");

        var channel = (await trainer.JsonAsync("/api/outlets"))
            .EnumerateArray()
            .First(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("id")
            .GetGuid();
        async Task<HttpResponseMessage> ReleaseAsync() =>
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = channel,
                    profileId = profile,
                    visibility = "withLink",
                }
            );
        var blocked = await ReleaseAsync();
        blocked.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await blocked.ProblemAsync()).GetProperty("code").GetString().ShouldBe("file-check-failed");

        var letPass = $"/api/renditions/{done.GetProperty("id").GetGuid()}/let-pass";
        (await (await trainer.PostAsJsonAsync(letPass, new { code = "sharpness", reason = " " })).ProblemAsync())
            .GetProperty("field")
            .GetString()
            .ShouldBe("reason");
        (await (await trainer.PostAsJsonAsync(letPass, new { code = "length", reason = "It is fine" })).ProblemAsync())
            .GetProperty("code")
            .GetString()
            .ShouldBe("check-not-wrong");
        foreach (var fact in wrong)
            (
                await trainer.PostAsJsonAsync(letPass, new { code = fact.GetProperty("code").GetString(), reason = "Only a draft for the crew" })
            ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ReleaseAsync()).StatusCode.ShouldBe(HttpStatusCode.OK);
        var kept = Mine(await trainer.JsonAsync($"/api/lessons/{lesson}/deliver")).GetProperty("letPass").EnumerateArray().First();
        (kept.GetProperty("reason").GetString(), kept.GetProperty("by").GetString()).ShouldBe(("Only a draft for the crew", ServerFixture.Trainer));

        // Side by side, from the worst moment on.
        var compare = await trainer.JsonAsync($"/api/renditions/{done.GetProperty("id").GetGuid()}/compare");
        var frame = compare.GetProperty("worst")[0].GetProperty("frame").GetInt64();
        foreach (var side in new[] { "source", "made" })
        {
            var png = await trainer.GetByteArrayAsync($"/api/renditions/{done.GetProperty("id").GetGuid()}/compare/{frame}/{side}.png");
            // Width and height in an IHDR (PNG, section 11.2.1).
            (png[16..24]).ShouldBe([0, 0, 2, 0x80, 0, 0, 1, 0x68]);
        }

        (await trainer.GetAsync($"/api/renditions/{done.GetProperty("id").GetGuid()}/compare/99999999/made.png")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await fixture.Anonymous().GetAsync($"/api/renditions/{done.GetProperty("id").GetGuid()}/compare/1/made.png")).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
    }
}
