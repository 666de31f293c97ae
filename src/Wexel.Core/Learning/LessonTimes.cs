using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Learning;

/// <summary>The times of one revision of a lesson: brings what was watched in it to the recordings, and back into it or into another one.</summary>
public sealed class LessonTimes
{
    /// <summary>Kept times are whole milliseconds: an edge that is nearer to a joint than that is meant to lie on it.</summary>
    private static readonly TimeSpan Rounding = TimeSpan.FromMilliseconds(1);

    private readonly TimeMap _map;
    private readonly IReadOnlyList<(string Recording, int Nth, TimeRange Span)> _parts;

    /// <param name="hashes">The hashes of the recordings, in their order.</param>
    /// <param name="reel">They one after the other.</param>
    /// <param name="map">What is kept of them.</param>
    public LessonTimes(IReadOnlyList<string> hashes, Reel reel, TimeMap map)
    {
        _map = map;
        _parts = [.. hashes.Select((hash, i) => (hash, hashes.Take(i).Count(h => h == hash), reel.SpanOf(i)))];
    }

    /// <summary>How long the lesson is.</summary>
    public TimeSpan Length => _map.Length;

    /// <summary>What stretches of the lesson are of its recordings.</summary>
    /// <param name="watched">In lesson time.</param>
    public IReadOnlyList<WatchedStretch> ToRecordings(IEnumerable<TimeRange> watched)
    {
        var ranges = TimeRange.Union(watched);
        return WatchedStretch.Union(
            Kept()
                .SelectMany(kept => ranges.Select(r => Overlap(r, kept.Lesson)).OfType<TimeRange>().Select(r => Moved(r, kept.Lesson, kept.Recorded)))
                .SelectMany(r =>
                    _parts
                        .Select(p => (Part: p, Over: Overlap(r, p.Span)))
                        .Where(p => p.Over is not null)
                        .Select(p => new WatchedStretch(p.Part.Recording, p.Part.Nth, Moved(p.Over!.Value, -p.Part.Span.Start)))
                )
        );
    }

    /// <summary>What of stretches of recordings stands in the lesson, in lesson time; what is cut, or is of a recording that it has not, is left out.</summary>
    public IReadOnlyList<TimeRange> ToLesson(IEnumerable<WatchedStretch> stretches)
    {
        var along = stretches
            .SelectMany(s => _parts.Where(p => p.Recording == s.Recording && p.Nth == s.Nth).Select(p => Moved(s.Span, p.Span.Start)))
            .ToList();
        return TimeRange.Union(
            Kept()
                .SelectMany(kept =>
                    along.Select(r => Overlap(Snapped(r, kept.Recorded), kept.Recorded)).OfType<TimeRange>().Select(r => Moved(r, kept.Recorded, kept.Lesson))
                )
        );
    }

    /// <summary>The moment of a recording that a moment of the lesson shows.</summary>
    public RecordingMoment ToRecordings(TimeSpan moment)
    {
        var at = _map.ToRecording(moment);
        var (recording, nth, span) = _parts.LastOrDefault(p => p.Span.Start <= at, _parts[0]);
        return new RecordingMoment(recording, nth, at - span.Start);
    }

    /// <summary>The moment of the lesson at which a moment of a recording stands, or what is kept next after it; null where the lesson has not that
    /// recording.</summary>
    public TimeSpan? ToLesson(RecordingMoment moment)
    {
        foreach (var part in _parts)
        {
            if (part.Recording == moment.Recording && part.Nth == moment.Nth)
                return _map.ToLesson(part.Span.Start + moment.At);
        }

        return null;
    }

    /// <summary>Where a moment of a recording lies along the recordings, one after the other, whether it is kept or cut; null where the lesson has not that
    /// recording.</summary>
    public TimeSpan? ToReel(RecordingMoment moment) =>
        _parts.Where(p => p.Recording == moment.Recording && p.Nth == moment.Nth).Select(p => (TimeSpan?)(p.Span.Start + moment.At)).FirstOrDefault();

    private IEnumerable<(TimeRange Lesson, TimeRange Recorded)> Kept() =>
        _map.Kept.Select(k =>
            (
                new TimeRange(_map.Grid.TimeOf(k.At), Within(_map.Grid.TimeOf(k.At + k.Count), _map.Length)),
                new TimeRange(_map.Grid.TimeOf(k.First), Within(_map.Grid.TimeOf(k.End), _map.RecordingLength))
            )
        );

    private static TimeSpan Within(TimeSpan time, TimeSpan most) => time < most ? time : most;

    private static TimeRange Snapped(TimeRange range, TimeRange edges) =>
        new(
            (range.Start - edges.Start).Duration() <= Rounding ? edges.Start : range.Start,
            (range.End - edges.End).Duration() <= Rounding ? edges.End : range.End
        );

    private static TimeRange? Overlap(TimeRange a, TimeRange b)
    {
        var range = new TimeRange(a.Start > b.Start ? a.Start : b.Start, a.End < b.End ? a.End : b.End);
        return range.End > range.Start ? range : null;
    }

    /// <summary>A part of one stretch as the same part of another; what ends where the one ends, ends where the other does, to the tick.</summary>
    private static TimeRange Moved(TimeRange range, TimeRange from, TimeRange to) =>
        new(range.Start == from.Start ? to.Start : range.Start - from.Start + to.Start, range.End == from.End ? to.End : range.End - from.Start + to.Start);

    private static TimeRange Moved(TimeRange range, TimeSpan by) => new(range.Start + by, range.End + by);
}
