using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Wexel.Server.Tests;

/// <summary>A camera over a lesson’s screen: found, laid, said where it is seen, and gone with the lesson.</summary>
public sealed class CameraTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    /// <summary>A lesson of a screen on which somebody speaks, with the hash of its recording.</summary>
    private static async Task<(string Lesson, string Screen)> LessonAsync(HttpClient trainer)
    {
        var screen = await CameraClips.BroughtInAsync(trainer, "", await CameraClips.ScreenAsync(), $"desk-{Guid.NewGuid():N}.mp4");
        var lessons = (await trainer.JsonAsync("/api/lessons")).EnumerateArray().SelectMany(c => c.GetProperty("lessons").EnumerateArray());
        foreach (var id in lessons.Select(l => l.GetProperty("id").GetString()!))
        {
            if ((await DocumentAsync(trainer, id)).Document["recordingHash"]!.GetValue<string>() == screen)
                return (id, screen);
        }

        throw new InvalidOperationException("No lesson was made of the recording.");
    }

    private static async Task<(JsonObject Document, int Revision)> DocumentAsync(HttpClient trainer, string lesson)
    {
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        return (JsonNode.Parse(view.GetProperty("document").GetRawText())!.AsObject(), view.GetProperty("revision").GetInt32());
    }

    private static JsonArray Camera(string over, string recording, int starts, double drift = 0) =>
        new JsonArray(
            new JsonObject
            {
                ["over"] = over,
                ["recording"] = recording,
                ["clock"] = new JsonObject { ["starts"] = starts, ["drift"] = drift },
            }
        );

    private static Task<HttpResponseMessage> SaveAsync(HttpClient trainer, string lesson, JsonObject document, int basedOn) =>
        trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn, document });

    [Fact]
    public async Task It_is_found_by_its_sound_and_stands_out_of_the_way()
    {
        var trainer = await fixture.SignedInAsync();
        var (lesson, screen) = await LessonAsync(trainer);
        var camera = await CameraClips.BroughtInAsync(trainer, lesson, await CameraClips.CameraAsync());
        var answer = await trainer.PostAsJsonAsync("/api/cameras/find", new { over = screen, camera });
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        var found = await answer.Content.ReadFromJsonAsync<JsonElement>();
        found.GetProperty("clock").GetProperty("starts").GetInt32().ShouldBeInRange(-1010, -990);
        found.GetProperty("sentence").GetString()!.ShouldStartWith("The camera started 1.00 s before the screen");

        var (document, revision) = await DocumentAsync(trainer, lesson);
        document["cameras"] = Camera(screen, camera, -1000);
        document["cuts"] = JsonNode.Parse("""[{ "start": 8000, "end": 9000 }]""");
        document["cameraStretches"] = JsonNode.Parse("""[{ "id": "c1", "span": { "start": 0, "end": 2000 }, "shown": "large" }]""");
        var seen = await (await trainer.PostAsJsonAsync("/api/cameras", new { document })).Content.ReadFromJsonAsync<JsonElement>();
        var one = seen.GetProperty("cameras").EnumerateArray().ShouldHaveSingleItem();
        one.GetProperty("fileName").GetString().ShouldBe("mara.mp4");
        one.GetProperty("notes").GetArrayLength().ShouldBe(0);
        seen.GetProperty("notLookedAt").GetArrayLength().ShouldBe(0);
        var stretches = seen.GetProperty("seen").EnumerateArray().ToList();
        stretches[0].GetProperty("shown").GetString().ShouldBe("large");
        stretches[0].GetProperty("span").GetProperty("end").GetInt32().ShouldBe(2000);
        stretches.ShouldNotContain(s =>
            s.GetProperty("span").GetProperty("start").GetInt32() < 8500 && s.GetProperty("span").GetProperty("end").GetInt32() > 8500
        );
        JsonElement BoxAt(int ms) =>
            stretches
                .Single(s => s.GetProperty("span").GetProperty("start").GetInt32() <= ms && s.GetProperty("span").GetProperty("end").GetInt32() > ms)
                .GetProperty("box")
                .GetProperty("to");
        // Something moves at the bottom right between 4 and 5 s: there the camera is elsewhere.
        (BoxAt(4600).GetProperty("x").GetInt32() < 320 || BoxAt(4600).GetProperty("y").GetInt32() < 180).ShouldBeTrue(BoxAt(4600).GetRawText());

        (await SaveAsync(trainer, lesson, document, revision)).EnsureSuccessStatusCode();
        var history = await trainer.JsonAsync($"/api/lessons/{lesson}/revisions");
        history.GetRawText().ShouldContain("camera added");
        var (saved, _) = await DocumentAsync(trainer, lesson);
        saved["cameras"]!.ToJsonString().ShouldBe(document["cameras"]!.ToJsonString());
    }

    [Fact]
    public async Task What_cannot_be_found_is_said_and_borders_are_noticed()
    {
        var trainer = await fixture.SignedInAsync();
        var (lesson, screen) = await LessonAsync(trainer);
        var silent = await CameraClips.BroughtInAsync(trainer, lesson, await CameraClips.PictureAsync(4));
        var refused = await trainer.PostAsJsonAsync("/api/cameras/find", new { over = screen, camera = silent });
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.ProblemAsync()).GetProperty("detail").GetString()!.ShouldContain("no sound");
        (await trainer.PostAsJsonAsync("/api/cameras/find", new { over = screen, camera = new string('0', 64) })).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        var (document, revision) = await DocumentAsync(trainer, lesson);
        document["cameras"] = Camera(screen, silent, 2000);
        var seen = await (await trainer.PostAsJsonAsync("/api/cameras", new { document })).Content.ReadFromJsonAsync<JsonElement>();
        var one = seen.GetProperty("cameras")[0];
        one.GetProperty("notes")
            .EnumerateArray()
            .Select(n => n.GetString())
            .ShouldBe([
                "The camera starts 2.00 s after the screen; until then it is not seen.",
                "The camera ends 5.00 s before the screen does; from there on it is not seen.",
            ]);
        one.GetProperty("proposed").GetProperty("x").GetDouble().ShouldBe(0.125, 0.01);
        one.GetProperty("proposed").GetProperty("width").GetDouble().ShouldBe(0.75, 0.02);

        document["cameras"] = Camera(screen, new string('0', 64), 0);
        var unknown = await SaveAsync(trainer, lesson, document, revision);
        unknown.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await unknown.ProblemAsync()).GetProperty("code").GetString().ShouldBe("lesson-no-camera");
    }

    [Fact]
    public async Task It_is_rendered_with_the_lesson_and_goes_with_it()
    {
        var trainer = await fixture.SignedInAsync();
        var (lesson, screen) = await LessonAsync(trainer);
        var camera = await CameraClips.BroughtInAsync(trainer, lesson, await CameraClips.PictureAsync(7));
        var (document, revision) = await DocumentAsync(trainer, lesson);
        (document["title"], document["cameras"]) = ("With a camera", Camera(screen, camera, 0));
        (await SaveAsync(trainer, lesson, document, revision)).EnsureSuccessStatusCode();
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "web" } })).EnsureSuccessStatusCode();
        var delivered = await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d =>
            d.GetProperty("renditions").EnumerateArray().Any(r => r.GetProperty("state").GetString() is "done" or "failed")
        );
        var rendition = delivered.GetProperty("renditions")[0];
        rendition.GetProperty("state").GetString().ShouldBe("done", rendition.GetRawText());
        rendition.GetRawText().ShouldNotContain("\"verdict\":\"wrong\"");

        // Another moment of the camera is another picture: what is made is behind.
        (document, revision) = await DocumentAsync(trainer, lesson);
        document["cameras"] = Camera(screen, camera, 400);
        (await SaveAsync(trainer, lesson, document, revision)).EnsureSuccessStatusCode();
        var offers = await trainer.JsonAsync($"/api/lessons/{lesson}/deliver");
        offers
            .GetProperty("profiles")
            .EnumerateArray()
            .First(p => p.GetProperty("id").GetString() == "web")
            .GetProperty("nothingToEncode")
            .GetBoolean()
            .ShouldBeFalse();

        (await trainer.PostAsJsonAsync("/api/bin", new { lessons = new[] { lesson } })).EnsureSuccessStatusCode();
        (await trainer.DeleteAsync($"/api/bin/{lesson}")).EnsureSuccessStatusCode();
        (await trainer.GetAsync($"/api/recordings/{camera}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }
}
