using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests;

/// <summary>What lies inside a recording besides its picture: several sound tracks, and captions.</summary>
public sealed class InsideTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private const string Words = "1\n00:00:01,000 --> 00:00:02,500\nThe evening sailing.\n\n2\n00:00:03,000 --> 00:00:04,000\nIt is full.\n";

    /// <summary>Six seconds with two sound tracks, the second of which is spoken in, and captions in English.</summary>
    private async Task<(string Hash, Guid Lesson)> BroughtInAsync(HttpClient trainer)
    {
        var (clip, text) = (Path.Combine(fixture.Data, "two tracks.mkv"), Path.Combine(fixture.Data, "words.srt"));
        await File.WriteAllTextAsync(text, Words);
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-y",
                "-f",
                "lavfi",
                "-i",
                "color=c=white:s=320x180:r=30:d=6",
                "-f",
                "lavfi",
                "-i",
                "anullsrc=r=48000:cl=stereo:d=6",
                "-f",
                "lavfi",
                "-i",
                "aevalsrc=0.3*sin(2*PI*300*t)*(between(t\\,1\\,2)+between(t\\,3\\,4)+between(t\\,5\\,5.5)):s=48000:d=6",
                "-i",
                text,
                "-map",
                "0",
                "-map",
                "1",
                "-map",
                "2",
                "-map",
                "3",
                "-metadata:s:s:0",
                "language=eng",
                "-pix_fmt",
                "yuv420p",
                "-c:a",
                "aac",
                "-t",
                "6",
                clip,
            ])
            .ExecuteAsync();
        var content = new ByteArrayContent(await File.ReadAllBytesAsync(clip))
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
        };
        var done = await (await trainer.PutAsync("/api/recordings?fileName=two%20tracks.mkv", content)).Content.ReadFromJsonAsync<JsonElement>();
        var hash = done.GetProperty("hash").GetString()!;
        await LookedThroughAsync(trainer, hash);
        return (hash, done.GetProperty("lessonId").GetGuid());
    }

    private static Task<JsonElement> LookedThroughAsync(HttpClient trainer, string hash) =>
        trainer.UntilAsync($"/api/recordings/{hash}", r =>
            r.GetProperty("analysis") is { ValueKind: JsonValueKind.Object } found && found.GetProperty("lookedUntil").ValueKind == JsonValueKind.Null
        );

    private static int[] Used(JsonElement recording) =>
        [.. recording.GetProperty("facts").GetProperty("usedSounds").EnumerateArray().Select(t => t.GetInt32())];

    [Fact]
    public async Task The_track_with_a_voice_is_taken_and_the_trainer_may_choose_others()
    {
        var trainer = await fixture.SignedInAsync();
        var (hash, lesson) = await BroughtInAsync(trainer);
        var recording = await trainer.JsonAsync($"/api/recordings/{hash}");
        Used(recording).ShouldBe([1]);
        var pictures = recording.GetProperty("analysis").GetProperty("pictureMoments").GetRawText();

        (await (await trainer.PutAsJsonAsync($"/api/recordings/{hash}/sounds", new { tracks = Array.Empty<int>() })).ProblemAsync())
            .GetProperty("code")
            .GetString()
            .ShouldBe("sounds-not-there");
        (await (await trainer.PutAsJsonAsync($"/api/recordings/{hash}/sounds", new { tracks = new[] { 2 } })).ProblemAsync())
            .GetProperty("code")
            .GetString()
            .ShouldBe("sounds-not-there");
        (await trainer.PutAsJsonAsync($"/api/recordings/{hash}/sounds", new { tracks = new[] { 0 } })).EnsureSuccessStatusCode();
        recording = await LookedThroughAsync(trainer, hash);
        Used(recording).ShouldBe([0]);
        recording.GetProperty("analysis").GetProperty("sides").GetString().ShouldBe("silent");
        recording.GetProperty("analysis").GetProperty("pictureMoments").GetRawText().ShouldBe(pictures, "what was seen stands");
        recording.GetProperty("notes").EnumerateArray().ShouldContain(n => n.GetString()!.Contains("hardly anything can be heard", StringComparison.Ordinal));

        (await trainer.PutAsJsonAsync($"/api/recordings/{hash}/sounds", new { tracks = new[] { 1, 0 } })).EnsureSuccessStatusCode();
        recording = await LookedThroughAsync(trainer, hash);
        Used(recording).ShouldBe([0, 1]);
        recording.GetProperty("analysis").GetProperty("sides").GetString().ShouldNotBe("silent");
        // It was asked for while a copy with the tracks of before was being made.
        (await trainer.UntilAsync($"/api/recordings/{hash}", r => r.GetProperty("viewable").GetBoolean()))
            .GetProperty("needsViewingCopy")
            .GetBoolean()
            .ShouldBeTrue();
        (await trainer.GetAsync($"/api/recordings/{hash}/view")).EnsureSuccessStatusCode();

        // Captions inside are offered, and keep their language where it is the lesson's.
        recording.GetProperty("facts").GetProperty("subtitles")[0].GetProperty("language").GetString().ShouldBe("en");
        var taken = await (
            await trainer.PostAsJsonAsync(
                "/api/captions/inside",
                new
                {
                    recordings = new[] { hash, hash },
                    place = 0,
                    language = "en-GB",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var track = taken.GetProperty("track");
        track.GetProperty("language").GetString().ShouldBe("en-GB");
        var cues = await trainer.JsonAsync($"/api/captions/{track.GetProperty("hash").GetString()}");
        // The second recording follows the first; each begins with the sound's first samples, 21 ms before its picture.
        foreach (var (cue, at) in cues.EnumerateArray().Zip([1000, 3000, 7000, 9000]))
            cue.GetProperty("span").GetProperty("start").GetInt64().ShouldBeInRange(at, at + 70);
        cues.GetArrayLength().ShouldBe(4);
        (
            await trainer.PostAsJsonAsync(
                "/api/captions/inside",
                new
                {
                    recordings = new[] { new string('0', 64) },
                    place = 0,
                    language = "en-GB",
                }
            )
        ).StatusCode.ShouldBe(System.Net.HttpStatusCode.NotFound);
        lesson.ShouldNotBe(Guid.Empty);
    }
}
