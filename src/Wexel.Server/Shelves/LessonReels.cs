using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;

namespace Wexel.Server.Shelves;

/// <summary>The recordings that a lesson is made of, with what was found of them.</summary>
/// <param name="Recordings">Their rows, in their order.</param>
/// <param name="ToMake">The same as a lesson is made from them.</param>
internal sealed record FoundReel(IReadOnlyList<Recording> Recordings, LessonReel ToMake)
{
    internal Reel Reel => ToMake.Reel;

    internal IReadOnlyList<string> Hashes => ToMake.Hashes;

    internal IReadOnlyList<RecordingAnalysis?> Analyses => ToMake.Analyses;

    internal RecordingAnalysis? Analysis => ToMake.Analysis;

    internal IReadOnlyList<RecordingFrame?> Frames(IReadOnlyList<RecordingFrame> frames) => ToMake.Frames(frames);
}

/// <summary>Finds the recordings of lessons.</summary>
internal sealed class LessonReels(WexelDb db)
{
    /// <summary>The most recordings that a lesson may have.</summary>
    internal const int Most = 50;

    /// <summary>The reel of a lesson as it was saved.</summary>
    internal async Task<FoundReel> ReadAsync(LessonDocument document, CancellationToken cancel) =>
        await FindAsync(document.Recordings, cancel) ?? throw new InvalidOperationException("A saved lesson names a recording that is not here.");

    /// <summary>Recordings one after the other, of which nothing but their times is asked; null where one of them is not here.</summary>
    internal async Task<Reel?> TimesAsync(IReadOnlyList<string> hashes, CancellationToken cancel)
    {
        if (hashes.Count is 0 or > Most)
            return null;
        var facts = await db
            .Recordings.Where(r => hashes.Contains(r.Hash))
            .Select(r => new { r.Hash, r.Facts })
            .ToDictionaryAsync(r => r.Hash, r => r.Facts, cancel);
        return hashes.All(facts.ContainsKey) ? Reel.Of([.. hashes.Select(hash => (WexelJson.Read<RecordingFacts>(facts[hash]), (SoundSides?)null))]) : null;
    }

    /// <summary>The reel of recordings by their hashes; null where one of them is not here.</summary>
    internal async Task<FoundReel?> FindAsync(IReadOnlyList<string> hashes, CancellationToken cancel)
    {
        if (hashes.Count is 0 or > Most)
            return null;
        var found = await db.Recordings.AsNoTracking().Where(r => hashes.Contains(r.Hash)).ToDictionaryAsync(r => r.Hash, cancel);
        if (hashes.Any(hash => !found.ContainsKey(hash)))
            return null;
        var recordings = hashes.Select(hash => found[hash]).ToList();
        var analyses = recordings.Select(r => (r.Analysis ?? r.AnalysisSoFar) is { } text ? WexelJson.Read<RecordingAnalysis>(text) : null).ToList();
        var reel = Reel.Of([.. recordings.Select((r, i) => (WexelJson.Read<RecordingFacts>(r.Facts), analyses[i]?.Sides))]);
        var failure = recordings.Select(r => r.AnalysisFailure).FirstOrDefault(f => f is not null);
        return new FoundReel(recordings, new LessonReel(hashes, reel, analyses, recordings.All(r => r.Analysis is not null), failure));
    }
}
