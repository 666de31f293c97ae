using System.Security.Claims;
using Hangfire;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Making.Storage;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;
using Wexel.Server.Live;
using Wexel.Server.Setup;

namespace Wexel.Server.Recordings;

/// <param name="Analysis">What the look-through found, also while it goes on.</param>
/// <param name="Grid">The rate of the frames that are counted; null without a picture.</param>
/// <param name="Quiet">Where nothing changes and nobody speaks; the run sheet folds it.</param>
/// <param name="Loudness">What happens to the loudness of its sound, in a sentence; null while that is not known, or without sound.</param>
/// <param name="SoundEdges">Where sounds begin and end, for moving an edge from word to word; in order.</param>
internal sealed record RecordingView(
    string Hash,
    string FileName,
    RecordingFacts Facts,
    IReadOnlyList<string> Notes,
    FrameRate? Grid,
    RecordingAnalysis? Analysis,
    IReadOnlyList<TimeRange> Quiet,
    IReadOnlyList<TimeSpan> SoundEdges,
    string? Loudness,
    string? AnalysisFailure,
    bool Viewable,
    bool NeedsViewingCopy
);

/// <param name="Tracks">Which sound tracks are used, from 0.</param>
internal sealed record SoundsRequest(IReadOnlyList<int> Tracks);

internal static class RecordingEndpoints
{
    private static readonly TimeSpan ShortestFold = TimeSpan.FromSeconds(5);

    internal static void MapRecordings(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/recordings");
        group.MapGet("{hash}", GetAsync).WithName("Recording");
        group.MapPost("{hash}/look-through", LookThroughAsync).WithName("LookThrough");
        group.MapPut("{hash}/sounds", UseSoundsAsync).WithName("UseSounds");
        group.MapGet("{hash}/pictures/{milliseconds:long}.jpg", Picture).WithName("RecordingPicture").ExcludeFromDescription();
        group.MapGet("{hash}/strips/{number:long}.jpg", Strip).WithName("RecordingStrip").ExcludeFromDescription();
        group.MapGet("{hash}/view", View).WithName("RecordingView").ExcludeFromDescription();
    }

    private static async Task<Results<Ok<RecordingView>, ProblemHttpResult>> GetAsync(string hash, WexelDb db, CancellationToken cancel)
    {
        if (await db.Recordings.FindAsync([hash], cancel) is not { } recording)
            return Problems.NotThere("recording");
        var facts = WexelJson.Read<RecordingFacts>(recording.Facts);
        var analysis = (recording.Analysis ?? recording.AnalysisSoFar) is { } found ? WexelJson.Read<RecordingAnalysis>(found) : null;
        return TypedResults.Ok(
            new RecordingView(
                hash,
                recording.FileName,
                facts,
                [.. RecordingCheck.Notes(facts), .. analysis is { LookedUntil: null } ? RecordingCheck.Notes(analysis) : []],
                facts.Picture is null ? null : Reel.Of(facts).Grid,
                analysis,
                analysis is null ? [] : CutSuggestions.Quiet(analysis, analysis.LookedUntil ?? facts.Length, ShortestFold),
                analysis?.Levels?.Edges() ?? [],
                Levelling.InWords(analysis?.Loudness, Levelling.UsualTarget),
                recording.AnalysisFailure,
                recording.Viewable,
                !BrowserPlayback.CanPlay(facts)
            )
        );
    }

