using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.Configuration;
using Npgsql;

namespace Wexel.Server.Tests;

/// <summary>The real server on a real PostgreSQL, with a database and a store of its own and one short recording as its demo.</summary>
public class ServerFixture : IAsyncLifetime
{
    internal const string Trainer = "mara.tarn@brackwater.example";
    internal const string Learner = "joss.reed@brackwater.example";
    internal const string Password = "Ferry-2026";

    /// <summary>The first half of a recording of the demo's at half its size, made once for all: each class of tests has it looked through and rendered.</summary>
    private static readonly Lazy<Task<string>> SmallRecording = new(async () =>
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("wexel-recording-").FullName, "small.mov");
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(Path.GetDirectoryName(path)!, recursive: true);
        string[] encode = ["-map", "0:v", "-vf", "scale=960:540", "-c:v", "libx264", "-preset", "veryfast", "-crf", "12", "-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709", "-color_range", "tv"];
        await CliWrap.Cli.Wrap("ffmpeg").WithArguments(["-nostdin", "-v", "error", "-t", "16", "-i", Path.Combine(Home, "demo", "recordings", "Untitled 7.mov"), .. encode, path]).ExecuteAsync();
        return path;
    });

    private readonly string _database = $"wexel_test_{Guid.NewGuid():N}";
    private readonly string _folder = Directory.CreateTempSubdirectory("wexel-server-").FullName;
    private WebApplicationFactory<Setup.WexelOptions>? _server;

    internal static string Postgres => Environment.GetEnvironmentVariable("WEXEL_TEST_POSTGRES") ?? throw new InvalidOperationException("Run ./wexel test, which starts PostgreSQL.");

    internal static string Home => Environment.GetEnvironmentVariable("WEXEL_HOME") ?? throw new InvalidOperationException("Run ./wexel test.");

    internal string Connection => $"{Postgres};Database={_database}";

    internal string Data => Path.Combine(_folder, "data");

    internal string HandIn => Path.Combine(_folder, "hand-in");

    /// <summary>The demo's one recording.</summary>
    internal string Recording { get; private set; } = "";

    internal StandInsFixture Outside { get; } = new();

    internal WebApplicationFactory<Setup.WexelOptions> Server => _server!;

    public async ValueTask InitializeAsync()
    {
        await Outside.InitializeAsync();
        await ExecuteAsync($"create database {_database}");
        var demo = Directory.CreateDirectory(Path.Combine(_folder, "demo", "recordings")).Parent!.FullName;
        Recording = Path.Combine(demo, "recordings", "Untitled 7.mov");
        File.Copy(await SmallRecording.Value, Recording);
        await File.WriteAllTextAsync(Path.Combine(demo, "recordings", "c.txt"), "0:00 Counting\n0:12.5 Coins\n");
        await File.WriteAllTextAsync(Path.Combine(demo, "lessons.json"), $$"""[{ "file": "Untitled 7.mov", "title": "Closing the till", "description": "d", "contents": "c.txt", "released": {{(Released ? "true" : "false")}} }]""");
        _server = new WebApplicationFactory<Setup.WexelOptions>().WithWebHostBuilder(host =>
        {
            host.UseSetting("ConnectionStrings:Wexel", Connection);
            host.UseSetting("Wexel:Data", Data);
            host.UseSetting("Wexel:Assets", Path.Combine(Home, "artifacts"));
            host.UseSetting("Wexel:Demo", demo);
            host.UseSetting("Wexel:SmtpPort", Outside.SmtpPort.ToString(System.Globalization.CultureInfo.InvariantCulture));
            host.UseSetting("Wexel:KeepFree", "0");
            host.UseSetting("Wexel:HandIn", HandIn);
            host.UseSetting("Wexel:HandInSettles", "00:00:05");
            host.UseSetting("Wexel:PracticeLearningSystem", new Uri(Outside.Client.BaseAddress!, "learning/packages/").AbsoluteUri);
        });
        _ = _server.Server;
    }

    public async ValueTask DisposeAsync()
    {
        GC.SuppressFinalize(this);
        await _server!.DisposeAsync();
        await Outside.DisposeAsync();
        NpgsqlConnection.ClearAllPools();
        await ExecuteAsync($"drop database {_database} with (force)");
        Directory.Delete(_folder, recursive: true);
    }

    /// <summary>Whether the demo's lesson is rendered and released everywhere, which takes a while.</summary>
    protected virtual bool Released => false;

    internal HttpClient Anonymous() => Server.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });

    internal async Task<HttpClient> SignedInAsync(string who = Trainer)
    {
        var client = Anonymous();
        (await client.PostAsJsonAsync("/api/sign-in", new { email = who, password = Password })).EnsureSuccessStatusCode();
        return client;
    }

    internal static async Task ExecuteAsync(string sql)
    {
        await using var connection = new NpgsqlConnection($"{Postgres};Database=postgres");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}

/// <summary>The same with its lesson on the way to every outlet of the demo.</summary>
public sealed class ReleasedServerFixture : ServerFixture
{
    protected override bool Released => true;
}

internal static class Reading
{
    internal static async Task<JsonElement> JsonAsync(this HttpClient client, string address) => await client.GetFromJsonAsync<JsonElement>(address);

    /// <summary>Asks again until something is so; three minutes at most, since a busy machine is slow.</summary>
    internal static async Task<JsonElement> UntilAsync(this HttpClient client, string address, Func<JsonElement, bool> so)
    {
        JsonElement last = default;
        for (var i = 0; i < 900; i++)
        {
            last = await client.JsonAsync(address);
            if (so(last))
                return last;
            await Task.Delay(200);
        }

        throw new TimeoutException($"{address} did not come to it: {last}");
    }

    internal static async Task<JsonElement> ProblemAsync(this HttpResponseMessage response)
    {
        response.Content.Headers.ContentType?.MediaType.ShouldBe("application/problem+json");
        return await response.Content.ReadFromJsonAsync<JsonElement>();
    }
}
