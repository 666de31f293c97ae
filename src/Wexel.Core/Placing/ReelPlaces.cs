using Wexel.Core.Timing;

namespace Wexel.Core.Placing;

/// <summary>A recording in a lesson's new order.</summary>
/// <param name="Was">The stretch of the old reel whose things it carries, its own or that of the take that it replaces; null for one that is new.</param>
/// <param name="Span">The stretch of the new reel that it takes.</param>
public sealed record ReelPlace(TimeRange? Was, TimeRange Span);

/// <summary>Where the recordings of a reel lie and lay: what brings a place on one to the same place on it elsewhere.</summary>
/// <param name="places">The recordings in their new order.</param>
public sealed class ReelPlaces(IReadOnlyList<ReelPlace> places)
{
    /// <summary>Where a stretch, or a moment, lies now; one that goes on over a joint stays with the recording in which it begins. Null where it falls
    /// outside.</summary>
    public TimeRange? Carried(TimeRange span) =>
        span.Length > TimeSpan.Zero
            ? Moved(span) is [var first, ..]
                ? first
                : null
            : Moved(span.Start) is { } at
                ? new TimeRange(at, at)
                : null;

    /// <summary>What is left of a stretch, recording by recording in their old order.</summary>
    public IReadOnlyList<TimeRange> Moved(TimeRange stretch)
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

    /// <summary>Where a moment lies now; null where it is gone.</summary>
    public TimeSpan? Moved(TimeSpan at)
    {
        foreach (var (was, span) in places)
        {
            if (was is { } old && at >= old.Start && at < old.End && span.Start + at - old.Start is var moved && moved < span.End)
                return moved;
        }

        return null;
    }
}
