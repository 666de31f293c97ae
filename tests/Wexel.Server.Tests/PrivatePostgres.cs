using System.Diagnostics;
using System.Globalization;
using CliWrap;
using CliWrap.Buffered;

namespace Wexel.Server.Tests;

/// <summary>A PostgreSQL of one's own, which can be killed as a power cut kills it.</summary>
internal sealed class PrivatePostgres : IAsyncDisposable
{
    private readonly string _folder;
    private readonly int _port = ServerProcess.FreePort();

    private PrivatePostgres(string folder) => _folder = folder;

    internal string Connection => $"Host=127.0.0.1;Port={_port.ToString(CultureInfo.InvariantCulture)};Username=wexel";

    private string Data => Path.Combine(_folder, "data");

    internal static async Task<PrivatePostgres> StartAsync()
    {
        var folder = Directory.CreateTempSubdirectory("wexel-postgres-").FullName;
        File.SetUnixFileMode(
            folder,
            UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute | UnixFileMode.OtherExecute | UnixFileMode.GroupExecute
        );
        var postgres = new PrivatePostgres(folder);
        Directory.CreateDirectory(postgres.Data);
        if (Environment.UserName == "root")
            await CliWrap.Cli.Wrap("chown").WithArguments(["postgres", postgres.Data]).ExecuteAsync();
        await RunAsync("initdb", "-D", postgres.Data, "-A", "trust", "-U", "wexel", "-E", "UTF8", "--locale=C.UTF-8");
        await postgres.UpAsync();
        return postgres;
    }

    /// <summary>Starts it; what it had acknowledged is there again.</summary>
    internal Task UpAsync() =>
        RunAsync(
            "pg_ctl",
            "-D",
            Data,
            "-w",
            "-t",
            "120",
            "-l",
            Path.Combine(Data, "log"),
            "-o",
            $"-p {_port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_connections=200 -c fsync=off",
            "start"
        );

    /// <summary>SIGKILL, to all of it.</summary>
    internal async Task KillAsync()
    {
        var postmaster = int.Parse(File.ReadLines(Path.Combine(Data, "postmaster.pid")).First(), CultureInfo.InvariantCulture);
        foreach (var child in Process.GetProcessesByName("postgres").Where(p => Parent(p.Id) == postmaster))
            Kill(child.Id);
        Kill(postmaster);
        for (var i = 0; i < 200 && Directory.Exists($"/proc/{postmaster}"); i++)
            await Task.Delay(20);
        File.Delete(Path.Combine(Data, "postmaster.pid"));
    }

    public async ValueTask DisposeAsync()
    {
        await KillAsync();
        Directory.Delete(_folder, recursive: true);
    }

    private static void Kill(int id)
    {
        try
        {
            Process.GetProcessById(id).Kill();
        }
        catch (Exception gone) when (gone is ArgumentException or InvalidOperationException)
        {
            // It was quicker.
        }
    }

    private static int Parent(int id)
    {
        try
        {
            return File.ReadAllText($"/proc/{id}/stat") is var stat
                ? int.Parse(stat[(stat.LastIndexOf(')') + 2)..].Split(' ')[1], CultureInfo.InvariantCulture)
                : 0;
        }
        catch (IOException)
        {
            return 0;
        }
    }

    /// <summary>PostgreSQL refuses to run as root.</summary>
    private static async Task RunAsync(string tool, params string[] arguments)
    {
        var path = Directory
            .EnumerateDirectories("/usr/lib/postgresql")
            .OrderByDescending(v => int.Parse(Path.GetFileName(v), CultureInfo.InvariantCulture))
            .Select(v => Path.Combine(v, "bin", tool))
            .First();
        var command =
            Environment.UserName == "root"
                ? CliWrap.Cli.Wrap("runuser").WithArguments(["-u", "postgres", "--", path, .. arguments])
                : CliWrap.Cli.Wrap(path).WithArguments(arguments);
        await command.WithWorkingDirectory("/").ExecuteAsync();
    }
}
