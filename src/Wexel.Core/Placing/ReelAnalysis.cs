using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Placing;

/// <summary>What looking through the recordings of a reel found, along the reel's time.</summary>
public static class ReelAnalysis
{
    /// <summary>Brings together what was found; of one recording it is as it was found.</summary>
    /// <param name="reel">The recordings.</param>
    /// <param name="analyses">What was found of each, also so far; null where nothing was yet.</param>
    /// <returns>Null where nothing was found of the first. What is told of a sound as a whole is told of one recording alone.</returns>
    public static RecordingAnalysis? Join(Reel reel, IReadOnlyList<RecordingAnalysis?> analyses)
    {
        if (analyses is [var only])
            return only;
        if (analyses[0] is not { } first)
            return null;
        var found = analyses.Select((analysis, i) => (Analysis: analysis, Span: reel.SpanOf(i))).ToList();
        var perSecond = first.PeaksPerSecond;
        TimeSpan? until = null;
        foreach (var (analysis, span) in found.Where(f => f.Analysis is not { LookedUntil: null }).Take(1))
            until = span.Start + (analysis?.LookedUntil ?? TimeSpan.Zero);
        var peaks = new List<int>();
        foreach (var (analysis, span) in found)
        {
            // Each second has as many peaks whatever lies before it; where there are none, nothing is heard.
            var count = (int)Math.Round(span.End.TotalSeconds * perSecond) - peaks.Count;
            var own = analysis?.Peaks ?? [];
            peaks.AddRange(Enumerable.Range(0, count).Select(i => i < own.Count ? own[i] : 0));
        }

        IEnumerable<T> All<T>(Func<RecordingAnalysis, IEnumerable<T>> of, Func<T, TimeRange, T> moved) =>
            found.Where(f => f.Analysis is not null).SelectMany(f => of(f.Analysis!).Select(thing => moved(thing, f.Span)));
        return new RecordingAnalysis(
            until,
            [.. All(a => a.PictureMoments, (at, span) => at + span.Start)],
            found.Sum(f => (f.Analysis?.ChangedShare ?? 0) * f.Span.Length.TotalSeconds) / reel.Length.TotalSeconds,
            [.. All(a => a.Still, (still, span) => new TimeRange(still.Start + span.Start, Earlier(still.End + span.Start, span.End)))],
            [.. All(a => a.Scenes, (at, span) => at + span.Start).Concat(found.Skip(1).Select(f => f.Span.Start)).Distinct().Order()],
            null,
            null,
            perSecond,
            peaks,
            null,
            null,
            [.. All(a => a.Looks ?? [], (look, span) => look with { At = look.At + span.Start })]
        );
    }

    private static TimeSpan Earlier(TimeSpan a, TimeSpan b) => a < b ? a : b;
}
