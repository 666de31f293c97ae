using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Live;
using Wexel.Server.Setup;

namespace Wexel.Server.Recordings;

/// <summary>Looks through a recording after it was brought in, and makes a viewing copy where the browser needs one.</summary>
internal sealed class AnalysisJob(WexelDb db, FileStore store, LiveNews news)
{
    /// <summary>The viewing copy's name under its key.</summary>
    internal const string ViewName = "view.mp4";

    [AutomaticRetry(Attempts = 2)]
    [Queue("default")]
    public async Task RunAsync(string hash, CancellationToken cancel)
    {
        // Whoever asked for more while it was held was sent away: that is done now.
        while (await WorkAsync(hash, cancel) && await db.Recordings.AnyAsync(r => r.Hash == hash && r.Analysis == null && r.AnalysisFailure == null, cancel))
            db.ChangeTracker.Clear();
    }

    /// <summary>Does what there is to do.</summary>
    /// <returns>False where another is at it.</returns>
    private async Task<bool> WorkAsync(string hash, CancellationToken cancel)
    {
        await using var hold = await WorkHold.TryAsync(db, $"analysis {hash}", cancel);
        if (hold is null || await db.Recordings.FindAsync([hash], cancel) is not { AnalysisFailure: null } recording)
            return false;
        var facts = Json.Read<RecordingFacts>(recording.Facts);
        recording.Viewable = BrowserPlayback.CanPlay(facts) || store.Has(ViewKey(hash, facts), ViewName);
        await db.SaveChangesAsync(cancel);
        try
        {
            if (recording.Analysis is null)
            {
                var pictures = store.Folder(PicturesKey(hash));
                facts = await SpokenTrackFinder.WithAsync(await EvenFramesFinder.WithAsync(facts, store.Recording(hash), cancel), store.Recording(hash), cancel);
                recording.Facts = Json.Write(facts);
                var analysis = Seen(recording, facts) is { } seen
                    ? await RecordingAnalyser.ListenAgainAsync(facts, store.Recording(hash), seen, cancel)
                    : await RecordingAnalyser.AnalyseAsync(facts, store.Recording(hash), pictures, SoFarAsync, null, cancel);
                recording.Analysis = Json.Write(analysis);
                if (analysis.Damaged)
                    recording.Facts = Json.Write(facts = facts with { Picture = facts.Picture! with { Damaged = true } });
                recording.AnalysisSoFar = null;
                if (analysis.PictureMoments.Count > 0 && !HasStrips(store, hash))
                    await PictureStrips.MakeAsync(analysis.PictureMoments, pictures, StripsFolder(store, hash), cancel);
                await db.SaveChangesAsync(cancel);
                await news.RecordingAsync(hash);
            }

            if (!recording.Viewable)
            {
                using var orphan = new OrphanMark(store, ViewKey(hash, facts));
                await ViewingCopy.MakeAsync(facts, store.Recording(hash), store.Derived(ViewKey(hash, facts), ViewName), null, orphan.Note, cancel);
                recording.Viewable = true;
                await db.SaveChangesAsync(cancel);
            }
        }
        catch (ToolFailedException failed)
        {
            recording.AnalysisFailure = $"{failed.Advice} The encoder said: {failed.Said}";
            await db.SaveChangesAsync(cancel);
        }
        catch (IOException failed)
        {
            recording.AnalysisFailure = $"It could not be looked through: {failed.Message} Look whether the server's disk is full, then look through it again.";
            await db.SaveChangesAsync(cancel);
        }

        await news.RecordingAsync(hash);
        return true;

        async Task SoFarAsync(RecordingAnalysis soFar)
        {
            recording.AnalysisSoFar = Json.Write(soFar);
            await db.SaveChangesAsync(cancel);
            await news.RecordingAsync(hash);
        }
    }

    /// <summary>Has a recording listened to again, of which other sound tracks are used now; the caller saves, and asks for the job.</summary>
    /// <param name="recording">It is looked through.</param>
    /// <param name="facts">Its facts with those tracks.</param>
    /// <param name="store">Where viewing copies lie.</param>
    internal static void ListenAgain(Recording recording, RecordingFacts facts, FileStore store)
    {
        recording.AnalysisSoFar = Json.Write(Json.Read<RecordingAnalysis>(recording.Analysis!) with { LookedUntil = facts.Length });
        (recording.Facts, recording.Analysis) = (Json.Write(facts), null);
        recording.Viewable = BrowserPlayback.CanPlay(facts) || store.Has(ViewKey(recording.Hash, facts), ViewName);
    }

    /// <summary>What was seen of all of the recording, where only its sound is to be listened to.</summary>
    private static RecordingAnalysis? Seen(Recording recording, RecordingFacts facts) =>
        recording.AnalysisSoFar is { } soFar && Json.Read<RecordingAnalysis>(soFar) is { LookedUntil: { } until } seen && until >= facts.Length ? seen : null;

    /// <summary>Has everything looked through that a server which went down has left.</summary>
    internal static async Task TakeUpAsync(WexelDb db, IBackgroundJobClient jobs, CancellationToken cancel)
    {
        foreach (var hash in await db.Recordings.Where(r => (r.Analysis == null || !r.Viewable) && r.AnalysisFailure == null).Select(r => r.Hash).ToListAsync(cancel))
            jobs.Enqueue<AnalysisJob>(job => job.RunAsync(hash, CancellationToken.None));
    }

    internal static string PicturesKey(string hash) => DerivedKey.Of(RecordingAnalyser.Maker, hash);

    /// <summary>Where the pictures lie many to a file; the folder is there once the recording was looked through.</summary>
    internal static string StripsFolder(FileStore store, string hash) => store.Folder(DerivedKey.Of(PictureStrips.Maker, RecordingAnalyser.Maker, hash));

    /// <summary>Whether the pictures of a recording lie many to a file.</summary>
    internal static bool HasStrips(FileStore store, string hash) => Directory.Exists(StripsFolder(store, hash));

    /// <summary>The viewing copy's key: it has the sound tracks that are used.</summary>
    internal static string ViewKey(string hash, RecordingFacts facts) => facts.Used is [] or [0] ? DerivedKey.Of(ViewingCopy.Maker, hash) : DerivedKey.Of(ViewingCopy.Maker, hash, facts.Used);
}
