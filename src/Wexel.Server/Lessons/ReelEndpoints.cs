using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Making.Storage;
using Wexel.Media.Analysing;
using Wexel.Server.Recordings;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <summary>One recording of a reel.</summary>
/// <param name="Span">The stretch of the reel that it takes.</param>
/// <param name="Grid">The rate of its own frames, by which they are asked for.</param>
/// <param name="Notes">What somebody should know of it, in sentences.</param>
/// <param name="Loudness">What happens to the loudness of its sound, in a sentence; null while that is not known, or without sound.</param>
/// <param name="PicturesToAStrip">How many of its pictures lie in a file, one below the other; 0 where each lies by itself.</param>
internal sealed record ReelPartView(
    string Hash,
    string FileName,
    TimeRange Span,
    FrameRate Grid,
    RecordingFacts Facts,
    RecordingAnalysis? Analysis,
    IReadOnlyList<string> Notes,
    string? Loudness,
    string? AnalysisFailure,
    bool Viewable,
    bool NeedsViewingCopy,
    int PicturesToAStrip
);

/// <summary>The recordings of a lesson one after the other, and what was found along them.</summary>
/// <param name="Grid">The rate of the lesson's frames.</param>
/// <param name="Largest">The size of the largest picture.</param>
/// <param name="Analysis">What looking through found, also while it goes on.</param>
/// <param name="Quiet">Where nothing changes and nobody speaks; the run sheet folds it.</param>
/// <param name="SoundEdges">Where sounds begin and end, for moving an edge from word to word; in order.</param>
internal sealed record ReelView(
    IReadOnlyList<ReelPartView> Parts,
    FrameRate Grid,
    TimeSpan Length,
    PictureSize Largest,
    RecordingAnalysis? Analysis,
    IReadOnlyList<TimeRange> Quiet,
    IReadOnlyList<TimeSpan> SoundEdges,
    string? AnalysisFailure,
    bool Viewable
);

/// <param name="Hash">The recording.</param>
/// <param name="Was">Which recording of the document it was, from 0, or whose place it takes; null for one that is new.</param>
internal sealed record WantedRecording(string Hash, int? Was);

/// <param name="Document">The lesson as it stands.</param>
/// <param name="Recordings">The recordings in the order that is wanted.</param>
internal sealed record ReelRequest(LessonDocument Document, IReadOnlyList<WantedRecording> Recordings);

/// <param name="Document">The lesson as it would be.</param>
/// <param name="Lost">What falls outside, in a few words each.</param>
internal sealed record ReelOutcome(LessonDocument Document, TimeSpan Length, IReadOnlyList<string> Lost);

internal static class ReelEndpoints
{
    private static readonly TimeSpan ShortestFold = TimeSpan.FromSeconds(5);

    internal static void MapReels(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/reels/{hashes}", GetAsync).WithName("Reel");
        routes.MapPost("/api/reels", ChangeAsync).WithName("ChangeReel");
    }

    /// <param name="hashes">The recordings' hashes in their order, with commas between them.</param>
    private static async Task<Results<Ok<ReelView>, ProblemHttpResult>> GetAsync(string hashes, LessonReels reels, FileStore store, CancellationToken cancel)
    {
        if (await reels.FindAsync(hashes.Split(','), cancel) is not { } found)
            return Problems.NotThere("recording");
        var (reel, analysis) = (found.Reel, found.Analysis);
        var parts = found
            .Recordings.Select(
                (recording, i) =>
                {
                    var (facts, own) = (reel.Parts[i].Facts, found.Analyses[i]);
                    return new ReelPartView(
                        recording.Hash,
                        recording.FileName,
                        reel.SpanOf(i),
                        Reel.Of(facts).Grid,
                        facts,
                        own is null ? null : own with { Changed = null },
                        [.. RecordingCheck.Notes(facts), .. own is { LookedUntil: null } ? RecordingCheck.Notes(own) : []],
                        Levelling.InWords(own?.Loudness, Levelling.UsualTarget),
                        recording.AnalysisFailure,
                        recording.Viewable,
                        !BrowserPlayback.CanPlay(facts),
                        AnalysisJob.HasStrips(store, recording.Hash) ? PictureStrips.Pictures : 0
                    );
                }
            )
            .ToList();
        var along = found.Analyses.Select((own, i) => (Own: own, Span: reel.SpanOf(i))).Where(a => a.Own is not null).ToList();
        return TypedResults.Ok(
            new ReelView(
                parts,
                reel.Grid,
                reel.Length,
                reel.Largest,
                analysis is null ? null : analysis with { Changed = null },
                [
                    .. along.SelectMany(a =>
                        CutSuggestions
                            .Quiet(a.Own!, a.Own!.LookedUntil ?? a.Span.Length, ShortestFold)
                            .Select(q => new TimeRange(q.Start + a.Span.Start, q.End + a.Span.Start))
                    ),
                ],
                [.. along.SelectMany(a => (a.Own!.Levels?.Edges() ?? []).Select(e => e + a.Span.Start))],
                found.ToMake.Failure,
                found.Recordings.All(r => r.Viewable)
            )
        );
    }

    /// <summary>What a lesson would be with other recordings, or the same in another order: what was placed goes with them.</summary>
    private static async Task<Results<Ok<ReelOutcome>, ProblemHttpResult>> ChangeAsync(
        ReelRequest request,
        LessonReels reels,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        var (document, wanted) = (request.Document, request.Recordings);
        if (captions.Missing(document.Captions) is { } missing)
            return Problems.Answer(missing);
        if (wanted.Count is 0 or > LessonReels.Most)
            return Problems.Answer(new Problem("reel-count", $"A lesson has 1 to {LessonReels.Most} recordings.", "recordings"));
        if (
            await reels.FindAsync(document.Recordings, cancel) is not { } before
            || await reels.FindAsync([.. wanted.Select(w => w.Hash)], cancel) is not { } after
        )
            return Problems.NotThere("recording");
        var places = wanted
            .Select(
                (w, i) => new ReelPlace(w.Was is { } was && was >= 0 && was < before.Recordings.Count ? before.Reel.SpanOf(was) : null, after.Reel.SpanOf(i))
            )
            .ToList();
        var change = ReelChange.Of(
            await captions.ReadAsync(document, cancel),
            after.Hashes,
            places,
            [.. wanted.Select(w => w.Was is { } was && was >= 0 && was < before.Recordings.Count ? before.Recordings[was].Hash : null)]
        );
        await captions.KeepAsync(change.Lesson, cancel);
        return TypedResults.Ok(new ReelOutcome(change.Document, after.Reel.Map(change.Document.Cuts).Length, change.Lost));
    }
}
