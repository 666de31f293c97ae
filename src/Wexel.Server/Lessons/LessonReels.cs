using Microsoft.EntityFrameworkCore;
using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Lessons;

/// <summary>The recordings that a lesson is made of, with what was found of them.</summary>
/// <param name="Recordings">In their order.</param>
/// <param name="Analyses">What was found of each, also so far; null where nothing was yet.</param>
internal sealed record LessonReel(IReadOnlyList<Recording> Recordings, Reel Reel, IReadOnlyList<RecordingAnalysis?> Analyses)
{
    internal IReadOnlyList<string> Hashes => [.. Recordings.Select(r => r.Hash)];

    /// <summary>For each recording how a lesson brings it onto its canvas; null for as the canvas says.</summary>
    internal IReadOnlyList<RecordingFrame?> Frames(IReadOnlyList<RecordingFrame> frames) => [.. Recordings.Select(r => frames.FirstOrDefault(f => f.Recording == r.Hash))];

    /// <summary>Whether all of them have been looked through.</summary>
    internal bool LookedThrough => Recordings.All(r => r.Analysis is not null);

    /// <summary>Why one of them could not be looked through; null where none failed.</summary>
    internal string? Failure => Recordings.Select(r => r.AnalysisFailure).FirstOrDefault(f => f is not null);

    /// <summary>What was found, along the reel's time.</summary>
    internal RecordingAnalysis? Analysis => ReelAnalysis.Of(Reel, Analyses);
}

/// <summary>Finds the recordings of lessons.</summary>
internal sealed class LessonReels(WexelDb db)
{
    /// <summary>The most recordings that a lesson may have.</summary>
    internal const int Most = 50;

    internal async Task<LessonReel> OfAsync(LessonDocument document, CancellationToken cancel) =>
        await FindAsync(document.Recordings, cancel) ?? throw new InvalidOperationException("A saved lesson names a recording that is not here.");

    /// <summary>The reel of recordings by their hashes; null where one of them is not here.</summary>
    internal async Task<LessonReel?> FindAsync(IReadOnlyList<string> hashes, CancellationToken cancel)
    {
        if (hashes.Count is 0 or > Most)
            return null;
        var found = await db.Recordings.AsNoTracking().Where(r => hashes.Contains(r.Hash)).ToDictionaryAsync(r => r.Hash, cancel);
        if (hashes.Any(hash => !found.ContainsKey(hash)))
            return null;
        var recordings = hashes.Select(hash => found[hash]).ToList();
        var analyses = recordings.Select(r => (r.Analysis ?? r.AnalysisSoFar) is { } text ? Json.Read<RecordingAnalysis>(text) : null).ToList();
        var reel = Reel.Of([.. recordings.Select((r, i) => (Json.Read<RecordingFacts>(r.Facts), analyses[i]?.Sides))]);
        return new LessonReel(recordings, reel, analyses);
    }
}
