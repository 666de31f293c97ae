using Wexel.Core.Timing;

namespace Wexel.Core.Learning;

/// <summary>
/// A stretch of a recording that somebody watched, in the recording's own time: cuts, another order and other takes that come later do not
/// make it mean something else.
/// </summary>
/// <param name="Recording">The recording's SHA-256.</param>
/// <param name="Nth">Which it is, from 0, where a lesson has the same recording several times.</param>
/// <param name="Span">The stretch, in the recording's own time.</param>
public sealed record WatchedStretch(string Recording, int Nth, TimeRange Span)
{
    /// <summary>The same stretches with overlaps and touching ones joined, recording by recording in the order in which they come first.</summary>
    public static IReadOnlyList<WatchedStretch> Union(IEnumerable<WatchedStretch> stretches) =>
        [
            .. stretches
                .GroupBy(s => (s.Recording, s.Nth))
                .SelectMany(g => TimeRange.Union(g.Select(s => s.Span)).Select(span => new WatchedStretch(g.Key.Recording, g.Key.Nth, span))),
        ];
}

/// <summary>A moment of a recording.</summary>
/// <param name="Recording">The recording's SHA-256.</param>
/// <param name="Nth">Which it is, from 0, where a lesson has the same recording several times.</param>
/// <param name="At">The moment, in the recording's own time.</param>
public sealed record RecordingMoment(string Recording, int Nth, TimeSpan At);
