using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests.VideoServices;

/// <summary>Wexel and the service are killed in every state of a release: it is gone on with where it was, and nothing is there twice.</summary>
public sealed class VideoKillTests
{
    private static readonly string[] Tags = ["deck"];

    [Fact]
    public async Task Killed_in_every_state_it_goes_on_where_it_was_and_is_uploaded_once()
    {
        await using var skerry = new SkerryProcess();
        await skerry.StartAsync();
        await using var process = await ServerProcess.CreateAsync(
            new Dictionary<string, string>
            {
                ["Wexel__Skerry__Address"] = skerry.Address.AbsoluteUri,
                ["Wexel__Skerry__ClientSecret"] = "tide-table",
                ["Wexel__Skerry__Piece"] = "30000",
                ["Wexel__VideoLooksEvery"] = "00:00:00.3",
            }
        );
        var trainer = await process.StartAsync();
        var lesson = await LessonAsync(trainer);
        var outlet = await VideoFixture.OutletAsync(trainer, "Skerry");
        using (var browser = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false }) { BaseAddress = trainer.BaseAddress })
        {
            (await browser.PostAsJsonAsync("api/sign-in", new { email = ServerFixture.Trainer, password = ServerFixture.Password })).EnsureSuccessStatusCode();
            (await VideoFixture.ConnectAsync(skerry.Client, browser, outlet, "ticket-desk")).ShouldContain("connected=");
        }

        var account = await VideoFixture.AccountAsync(trainer, outlet, "Ticket desk");
        (
            await trainer.PutAsJsonAsync(
                $"api/lessons/{lesson}/outlets/{outlet}/details",
                new
                {
                    title = "Colours on deck",
                    description = "All that moves.",
                    tags = Tags,
                    category = "Work",
                    forChildren = false,
                }
            )
        ).EnsureSuccessStatusCode();
        (
            await trainer.PutAsJsonAsync(
                $"api/lessons/{lesson}/video-places/{outlet}",
                new
                {
                    account = account.GetProperty("id").GetGuid(),
                    channel = "desk-lessons",
                    lists = Array.Empty<string>(),
                }
            )
        ).EnsureSuccessStatusCode();
        await WantAsync(trainer, lesson, outlet);

        var met = new List<string>();
        foreach (var state in new[] { "uploading", "processing", "smallSize" })
        {
            // What went by meanwhile is met no more.
            var now = await UntilAsync(trainer, lesson, outlet, p => States(p).Contains(state) || ReleaseJobTests.HasEnded(p));
            if (!States(now).Contains(state))
                continue;
            met.Add(state);
            await process.KillAsync();
            trainer.Dispose();
            trainer = await process.StartAsync();
            if (state is "uploading" or "processing")
            {
                await skerry.KillAsync();
                await skerry.StartAsync();
            }
        }

        var ended = await UntilAsync(trainer, lesson, outlet, ReleaseJobTests.HasEnded);
        met.ShouldContain("uploading", ended.GetProperty("way").ToString());
        met.ShouldContain("processing");
        // A service that was away for longer than is waited is said to be; the same press goes on.
        for (var i = 0; i < 3 && ReleaseJobTests.Phase(ended) == "failed"; i++)
        {
            VideoDesk.Problem(ended).ShouldBe("video-service-not-reached");
            await WantAsync(trainer, lesson, outlet);
            ended = await UntilAsync(trainer, lesson, outlet, ReleaseJobTests.HasEnded);
        }

        ReleaseJobTests.Phase(ended).ShouldBe("live", ended.GetProperty("way").ToString());
        // Neither tokens, which begin so (RFC 7515, section 3.1), nor secrets are in the log.
        process.Log.ShouldNotBeEmpty();
        foreach (var secret in new[] { "eyJ", "Bearer", "tide-table", "code=" })
            process.Log.ShouldAllBe(line => !line.Contains(secret, StringComparison.Ordinal));
        var videos = skerry.Videos();
        videos.Count.ShouldBe(1, "nothing is there twice");
        videos[0].GetProperty("source").GetInt32().ShouldBe(1, "it was uploaded once");
        new FileInfo(skerry.Source(videos[0])).Length.ShouldBe(videos[0].GetProperty("bytes").GetInt64());
        videos[0].GetProperty("thumbnail").ValueKind.ShouldBe(JsonValueKind.String);
    }

    private static async Task WantAsync(HttpClient trainer, Guid lesson, Guid outlet)
    {
        var wish = new
        {
            lessonId = lesson,
            outletId = outlet,
            visibility = "withLink",
        };
        (await trainer.PostAsJsonAsync("api/releases", new { wishes = new[] { wish } })).EnsureSuccessStatusCode();
    }

    private static async Task<JsonElement> UntilAsync(HttpClient trainer, Guid lesson, Guid outlet, Func<JsonElement, bool> so)
    {
        JsonElement At(JsonElement places) => places.EnumerateArray().Single(p => p.GetProperty("id").GetGuid() == outlet);
        return At(await trainer.UntilAsync($"api/lessons/{lesson}/releases", places => so(At(places))));
    }

    private static string?[] States(JsonElement place) => [ReleaseJobTests.Phase(place), VideoDesk.Stage(place)];

    /// <summary>A lesson in which all moves, which is large for its length.</summary>
    private static async Task<Guid> LessonAsync(HttpClient trainer)
    {
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-video-{Guid.NewGuid():N}.mp4");
        try
        {
            await CliWrap
                .Cli.Wrap("ffmpeg")
                .WithArguments(["-v", "error", "-f", "lavfi", "-i", "testsrc2=s=640x480:r=25:d=6", "-f", "lavfi", "-i", "sine=d=6", "-shortest", clip])
                .ExecuteAsync();
            await using var bytes = File.OpenRead(clip);
            var answer = await trainer.PutAsync(
                "api/recordings?fileName=deck.mp4",
                new StreamContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
            );
            var lesson = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("lessonId").GetGuid();
            await trainer.UntilAsync($"api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
            return lesson;
        }
        finally
        {
            File.Delete(clip);
        }
    }

    /// <summary>Skerry as its own process, which can be killed and started again on the same data.</summary>
    private sealed class SkerryProcess : IAsyncDisposable
    {
        private readonly string _folder = Directory.CreateTempSubdirectory("wexel-skerry-").FullName;
        private Process? _process;

        internal SkerryProcess()
        {
            Address = new Uri($"http://127.0.0.1:{ServerProcess.FreePort()}/");
            Client = new(new HttpClientHandler { AllowAutoRedirect = false }) { BaseAddress = Address };
        }

        internal Uri Address { get; }

        internal HttpClient Client { get; }

        internal async Task StartAsync()
        {
            var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true };
            start.ArgumentList.Add(typeof(StandIns.Video.Troubles).Assembly.Location);
            start.Environment["ASPNETCORE_URLS"] = Address.AbsoluteUri;
            start.Environment["Video__Data"] = _folder;
            start.Environment["Video__SecondsASecond"] = "0.8";
            start.Environment["Video__SecondsAPiece"] = "0.2";
            start.Environment["Video__SmtpPort"] = ServerProcess.FreePort().ToString(CultureInfo.InvariantCulture);
            start.Environment["Video__Clients__0__Id"] = "wexel";
            start.Environment["Video__Clients__0__Secret"] = "tide-table";
            start.Environment["Video__Clients__0__Back"] = "http://127.0.0.1:5080/api/video-services/back";
            _process = Process.Start(start)!;
            _process.OutputDataReceived += (_, _) => { };
            _process.BeginOutputReadLine();
            for (var i = 0; i < 600; i++)
            {
                try
                {
                    (await Client.GetAsync("healthz")).EnsureSuccessStatusCode();
                    return;
                }
                catch (HttpRequestException)
                {
                    await Task.Delay(100);
                }
            }
        }

        internal async Task KillAsync()
        {
            _process!.Kill();
            await _process.WaitForExitAsync();
        }

        internal List<JsonElement> Videos() =>
            [.. Directory.EnumerateFiles(Path.Combine(_folder, "videos"), "*.json").Select(f => JsonSerializer.Deserialize<JsonElement>(File.ReadAllText(f)))];

        internal string Source(JsonElement video) =>
            Path.Combine(_folder, "videos", $"{video.GetProperty("id").GetString()}.{video.GetProperty("source").GetInt32()}.mp4");

        public async ValueTask DisposeAsync()
        {
            await KillAsync();
            Client.Dispose();
            Directory.Delete(_folder, recursive: true);
        }
    }
}