    /// <summary>Has it looked through again, from the start; where that failed on the way, from there.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> LookThroughAsync(
        string hash,
        WexelDb db,
        FileStore store,
        IBackgroundJobClient jobs,
        LiveNews news,
        CancellationToken cancel
    )
    {
        if (await db.Recordings.FindAsync([hash], cancel) is not { } recording)
            return Problems.NotThere("recording");
        if (recording is { AnalysisFailure: null, Analysis: not null, Viewable: true })
        {
            if (!(await Prober.ProbeAsync(store.Recording(hash), recording.FileName, cancel)).Is(out var facts, out var problem))
                return Problems.Answer(problem);
            AnalysisJob.Forget(recording, facts, store);
        }
        else
        {
            AnalysisJob.BeginAnew(recording);
        }

        await db.SaveChangesAsync(cancel);
        jobs.Enqueue<AnalysisJob>(job => job.RunAsync(hash, CancellationToken.None));
        await news.RecordingAsync(hash);
        return TypedResults.NoContent();
    }

    /// <summary>Takes other sound tracks of a recording than were found; all lessons that are made of it get them.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> UseSoundsAsync(
        string hash,
        SoundsRequest request,
        WexelDb db,
        FileStore store,
        IBackgroundJobClient jobs,
        LiveNews news,
        CancellationToken cancel
    )
    {
        if (await db.Recordings.FindAsync([hash], cancel) is not { } recording)
            return Problems.NotThere("recording");
        var facts = WexelJson.Read<RecordingFacts>(recording.Facts);
        List<int> tracks = [.. request.Tracks.Distinct().Order()];
        if (tracks.Count == 0 || tracks[0] < 0 || tracks[^1] >= facts.Sounds.Count)
            return Problems.Answer(new Problem("sounds-not-there", $"Choose one or more of the recording’s {facts.Sounds.Count} sound tracks.", "tracks"));
        if (recording.Analysis is null)
            return Problems.Answer(new Problem("recording-not-looked-through", "The recording is being looked through; choose when that is done.", "tracks"));
        if (tracks.SequenceEqual(facts.Used))
            return TypedResults.NoContent();
        AnalysisJob.ListenAgain(recording, facts with { UsedSounds = tracks }, store);
        await db.SaveChangesAsync(cancel);
        // What was heard was another track.
        await db.HeardRecordings.Where(h => h.RecordingHash == hash).ExecuteDeleteAsync(cancel);
        jobs.Enqueue<AnalysisJob>(job => job.RunAsync(hash, CancellationToken.None));
        await news.RecordingAsync(hash);
        return TypedResults.NoContent();
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Picture(
        string hash,
        long milliseconds,
        WexelDb db,
        FileStore store,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        // The hash goes into a path only after the database knows it.
        if (await db.Recordings.FindAsync([hash], cancel) is null)
            return Problems.NotThere("recording");
        var path = store.Derived(RecordingKeys.Pictures(hash), RecordingAnalyser.PictureName(TimeSpan.FromMilliseconds(milliseconds)));
        if (!File.Exists(path))
            return Problems.NotThere("picture");
        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.PhysicalFile(path, "image/jpeg");
    }

    /// <summary>Several pictures of the sheet in a file, one below the other.</summary>
    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Strip(
        string hash,
        long number,
        WexelDb db,
        FileStore store,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (await db.Recordings.FindAsync([hash], cancel) is null)
            return Problems.NotThere("recording");
        var path = Path.Combine(AnalysisJob.StripsFolder(store, hash), PictureStrips.Name(number));
        if (!File.Exists(path))
            return Problems.NotThere("picture");
        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.PhysicalFile(path, "image/jpeg");
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> View(string hash, WexelDb db, FileStore store, CancellationToken cancel)
    {
        if (await db.Recordings.FindAsync([hash], cancel) is not { } recording)
            return Problems.NotThere("recording");
        var facts = WexelJson.Read<RecordingFacts>(recording.Facts);
        if (BrowserPlayback.CanPlay(facts))
            return TypedResults.PhysicalFile(store.Recording(hash), facts.Container == "webm" ? "video/webm" : "video/mp4", enableRangeProcessing: true);
        var copy = store.Derived(AnalysisJob.ViewKey(hash, facts), MadeNames.View);
        return File.Exists(copy) ? TypedResults.PhysicalFile(copy, "video/mp4", enableRangeProcessing: true) : Problems.NotThere("viewing copy");
    }
}
