using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using Npgsql;

namespace Wexel.Server.Tests;

/// <summary>The server as its own process, which can be killed as a power cut kills it, and started again on the same data.</summary>
internal sealed class ServerProcess : IAsyncDisposable
{
    /// <summary>A database that is up to date and has the demo's people and outlets, and no lesson; it is copied for each.</summary>
    private static readonly Lazy<Task<string>> Blank = new(MakeBlankAsync);

    private readonly string _folder;
    private readonly string _database;
    private readonly bool _owns;
    private readonly int _port = FreePort();
    private Process? _process;

    private readonly string _postgres;
    private readonly IReadOnlyDictionary<string, string> _settings;

    private ServerProcess(string folder, string postgres, string database, bool owns, IReadOnlyDictionary<string, string> settings) =>
        (_folder, _postgres, _database, _owns, _settings) = (folder, postgres, database, owns, settings);

    /// <summary>What is started, as <c>./wexel up</c> starts it.</summary>
    internal static string Program => Path.Combine(ServerFixture.Home, "artifacts", "server", "Wexel.Server.dll");

    internal string Data => Path.Combine(_folder, "data");

    /// <summary>What it wrote to its log, since it was made.</summary>
    internal ConcurrentQueue<string> Log { get; } = [];

    /// <summary>Whether it has ended.</summary>
    internal bool HasEnded => _process!.HasExited;

    /// <summary>The process's number.</summary>
    internal int Id => _process!.Id;

    /// <param name="settings">What is set besides, as variables of its environment.</param>
    internal static async Task<ServerProcess> CreateAsync(IReadOnlyDictionary<string, string>? settings = null)
    {
        var server = new ServerProcess(
            Directory.CreateTempSubdirectory("wexel-killed-").FullName,
            ServerFixture.Postgres,
            $"wexel_killed_{Guid.NewGuid():N}",
            owns: true,
            settings ?? new Dictionary<string, string>()
        );
        await ServerFixture.CopyDatabaseAsync(await Blank.Value, server._database);
        return server;
    }

    private static async Task<string> MakeBlankAsync()
    {
        var (folder, database) = (Directory.CreateTempSubdirectory("wexel-blank-").FullName, $"wexel_blank_{Guid.NewGuid():N}");
        await File.WriteAllTextAsync(Path.Combine(folder, "house.json"), ServerFixture.HouseSays);
        await File.WriteAllTextAsync(Path.Combine(folder, "lessons.json"), "[]");
        await ServerFixture.ExecuteAsync($"create database {database}");
        var outside = await StandInsFixture.StartAsync();
        await using (outside)
        await using (
            var server = ServerFixture.Start($"{ServerFixture.Postgres};Database={database};Pooling=false", Path.Combine(folder, "data"), folder, outside)
        )
            _ = server.Server;
        await ServerFixture.ExecuteAsync($"select pg_terminate_backend(pid) from pg_stat_activity where datname = '{database}'");
        Directory.Delete(folder, recursive: true);
        return database;
    }

    /// <summary>A process on a PostgreSQL of one's own and a folder that stays; its database has the name wexel.</summary>
    internal static ServerProcess On(PrivatePostgres postgres, string folder, IReadOnlyDictionary<string, string> settings) =>
        new(folder, postgres.Connection, "wexel", owns: false, settings);

    /// <summary>A second process on the same database and the same files.</summary>
    internal ServerProcess Another() => new(_folder, _postgres, _database, owns: false, _settings);

    /// <summary>Asks the database something that answers with one number.</summary>
    internal Task<long> NumberAsync(string sql) => NumberAsync(sql, _database);

    /// <summary>Tells the database something.</summary>
    internal Task ExecuteAsync(string sql) => ServerFixture.ExecuteAsync(sql, _database);

    /// <summary>Takes the database away for a while, as a restart does: nobody is connected any more, and nobody can connect.</summary>
    /// <returns>How many were connected.</returns>
    internal async Task<long> TakeDatabaseAwayAsync(TimeSpan howLong)
    {
        await NumberAsync($"alter database \"{_database}\" with allow_connections false", "postgres");
        var connected = await NumberAsync($"select count(pg_terminate_backend(pid)) from pg_stat_activity where datname = '{_database}'", "postgres");
        await Task.Delay(howLong);
        await NumberAsync($"alter database \"{_database}\" with allow_connections true", "postgres");
        return connected;
    }

    private async Task<long> NumberAsync(string sql, string database)
    {
        await using var connection = new NpgsqlConnection($"{_postgres};Database={database};Pooling=false");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        return Convert.ToInt64(await command.ExecuteScalarAsync(), CultureInfo.InvariantCulture);
    }

    /// <summary>Starts it and signs in.</summary>
    internal async Task<HttpClient> StartAsync()
    {
        StartProcess();
        var client = Client();
        for (var i = 0; ; i++)
        {
            try
            {
                (
                    await client.PostAsJsonAsync("api/sign-in", new { email = ServerFixture.Trainer, password = ServerFixture.Password })
                ).EnsureSuccessStatusCode();
                return client;
            }
            catch (HttpRequestException) when (i < 1800 && !_process!.HasExited)
            {
                await Task.Delay(100);
            }
        }
    }

    /// <summary>Somebody who asks it, with cookies of their own.</summary>
    internal HttpClient Client() => new() { BaseAddress = new Uri($"http://127.0.0.1:{_port}/"), Timeout = TimeSpan.FromMinutes(2) };

    /// <summary>Starts it, and waits for nothing.</summary>
    internal void StartProcess()
    {
        var home = ServerFixture.Home;
        var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true };
        start.ArgumentList.Add(Program);
        start.Environment["ASPNETCORE_URLS"] = $"http://127.0.0.1:{_port}";
        start.Environment["ConnectionStrings__Wexel"] = $"{_postgres};Database={_database}";
        start.Environment["Wexel__Data"] = Data;
        start.Environment["Wexel__Assets"] = Path.Combine(home, "artifacts");
        start.Environment["Wexel__KeepFree"] = "0";
        start.Environment["Wexel__SpeechDrafts"] = "false";
        start.Environment["Wexel__ReadScreens"] = "false";
        start.Environment["Wexel__PasswordIterations"] = "1000";
        start.Environment["Wexel__LostAfter"] = "00:00:04";
        start.Environment["Wexel__LeftWorkEvery"] = "00:00:02";
        foreach (var (name, value) in _settings)
            start.Environment[name] = value;
        _process = Process.Start(start)!;
        _process.OutputDataReceived += (_, line) => Log.Enqueue(line.Data ?? "");
        _process.BeginOutputReadLine();
    }

    /// <summary>SIGKILL, to it alone: what it has started goes on.</summary>
    internal async Task KillAsync()
    {
        _process!.Kill();
        await _process.WaitForExitAsync();
    }

    public async ValueTask DisposeAsync()
    {
        if (_process is { HasExited: false })
            await KillAsync();
        if (!_owns)
            return;
        await ServerFixture.ExecuteAsync($"drop database {_database} with (force)");
        Directory.Delete(_folder, recursive: true);
    }

    internal static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
