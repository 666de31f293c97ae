using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Tests;

/// <summary>The real server on a real PostgreSQL, with a database and a store of its own and one short recording as its demo, looked through already.</summary>
public class ServerFixture : IAsyncLifetime
{
    internal const string Trainer = "mara.tarn@brackwater.example";
    internal const string Learner = "joss.reed@brackwater.example";
    internal const string Password = "Ferry-2026";

    private static readonly SemaphoreSlim Copying = new(1);

    private readonly string _database = $"wexel_test_{Guid.NewGuid():N}";
    private readonly string _folder = Directory.CreateTempSubdirectory("wexel-server-").FullName;
    private WebApplicationFactory<Setup.WexelOptions>? _server;

    internal static string Postgres =>
        Environment.GetEnvironmentVariable("WEXEL_TEST_POSTGRES") ?? throw new InvalidOperationException("Run ./wexel test, which starts PostgreSQL.");

    internal static string Home => Environment.GetEnvironmentVariable("WEXEL_HOME") ?? throw new InvalidOperationException("Run ./wexel test.");

    internal string Database => _database;

    internal string Connection => $"{Postgres};Database={_database}";

    /// <summary>What the demo's house says: there is no material of others in its lessons.</summary>
    internal const string HouseSays = """{ "thirdParty": { "used": false } }""";

    /// <summary>A port of this machine that outlets may be reached at; what listens there, a test says.</summary>
    internal static int SilentPort { get; } = FreePort();

    private static int FreePort()
    {
        using var asked = new System.Net.Sockets.Socket(System.Net.Sockets.SocketType.Stream, System.Net.Sockets.ProtocolType.Tcp);
        asked.Bind(new IPEndPoint(IPAddress.Loopback, 0));
        return ((IPEndPoint)asked.LocalEndPoint!).Port;
    }

    internal string Data => Path.Combine(_folder, "data");

    internal string HandIn => Path.Combine(_folder, "hand-in");

    /// <summary>The demo's one recording.</summary>
    internal string Recording { get; private set; } = "";

    internal StandInsFixture Outside { get; private set; } = null!;

    internal WebApplicationFactory<Setup.WexelOptions> Server => _server!;

    public async ValueTask InitializeAsync()
    {
        var seeded = await SeededServer.ReadyAsync(Released);
        // What was released lies with the stand-ins that it was released to.
        Outside = seeded.Outside ?? await StandInsFixture.StartAsync();
        await seeded.CopyAsync(_database, Data, new Uri(Outside.Client.BaseAddress!, "learning/packages/"));
        Recording = seeded.Recording;
        _server = Start(Connection, Data, seeded.Demo, Outside)
            .WithWebHostBuilder(host =>
            {
                host.UseSetting("Wexel:HandIn", HandIn);
                Set(host);
            });
        _ = _server.Server;
    }

    /// <summary>A server that is set up as the tests want it: what takes seconds elsewhere takes less, and what is kept free elsewhere is not.</summary>
    internal static WebApplicationFactory<Setup.WexelOptions> Start(string connection, string data, string demo, StandInsFixture outside) =>
        new WebApplicationFactory<Setup.WexelOptions>().WithWebHostBuilder(host =>
        {
            host.UseSetting("ConnectionStrings:Wexel", connection);
            host.UseSetting("Wexel:Data", data);
            host.UseSetting("Wexel:Assets", Path.Combine(Home, "artifacts"));
            host.UseSetting("Wexel:Demo", demo);
            host.UseSetting("Wexel:SmtpPort", outside.SmtpPort.ToString(System.Globalization.CultureInfo.InvariantCulture));
            host.UseSetting("Wexel:OutletHosts:0", $"127.0.0.1:{SilentPort}");
            host.UseSetting("Wexel:KeepFree", "0");
            // Where speech is what is looked at, that is said.
            host.UseSetting("Wexel:SpeechDrafts", "false");
            host.UseSetting("Wexel:ReadScreens", "false");
            host.UseSetting("Wexel:PasswordIterations", "1000");
            host.UseSetting("Wexel:SignInsAnAddress", "100000");
            host.UseSetting("Wexel:HandInSettles", "00:00:01.5");
            host.UseSetting("Wexel:HandInLooksEvery", "00:00:00.25");
            host.UseSetting("Wexel:FollowersEvery", "00:00:00.5");
            host.UseSetting("Wexel:LostAfter", "00:00:04");
            host.UseSetting("Wexel:LeftWorkEvery", "00:00:02");
            host.UseSetting("Wexel:PracticeDirectory", outside.Client.BaseAddress!.AbsoluteUri);
            host.UseSetting("Wexel:PracticeLearningSystem", new Uri(outside.Client.BaseAddress!, "learning/packages/").AbsoluteUri);
        });

