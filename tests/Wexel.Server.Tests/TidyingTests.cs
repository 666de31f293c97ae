using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests;

public sealed class TidyingTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    /// <summary>A raw recording: silence to 2 s, speech-like tone, a pause from 4 s to 8 s in which nothing changes, tone to 10 s, silence to 12 s.
    /// Each name has its own tone, so that each is a recording of its own.</summary>
    private async Task<(string Hash, Guid Lesson)> RawAsync(HttpClient trainer, string name)
    {
        var clip = Path.Combine(fixture.Data, name);
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-y",
                "-f",
                "lavfi",
                "-i",
                "color=c=white:s=320x180:r=30:d=12,drawbox=x=10:y=10:w=90:h=60:c=navy:t=fill:enable='gte(t,3)'",
                "-f",
                "lavfi",
                "-i",
                $"aevalsrc=0.0004*(random(0)-0.5)+0.2*sin(2*PI*{300 + (name.Sum(c => c) % 1000)}*t)*(between(t\\,2\\,4)+between(t\\,8\\,10)):s=48000:d=12",
                "-pix_fmt",
                "yuv420p",
                "-c:a",
                "aac",
                clip,
            ])
            .ExecuteAsync();
        var content = new ByteArrayContent(await File.ReadAllBytesAsync(clip))
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
        };
        var done = await (await trainer.PutAsync($"/api/recordings?fileName={name}", content)).Content.ReadFromJsonAsync<JsonElement>();
        var hash = done.GetProperty("hash").GetString()!;
        await trainer.UntilAsync($"/api/recordings/{hash}", r =>
            r.GetProperty("analysis") is { ValueKind: JsonValueKind.Object } found && found.GetProperty("lookedUntil").ValueKind == JsonValueKind.Null
        );
        return (hash, done.GetProperty("lessonId").GetGuid());
    }

    private static long[] Range(JsonElement suggestion) =>
        [suggestion.GetProperty("range").GetProperty("start").GetInt64(), suggestion.GetProperty("range").GetProperty("end").GetInt64()];

    [Fact]
    public async Task Cuts_are_suggested_settled_and_left()
    {
        var trainer = await fixture.SignedInAsync();
        var (_, id) = await RawAsync(trainer, "raw talk.mp4");
        var view = await trainer.JsonAsync($"/api/lessons/{id}/suggestions");
        view.GetProperty("waiting").GetBoolean().ShouldBeFalse();
        var found = view.GetProperty("suggestions").EnumerateArray().ToList();
        found.Select(s => s.GetProperty("kind").GetString()).ShouldBe(["beforeFirstWord", "pause", "afterLastWord"]);
        // Levels stand for 50 ms, and AAC smears an edge over one more.
        long[][] expected =
        [
            [0, 1700],
            [4400, 7600],
            [10300, 12000],
        ];
        foreach (var (suggestion, range) in found.Zip(expected))
        {
            Range(suggestion)[0].ShouldBeInRange(range[0], range[0] + 100);
            Range(suggestion)[1].ShouldBeInRange(range[1] - 100, range[1] + 60);
        }

        var settings = new
        {
            threshold = (int?)null,
            breath = 1000,
            longestPause = 5000,
            keptPause = 800,
        };
        var left = new[] { new { start = Range(found[0])[0], end = Range(found[0])[1] } };
        (await trainer.PutAsJsonAsync($"/api/lessons/{id}/suggestions", new { settings, left })).EnsureSuccessStatusCode();
        view = await trainer.JsonAsync($"/api/lessons/{id}/suggestions");
        view.GetProperty("suggestions").EnumerateArray().Select(s => s.GetProperty("kind").GetString()).ShouldBe(["beforeFirstWord", "afterLastWord"]);
        view.GetProperty("suggesting").GetProperty("left").GetArrayLength().ShouldBe(1);
        view.GetProperty("suggesting").GetProperty("settings").GetProperty("breath").GetInt32().ShouldBe(1000);
        (await trainer.JsonAsync($"/api/lessons/{id}")).GetProperty("revision").GetInt32().ShouldBe(1, "how cuts are suggested is not the lesson");
        (await trainer.GetAsync($"/api/lessons/{Guid.NewGuid()}/suggestions")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Move_ins_are_saved_brought_onto_the_picture_and_looked_up_frame_by_frame()
    {
        var trainer = await fixture.SignedInAsync();
        var (hash, id) = await RawAsync(trainer, "raw move.mp4");
        var document = System.Text.Json.Nodes.JsonNode.Parse((await trainer.JsonAsync($"/api/lessons/{id}")).GetProperty("document").GetRawText())!;
        document["moveIns"] = JsonSerializer.SerializeToNode(
            new[]
            {
                new
                {
                    id = "a",
                    span = new { start = 2000, end = 99_000 },
                    part = new
                    {
                        x = 0.9,
                        y = 0.25,
                        width = 0.5,
                        height = 0.5,
                    },
                    ease = 500,
                },
            }
        );
        var saved = await (await trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = 1, document })).Content.ReadFromJsonAsync<JsonElement>();
        saved.GetProperty("changes").GetString().ShouldBe("1 move-in added");
        var moveIn = saved.GetProperty("document").GetProperty("moveIns")[0];
        moveIn.GetProperty("span").GetProperty("end").GetInt64().ShouldBe(12_000);
        moveIn.GetProperty("part").GetProperty("x").GetDouble().ShouldBe(0.5);

        var cuts = new[] { new { start = 0, end = 1000 } };
        var path = await (
            await trainer.PostAsJsonAsync(
                "/api/view-path",
                new
                {
                    recordings = new[] { hash },
                    cuts,
                    canvas = (object?)null,
                    moveIns = new[] { moveIn },
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var part = path.GetProperty("parts")[0];
        part.GetProperty("page").GetProperty("width").GetInt32().ShouldBe(320);
        var move = part.GetProperty("moves").EnumerateArray().Single();
        move.GetProperty("first").GetInt64().ShouldBe(30, "a second is cut before it");
        move.GetProperty("to").GetProperty("x").GetInt32().ShouldBe(160);

        var outcome = await (
            await trainer.PostAsJsonAsync($"/api/lessons/{id}/cuts/outcome", new { cuts = new[] { new { start = 1500, end = 12_000 } } })
        ).Content.ReadFromJsonAsync<JsonElement>();
        outcome.GetProperty("gone").EnumerateArray().Select(g => g.GetString()).ShouldBe(["the move-in at 0:02"]);

        var detail = await trainer.UntilAsync($"/api/lessons/{id}/detail?profile=small-480p", d => !d.GetProperty("waiting").GetBoolean());
        detail.GetProperty("stretches").GetArrayLength().ShouldBe(0, "there is no text on this page");
        (await trainer.GetAsync($"/api/lessons/{id}/detail?profile=none")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.GetAsync($"/api/lessons/{Guid.NewGuid()}/detail?profile=web")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task The_sheet_gets_what_it_folds_and_any_frame()
    {
        var trainer = await fixture.SignedInAsync();
        var (hash, _) = await RawAsync(trainer, "raw frames.mp4");
        var recording = await trainer.JsonAsync($"/api/recordings/{hash}");
        recording.GetProperty("grid").GetProperty("numerator").GetInt32().ShouldBe(30);
        recording.GetProperty("quiet").GetArrayLength().ShouldBe(0, "the pause is shorter than what is folded");
        recording.GetProperty("soundEdges").GetArrayLength().ShouldBe(4);

        async Task<byte[]> FrameAsync(long number)
        {
            var answer = await trainer.GetAsync($"/api/recordings/{hash}/frames/{number}.jpg");
            answer.Content.Headers.ContentType!.MediaType.ShouldBe("image/jpeg");
            return await answer.Content.ReadAsByteArrayAsync();
        }

        // The box is drawn at frame 90, which is the first of a bundle; before it the page is empty.
        var (empty, drawn) = (await FrameAsync(89), await FrameAsync(90));
        (await FrameAsync(0)).ShouldBe(empty);
        (await FrameAsync(91)).Length.ShouldBeInRange(drawn.Length - 40, drawn.Length + 40);
        drawn.Length.ShouldBeGreaterThan(empty.Length + 40);
        (await Task.WhenAll(Enumerable.Range(300, 60).Select(i => FrameAsync(i)))).ShouldAllBe(f => f.Length > 100);
        foreach (var none in new long[] { 360, -1, 100_000 })
            (await trainer.GetAsync($"/api/recordings/{hash}/frames/{none}.jpg")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await fixture.Anonymous().GetAsync($"/api/recordings/{hash}/frames/1.jpg")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Two_recordings_make_one_lesson_and_what_is_placed_goes_with_them()
    {
        var trainer = await fixture.SignedInAsync();
        var (first, id) = await RawAsync(trainer, "raw first.mp4");
        var (second, other) = await RawAsync(trainer, "raw second of two.mp4");
        var document = System.Text.Json.Nodes.JsonNode.Parse((await trainer.JsonAsync($"/api/lessons/{id}")).GetProperty("document").GetRawText())!;
        document["sections"] = JsonSerializer.SerializeToNode(
            new[]
            {
                new
                {
                    id = "a",
                    at = 3000,
                    title = "Here",
                    nested = false,
                },
            }
        );
        var outcome = await (
            await trainer.PostAsJsonAsync(
                "/api/reels",
                new { document, recordings = new[] { new { hash = second, was = (int?)null }, new { hash = first, was = (int?)0 } } }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        outcome.GetProperty("lost").GetArrayLength().ShouldBe(0);
        outcome.GetProperty("length").GetInt64().ShouldBe(24_000);
        var changed = outcome.GetProperty("document");
        changed.GetProperty("sections")[0].GetProperty("at").GetInt64().ShouldBe(15_000);
        var saved = await (
            await trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = 1, document = changed })
        ).Content.ReadFromJsonAsync<JsonElement>();
        saved.GetProperty("changes").GetString().ShouldBe("1 recording added, 1 section added");
        saved.GetProperty("length").GetInt64().ShouldBe(24_000);

        var reel = await trainer.JsonAsync($"/api/reels/{second},{first}");
        reel.GetProperty("parts").EnumerateArray().Select(p => p.GetProperty("span").GetProperty("start").GetInt64()).ShouldBe([0, 12_000]);
        reel.GetProperty("analysis").GetProperty("lookedUntil").ValueKind.ShouldBe(JsonValueKind.Null);
        // Each recording has its own silence at both ends.
        var suggestions = await trainer.JsonAsync($"/api/lessons/{id}/suggestions");
        suggestions
            .GetProperty("suggestions")
            .EnumerateArray()
            .Select(s => s.GetProperty("kind").GetString())
            .ShouldBe(["beforeFirstWord", "pause", "afterLastWord", "beforeFirstWord", "pause", "afterLastWord"]);
        (await trainer.GetAsync($"/api/reels/{new string('0', 64)}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        // A lesson that names what is not here is refused; so is one without any.
        var unknown = System.Text.Json.Nodes.JsonNode.Parse(changed.GetRawText())!;
        unknown["following"] = JsonSerializer.SerializeToNode(new[] { new string('0', 64) });
        (await trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = 2, document = unknown })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await trainer.PostAsJsonAsync("/api/reels", new { document = changed, recordings = Array.Empty<object>() })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );

        // Split between the two: each keeps both, and has cut what is the other's.
        var split = await (
            await trainer.PostAsJsonAsync($"/api/lessons/{id}/split", new { basedOn = 2, at = 12_000 })
        ).Content.ReadFromJsonAsync<JsonElement>();
        (await trainer.JsonAsync($"/api/lessons/{split.GetProperty("lessonId").GetGuid()}")).GetProperty("length").GetInt64().ShouldBe(12_000);
        (await trainer.PostAsJsonAsync($"/api/lessons/{id}/split", new { basedOn = 2, at = 6_000 })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var lessons = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons").EnumerateArray().Select(l => l.GetProperty("id").GetGuid()).ToList();
        lessons.IndexOf(split.GetProperty("lessonId").GetGuid()).ShouldBe(lessons.IndexOf(id) + 1);
        lessons.ShouldContain(other);
    }

    [Fact]
    public async Task A_canvas_is_told_saved_and_rendered()
    {
        var trainer = await fixture.SignedInAsync();
        var (hash, id) = await RawAsync(trainer, "raw canvas take.mp4");
        var all = new
        {
            x = 0,
            y = 0,
            width = 1,
            height = 1,
        };
        var canvas = new
        {
            size = new { width = 640, height = 480 },
            fit = "whole",
            part = all,
        };
        var outcome = await (
            await trainer.PostAsJsonAsync(
                "/api/canvas/outcome",
                new
                {
                    recordings = new[] { hash },
                    recording = 0,
                    canvas,
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        outcome.GetProperty("emptyPercent").GetDouble().ShouldBe(25);
        outcome.GetProperty("scalePercent").GetDouble().ShouldBe(200);
        outcome.GetProperty("notes")[0].GetString().ShouldStartWith("25 % of the picture would be black above and below.");
        (await (await trainer.PostAsJsonAsync("/api/canvas/sizes", new[] { hash })).Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("proposed")
            .ValueKind.ShouldBe(JsonValueKind.Null);

        var lesson = await trainer.JsonAsync($"/api/lessons/{id}");
        var document = JsonSerializer.Deserialize<Dictionary<string, object?>>(lesson.GetProperty("document").GetRawText())!;
        document["canvas"] = canvas;
        var saved = await (await trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = 1, document })).Content.ReadFromJsonAsync<JsonElement>();
        saved.GetProperty("changes").GetString().ShouldBe("canvas 640 × 480");
        var offers = (await trainer.JsonAsync($"/api/lessons/{id}/deliver"))
            .GetProperty("profiles")
            .EnumerateArray()
            .Where(p => p.GetProperty("size").ValueKind != JsonValueKind.Null)
            .Select(p => (p.GetProperty("size").GetProperty("width").GetInt32(), p.GetProperty("scalePercent").GetDouble()))
            .ToList();
        offers[0].ShouldBe((640, 200));
        // As recorded is no canvas at all: nothing to encode again.
        document["canvas"] = new
        {
            size = (object?)null,
            fit = "fill",
            part = all,
        };
        saved = await (await trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = 2, document })).Content.ReadFromJsonAsync<JsonElement>();
        saved.GetProperty("changes").GetString().ShouldBe("canvas as recorded");
        saved.GetProperty("document").GetProperty("canvas").ValueKind.ShouldBe(JsonValueKind.Null);
    }
}
