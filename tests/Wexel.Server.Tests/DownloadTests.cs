using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CliWrap.Buffered;

namespace Wexel.Server.Tests;

/// <summary>Which file of a lesson learners download: the one that plays, or another that is made beside it.</summary>
public sealed class DownloadTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    [Fact]
    public async Task A_lesson_that_plays_in_pieces_is_downloaded_as_the_file_that_was_chosen()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await ReleaseJobTests.LessonAsync(trainer);
        JsonElement Channel(IEnumerable<JsonElement> all) => all.First(p => p.GetProperty("kind").GetString() == "channel");
        var channel = Channel(await ReleaseJobTests.PlacesAsync(trainer, lesson)).GetProperty("id").GetGuid();
        async Task SayAsync(object details) =>
            (await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/outlets/{channel}/details", details)).EnsureSuccessStatusCode();
        async Task<JsonElement> ReleaseAsync()
        {
            var wish = new
            {
                lessonId = lesson,
                outletId = channel,
                profileId = "adaptive",
                visibility = "signedIn",
            };
            (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { wish } })).EnsureSuccessStatusCode();
            var all = await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => ReleaseJobTests.HasEnded(Channel(all.EnumerateArray())));
            return Channel(all.EnumerateArray());
        }

        // What comes in pieces is no file, and nothing is offered; nor can one be chosen that comes in pieces itself, or that is not there.
        await SayAsync(new { mayDownload = true });
        var place = await ReleaseAsync();
        var page = new Uri(place.GetProperty("release").GetProperty("link").GetString()!).AbsolutePath;
        (await DownloadAsync(trainer, page)).ValueKind.ShouldBe(JsonValueKind.Null);
        (await trainer.GetAsync(page + "/download")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await SayAsync(new { mayDownload = true, downloadAs = "long-gone" });
        (await ReleaseAsync()).GetProperty("way").GetProperty("problem").GetProperty("code").GetString().ShouldBe("download-profile-gone");

        // Both are made in the same step, and the one that plays is not made again.
        await SayAsync(new { mayDownload = true, downloadAs = "small-480p" });
        place = await ReleaseAsync();
        ReleaseJobTests.Phase(place).ShouldBe("live");
        new Uri(place.GetProperty("release").GetProperty("link").GetString()!).AbsolutePath.ShouldBe(page);
        (await trainer.GetAsync($"{page}/stream/lesson.m3u8")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var file = await DownloadAsync(trainer, page);
        var bytes = await trainer.GetByteArrayAsync(file.GetProperty("address").GetString());
        (file.GetProperty("kind").GetString(), file.GetProperty("name").GetString(), file.GetProperty("bytes").GetInt64()).ShouldBe(
            ("MP4", "Closing the till.mp4", bytes.Length)
        );

        // What ffprobe says that it is.
        var kept = Path.Combine(Directory.CreateTempSubdirectory("wexel-kept-").FullName, "kept.mp4");
        await File.WriteAllBytesAsync(kept, bytes, TestContext.Current.CancellationToken);
        var probe = await CliWrap
            .Cli.Wrap("ffprobe")
            .WithArguments(["-v", "error", "-select_streams", "v", "-show_entries", "stream=width,height", "-of", "csv=p=0", kept])
            .ExecuteBufferedAsync();
        probe.StandardOutput.Trim().ShouldBe($"{file.GetProperty("width").GetInt32()},{file.GetProperty("height").GetInt32()}");
        file.GetProperty("height").GetInt32().ShouldBeLessThanOrEqualTo(480);

        // What learners may see, they may keep, and others may not; what is switched off is gone.
        (await (await fixture.SignedInAsync(ServerFixture.Learner)).GetAsync(page + "/download")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await fixture.Anonymous().GetAsync(page + "/download")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        // It is not freed while learners may download it, though nothing plays it.
        foreach (
            var kind in (await trainer.JsonAsync("/api/space")).GetProperty("kinds").EnumerateArray().Where(k => k.GetProperty("freeableFiles").GetInt32() > 0)
        )
            (await trainer.PostAsync($"/api/space/{kind.GetProperty("code").GetString()}/free", null)).EnsureSuccessStatusCode();
        (await trainer.GetByteArrayAsync(page + "/download")).Length.ShouldBe(bytes.Length);
        await SayAsync(new { mayDownload = false, downloadAs = "small-480p" });
        await ReleaseAsync();
        (await DownloadAsync(trainer, page)).ValueKind.ShouldBe(JsonValueKind.Null);
        await trainer.UntilStatusAsync(page + "/download", HttpStatusCode.NotFound);
    }

    /// <summary>The file that a page offers.</summary>
    private static async Task<JsonElement> DownloadAsync(HttpClient who, string page)
    {
        var html = await who.GetStringAsync(page);
        var from = html.IndexOf('>', html.IndexOf("id=\"wexel-lesson\"", StringComparison.Ordinal)) + 1;
        using var data = JsonDocument.Parse(html[from..html.IndexOf("</script>", from, StringComparison.Ordinal)]);
        return data.RootElement.GetProperty("place").GetProperty("served").GetProperty("download").Clone();
    }
}