    public async ValueTask DisposeAsync()
    {
        GC.SuppressFinalize(this);
        await _server!.DisposeAsync();
        await EndAsync();
        if (!Released)
            await Outside.DisposeAsync();
        await ExecuteAsync($"drop database {_database} with (force)");
        Directory.Delete(_folder, recursive: true);
    }

    /// <summary>Ends what others do not have.</summary>
    protected virtual ValueTask EndAsync() => ValueTask.CompletedTask;

    /// <summary>Sets the server up otherwise than others.</summary>
    protected virtual void Set(IWebHostBuilder host) { }

    /// <summary>Whether the demo's lesson is rendered and released everywhere, which takes a while.</summary>
    protected virtual bool Released => false;

    internal HttpClient Anonymous() => Server.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });

    internal async Task<HttpClient> SignedInAsync(string who = Trainer)
    {
        var client = Anonymous();
        (await client.PostAsJsonAsync("/api/sign-in", new { email = who, password = Password })).EnsureSuccessStatusCode();
        return client;
    }

    /// <summary>Works on the server's database.</summary>
    internal async Task WithAsync(Func<WexelDb, Task> work)
    {
        using var scope = Server.Services.CreateScope();
        await work(scope.ServiceProvider.GetRequiredService<WexelDb>());
    }

    /// <summary>Makes somebody who can sign in.</summary>
    internal async Task<Guid> PersonAsync(string mail, string name, string? role = null)
    {
        using var scope = Server.Services.CreateScope();
        var people = scope.ServiceProvider.GetRequiredService<UserManager<Person>>();
        var person = new Person
        {
            UserName = mail,
            Email = mail,
            DisplayName = name,
        };
        (await people.CreateAsync(person, Password)).Succeeded.ShouldBeTrue();
        if (role is not null)
            await people.AddToRoleAsync(person, role);
        return person.Id;
    }

    /// <summary>Copies a database, which PostgreSQL does only while nobody else uses it: one after the other.</summary>
    internal static async Task CopyDatabaseAsync(string template, string database)
    {
        await Copying.WaitAsync();
        try
        {
            await ExecuteAsync($"create database {database} template {template}");
        }
        finally
        {
            Copying.Release();
        }
    }

    internal static async Task ExecuteAsync(string sql, string database = "postgres")
    {
        await using var connection = new NpgsqlConnection($"{Postgres};Database={database};Pooling=false");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}

/// <summary>The same with its lesson released at every outlet of the demo.</summary>
public sealed class ReleasedServerFixture : ServerFixture
{
    protected override bool Released => true;
}

internal static class Reading
{
    internal static async Task<JsonElement> JsonAsync(this HttpClient client, string address) => await client.GetFromJsonAsync<JsonElement>(address);

    /// <summary>Waits until what was changed behind the server's back is heard of: sooner than by the five seconds for which it is remembered.</summary>
    internal static async Task UntilStatusAsync(this HttpClient client, string address, HttpStatusCode status)
    {
        HttpStatusCode last = 0;
        for (var began = Stopwatch.GetTimestamp(); last != status && Stopwatch.GetElapsedTime(began) < TimeSpan.FromSeconds(4); )
        {
            last = (await client.GetAsync(address)).StatusCode;
            if (last != status)
                await Task.Delay(50);
        }

        last.ShouldBe(status);
    }

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

    /// <summary>The demo's lesson, rendered with a profile.</summary>
    internal static async Task<string> RenderedAsync(this HttpClient trainer, string profile)
    {
        var lesson = (await trainer.UntilAsync("/api/lessons", c => c.GetArrayLength() > 0 && c[0].GetProperty("lessons").GetArrayLength() > 0))[0]
            .GetProperty("lessons")[0]
            .GetProperty("id")
            .GetString()!;
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { profile } })).EnsureSuccessStatusCode();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d =>
            d.GetProperty("renditions")
                .EnumerateArray()
                .Any(r => r.GetProperty("profileId").GetString() == profile && r.GetProperty("state").GetString() == "done")
        );
        return lesson;
    }

    internal static async Task<JsonElement> ProblemAsync(this HttpResponseMessage response)
    {
        response.Content.Headers.ContentType?.MediaType.ShouldBe("application/problem+json");
        return await response.Content.ReadFromJsonAsync<JsonElement>();
    }
}
