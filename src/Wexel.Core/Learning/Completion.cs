using Wexel.Core.Packages;
using Wexel.Core.Timing;

namespace Wexel.Core.Learning;

/// <summary>How much of a lesson a learner has really watched.</summary>
/// <param name="Watched">The union of the watched ranges within the lesson, in lesson time.</param>
/// <param name="Seen">The time that they come to.</param>
/// <param name="SeenShare">The same as a share of the lesson, 0 to 1.</param>
/// <param name="Complete">Whether the lesson is complete.</param>
public sealed record Attendance(IReadOnlyList<TimeRange> Watched, TimeSpan Seen, double SeenShare, bool Complete);

/// <summary>The rule by which a lesson is complete.</summary>
public static class Completion
{
    /// <summary>The share of a lesson that must have been watched, in per cent.</summary>
    public const int RequiredPercent = PlayerLesson.UsualCompletePercent;

    /// <summary>
    /// Judges watched ranges: their union, cut to the lesson, in whole milliseconds. A lesson is complete when the union comes to at
    /// least 90 % of its length; the furthest point does not count, and nothing counts twice.
    /// </summary>
    /// <param name="ranges">Ranges in lesson time, in any order, overlapping or not.</param>
    /// <param name="length">The lesson's length; more than 0.</param>
    public static Attendance Judge(IEnumerable<TimeRange> ranges, TimeSpan length)
    {
        var watched = TimeRange.Union(ranges.Select(r => new TimeRange(Clip(r.Start, length), Clip(r.End, length))));
        var seen = (long)watched.Sum(r => r.Length.TotalMilliseconds);
        var whole = (long)length.TotalMilliseconds;
        return new Attendance(watched, TimeSpan.FromMilliseconds(seen), (double)seen / whole, seen * 100 >= whole * RequiredPercent);
    }

    private static TimeSpan Clip(TimeSpan time, TimeSpan length)
    {
        var whole = Math.Clamp((long)time.TotalMilliseconds, 0, (long)length.TotalMilliseconds);
        return TimeSpan.FromMilliseconds(whole);
    }
}
