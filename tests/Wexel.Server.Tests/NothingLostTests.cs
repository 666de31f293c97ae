using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Headers;
using System.Text.Json;

namespace Wexel.Server.Tests;

/// <summary>
/// What was acknowledged is there, whatever happens in the moment in which a file has moved to where recordings lie and the database does not know it
/// yet. A trigger holds the database in that moment.
/// </summary>
public sealed class NothingLostTests
{
    private const string Hold = """
        create function hold() returns trigger as $$ begin perform pg_sleep(600); return new; end $$ language plpgsql;
        create trigger hold before insert on "Recordings" for each row execute function hold();
        """;

    private const string LetGo = """drop trigger hold on "Recordings"; drop function hold();""";

    private static HttpRequestMessage Tus(HttpMethod method, string address, string header, long number, byte[]? piece = null)
    {
        var request = new HttpRequestMessage(method, address)
        {
            Headers = { { "Tus-Resumable", "1.0.0" }, { header, number.ToString(CultureInfo.InvariantCulture) } },
        };
        if (piece is not null)
            request.Content = new ByteArrayContent(piece) { Headers = { ContentType = new MediaTypeHeaderValue("application/offset+octet-stream") } };
        return request;
    }

    private static async Task<byte[]> ClipAsync(int seconds)
    {
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-lost-{Guid.NewGuid():N}.mp4");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-f", "lavfi", "-i", $"testsrc2=s=320x180:r=30:d={seconds}", "-pix_fmt", "yuv420p", clip])
            .ExecuteAsync();
        var bytes = await File.ReadAllBytesAsync(clip);
        File.Delete(clip);
        return bytes;
    }

    private static async Task<string> SendAsync(HttpClient trainer, byte[] bytes)
    {
        var at = (await trainer.SendAsync(Tus(HttpMethod.Post, "api/uploads", "Upload-Length", bytes.Length))).Headers.Location!.ToString();
        (await trainer.SendAsync(Tus(HttpMethod.Patch, at, "Upload-Offset", 0, bytes))).EnsureSuccessStatusCode();
        return at;
    }

    private static async Task UntilHeldAsync(ServerProcess process)
    {
        for (
            var i = 0;
            i < 1200 && await process.NumberAsync("select count(*) from pg_stat_activity where datname = current_database() and wait_event = 'PgSleep'") == 0;
            i++
        )
            await Task.Delay(50);
        Directory.EnumerateFiles(Path.Combine(process.Data, "recordings")).ShouldHaveSingleItem();
    }

    /// <summary>A recording was sent in pieces, all of it is acknowledged, and the database is held in that moment.</summary>
    private static async Task<(HttpClient Trainer, byte[] Bytes, string At)> SentAndHeldAsync(ServerProcess process)
    {
        var trainer = await process.StartAsync();
        var bytes = await ClipAsync(2);
        await process.ExecuteAsync(Hold);
        var at = await SendAsync(trainer, bytes);
        await UntilHeldAsync(process);
        return (trainer, bytes, at);
    }

    private static async Task ReleaseAsync(ServerProcess process)
    {
        // Whoever is held holds the table too.
        await process.NumberAsync(
            "select count(pg_terminate_backend(pid)) from pg_stat_activity where datname = current_database() and wait_event = 'PgSleep'"
        );
        await process.ExecuteAsync(LetGo);
    }

    private static async Task OneLessonAsync(ServerProcess process, HttpClient trainer, byte[] bytes)
    {
        (await process.NumberAsync("select count(*) from \"Lessons\"")).ShouldBe(1);
        var recording = Directory.EnumerateFiles(Path.Combine(process.Data, "recordings")).ShouldHaveSingleItem();
        (await File.ReadAllBytesAsync(recording)).ShouldBe(bytes);
        Directory.EnumerateFiles(Path.Combine(process.Data, "uploads")).ShouldBeEmpty();
        await trainer.UntilAsync($"api/recordings/{Path.GetFileName(recording)}", r => r.GetProperty("analysis").ValueKind == JsonValueKind.Object);
    }

    [Fact]
    public async Task An_upload_that_came_whole_is_there_when_the_server_is_killed_in_the_moment_of_moving_it()
    {
        await using var process = await ServerProcess.CreateAsync();
        var (trainer, bytes, at) = await SentAndHeldAsync(process);
        await process.KillAsync();
        await ReleaseAsync(process);

        trainer = await process.StartAsync();
        await trainer.UntilAsync(at, u => u.GetProperty("lessonId").ValueKind == JsonValueKind.String);
        await OneLessonAsync(process, trainer, bytes);
    }

    [Fact]
    public async Task It_is_there_when_the_database_goes_away_in_that_moment()
    {
        await using var process = await ServerProcess.CreateAsync();
        var (trainer, bytes, at) = await SentAndHeldAsync(process);
        await process.TakeDatabaseAwayAsync(TimeSpan.FromSeconds(3));
        await ReleaseAsync(process);

        for (var i = 0; ; i++)
        {
            // Until its connections are new, the server answers that it could not.
            if ((await trainer.GetAsync(at)).IsSuccessStatusCode || i == 100)
                break;
            await Task.Delay(100);
        }

        await trainer.UntilAsync(at, u => u.GetProperty("lessonId").ValueKind == JsonValueKind.String);
        await OneLessonAsync(process, trainer, bytes);
    }

    /// <summary>Whoever sent it in one go got no answer; what came whole is brought in all the same.</summary>
    [Fact]
    public async Task A_recording_that_came_in_one_go_is_there_too()
    {
        await using var process = await ServerProcess.CreateAsync();
        var trainer = await process.StartAsync();
        var bytes = await ClipAsync(2);
        await process.ExecuteAsync(Hold);
        var sending = trainer.PutAsync(
            "api/recordings?fileName=deck.mp4",
            new ByteArrayContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
        );
        await UntilHeldAsync(process);
        await process.KillAsync();
        await Should.ThrowAsync<HttpRequestException>(sending);
        await ReleaseAsync(process);

        trainer = await process.StartAsync();
        for (var i = 0; i < 600 && await process.NumberAsync("select count(*) from \"Lessons\"") == 0; i++)
            await Task.Delay(100);
        await OneLessonAsync(process, trainer, bytes);
    }

    /// <summary>With the server that looks through one recording, another on the same files and database; none is started anew.</summary>
    [Fact]
    public async Task What_a_killed_server_was_looking_through_is_looked_through_by_another()
    {
        await using var one = await ServerProcess.CreateAsync();
        await using var two = one.Another();
        var trainer = await one.StartAsync();
        var other = await two.StartAsync();
        // Noise that is slow to decode and large, in a form that needs a viewing copy: long enough to be caught at.
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-lost-{Guid.NewGuid():N}.avi");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-f", "lavfi", "-i", "testsrc2=s=640x480:r=30:d=15,noise=alls=12:allf=t", "-c:v", "mpeg4", "-q:v", "10", clip])
            .ExecuteAsync();
        var answer = await trainer.PutAsync(
            "api/recordings?fileName=deck.avi",
            new ByteArrayContent(await File.ReadAllBytesAsync(clip)) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
        );
        File.Delete(clip);
        var hash = JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement.GetProperty("hash").GetString()!;
        // Either may have taken it: whoever's child works on it is killed, and its child with it, as when its machine goes off.
        var (server, encoder) = (0, 0);
        for (var i = 0; i < 1200 && encoder == 0; i++)
        {
            encoder = Process
                .GetProcessesByName("ffmpeg")
                .Select(p => p.Id)
                .FirstOrDefault(id => Read($"/proc/{id}/cmdline").Contains(hash, StringComparison.Ordinal));
            server = encoder == 0 ? 0 : int.Parse(Read($"/proc/{encoder}/stat").Split(' ')[3], CultureInfo.InvariantCulture);
            if (encoder == 0)
                await Task.Delay(20);
        }

        var (killed, lives) = server == one.Id ? (one, other) : (two, trainer);
        await killed.KillAsync();
        Process.GetProcessById(encoder).Kill();
        await lives.UntilAsync($"api/recordings/{hash}", r =>
            r.GetProperty("analysis").ValueKind == JsonValueKind.Object && r.GetProperty("viewable").GetBoolean()
        );

        static string Read(string path)
        {
            try
            {
                return File.ReadAllText(path);
            }
            catch (IOException)
            {
                return "";
            }
        }
    }
}
