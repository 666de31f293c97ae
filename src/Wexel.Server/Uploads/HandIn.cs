using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Data;
using Wexel.Server.Live;
using Wexel.Server.Setup;

namespace Wexel.Server.Uploads;

/// <summary>
/// Brings in what is put into the hand-in folder, once it no longer grows. What was taken goes to the folder "taken" in it, what cannot
/// be used to "refused", with a text beside it that says why.
/// </summary>
internal sealed class HandIn(IServiceScopeFactory scopes, DiskRoom room, LiveNews news, IOptions<WexelOptions> options, TimeProvider clock, ILogger<HandIn> log)
    : BackgroundService
{
    internal const string Taken = "taken";
    internal const string Refused = "refused";
    private const string By = "Hand-in folder";

    /// <summary>What is being said of what could not be gone through, so that it is said once and not every time.</summary>
    private readonly Dictionary<string, string> _complained = [];

    /// <summary>What a file looked like, and since when it looks like that.</summary>
    private sealed record Seen(long Bytes, DateTime Written, DateTimeOffset Since);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (options.Value.HandIn is not { Length: > 0 } folder)
            return;
        var seen = new Dictionary<string, Seen>();
        using var timer = new PeriodicTimer(options.Value.HandInLooksEvery, clock);
        do
        {
            var settled = new List<FileInfo>();
            await TryAsync(folder, () =>
            {
                foreach (var inside in new[] { Taken, Refused })
                    Directory.CreateDirectory(Path.Combine(folder, inside));
                settled = Settled(folder, seen);
                return Task.CompletedTask;
            });
            // One that fails does not keep the others waiting.
            foreach (var file in settled)
                await TryAsync(file.FullName, () => TakeAsync(folder, file, stoppingToken));
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    /// <summary>A folder that cannot be reached or a database that does not answer must not end the server; it is tried again.</summary>
    private async Task TryAsync(string what, Func<Task> work)
    {
        try
        {
            await work();
            _complained.Remove(what);
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException || DatabaseOutage.Is(failed))
        {
            Complain(what, $"it could not be gone through and is tried again: {failed.Message}");
        }
    }

    private void Complain(string what, string why)
    {
        if (_complained.GetValueOrDefault(what) != why)
            log.LogWarning("Hand-in folder, {What}: {Why}", what, why);
        _complained[what] = why;
    }

    /// <summary>The files that have not changed for long enough; names that start with a dot or end like a download that still runs are left alone.</summary>
    private List<FileInfo> Settled(string folder, Dictionary<string, Seen> seen)
    {
        var now = clock.GetUtcNow();
        var files = new DirectoryInfo(folder)
            .EnumerateFiles()
            .Where(f => !f.Name.StartsWith('.') && f.Extension is not (".part" or ".partial" or ".tmp" or ".crdownload" or ".filepart"))
            .ToList();
        foreach (var gone in seen.Keys.Except(files.Select(f => f.Name)).ToList())
        {
            seen.Remove(gone);
            _complained.Remove(Path.Combine(folder, gone));
        }

        var settled = new List<FileInfo>();
        foreach (var file in files)
        {
            if (file.LinkTarget is not null)
                settled.Add(file);
            else if (!seen.TryGetValue(file.Name, out var before) || before.Bytes != file.Length || before.Written != file.LastWriteTimeUtc)
                seen[file.Name] = new Seen(file.Length, file.LastWriteTimeUtc, now);
            else if (now - before.Since >= options.Value.HandInSettles)
                settled.Add(file);
        }

        return settled;
    }

    private async Task TakeAsync(string folder, FileInfo file, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        // Several servers may look into one folder.
        await using var hold = await WorkHold.TryAsync(scope.ServiceProvider.GetRequiredService<WexelDb>(), $"hand-in {file.FullName}", cancel);
        if (hold is null)
            return;
        await using var from = RegularFile.Open(file.FullName);
        var problem = from is null
            ? new Problem(
                "recording-no-file",
                $"“{file.Name}” is no file with something in it but a link, a pipe or empty. Copy the recording itself here.",
                "file"
            )
            : Receiver.TooLarge(from.Length, file.Name, options.Value);
        if (problem is null)
        {
            if (room.Lacks(from!.Length, $"“{file.Name}”") is { } full)
                throw new IOException(full.Sentence);

            problem = (await scope.ServiceProvider.GetRequiredService<Receiver>().TakeAsync(from, from.Length, file.Name, Guid.Empty, By, cancel)).Problem;
        }

        var where = Path.Combine(folder, problem is null ? Taken : Refused, FreeName(Path.Combine(folder, problem is null ? Taken : Refused), file.Name));
        // A link moves as itself.
        File.Move(file.FullName, where);
        if (problem is not null)
            await File.WriteAllTextAsync(where + ".txt", problem.Sentence + Environment.NewLine, cancel);
        log.LogInformation("Hand-in folder: {File} {Outcome}", file.Name, problem is null ? "taken" : "refused");
        await news.UploadAsync(Guid.Empty);
    }

    /// <summary>The name, with a number where another file has it.</summary>
    private static string FreeName(string folder, string name) =>
        Enumerable
            .Range(1, int.MaxValue)
            .Select(n => n == 1 ? name : $"{Path.GetFileNameWithoutExtension(name)} ({n}){Path.GetExtension(name)}")
            .First(n => !File.Exists(Path.Combine(folder, n)));
}
