using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Recordings;
using Wexel.Core.Screens;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Screens;
using Wexel.Media.Tools;
using Wexel.Server.Live;
using Wexel.Server.Setup;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Screens;

/// <summary>Reads what stands on the screen in recordings when the machine has nothing better to do, one recording after the other, the newest first.</summary>
internal sealed class ScreenReading(
    WexelDb db,
    IScreenReader reader,
    IdleTime idle,
    ReadScreens screens,
    ReadingShares reading,
    FileStore store,
    LiveNews news,
    IOptions<WexelOptions> options,
    ILogger<ScreenReading> log
) : IUpkeep
{
    /// <summary>How often it is tried by one server: what brings down the reader is not read for ever.</summary>
    private const int MostAttempts = 3;

    private const int AtOnce = 50;

    private static readonly ConcurrentDictionary<string, int> Attempts = new();

    /// <summary>Forgets how often a recording was tried.</summary>
    internal static void Forgive(string hash) => Attempts.TryRemove(hash, out _);

    public TimeSpan Every => options.Value.SpeechEvery;

    public async Task DoAsync(CancellationToken cancel)
    {
        if (!options.Value.ReadScreens)
            return;
        foreach (var (hash, language) in await NextAsync(cancel))
        {
            if (await idle.IsBusyAsync(cancel))
                return;
            db.ChangeTracker.Clear();
            await ReadAsync(hash, language, cancel);
        }
    }

    private async Task<IReadOnlyList<(string Hash, string Language)>> NextAsync(CancellationToken cancel)
    {
        var waiting = await db
            .Recordings.Where(r => r.Analysis != null && r.ScreenReadAs == null && r.ScreenFailure == null)
            .OrderByDescending(r => r.BroughtInAt)
            .Take(AtOnce)
            .Select(r => new { r.Hash, Said = db.Lessons.Where(l => l.RecordingHash == r.Hash).OrderBy(l => l.Id).Select(l => l.Said).FirstOrDefault() })
            .ToListAsync(cancel);
        return
        [
            .. waiting
                .Select(w => (w.Hash, (w.Said is null ? null : WexelJson.Read<DetailSet>(w.Said).Language) ?? options.Value.Language))
                .Where(w => reader.Missing(w.Item2) is null),
        ];
    }

    private async Task ReadAsync(string hash, string language, CancellationToken cancel)
    {
        await using var hold = await WorkHold.TryAsync(db, $"screen {hash}", cancel);
        if (hold is null || await db.Recordings.FindAsync([hash], cancel) is not { Analysis: { } analysis, ScreenReadAs: null, ScreenFailure: null } recording)
            return;
        var facts = WexelJson.Read<RecordingFacts>(recording.Facts);
        try
        {
            var key = RecordingKeys.Screen(hash, language);
            if (facts.Picture is not null && !store.Has(key, MadeNames.Screen))
            {
                var read = await ScreenLooker.LookAsync(
                    reader,
                    facts,
                    store.Recording(hash),
                    WexelJson.Read<RecordingAnalysis>(analysis),
                    language,
                    reading.Watch(hash),
                    cancel
                );
                await WholeFile.MakeAsync(store.Derived(key, MadeNames.Screen), temporary => File.WriteAllTextAsync(temporary, WexelJson.Write(read), cancel));
            }

            await db.Recordings.Where(r => r.Hash == hash).ExecuteUpdateAsync(set => set.SetProperty(r => r.ScreenReadAs, language), cancel);
            await screens.TellSearchAsync(hash, cancel);
        }
        catch (Exception failed) when (failed is ToolFailedException or IOException)
        {
            log.LogWarning(failed, "The screen of recording {Hash} could not be read", hash);
            if (Attempts.AddOrUpdate(hash, 1, (_, before) => before + 1) < MostAttempts)
                return;
            var failure = $"{reader.Name} failed: {(failed as ToolFailedException)?.Said ?? failed.Message}";
            await db.Recordings.Where(r => r.Hash == hash).ExecuteUpdateAsync(set => set.SetProperty(r => r.ScreenFailure, failure), cancel);
        }
        catch (Exception failed) when (failed is not OperationCanceledException && !DatabaseOutage.Is(failed))
        {
            log.LogError(failed, "Reading the screen of recording {Hash} failed in a way that nobody expected", hash);
            var failure = $"Wexel itself failed: {failed.Message}";
            await db.Recordings.Where(r => r.Hash == hash).ExecuteUpdateAsync(set => set.SetProperty(r => r.ScreenFailure, failure), cancel);
        }
        finally
        {
            reading.Leave(hash);
        }

        await news.RecordingAsync(hash);
    }
}
