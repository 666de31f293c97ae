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

    private ServerProcess(string folder, string database, bool owns) => (_folder, _database, _owns) = (folder, database, owns);

    internal string Data => Path.Combine(_folder, "data");

    internal static async Task<ServerProcess> CreateAsync()
    {
        var server = new ServerProcess(Directory.CreateTempSubdirectory("wexel-killed-").FullName, $"wexel_killed_{Guid.NewGuid():N}", owns: true);
        await ServerFixture.CopyDatabaseAsync(await Blank.Value, server._database);
        return server;
    }

    private static async Task<string> MakeBlankAsync()
    {
        var (folder, database) = (Directory.CreateTempSubdirectory("wexel-blank-").FullName, $"wexel_blank_{Guid.NewGuid():N}");
        await File.WriteAllTextAsync(Path.Combine(folder, "lessons.json"), "[]");
        await ServerFixture.ExecuteAsync($"create database {database}");
        var outside = await StandInsFixture.StartAsync();
        await using (outside)
        await using (var server = ServerFixture.Start($"{ServerFixture.Postgres};Database={database};Pooling=false", Path.Combine(folder, "data"), folder, outside))
            _ = server.Server;
        await ServerFixture.ExecuteAsync($"select pg_terminate_backend(pid) from pg_stat_activity where datname = '{database}'");
        Directory.Delete(folder, recursive: true);
        return database;
    }

    /// <summary>A second process on the same database and the same files.</summary>
    internal ServerProcess Another() => new(_folder, _database, owns: false);

    /// <summary>Asks the database something that answers with one number.</summary>
    internal Task<long> NumberAsync(string sql) => NumberAsync(sql, _database);

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

    private static async Task<long> NumberAsync(string sql, string database)
    {
        await using var connection = new NpgsqlConnection($"{ServerFixture.Postgres};Database={database};Pooling=false");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        return Convert.ToInt64(await command.ExecuteScalarAsync(), CultureInfo.InvariantCulture);
    }

    /// <summary>Starts it and signs in.</summary>
    internal async Task<HttpClient> StartAsync()
    {
        var home = ServerFixture.Home;
        var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true };
        start.ArgumentList.Add(Path.Combine(home, "src", "Wexel.Server", "bin", "Release", "net10.0", "Wexel.Server.dll"));
        start.Environment["ASPNETCORE_URLS"] = $"http://127.0.0.1:{_port}";
        start.Environment["ConnectionStrings__Wexel"] = $"{ServerFixture.Postgres};Database={_database}";
        start.Environment["Wexel__Data"] = Data;
        start.Environment["Wexel__Assets"] = Path.Combine(home, "artifacts");
        start.Environment["Wexel__KeepFree"] = "0";
        start.Environment["Wexel__LostAfter"] = "00:00:04";
        _process = Process.Start(start)!;
        _process.OutputDataReceived += (_, _) => { };
        _process.BeginOutputReadLine();
        var client = new HttpClient { BaseAddress = new Uri($"http://127.0.0.1:{_port}/") };
        for (var i = 0; ; i++)
        {
            try
            {
                (await client.PostAsJsonAsync("api/sign-in", new { email = ServerFixture.Trainer, password = ServerFixture.Password })).EnsureSuccessStatusCode();
                return client;
            }
            catch (HttpRequestException) when (i < 1800 && !_process.HasExited)
            {
                await Task.Delay(100);
            }
        }
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
