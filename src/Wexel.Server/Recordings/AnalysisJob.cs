using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Live;
using Wexel.Server.Setup;

namespace Wexel.Server.Recordings;

/// <summary>Looks through a recording after it was brought in, and makes a viewing copy where the browser needs one.</summary>
internal sealed class AnalysisJob(
    WexelDb db,
    IDbContextFactory<WexelDb> databases,
    FileStore store,
    LiveNews news,
    TimeProvider clock,
    ILogger<AnalysisJob> log
)
{
    /// <summary>How often it may end before it is through: what brings down whoever does it must not be begun for ever.</summary>
    internal const int MostLookThroughs = 4;

    /// <summary>A disk that was full may have room again.</summary>
    private static readonly TimeSpan LookAgainAfter = TimeSpan.FromMinutes(5);

    /// <summary>A database that restarts is back by then.</summary>
    private const int SecondsForDatabase = 60;

    private bool _counted;

    [AutomaticRetry(Attempts = 2)]
    [Queue("default")]
    public async Task RunAsync(string hash, CancellationToken cancel)
    {
        // Whoever asked for more while it was held was sent away: that is done now. So is what may well go right a second time.
        try
        {
            while (
                await WorkAsync(hash, cancel)
                && await db.Recordings.AnyAsync(r => r.Hash == hash && (r.Analysis == null || !r.Viewable) && r.AnalysisFailure == null, cancel)
            )
                db.ChangeTracker.Clear();
        }
        catch (Exception failed) when (_counted && DatabaseOutage.Is(failed))
        {
            await TakeBackAsync(hash, cancel);
            throw;
        }
    }

    /// <summary>A database that goes away is no end of the server: what was counted for one is taken back as soon as it answers.</summary>
    private async Task TakeBackAsync(string hash, CancellationToken cancel)
    {
        await using var again = await databases.CreateDbContextAsync(cancel);
        for (var second = 0; second < SecondsForDatabase; second++)
        {
            try
            {
                await again
                    .Recordings.Where(r => r.Hash == hash && r.LookThroughs > 0)
                    .ExecuteUpdateAsync(set => set.SetProperty(r => r.LookThroughs, r => r.LookThroughs - 1), cancel);
                return;
            }
            catch (Exception failed) when (DatabaseOutage.Is(failed))
            {
                log.LogWarning(failed, "Recording {Hash} waits for the database", hash);
                await Task.Delay(TimeSpan.FromSeconds(1), clock, cancel);
            }
        }
    }

    /// <summary>Does what there is to do.</summary>
    /// <returns>False where another is at it.</returns>
    private async Task<bool> WorkAsync(string hash, CancellationToken cancel)
    {
        _counted = false;
        await using var hold = await WorkHold.TryAsync(db, WorkOn(hash), cancel);
        if (hold is null || await db.Recordings.FindAsync([hash], cancel) is not { AnalysisFailure: null } recording)
            return false;
        if (recording.LookThroughs >= MostLookThroughs)
        {
            recording.AnalysisFailure =
                $"The server ended {MostLookThroughs} times while it was looked through. Whoever looks after the server finds more in its log.";
            await db.SaveChangesAsync(cancel);
            await news.RecordingAsync(hash);
            return true;
        }

        recording.LookThroughs++;
        recording.LookAgainAt = null;
        try
        {
            await LookThroughAsync(recording, cancel);
            recording.LookThroughs = 0;
        }
        catch (OperationCanceledException)
        {
            // The server goes down in good order; the next one begins anew.
            recording.LookThroughs--;
            await db.SaveChangesAsync(CancellationToken.None);
            throw;
        }
        catch (ToolFailedException failed) when (failed.MayHelpToTryAgain && recording.LookThroughs < MostLookThroughs)
        {
            log.LogWarning(failed, "Looking through recording {Hash} was ended by something else; it is begun again", hash);
        }
        catch (ToolFailedException failed)
        {
            recording.AnalysisFailure = $"{failed.Advice} The encoder said: {failed.Said}";
            recording.LookAgainAt = failed.MayPass ? clock.GetUtcNow() + LookAgainAfter : null;
        }
        catch (IOException failed)
        {
            recording.AnalysisFailure = $"It could not be looked through: {failed.Message} Look whether the server's disk is full, then look through it again.";
            recording.LookAgainAt = clock.GetUtcNow() + LookAgainAfter;
        }
        catch (Exception failed) when (!DatabaseOutage.Is(failed))
        {
            log.LogError(failed, "Looking through recording {Hash} failed in a way that nobody expected", hash);
            recording.AnalysisFailure =
                $"Wexel itself failed: {failed.Message} Look through it again; if it fails again, whoever looks after the server finds more in its log.";
        }

        await db.SaveChangesAsync(cancel);
        await news.RecordingAsync(hash);
        return true;
    }

    private async Task LookThroughAsync(Recording recording, CancellationToken cancel)
    {
        var (hash, facts) = (recording.Hash, WexelJson.Read<RecordingFacts>(recording.Facts));
        recording.Viewable = IsViewable(hash, facts, store);
        await db.SaveChangesAsync(cancel);
        _counted = true;
        if (recording.Analysis is null)
        {
            var pictures = store.Folder(RecordingKeys.Pictures(hash));
            facts = await SpokenTrackFinder.WithAsync(await EvenFramesFinder.WithAsync(facts, store.Recording(hash), cancel), store.Recording(hash), cancel);
            recording.Facts = WexelJson.Write(facts);
            var analysis = Seen(recording, facts) is { } seen
                ? await RecordingAnalyser.ListenAgainAsync(facts, store.Recording(hash), seen, cancel)
                : await RecordingAnalyser.AnalyseAsync(facts, store.Recording(hash), pictures, SoFarAsync, null, cancel);
            if (analysis.Damaged)
                facts = facts with { Picture = facts.Picture! with { Damaged = true } };
            if (analysis.PictureMoments.Count > 0 && !HasStrips(store, hash))
                await PictureStrips.MakeAsync(analysis.PictureMoments, pictures, StripsFolder(store, hash), cancel);
            (recording.Analysis, recording.Facts, recording.AnalysisSoFar) = (WexelJson.Write(analysis), WexelJson.Write(facts), null);
            await db.SaveChangesAsync(cancel);
            await news.RecordingAsync(hash);
        }

        if (!recording.Viewable)
        {
            using var orphan = new OrphanMark(store, ViewKey(hash, facts));
            await ViewingCopy.MakeAsync(facts, store.Recording(hash), store.Derived(ViewKey(hash, facts), MadeNames.View), null, orphan.Note, cancel);
            recording.Viewable = true;
        }

        async Task SoFarAsync(RecordingAnalysis soFar)
        {
            recording.AnalysisSoFar = WexelJson.Write(soFar);
            await db.SaveChangesAsync(cancel);
            await news.RecordingAsync(hash);
        }
    }

    /// <summary>Forgets how often it was begun and why it failed; the caller saves, and asks for the job.</summary>
    internal static void BeginAnew(Recording recording) => (recording.AnalysisFailure, recording.LookThroughs, recording.LookAgainAt) = (null, 0, null);

    /// <summary>Forgets all that was found of a recording, so that it is looked through from the start; the caller saves, and asks for the job.</summary>
    /// <param name="recording">The recording.</param>
    /// <param name="facts">What a probe finds of it now.</param>
    /// <param name="store">Where its pictures lie.</param>
    internal static void Forget(Recording recording, RecordingFacts facts, FileStore store)
    {
        BeginAnew(recording);
        // Which sound tracks are used may have been chosen by somebody.
        facts = facts with { UsedSounds = WexelJson.Read<RecordingFacts>(recording.Facts).UsedSounds };
        (recording.Facts, recording.Analysis, recording.AnalysisSoFar) = (WexelJson.Write(facts), null, null);
        foreach (var key in new[] { RecordingKeys.Pictures(recording.Hash), RecordingKeys.Strips(recording.Hash), ViewKey(recording.Hash, facts) })
            store.Remove(key, null);
        recording.Viewable = IsViewable(recording.Hash, facts, store);
    }

    /// <summary>Has a recording listened to again, of which other sound tracks are used now; the caller saves, and asks for the job.</summary>
    /// <param name="recording">It is looked through.</param>
    /// <param name="facts">Its facts with those tracks.</param>
    /// <param name="store">Where viewing copies lie.</param>
    internal static void ListenAgain(Recording recording, RecordingFacts facts, FileStore store)
    {
        recording.AnalysisSoFar = WexelJson.Write(WexelJson.Read<RecordingAnalysis>(recording.Analysis!) with { LookedUntil = facts.Length });
        (recording.Facts, recording.Analysis) = (WexelJson.Write(facts), null);
        recording.Viewable = IsViewable(recording.Hash, facts, store);
    }

    /// <summary>What was seen of all of the recording, where only its sound is to be listened to.</summary>
    private static RecordingAnalysis? Seen(Recording recording, RecordingFacts facts) =>
        recording.AnalysisSoFar is { } soFar && WexelJson.Read<RecordingAnalysis>(soFar) is { LookedUntil: { } until } seen && until >= facts.Length
            ? seen
            : null;

    /// <summary>Has everything looked through that nobody looks through: a server went down, or what kept it from being done may have passed.</summary>
    internal static async Task TakeUpAsync(WexelDb db, IBackgroundJobClient jobs, TimeProvider clock, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        await db
            .Recordings.Where(r => r.AnalysisFailure != null && r.LookAgainAt <= now)
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.AnalysisFailure, (string?)null), cancel);
        foreach (
            var hash in await db.Recordings.Where(r => (r.Analysis == null || !r.Viewable) && r.AnalysisFailure == null).Select(r => r.Hash).ToListAsync(cancel)
        )
        {
            if (await WorkHold.IsFreeAsync(db, WorkOn(hash), cancel))
                jobs.Enqueue<AnalysisJob>(job => job.RunAsync(hash, CancellationToken.None));
        }
    }

    private static string WorkOn(string hash) => $"analysis {hash}";

    private static bool IsViewable(string hash, RecordingFacts facts, FileStore store) =>
        BrowserPlayback.CanPlay(facts) || Wholeness.IsWhole(store.Derived(ViewKey(hash, facts), MadeNames.View));

    /// <summary>Where the pictures lie many to a file; the folder is there once the recording was looked through.</summary>
    internal static string StripsFolder(FileStore store, string hash) => store.Folder(RecordingKeys.Strips(hash));

    /// <summary>Whether the pictures of a recording lie many to a file.</summary>
    internal static bool HasStrips(FileStore store, string hash) => Directory.Exists(StripsFolder(store, hash));

    /// <summary>The viewing copy's key: it has the sound tracks that are used.</summary>
    internal static string ViewKey(string hash, RecordingFacts facts) => RecordingKeys.ViewingCopy(hash, facts.Used);
}
