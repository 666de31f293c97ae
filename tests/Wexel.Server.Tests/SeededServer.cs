using System.Globalization;
using System.Text.Json;
using Npgsql;

namespace Wexel.Server.Tests;

/// <summary>
/// A server's database and store with the demo in them, made once for all tests and copied for each class of them: a database by
/// PostgreSQL's templates.
/// </summary>
internal sealed class SeededServer
{
    private static readonly Lazy<Task<SeededServer>> BroughtIn = new(() => MakeAsync(released: false));
    private static readonly Lazy<Task<SeededServer>> Released = new(() => MakeAsync(released: true));

    private readonly string _database = $"wexel_seeded_{Guid.NewGuid():N}";
    private readonly string _folder;

    private SeededServer(string folder) => _folder = folder;

    /// <summary>The demo's one recording.</summary>
    internal string Recording => Path.Combine(Demo, "recordings", "Untitled 7.mov");

    /// <summary>The stand-ins to which its lesson was released; null where it was not.</summary>
    internal StandInsFixture? Outside { get; private set; }

    internal string Demo => Path.Combine(_folder, "demo");

    private string Data => Path.Combine(_folder, "data");

    /// <param name="released">Whether its lesson is rendered and released at every outlet, or only looked through.</param>
    internal static Task<SeededServer> ReadyAsync(bool released) => (released ? Released : BroughtIn).Value;

    /// <summary>Copies both; the demo's learning system then lies at another address.</summary>
    internal async Task CopyAsync(string database, string data, Uri learningSystem)
    {
        await ServerFixture.CopyDatabaseAsync(_database, database);
        await ServerFixture.ExecuteAsync($"update \"Outlets\" set \"DeliverTo\" = '{learningSystem}' where \"DeliverTo\" is not null", database);
        foreach (var file in Directory.EnumerateFiles(Data, "*", SearchOption.AllDirectories))
        {
            var to = Path.Combine(data, Path.GetRelativePath(Data, file));
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Copy(file, to);
            File.SetLastWriteTimeUtc(to, File.GetLastWriteTimeUtc(file));
        }
    }

    private static async Task<SeededServer> MakeAsync(bool released)
    {
        var made = new SeededServer(Directory.CreateTempSubdirectory("wexel-seeded-").FullName);
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(made._folder, recursive: true);
        Directory.CreateDirectory(Path.Combine(made.Demo, "recordings"));
        await MakeRecordingAsync(made.Recording);
        await File.WriteAllTextAsync(Path.Combine(made.Demo, "recordings", "c.txt"), "0:00 Counting\n0:12.5 Coins\n");
        await File.WriteAllTextAsync(Path.Combine(made.Demo, "house.json"), ServerFixture.HouseSays);
        await File.WriteAllTextAsync(
            Path.Combine(made.Demo, "lessons.json"),
            """[{ "course": "Ticket desk basics", "file": "Untitled 7.mov", "title": "Closing the till", """
                + $$""" "length": "0:25", "description": "d", "contents": "c.txt", "released": {{(released ? "true" : "false")}} }]"""
        );
        await ServerFixture.ExecuteAsync($"create database {made._database}");
        var connection = $"{ServerFixture.Postgres};Database={made._database}";
        var outside = await StandInsFixture.StartAsync();
        await using (var server = ServerFixture.Start(connection, made.Data, made.Demo, outside))
        {
            var trainer = server.CreateClient();
            (
                await System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(
                    trainer,
                    "/api/sign-in",
                    new { email = ServerFixture.Trainer, password = ServerFixture.Password }
                )
            ).EnsureSuccessStatusCode();
            var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
            await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
            if (released)
                await trainer.UntilAsync($"/api/lessons/{lesson}/releases", o =>
                    o.EnumerateArray().All(x => x.GetProperty("release").ValueKind == JsonValueKind.Object)
                );
            for (var i = 0; await JobsAsync(connection) > 0 && i < 300; i++)
                await Task.Delay(100);
        }

        if (released)
            made.Outside = outside;
        else
            await outside.DisposeAsync();
        NpgsqlConnection.ClearPool(new NpgsqlConnection(connection));
        await ServerFixture.ExecuteAsync($"select pg_terminate_backend(pid) from pg_stat_activity where datname = '{made._database}'");
        return made;
    }

    /// <summary>How much is still to be done.</summary>
    private static async Task<long> JobsAsync(string connection)
    {
        await using var database = new NpgsqlConnection(connection + ";Pooling=false");
        await database.OpenAsync();
        await using var jobs = new NpgsqlCommand("select count(*) from hangfire.job where statename in ('Enqueued', 'Processing', 'Scheduled')", database);
        return Convert.ToInt64(await jobs.ExecuteScalarAsync(), CultureInfo.InvariantCulture);
    }

    /// <summary>The first half of a recording of the demo's at half its size.</summary>
    private static Task MakeRecordingAsync(string path)
    {
        string[] encode =
        [
            "-map",
            "0:v",
            "-vf",
            "scale=960:540",
            "-c:v",
            "libx264",
            "-preset",
            "veryfast",
            "-crf",
            "12",
            "-colorspace",
            "bt709",
            "-color_primaries",
            "bt709",
            "-color_trc",
            "bt709",
            "-color_range",
            "tv",
        ];
        return CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments([
                "-nostdin",
                "-v",
                "error",
                "-t",
                "16",
                "-i",
                Path.Combine(ServerFixture.Home, "demo", "recordings", "Untitled 7.mov"),
                .. encode,
                path,
            ])
            .ExecuteAsync();
    }
}
