using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Recordings;
using Wexel.Core.Speech;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Speech;
using Wexel.Media.Tools;
using Wexel.Server.Live;
using Wexel.Server.Setup;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Speech;

/// <summary>
/// Listens to recordings for speech when the machine has nothing better to do: nobody waits for a rendition or a look-through. It goes piece by piece, keeps
/// what it heard of each, and goes on there whenever it was broken off.
/// </summary>
internal sealed class Hearing(
    WexelDb db,
    IDbContextFactory<WexelDb> databases,
    SpeechEngines engines,
    IdleTime idle,
    FileStore store,
    LiveNews news,
    IOptions<WexelOptions> options,
    ILogger<Hearing> log
) : IUpkeep
{
    /// <summary>How often it is begun where nothing new is heard: what brings down whoever listens must not be begun for ever.</summary>
    private const int MostAttempts = 3;

    private static readonly TimeSpan LookForStop = TimeSpan.FromSeconds(0.5);

    public TimeSpan Every => options.Value.SpeechEvery;

    public async Task DoAsync(CancellationToken cancel)
    {
        if (!options.Value.SpeechDrafts)
            return;
        await ForgetMissingEnginesAsync(cancel);
        foreach (var (hash, language) in await NextAsync(cancel))
        {
            if (await idle.IsBusyAsync(cancel))
                return;
            db.ChangeTracker.Clear();
            await ListenAsync(hash, language, cancel);
        }
    }

    /// <summary>An engine that was missing may be there by now.</summary>
    private async Task ForgetMissingEnginesAsync(CancellationToken cancel)
    {
        foreach (var row in await db.HeardRecordings.AsNoTracking().Where(h => h.State == HearingState.NoEngine).ToListAsync(cancel))
        {
            if (engines.For(row.Language) is not null)
                await db.HeardRecordings.Where(h => h.RecordingHash == row.RecordingHash).ExecuteDeleteAsync(cancel);
        }
    }

    /// <summary>The recordings that are to be listened to, what is begun before what is not, the newest first; each with the language of a lesson that is made
    /// of it.</summary>
    private async Task<IReadOnlyList<(string Hash, string Language)>> NextAsync(CancellationToken cancel)
    {
        var waiting = await (
            from recording in db.Recordings
            where recording.Analysis != null
            join heard in db.HeardRecordings on recording.Hash equals heard.RecordingHash into found
            from heard in found.DefaultIfEmpty()
            where heard == null || heard.State == HearingState.Listening
            orderby heard == null, recording.BroughtInAt descending
            select new
            {
                recording.Hash,
                Begun = heard == null ? null : heard.Language,
                Said = db.Lessons.Where(l => l.RecordingHash == recording.Hash).OrderBy(l => l.Id).Select(l => l.Said).FirstOrDefault(),
            }
        ).ToListAsync(cancel);
        return [.. waiting.Select(w => (w.Hash, w.Begun ?? (w.Said is null ? null : WexelJson.Read<DetailSet>(w.Said).Language) ?? options.Value.Language))];
    }

    private async Task ListenAsync(string hash, string language, CancellationToken cancel)
    {
        await using var hold = await WorkHold.TryAsync(db, $"hearing {hash}", cancel);
        if (hold is null || await db.Recordings.FindAsync([hash], cancel) is not { Analysis: { } analysis } recording)
            return;
        var row = await db.HeardRecordings.FindAsync([hash], cancel);
        if (row is null)
            db.HeardRecordings.Add(
                row = new HeardRecording
                {
                    RecordingHash = hash,
                    Language = language,
                    Heard = WexelJson.Write(HeardSpeech.Nothing("", false)),
                }
            );
        else if (row.State != HearingState.Listening)
            return;
        if (engines.For(row.Language) is not { } engine)
        {
            row.State = HearingState.NoEngine;
            await db.SaveChangesAsync(cancel);
            await news.RecordingAsync(hash);
            return;
        }

        row.Attempts++;
        await db.SaveChangesAsync(cancel);
        var (facts, found) = (WexelJson.Read<RecordingFacts>(recording.Facts), WexelJson.Read<RecordingAnalysis>(analysis));
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        var watch = WatchForStopAsync(row, stop);
        try
        {
            await ListenAsync(row, engine, facts, found.Levels, stop.Token);
        }
        catch (Exception ended) when (ended is DbUpdateConcurrencyException || (ended is OperationCanceledException && !cancel.IsCancellationRequested))
        {
            log.LogInformation("Listening to recording {Hash} was stopped", hash);
        }
        catch (ToolFailedException failed) when (failed.MayHelpToTryAgain && row.Attempts < MostAttempts)
        {
            log.LogWarning(failed, "Listening to recording {Hash} was ended by something else; it is gone on with", hash);
        }
        catch (Exception failed) when (failed is ToolFailedException or IOException)
        {
            log.LogWarning(failed, "Listening to recording {Hash} failed", hash);
            await SettleAsync(
                row,
                HearingState.Failed,
                $"{engine.Name} failed: {(failed as ToolFailedException)?.Said ?? failed.Message} What it heard before is kept; listen again to go on.",
                cancel
            );
        }
        catch (Exception failed) when (failed is not OperationCanceledException && !DatabaseOutage.Is(failed))
        {
            log.LogError(failed, "Listening to recording {Hash} failed in a way that nobody expected", hash);
            await SettleAsync(row, HearingState.Failed, $"Wexel itself failed: {failed.Message} What was heard before is kept.", cancel);
        }
        finally
        {
            await stop.CancelAsync();
            await watch;
        }
    }

    private async Task ListenAsync(HeardRecording row, ISpeechEngine engine, RecordingFacts facts, SoundLevels? levels, CancellationToken cancel)
    {
        var heard = WexelJson.Read<HeardSpeech>(row.Heard);
        if (row.Until == TimeSpan.Zero)
            heard = HeardSpeech.Nothing(engine.Name, engine.Writes);
        var folder = HalfMade.Folder();
        try
        {
            var hints = row.Script is null ? null : await engine.PrepareAsync(ScriptText.Parse(row.Script), row.Language, folder, cancel);
            await ListenAsync(row, engine, facts, levels, heard, hints, cancel);
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private async Task ListenAsync(
        HeardRecording row,
        ISpeechEngine engine,
        RecordingFacts facts,
        SoundLevels? levels,
        HeardSpeech heard,
        SpeechHints? hints,
        CancellationToken cancel
    )
    {
        foreach (var stretch in SpeechStretches.Find(levels, facts.Length).Where(s => s.End > row.Until))
        {
            if (await idle.IsBusyAsync(cancel))
            {
                // It was no fault of its own.
                row.Attempts--;
                await db.SaveChangesAsync(cancel);
                return;
            }

            var words = await SpeechListener.ListenAsync(engine, store.Recording(row.RecordingHash), facts, stretch, row.Language, hints, cancel);
            heard = heard with { Words = [.. heard.Words, .. words] };
            (row.Heard, row.Until, row.Attempts) = (WexelJson.Write(heard), stretch.End, 1);
            await db.SaveChangesAsync(cancel);
            await news.RecordingAsync(row.RecordingHash);
        }

        row.Heard = WexelJson.Write(heard);
        await SettleAsync(row, HearingState.Done, null, cancel);
    }

    /// <summary>Ends it, unless somebody stopped it meanwhile.</summary>
    private async Task SettleAsync(HeardRecording row, HearingState state, string? failure, CancellationToken cancel)
    {
        await db
            .HeardRecordings.Where(h => h.RecordingHash == row.RecordingHash && h.State == HearingState.Listening && h.Asked == row.Asked)
            .ExecuteUpdateAsync(
                set =>
                    set.SetProperty(h => h.State, state)
                        .SetProperty(h => h.Failure, failure)
                        .SetProperty(h => h.Attempts, 0)
                        .SetProperty(h => h.Heard, row.Heard),
                cancel
            );
        await news.RecordingAsync(row.RecordingHash);
    }

    /// <summary>Ends the engine where somebody stops it, also where they have it begun again at once.</summary>
    private async Task WatchForStopAsync(HeardRecording row, CancellationTokenSource stop)
    {
        var (hash, asked) = (row.RecordingHash, row.Asked);
        try
        {
            while (true)
            {
                await Task.Delay(LookForStop, stop.Token);
                await using var look = await databases.CreateDbContextAsync(stop.Token);
                if (!await look.HeardRecordings.AnyAsync(h => h.RecordingHash == hash && h.State == HearingState.Listening && h.Asked == asked, stop.Token))
                    await stop.CancelAsync();
            }
        }
        catch (OperationCanceledException)
        {
            // It came to its end.
        }
        catch (Exception failed) when (DatabaseOutage.Is(failed))
        {
            // Whoever listens notices by itself.
            log.LogWarning(failed, "Nobody sees whether listening to recording {Hash} is stopped", hash);
        }
    }
}
