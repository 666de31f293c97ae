using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json;
using CliWrap;
using CliWrap.Buffered;

namespace Wexel.Server.Tests;

/// <summary>What whoever runs Wexel does with <c>./wexel</c>: starts it, backs it up while it runs, and restores it elsewhere.</summary>
public sealed class OperatingTests
{
    private readonly string _folder = Path.Combine("/var/tmp", $"wexel-operating-{Guid.NewGuid():N}");

    private Command Wexel(string state, int port, params string[] arguments) =>
        CliWrap
            .Cli.Wrap(Path.Combine(ServerFixture.Home, "wexel"))
            .WithArguments(arguments)
            .WithValidation(CommandResultValidation.None)
            .WithEnvironmentVariables(set =>
                set.Set("WEXEL_STATE", Path.Combine(_folder, state))
                    .Set("WEXEL_PORT", port.ToString(CultureInfo.InvariantCulture))
                    .Set("WEXEL_DEMO", Path.Combine(_folder, "demo"))
                    .Set("Wexel__PasswordIterations", "1000")
            );

    /// <summary>Five free ports in a row.</summary>
    private static int Ports()
    {
        while (true)
        {
            var port = ServerProcess.FreePort();
            if (port < 60_000 && Enumerable.Range(port, 5).All(IsFree))
                return port;
        }

        static bool IsFree(int port)
        {
            try
            {
                using var listener = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, port);
                listener.Start();
                return true;
            }
            catch (System.Net.Sockets.SocketException)
            {
                return false;
            }
        }
    }

    private static async Task<HttpClient> SignedInAsync(int port)
    {
        var client = new HttpClient { BaseAddress = new Uri($"http://127.0.0.1:{port}/") };
        for (var i = 0; ; i++)
        {
            try
            {
                (
                    await client.PostAsJsonAsync("api/sign-in", new { email = ServerFixture.Trainer, password = ServerFixture.Password })
                ).EnsureSuccessStatusCode();
                return client;
            }
            catch (HttpRequestException) when (i < 1800)
            {
                await Task.Delay(100);
            }
        }
    }

    [Fact]
    public async Task A_backup_that_was_made_while_it_worked_is_all_of_it_elsewhere()
    {
        var seeded = await SeededServer.ReadyAsync(released: false);
        Directory.CreateDirectory(_folder);
        CopyFolder(seeded.Demo, Path.Combine(_folder, "demo"));
        var (port, backup) = (Ports(), Path.Combine(_folder, "backup.tar"));
        var running = Wexel("state", port, "up").ExecuteBufferedAsync();
        try
        {
            var trainer = await SignedInAsync(port);
            var lesson = (await trainer.JsonAsync("api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetString();
            await trainer.UntilAsync($"api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
            (await trainer.PostAsJsonAsync("api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "small-480p" } })).EnsureSuccessStatusCode();
            // The database asks for a password: no user of the machine gets in without.
            var state = Path.Combine(_folder, "state");
            File.GetUnixFileMode(Path.Combine(state, "postgres.password")).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
            File.ReadLines(Path.Combine(state, "postgres", "pg_hba.conf"))
                .Where(l => l.Length > 0 && l[0] != '#')
                .ShouldAllBe(l => l.EndsWith("scram-sha-256", StringComparison.Ordinal));
            await Should.ThrowAsync<Npgsql.PostgresException>(async () =>
            {
                await using var stranger = new Npgsql.NpgsqlConnection(
                    $"Host=127.0.0.1;Port={port + 3};Username=wexel;Password=guess;Database=wexel;Pooling=false"
                );
                await stranger.OpenAsync();
            });

            // One that is killed in the middle leaves nothing that looks like a backup. A table that is kept from it keeps it there until it is.
            await using (
                var keeping = new Npgsql.NpgsqlConnection(
                    $"Host=127.0.0.1;Port={port + 3};Username=wexel;Database=wexel;Pooling=false;"
                        + $"Password={await File.ReadAllTextAsync(Path.Combine(state, "postgres.password"))}"
                )
            )
            using (var killed = new CancellationTokenSource())
            {
                await keeping.OpenAsync();
                await using var kept = await keeping.BeginTransactionAsync();
                await using var keep = new Npgsql.NpgsqlCommand("lock table \"AuditEntries\" in access exclusive mode", keeping, kept);
                await keep.ExecuteNonQueryAsync();
                var half = Wexel("state", port, "backup", Path.Combine(_folder, "half.tar"))
                    .WithStandardErrorPipe(
                        PipeTarget.ToDelegate(line =>
                        {
                            if (line == "Writing down the database")
                                killed.Cancel();
                        })
                    );
                await Should.ThrowAsync<OperationCanceledException>(async () => await half.ExecuteAsync(killed.Token));
            }

            File.Exists(Path.Combine(_folder, "half.tar")).ShouldBeFalse();
            var made = await Wexel("state", port, "backup", backup).ExecuteBufferedAsync();
            made.ExitCode.ShouldBe(0, made.StandardError);
            (await Wexel("state", port, "backup", backup).ExecuteBufferedAsync()).StandardError.ShouldContain("is there already");
        }
        finally
        {
            await Wexel("state", port, "stop").ExecuteAsync();
            await running;
        }

        var other = Ports();
        (await Wexel("state", other, "restore", backup).ExecuteBufferedAsync()).StandardError.ShouldContain("There is a Wexel in");
        var spoilt = Path.Combine(_folder, "spoilt.tar");
        await SpoilAsync(backup, spoilt);
        (await Wexel("elsewhere", other, "restore", spoilt).ExecuteBufferedAsync()).ExitCode.ShouldNotBe(0);
        Directory.Exists(Path.Combine(_folder, "elsewhere")).ShouldBeFalse();
        var restored = await Wexel("elsewhere", other, "restore", backup).ExecuteBufferedAsync();
        restored.ExitCode.ShouldBe(0, restored.StandardError);
        running = Wexel("elsewhere", other, "up").ExecuteBufferedAsync();
        try
        {
            var trainer = await SignedInAsync(other);
            var lessons = (await trainer.JsonAsync("api/lessons"))[0].GetProperty("lessons");
            lessons.GetArrayLength().ShouldBe(1);
            var hash = (await trainer.JsonAsync($"api/lessons/{lessons[0].GetProperty("id").GetString()}"))
                .GetProperty("document")
                .GetProperty("recordingHash")
                .GetString()!;
            Convert
                .ToHexStringLower(
                    SHA256.HashData(
                        await File.ReadAllBytesAsync(Path.Combine(_folder, "elsewhere", "files", "recordings", hash), TestContext.Current.CancellationToken)
                    )
                )
                .ShouldBe(hash);
            // What was being rendered is rendered here.
            await trainer.UntilAsync("api/queue", q => q.GetArrayLength() == 1 && q[0].GetProperty("state").GetString() == "done");
        }
        finally
        {
            await Wexel("elsewhere", other, "stop").ExecuteAsync();
            await running;
            Directory.Delete(_folder, recursive: true);
        }
    }

    /// <summary>Changes one byte of the recording in it.</summary>
    private static async Task SpoilAsync(string backup, string spoilt)
    {
        var bytes = await File.ReadAllBytesAsync(backup);
        var at = bytes.AsSpan().IndexOf("files/recordings/"u8);
        bytes[at + 2000] ^= 0xFF;
        await File.WriteAllBytesAsync(spoilt, bytes);
    }

    private static void CopyFolder(string from, string to)
    {
        foreach (var file in Directory.EnumerateFiles(from, "*", SearchOption.AllDirectories))
        {
            var copy = Path.Combine(to, Path.GetRelativePath(from, file));
            Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
            File.Copy(file, copy);
        }
    }

    [Fact]
    public async Task A_folder_that_cannot_be_written_ends_the_start_with_a_sentence()
    {
        Directory.CreateDirectory(_folder);
        await File.WriteAllTextAsync(Path.Combine(_folder, "state"), "a file", TestContext.Current.CancellationToken);
        var refused = await Wexel("state", Ports(), "up").ExecuteBufferedAsync();
        refused.ExitCode.ShouldNotBe(0);
        refused.StandardError.Trim().ShouldStartWith("Nothing can be written in ");
        // And the server by itself, where it is given such a folder.
        var server = await CliWrap
            .Cli.Wrap("dotnet")
            .WithArguments([ServerProcess.Program])
            .WithEnvironmentVariables(set =>
                set.Set("Wexel__Data", Path.Combine(_folder, "state", "files"))
                    .Set("ConnectionStrings__Wexel", $"{ServerFixture.Postgres};Database=none")
                    .Set("ASPNETCORE_URLS", "http://127.0.0.1:0")
            )
            .WithValidation(CommandResultValidation.None)
            .ExecuteBufferedAsync();
        server.ExitCode.ShouldBe(1);
        server.StandardError.Trim().ShouldStartWith("The folder for recordings and everything made (Wexel__Data)");
        // And where the database is none of its.
        server = await CliWrap
            .Cli.Wrap("dotnet")
            .WithArguments([ServerProcess.Program])
            .WithEnvironmentVariables(set =>
                set.Set("Wexel__Data", Path.Combine(_folder, "files"))
                    .Set("ConnectionStrings__Wexel", $"{ServerFixture.Postgres};Database=none;Username=nobody")
                    .Set("ASPNETCORE_URLS", "http://127.0.0.1:0")
            )
            .WithValidation(CommandResultValidation.None)
            .ExecuteBufferedAsync();
        server.ExitCode.ShouldBe(1, server.StandardError);
        server.StandardError.Trim().ShouldStartWith("The database (ConnectionStrings__Wexel) cannot be used: ");
        Directory.Delete(_folder, recursive: true);
    }
}
