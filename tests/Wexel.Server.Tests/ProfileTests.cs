using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Wexel.Server.Tests;

public sealed class ProfileTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private static async Task<JsonElement> ProfileAsync(HttpClient trainer, string id) =>
        (await trainer.JsonAsync("/api/profiles")).EnumerateArray().First(p => p.GetProperty("profile").GetProperty("id").GetString() == id);

    private static async Task<JsonObject> CopyAsync(HttpClient trainer, string id) =>
        JsonNode
            .Parse(
                await (await trainer.PostAsJsonAsync("/api/profiles", (await ProfileAsync(trainer, id)).GetProperty("profile"))).Content.ReadAsStringAsync()
            )!
            .AsObject();

    private static ByteArrayContent File(string text) =>
        new(Encoding.UTF8.GetBytes(text)) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };

    [Fact]
    public async Task Shipped_profiles_cannot_be_changed_and_a_copy_can()
    {
        var trainer = await fixture.SignedInAsync();
        var web = await ProfileAsync(trainer, "web");
        web.GetProperty("shipped").GetBoolean().ShouldBeTrue();
        var answer = await trainer.PutAsJsonAsync("/api/profiles/web", web.GetProperty("profile"));
        answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await answer.ProblemAsync())
            .GetProperty("detail")
            .GetString()
            .ShouldBe("“Web, as recorded” comes with Wexel and stays as it is. Make a copy, and change that.");
        (await trainer.DeleteAsync("/api/profiles/web")).StatusCode.ShouldBe(HttpStatusCode.Conflict);

        var copy = await CopyAsync(trainer, "web");
        var again = await CopyAsync(trainer, "web");
        (copy["title"]!.GetValue<string>(), again["title"]!.GetValue<string>()).ShouldBe(("Web, as recorded 2", "Web, as recorded 3"));
        copy["title"] = "Web, as recorded 3";
        (await (await trainer.PutAsJsonAsync($"/api/profiles/{copy["id"]}", copy)).ProblemAsync())
            .GetProperty("code")
            .GetString()
            .ShouldBe("profile-name-taken");
        copy["title"] = "Deck screens";
        copy["picture"]!["rate"]!["quality"] = 99;
        var refused = await (await trainer.PutAsJsonAsync($"/api/profiles/{copy["id"]}", copy)).ProblemAsync();
        (refused.GetProperty("code").GetString(), refused.GetProperty("field").GetString()).ShouldBe(("quality-out-of-range", "picture.rate.quality"));
        copy["picture"]!["rate"]!["quality"] = 24;
        (await trainer.PutAsJsonAsync($"/api/profiles/{copy["id"]}", copy)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ProfileAsync(trainer, copy["id"]!.GetValue<string>()))
            .GetProperty("profile")
            .GetProperty("picture")
            .GetProperty("rate")
            .GetProperty("quality")
            .GetInt32()
            .ShouldBe(24);
        (await trainer.DeleteAsync($"/api/profiles/{copy["id"]}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await trainer.DeleteAsync($"/api/profiles/{copy["id"]}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_profile_goes_out_and_comes_in_as_a_document()
    {
        var trainer = await fixture.SignedInAsync();
        var exported = await trainer.GetAsync("/api/profiles/small-480p/document");
        exported.Content.Headers.ContentDisposition!.FileName.ShouldBe("small-480p.profile.json");
        var text = await exported.Content.ReadAsStringAsync();
        var added = await (
            await trainer.PostAsync("/api/profiles/document", File(text.Replace("Small 480p", "Small for the crew bus", StringComparison.Ordinal)))
        ).Content.ReadFromJsonAsync<JsonElement>();
        added.GetProperty("id").GetString().ShouldBe("small-for-the-crew-bus");
        var broken = await trainer.PostAsync(
            "/api/profiles/document",
            File(text.Replace("\"quality\": 23", "\"quality\": \"good\"", StringComparison.Ordinal))
        );
        broken.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await broken.ProblemAsync()).GetProperty("detail").GetString()!.ShouldContain("picture.rate.quality");
        (await trainer.GetAsync("/api/profiles/schema")).Content.Headers.ContentType!.MediaType.ShouldBe("application/schema+json");
    }

    [Fact]
    public async Task A_profile_is_checked_against_a_lesson_and_the_outlets_before_anything_is_saved()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        var profile = JsonNode.Parse((await ProfileAsync(trainer, "web")).GetProperty("profile").GetRawText())!.AsObject();
        async Task<JsonElement> CheckAsync() =>
            await (await trainer.PostAsJsonAsync("/api/profiles/check", new { profile, lessonId = lesson })).Content.ReadFromJsonAsync<JsonElement>();
        var fine = await CheckAsync();
        // The recording has no sound.
        fine.GetProperty("findings").EnumerateArray().Select(f => f.GetProperty("code").GetString()).ShouldBe(["lesson-without-sound"]);
        fine.GetProperty("outcome").GetProperty("coding").GetString()!.ShouldStartWith("H.264 High");
        profile["picture"]!["size"] = new JsonObject
        {
            ["rule"] = "exact",
            ["width"] = 3840,
            ["height"] = 2160,
        };
        (await CheckAsync()).GetProperty("findings")[0].GetProperty("code").GetString().ShouldBe("size-scales-up");
        profile["container"] = "webm";
        var faulty = await CheckAsync();
        faulty
            .GetProperty("findings")
            .EnumerateArray()
            .Select(f => f.GetProperty("code").GetString())
            .ShouldBe(["container-lacks-codec", "container-lacks-sound-codec"]);
        faulty.GetProperty("outcome").ValueKind.ShouldBe(JsonValueKind.Null);
        faulty.GetProperty("outlets").EnumerateArray().Select(o => o.GetProperty("outlet").GetString()).ShouldContain("Harbour School");
    }

    [Fact]
    public async Task An_outlet_names_its_profile_and_takes_none_that_it_would_refuse()
    {
        var trainer = await fixture.SignedInAsync();
        async Task<JsonElement> SchoolAsync() =>
            (await trainer.JsonAsync("/api/outlets")).EnumerateArray().First(o => o.GetProperty("name").GetString() == "Harbour School");
        var school = await SchoolAsync();
        var address = $"/api/outlets/{school.GetProperty("id").GetGuid()}/profile";
        school.GetProperty("usualProfile").GetString().ShouldBe("web");
        (await trainer.PutAsJsonAsync(address, new { profileId = "open-formats" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var own = await CopyAsync(trainer, "web-720p");
        (await trainer.PutAsJsonAsync(address, new { profileId = own["id"]!.GetValue<string>() })).EnsureSuccessStatusCode();
        (await SchoolAsync()).GetProperty("usualProfile").GetString().ShouldBe(own["id"]!.GetValue<string>());
        (await ProfileAsync(trainer, own["id"]!.GetValue<string>())).GetProperty("outlets")[0].GetString().ShouldBe("Harbour School");
        // With its profile gone, an outlet takes what is usual again.
        (await trainer.DeleteAsync($"/api/profiles/{own["id"]}")).EnsureSuccessStatusCode();
        (await SchoolAsync()).GetProperty("usualProfile").GetString().ShouldBe("web");
    }
}
