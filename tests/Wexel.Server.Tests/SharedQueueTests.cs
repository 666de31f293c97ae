using System.Diagnostics;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests;

/// <summary>Several servers share one queue (Hangfire on PostgreSQL), and what befalls one of them or their database costs no job.</summary>
public sealed class SharedQueueTests
{
    internal static async Task<string> LessonAsync(HttpClient trainer, int seconds)
    {
        var lesson = await BringInAsync(trainer, seconds);
        await trainer.UntilAsync($"api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        return lesson;
    }

    private static async Task<string> BringInAsync(HttpClient trainer, int seconds)
    {
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-shared-{Guid.NewGuid():N}.mp4");
        try
        {
            // Noise encodes slowly, so that a server can be caught at it.
            await CliWrap
                .Cli.Wrap("ffmpeg")
                .WithArguments([
                    "-nostdin",
                    "-v",
                    "error",
                    "-f",
                    "lavfi",
                    "-i",
                    $"testsrc2=s=400x300:r=30:d={seconds},noise=alls=12:allf=t",
                    "-c:v",
                    "libx264",
                    "-preset",
                    "ultrafast",
                    "-pix_fmt",
                    "yuv420p",
                    clip,
                ])
                .ExecuteAsync();
            await using var bytes = File.OpenRead(clip);
            var answer = await trainer.PutAsync(
                $"api/recordings?fileName=deck {seconds}.mp4",
                new StreamContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
            );
            return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("lessonId").GetString()!;
        }
        finally
        {
            File.Delete(clip);
        }
    }

    /// <summary>Four ends of the server end a look-through for good; those of the database are none.</summary>
    [Fact]
    public async Task A_database_that_goes_away_is_not_counted_against_what_is_looked_through()
    {
        await using var process = await ServerProcess.CreateAsync();
        var trainer = await process.StartAsync();
        // Where it is not disturbed, since it asked for nothing meanwhile, another is tried.
        var takenBack = false;
        for (var seconds = 120; !takenBack && seconds < 124; seconds++)
        {
            await BringInAsync(trainer, seconds);
            takenBack = await DisturbedAsync();
            await LookedThroughAsync();
        }

        takenBack.ShouldBeTrue();

        // The count of what is looked through goes down again before that is done.
        async Task<bool> DisturbedAsync()
        {
            var (most, dropped) = (0L, false);
            for (var clock = Stopwatch.StartNew(); await CountAsync() is >= 0 and var count; await Task.Delay(20))
            {
                clock.Elapsed.ShouldBeLessThan(TimeSpan.FromMinutes(5));
                if (count < most)
                    return true;
                most = count;
                if (dropped || count == 0)
                    continue;
                dropped = true;
                await process.NumberAsync(
                    "select count(pg_terminate_backend(pid)) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()"
                );
            }

            return false;
        }

        async Task<long> CountAsync() => await process.NumberAsync("""select coalesce(max("LookThroughs"), -1) from "Recordings" where "Analysis" is null""");

        async Task LookedThroughAsync()
        {
            for (var clock = Stopwatch.StartNew(); await CountAsync() >= 0; await Task.Delay(100))
                clock.Elapsed.ShouldBeLessThan(TimeSpan.FromMinutes(5));
            (await process.NumberAsync("""select count(*) from "Recordings" where "AnalysisFailure" is not null""")).ShouldBe(0);
        }
    }

    private static bool AllWork(JsonElement queue) =>
        queue.EnumerateArray().All(r => r.GetProperty("state").GetString() == "working" && r.GetProperty("progress").GetDouble() > 0);

    private static bool AllAreOver(JsonElement queue) => queue.EnumerateArray().All(r => r.GetProperty("state").GetString() is "done" or "failed");

    [Fact]
    public async Task Two_servers_work_side_by_side_and_when_one_is_killed_the_other_does_its_work()
    {
        await using var one = await ServerProcess.CreateAsync();
        await using var two = one.Another();
        var trainer = await one.StartAsync();
        var lessons = new[] { await LessonAsync(trainer, 8), await LessonAsync(trainer, 9) };
        var other = await two.StartAsync();
        (await other.PostAsJsonAsync("/api/renditions", new { lessons, profiles = new[] { "small-480p" } })).EnsureSuccessStatusCode();
        await other.UntilAsync("api/queue", AllWork);
        await one.KillAsync();
        var queue = await other.UntilAsync("api/queue", AllAreOver);
        queue.EnumerateArray().Select(r => r.GetProperty("state").GetString()).ShouldBe(["done", "done"]);
        // One of the two was begun twice, since its server died; the other was left alone.
        (await two.NumberAsync("select sum(\"Attempts\") from \"Renditions\"")).ShouldBe(3);
        Directory.EnumerateFiles(Path.Combine(one.Data, "working")).ShouldBeEmpty();
    }

    /// <summary>As when the database's server restarts: every connection ends at once, and again while they come back.</summary>
    [Fact]
    public async Task A_database_that_drops_every_connection_costs_no_work()
    {
        await using var process = await ServerProcess.CreateAsync();
        var trainer = await process.StartAsync();
        var lesson = await LessonAsync(trainer, 8);
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "small-480p" } })).EnsureSuccessStatusCode();
        await trainer.UntilAsync("api/queue", AllWork);
        var dropped = 0L;
        for (var i = 0; i < 4; i++)
        {
            dropped += await process.NumberAsync(
                "select count(pg_terminate_backend(pid)) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()"
            );
            await Task.Delay(300);
        }

        dropped.ShouldBeGreaterThan(0);

        await AnswersAsync(trainer);
        (await trainer.UntilAsync("api/queue", AllAreOver))[0].GetProperty("state").GetString().ShouldBe("done");
        // What came to its end while nothing could be written down is gone on with once.
        (await process.NumberAsync("select sum(\"Attempts\") from \"Renditions\"")).ShouldBeInRange(1, 2);
    }

    [Fact]
    public async Task A_database_that_is_restarted_loses_no_work()
    {
        await using var process = await ServerProcess.CreateAsync();
        var trainer = await process.StartAsync();
        var lesson = await LessonAsync(trainer, 8);
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "small-480p" } })).EnsureSuccessStatusCode();
        await trainer.UntilAsync("api/queue", AllWork);
        (await process.TakeDatabaseAwayAsync(TimeSpan.FromSeconds(2.5))).ShouldBeGreaterThan(0);
        await AnswersAsync(trainer);
        (await trainer.UntilAsync("api/queue", AllAreOver))[0].GetProperty("state").GetString().ShouldBe("done");
        // What came to its end while nothing could be written down is gone on with once.
        (await process.NumberAsync("select sum(\"Attempts\") from \"Renditions\"")).ShouldBeInRange(1, 2);
    }

    /// <summary>The desk's own questions may fail while the connections come back.</summary>
    private static async Task AnswersAsync(HttpClient trainer)
    {
        for (var i = 0; i < 50; i++)
        {
            if ((await trainer.GetAsync("api/queue")).IsSuccessStatusCode)
                break;
            await Task.Delay(200);
        }
    }
}
