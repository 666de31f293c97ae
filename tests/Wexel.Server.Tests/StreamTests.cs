using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests;

/// <summary>Lessons that are loaded piece by piece (RFC 8216), and what is known before they are made.</summary>
public sealed class StreamTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private async Task<(HttpClient Trainer, Guid Lesson)> LessonAsync()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        return (trainer, lesson);
    }

    private static async Task<JsonElement> OutletAsync(HttpClient trainer, string kind) =>
        (await trainer.JsonAsync("/api/outlets")).EnumerateArray().First(o => o.GetProperty("kind").GetString() == kind);

    private static async Task<JsonElement> RenderedAsync(HttpClient trainer, Guid lesson, string profile)
    {
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { profile } })).EnsureSuccessStatusCode();
        JsonElement Mine(JsonElement d) => d.GetProperty("renditions").EnumerateArray().First(r => r.GetProperty("profileId").GetString() == profile);
        return Mine(await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => Mine(d).GetProperty("state").GetString() is "done" or "failed"));
    }

    [Fact]
    public async Task A_lesson_in_pieces_is_made_checked_released_and_served_to_those_who_may_see_it()
    {
        var (trainer, lesson) = await LessonAsync();
        var made = await RenderedAsync(trainer, lesson, "adaptive");
        made.GetProperty("check")
            .EnumerateArray()
            .Where(f => f.GetProperty("verdict").GetString() == "wrong" && !f.GetProperty("code").GetString()!.StartsWith("limit-", StringComparison.Ordinal))
            .Select(f => f.GetProperty("code").GetString())
            .ShouldBeEmpty();
        made.GetProperty("check").EnumerateArray().Select(f => f.GetProperty("code").GetString()).ShouldContain("aligned");

        var zip = new ZipArchive(await trainer.GetStreamAsync($"/api/renditions/{made.GetProperty("id").GetGuid()}/file"));
        zip.Entries.Select(e => e.FullName).ShouldContain("stream/lesson.m3u8");
        zip.Entries.Sum(e => e.Length).ShouldBe(made.GetProperty("bytes").GetInt64());

        var school = await trainer.PostAsJsonAsync(
            $"/api/lessons/{lesson}/releases",
            new
            {
                outletId = (await OutletAsync(trainer, "learningSystem")).GetProperty("id").GetGuid(),
                profileId = "adaptive",
                visibility = "signedIn",
            }
        );
        (await school.ProblemAsync()).GetProperty("code").GetString().ShouldBe("takes-one-file");

        var channel = (await OutletAsync(trainer, "channel")).GetProperty("id").GetGuid();
        var release = await (
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = channel,
                    profileId = "adaptive",
                    visibility = "signedIn",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var page = new Uri(release.GetProperty("release").GetProperty("link").GetString()!).AbsolutePath;
        var master = await trainer.GetAsync($"{page}/stream/lesson.m3u8");
        master.Content.Headers.ContentType!.MediaType.ShouldBe("application/vnd.apple.mpegurl");
        var playlist = (await master.Content.ReadAsStringAsync()).Split('\n').First(l => l.EndsWith(".m3u8", StringComparison.Ordinal));
        var piece = (await trainer.GetStringAsync($"{page}/stream/{playlist}")).Split('\n').First(l => l.EndsWith(".m4s", StringComparison.Ordinal));
        (await trainer.GetAsync($"{page}/stream/{piece}")).Content.Headers.ContentType!.MediaType.ShouldBe("video/mp4");
        (await fixture.Anonymous().GetAsync($"{page}/stream/{piece}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        foreach (var elsewhere in new[] { "none.m3u8", "..%2Fcheck-1.json", "%2Fetc%2Fpasswd", "" })
            (await trainer.GetAsync($"{page}/stream/{elsewhere}")).StatusCode.ShouldBe(HttpStatusCode.NotFound, elsewhere);

        // The folder for a web server has the pieces, what plays them, and says that it needs a server.
        var folder = await (
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = (await OutletAsync(trainer, "webServer")).GetProperty("id").GetGuid(),
                    profileId = "adaptive",
                    visibility = "withLink",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var package = new ZipArchive(await trainer.GetStreamAsync($"/api/releases/{folder.GetProperty("release").GetProperty("id").GetGuid()}/package.zip"));
        package.Entries.Select(e => e.FullName).ShouldContain("Closing the till/stream/" + piece);
        package.Entries.Select(e => e.FullName).ShouldContain("Closing the till/player/hls.min.js");
        using var explained = new StreamReader(await package.GetEntry("Closing the till/read me.txt")!.OpenAsync());
        var text = await explained.ReadToEndAsync();
        text.ShouldContain("From disk it does not play");
        text.ShouldNotContain(piece);
    }

    [Fact]
    public async Task Samples_make_an_estimate_better_known_and_say_what_follows()
    {
        var (trainer, lesson) = await LessonAsync();
        async Task<JsonElement> OfferAsync(string profile) =>
            (await trainer.JsonAsync($"/api/lessons/{lesson}/deliver"))
                .GetProperty("profiles")
                .EnumerateArray()
                .First(p => p.GetProperty("id").GetString() == profile);
        var rough = (await OfferAsync("small-480p")).GetProperty("estimate");
        rough.GetProperty("sampled").GetBoolean().ShouldBeFalse();
        var sampled = await (await trainer.PostAsync($"/api/lessons/{lesson}/estimates/small-480p", null)).Content.ReadFromJsonAsync<JsonElement>();
        sampled.GetProperty("sampled").GetBoolean().ShouldBeTrue();
        double Width(JsonElement e) =>
            (double)(e.GetProperty("mostBytes").GetInt64() - e.GetProperty("leastBytes").GetInt64()) / e.GetProperty("bytes").GetInt64();
        Width(sampled).ShouldBeLessThan(Width(rough));
        (await OfferAsync("small-480p")).GetProperty("estimate").GetProperty("bytes").GetInt64().ShouldBe(sampled.GetProperty("bytes").GetInt64());
        var made = await RenderedAsync(trainer, lesson, "small-480p");
        made.GetProperty("bytes")
            .GetInt64()
            .ShouldBeInRange(sampled.GetProperty("bytes").GetInt64() * 7 / 10, sampled.GetProperty("bytes").GetInt64() * 13 / 10);
        var encoded = await OfferAsync("small-480p");
        encoded.GetProperty("encodedBytes").GetInt64().ShouldBeLessThanOrEqualTo(made.GetProperty("bytes").GetInt64());
        encoded.GetProperty("estimate").GetProperty("bytes").GetInt64().ShouldBe(encoded.GetProperty("encodedBytes").GetInt64());

        (await (await trainer.PutAsJsonAsync("/api/house/plan", new { lineBitsPerSecond = 0, trafficBytesAMonth = 5_000_000_000 })).ProblemAsync())
            .GetProperty("field")
            .GetString()
            .ShouldBe("lineBitsPerSecond");
        var before = encoded.GetProperty("estimate").GetProperty("playsAMonth").GetInt64();
        (await trainer.PutAsJsonAsync("/api/house/plan", new { lineBitsPerSecond = 1_000_000, trafficBytesAMonth = 4_000_000_000 })).EnsureSuccessStatusCode();
        var after = (await OfferAsync("small-480p")).GetProperty("estimate");
        after.GetProperty("playsAMonth").GetInt64().ShouldBeInRange(before * 2 - 1, before * 2 + 1);
        after
            .GetProperty("upload")
            .GetInt64()
            .ShouldBeInRange((after.GetProperty("bytes").GetInt64() * 8 / 1000) - 1, (after.GetProperty("bytes").GetInt64() * 8 / 1000) + 1);
        (await trainer.PostAsync($"/api/lessons/{lesson}/estimates/none", null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_file_over_an_outlets_limit_is_stopped_before_it_goes_there_until_somebody_lets_it_pass()
    {
        var (trainer, lesson) = await LessonAsync();
        var made = await RenderedAsync(trainer, lesson, "web");
        var outlet = await OutletAsync(trainer, "webServer");
        var id = outlet.GetProperty("id").GetGuid();
        var limit = $"/api/outlets/{id}/limits";
        (
            await (
                await trainer.PutAsJsonAsync(
                    limit,
                    new
                    {
                        mostBytes = 0,
                        mostLength = (long?)null,
                        mostBitsPerSecond = (long?)null,
                    }
                )
            ).ProblemAsync()
        ).GetProperty("field").GetString().ShouldBe("mostBytes");
        (
            await trainer.PutAsJsonAsync(
                limit,
                new
                {
                    mostBytes = made.GetProperty("bytes").GetInt64() - 1,
                    mostLength = (long?)600_000,
                    mostBitsPerSecond = (long?)null,
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        async Task<HttpResponseMessage> ReleaseAsync() =>
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = id,
                    profileId = "web",
                    visibility = "withLink",
                }
            );
        (await (await ReleaseAsync()).ProblemAsync()).GetProperty("code").GetString().ShouldBe("file-check-failed");
        var deliver = await trainer.JsonAsync($"/api/lessons/{lesson}/deliver");
        var facts = deliver
            .GetProperty("renditions")
            .EnumerateArray()
            .First(r => r.GetProperty("profileId").GetString() == "web")
            .GetProperty("check")
            .EnumerateArray()
            .Where(f => f.GetProperty("code").GetString()!.StartsWith("limit-", StringComparison.Ordinal))
            .ToList();
        facts.Select(f => f.GetProperty("verdict").GetString()).ShouldBe(["wrong", "right"]);
        var code = facts[0].GetProperty("code").GetString();
        (
            await trainer.PostAsJsonAsync($"/api/renditions/{made.GetProperty("id").GetGuid()}/let-pass", new { code, reason = "They agreed to take it" })
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ReleaseAsync()).StatusCode.ShouldBe(HttpStatusCode.OK);
        deliver
            .GetProperty("profiles")
            .EnumerateArray()
            .First(p => p.GetProperty("id").GetString() == "web")
            .GetProperty("estimate")
            .GetProperty("limits")
            .GetArrayLength()
            .ShouldBe(2);
        // Without limits nothing is said of them; the other tests' files go there too.
        (
            await trainer.PutAsJsonAsync(
                limit,
                new
                {
                    mostBytes = (long?)null,
                    mostLength = (long?)null,
                    mostBitsPerSecond = (long?)null,
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await trainer.JsonAsync($"/api/lessons/{lesson}/deliver"))
            .GetProperty("renditions")[0]
            .GetProperty("check")
            .EnumerateArray()
            .ShouldNotContain(f => f.GetProperty("code").GetString()!.StartsWith("limit-", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Two_profiles_are_tried_on_the_same_seconds()
    {
        var (trainer, lesson) = await LessonAsync();
        async Task<HttpResponseMessage> TryAsync(params string[] profiles) =>
            await trainer.PostAsJsonAsync($"/api/lessons/{lesson}/trials", new { profiles, at = (long?)null });
        var tried = await (await TryAsync("web", "small-480p")).Content.ReadFromJsonAsync<JsonElement>();
        var trials = tried.GetProperty("trials").EnumerateArray().ToList();
        trials.ShouldAllBe(t =>
            t.GetProperty("worstSsim").GetDouble() > 0.9 && t.GetProperty("bytes").GetInt64() > 1000 && t.GetProperty("took").GetInt64() > 0
        );
        var frames = tried.GetProperty("frames").GetInt64();
        var png = await trainer.GetByteArrayAsync($"/api/trials/{trials[0].GetProperty("key").GetString()}/{frames - 1}.png");
        png[1..4].ShouldBe("PNG"u8.ToArray());
        (await trainer.GetAsync($"/api/trials/{trials[0].GetProperty("key").GetString()}/{frames}.png")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.GetAsync("/api/trials/..%2F..%2Fpid/0.png")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await TryAsync("podcast-sound")).ProblemAsync()).GetProperty("code").GetString().ShouldBe("trial-without-picture");
        (await (await TryAsync()).ProblemAsync()).GetProperty("code").GetString().ShouldBe("trial-nothing");
        (await TryAsync("none")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    /// <summary>A recording that is ready for the web goes through as it is; where it is encoded, the reason is said.</summary>
    [Fact]
    public async Task A_picture_that_stays_as_it_was_recorded_is_copied_tried_and_checked_as_such()
    {
        var trainer = await fixture.SignedInAsync();
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-copied-{Guid.NewGuid():N}.mp4");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments([
                "-nostdin",
                "-v",
                "error",
                "-f",
                "lavfi",
                "-i",
                "color=white:s=1280x720:r=30:d=9,drawbox=x=60+8*t:y=60:w=240:h=80:c=navy:t=fill",
                "-f",
                "lavfi",
                "-i",
                "sine=f=330:d=9",
                "-c:v",
                "libx264",
                "-g",
                "90",
                "-pix_fmt",
                "yuv420p",
                "-colorspace",
                "bt709",
                "-color_primaries",
                "bt709",
                "-color_trc",
                "bt709",
                "-color_range",
                "tv",
                "-c:a",
                "aac",
                clip,
            ])
            .ExecuteAsync();
        JsonElement brought;
        await using (var bytes = File.OpenRead(clip))
        {
            brought = await (
                await trainer.PutAsync(
                    "api/recordings?fileName=Ready for the web.mp4",
                    new StreamContent(bytes) { Headers = { ContentType = new System.Net.Http.Headers.MediaTypeHeaderValue("application/octet-stream") } }
                )
            ).Content.ReadFromJsonAsync<JsonElement>();
        }

        File.Delete(clip);
        var lesson = brought.GetProperty("lessonId").GetGuid();
        var deliver = await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        JsonElement Offer(string profile) => deliver.GetProperty("profiles").EnumerateArray().First(p => p.GetProperty("id").GetString() == profile);
        Offer("web").GetProperty("coding").GetString()!.ShouldContain(", copied");
        Offer("web").GetProperty("encodedSince").ValueKind.ShouldBe(JsonValueKind.Null);
        Offer("small-480p").GetProperty("encodedSince").GetString().ShouldBe("the canvas or the size is another than the recording’s");

        var tried = await (
            await trainer.PostAsJsonAsync($"/api/lessons/{lesson}/trials", new { profiles = new[] { "web" }, at = (long?)null })
        ).Content.ReadFromJsonAsync<JsonElement>();
        tried.GetProperty("trials")[0].GetProperty("worstSsim").GetDouble().ShouldBe(1);
        (await trainer.PostAsync($"/api/lessons/{lesson}/estimates/web", null)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var made = await RenderedAsync(trainer, lesson, "web");
        made.GetProperty("check")
            .EnumerateArray()
            .Where(f => f.GetProperty("verdict").GetString() == "wrong")
            .Select(f => f.GetProperty("code").GetString())
            .ShouldBeEmpty();
        made.GetProperty("check")
            .EnumerateArray()
            .First(f => f.GetProperty("code").GetString() == "ssim")
            .GetProperty("measured")
            .GetString()!
            .ShouldStartWith("1.0000");
    }
}
