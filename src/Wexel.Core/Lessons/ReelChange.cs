using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Timing;

namespace Wexel.Core.Lessons;

/// <summary>A recording in a lesson's new order.</summary>
/// <param name="Was">The stretch of the old reel whose things it carries, its own or that of the take that it replaces; null for one that is new.</param>
/// <param name="Span">The stretch of the new reel that it takes.</param>
public sealed record ReelPlace(TimeRange? Was, TimeRange Span);

/// <summary>
/// A lesson whose recordings come in another order, are more, fewer, or other takes. What was placed on a recording goes where it goes,
/// as far from its start as before.
/// </summary>
/// <param name="Document">The lesson, but for its captions, whose file is another.</param>
/// <param name="Cues">Its captions, in the new reel's time.</param>
/// <param name="Lost">What falls outside, in a few words each.</param>
public sealed record ReelChange(LessonDocument Document, IReadOnlyList<Cue> Cues, IReadOnlyList<string> Lost)
{
    /// <summary>Carries a lesson over.</summary>
    /// <param name="document">The lesson, in the old reel's time.</param>
    /// <param name="cues">Its captions.</param>
    /// <param name="hashes">The recordings in their new order.</param>
    /// <param name="places">Where each of them lies and lay.</param>
    /// <param name="replaced">For each of them the hash of the recording that it was or replaces; null for one that is new.</param>
    public static ReelChange Of(LessonDocument document, IReadOnlyList<Cue> cues, IReadOnlyList<string> hashes, IReadOnlyList<ReelPlace> places, IReadOnlyList<string?> replaced)
    {
        var lost = new List<string>();
        var sections = new List<Section>();
        foreach (var section in document.Sections)
        {
            if (Moved(section.At, places) is { } at)
                sections.Add(section with { At = at });
            else
                lost.Add($"the section “{section.Title}” at {TimeCode.Brief(section.At)}");
        }

        var moveIns = new List<MoveIn>();
        foreach (var moveIn in document.MoveIns)
        {
            // One that goes on over a joint stays with the recording in which it begins.
            if (Moved(moveIn.Span, places).FirstOrDefault() is { Length.Ticks: > 0 } span && span.Length >= MoveInRules.Shortest)
                moveIns.Add(moveIn with { Span = span });
            else
                lost.Add($"the move-in at {TimeCode.Brief(moveIn.Span.Start)}");
        }

        var cuts = new List<TimeRange>();
        foreach (var cut in document.Cuts)
        {
            var moved = Moved(cut, places);
            cuts.AddRange(moved);
            if (moved.Count == 0)
                lost.Add($"the cut at {TimeCode.Brief(cut.Start)}");
        }

        var kept = new List<Cue>();
        foreach (var cue in cues)
        {
            if (Moved(cue.Span, places).FirstOrDefault() is { Length.Ticks: > 0 } span)
                kept.Add(cue with { Span = span });
        }

        if (kept.Count < cues.Count)
            lost.Add(cues.Count - kept.Count == 1 ? "1 caption" : $"{cues.Count - kept.Count} captions");
        var changed = document with
        {
            RecordingHash = hashes[0],
            Following = [.. hashes.Skip(1)],
            Frames = Frames(document, hashes, replaced),
            Sections = [.. sections.OrderBy(s => s.At)],
            MoveIns = [.. moveIns.OrderBy(m => m.Span.Start)],
            Cuts = TimeRange.Union(cuts),
        };
        return new ReelChange(changed, [.. kept.OrderBy(c => c.Span.Start)], lost);
    }

    /// <summary>A new take is brought onto the canvas as the one before it was.</summary>
    private static List<RecordingFrame> Frames(LessonDocument document, IReadOnlyList<string> hashes, IReadOnlyList<string?> replaced) =>
        [.. hashes.Zip(replaced, (hash, was) => document.Frames.FirstOrDefault(f => f.Recording == was) is { } frame ? frame with { Recording = hash } : null).OfType<RecordingFrame>().DistinctBy(f => f.Recording)];

    private static TimeSpan? Moved(TimeSpan at, IReadOnlyList<ReelPlace> places)
    {
        foreach (var (was, span) in places)
        {
            if (was is { } old && at >= old.Start && at < old.End && span.Start + at - old.Start is var moved && moved < span.End)
                return moved;
        }

        return null;
    }

    /// <summary>What is left of a stretch, recording by recording in their old order.</summary>
    private static List<TimeRange> Moved(TimeRange stretch, IReadOnlyList<ReelPlace> places)
    {
        var moved = new List<TimeRange>();
        foreach (var (was, span) in places.Where(p => p.Was is not null).OrderBy(p => p.Was!.Value.Start))
        {
            var old = was!.Value;
            var (start, end) = (stretch.Start > old.Start ? stretch.Start : old.Start, stretch.End < old.End ? stretch.End : old.End);
            if (end <= start)
                continue;
            // What went on to the take's end goes on to the new one's end.
            var until = end == old.End && stretch.End > old.End ? span.End : span.Start + end - old.Start;
            var part = new TimeRange(span.Start + start - old.Start, until < span.End ? until : span.End);
            if (part.End > part.Start)
                moved.Add(part);
        }

        return moved;
    }
}
