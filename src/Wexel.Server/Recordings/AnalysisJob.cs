using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Recordings;
using Wexel.Data;
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
        await using var hold = await WorkHold.TryAsync(db, $"analysis {hash}", cancel);
        if (hold is null || await db.Recordings.FindAsync([hash], cancel) is not { AnalysisFailure: null } recording)
            return;
        var facts = Json.Read<RecordingFacts>(recording.Facts);
        recording.Viewable = BrowserPlayback.CanPlay(facts) || store.Has(ViewKey(hash), ViewName);
        await db.SaveChangesAsync(cancel);
        try
        {
            if (recording.Analysis is null)
            {
                var pictures = store.Folder(PicturesKey(hash));
                facts = await SpokenTrackFinder.WithAsync(await EvenFramesFinder.WithAsync(facts, store.Recording(hash), cancel), store.Recording(hash), cancel);
                recording.Facts = Json.Write(facts);
                var analysis = await RecordingAnalyser.AnalyseAsync(facts, store.Recording(hash), pictures, SoFarAsync, null, cancel);
                recording.Analysis = Json.Write(analysis);
                if (analysis.Damaged)
                    recording.Facts = Json.Write(facts = facts with { Picture = facts.Picture! with { Damaged = true } });
                recording.AnalysisSoFar = null;
                await db.SaveChangesAsync(cancel);
                await news.RecordingAsync(hash);
            }

            if (!recording.Viewable)
            {
                using var orphan = new OrphanMark(store, ViewKey(hash));
                await ViewingCopy.MakeAsync(facts, store.Recording(hash), store.Derived(ViewKey(hash), ViewName), null, orphan.Note, cancel);
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

        async Task SoFarAsync(RecordingAnalysis soFar)
        {
            recording.AnalysisSoFar = Json.Write(soFar);
            await db.SaveChangesAsync(cancel);
            await news.RecordingAsync(hash);
        }
    }

    /// <summary>Has everything looked through that a server which went down has left.</summary>
    internal static async Task TakeUpAsync(WexelDb db, IBackgroundJobClient jobs, CancellationToken cancel)
    {
        foreach (var hash in await db.Recordings.Where(r => (r.Analysis == null || !r.Viewable) && r.AnalysisFailure == null).Select(r => r.Hash).ToListAsync(cancel))
            jobs.Enqueue<AnalysisJob>(job => job.RunAsync(hash, CancellationToken.None));
    }

    internal static string PicturesKey(string hash) => DerivedKey.Of(RecordingAnalyser.Maker, hash);

    internal static string ViewKey(string hash) => DerivedKey.Of(ViewingCopy.Maker, hash);
}
