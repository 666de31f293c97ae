using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Data;
using Wexel.Data.Storage;
using Wexel.Server.Live;
using Wexel.Server.Recordings;
using Wexel.Server.Setup;

namespace Wexel.Server.Uploads;

/// <summary>
/// Brings in what is put into the hand-in folder, once it no longer grows. What was taken goes to the folder "taken" in it, what cannot
/// be used to "refused", with a text beside it that says why.
/// </summary>
internal sealed class HandIn(IServiceScopeFactory scopes, FileStore store, DiskRoom room, LiveNews news, IOptions<WexelOptions> options, TimeProvider clock, ILogger<HandIn> log) : BackgroundService
{
    internal const string Taken = "taken";
    internal const string Refused = "refused";
    private const string By = "Hand-in folder";

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
        }
        while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    /// <summary>A folder that cannot be reached or a database that does not answer must not end the server; it is tried again.</summary>
    private async Task TryAsync(string what, Func<Task> work)
    {
        try
        {
            await work();
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException || DatabaseOutage.Is(failed))
        {
            log.LogWarning(failed, "Hand-in folder: {What} could not be gone through; it is tried again", what);
        }
    }

    /// <summary>The files that have not changed for long enough; names that start with a dot or end like a download that still runs are left alone.</summary>
    private List<FileInfo> Settled(string folder, Dictionary<string, Seen> seen)
    {
        var now = clock.GetUtcNow();
        var files = new DirectoryInfo(folder).EnumerateFiles().Where(f => !f.Name.StartsWith('.') && f.Extension is not (".part" or ".partial" or ".tmp" or ".crdownload" or ".filepart")).ToList();
        foreach (var gone in seen.Keys.Except(files.Select(f => f.Name)).ToList())
            seen.Remove(gone);
        var settled = new List<FileInfo>();
        foreach (var file in files)
        {
            if (!seen.TryGetValue(file.Name, out var before) || before.Bytes != file.Length || before.Written != file.LastWriteTimeUtc)
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
        if (hold is null || !file.Exists)
            return;
        var problem = BringIn.TooLarge(file.Length, file.Name, options.Value);
        if (problem is null)
        {
            if (room.Lacks(file.Length, $"“{file.Name}”") is { } full)
            {
                log.LogWarning("{Sentence}", full.Sentence);
                return;
            }

            problem = await BringInAsync(scope.ServiceProvider.GetRequiredService<BringIn>(), file, cancel);
        }

        var where = Path.Combine(folder, problem is null ? Taken : Refused, FreeName(Path.Combine(folder, problem is null ? Taken : Refused), file.Name));
        File.Move(file.FullName, where);
        if (problem is not null)
            await File.WriteAllTextAsync(where + ".txt", problem.Sentence + Environment.NewLine, cancel);
        log.LogInformation("Hand-in folder: {File} {Outcome}", file.Name, problem is null ? "taken" : "refused");
        await news.UploadAsync(Guid.Empty);
    }

    private async Task<Problem?> BringInAsync(BringIn bringIn, FileInfo file, CancellationToken cancel)
    {
        var arriving = store.Arriving();
        try
        {
            await using (var from = new FileStream(file.FullName, new FileStreamOptions { Options = FileOptions.Asynchronous | FileOptions.SequentialScan }))
            await using (var to = new FileStream(arriving, new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write, Options = FileOptions.Asynchronous }))
                await from.CopyToAsync(to, cancel);
            return (await bringIn.TakeFileAsync(arriving, await BringIn.HashAsync(arriving, cancel), BringIn.CleanName(file.Name), null, By, cancel)).Problem;
        }
        finally
        {
            File.Delete(arriving);
        }
    }

    /// <summary>The name, with a number where another file has it.</summary>
    private static string FreeName(string folder, string name) =>
        Enumerable.Range(1, int.MaxValue).Select(n => n == 1 ? name : $"{Path.GetFileNameWithoutExtension(name)} ({n}){Path.GetExtension(name)}").First(n => !File.Exists(Path.Combine(folder, n)));
}
