using Wexel.Core.Timing;

namespace Wexel.Core.Learning;

/// <summary>How much can have been watched: nobody watches faster than a player plays, whatever a report says.</summary>
public static class WatchPace
{
    /// <summary>The highest speed at which the learner's player plays.</summary>
    public const double HighestSpeed = 2;

    /// <summary>The most ranges that are kept of one learner and lesson; who jumps about more has watched little of it.</summary>
    public const int MostRanges = 500;

    /// <summary>What a report may come early or late by, at most: as much time as has passed itself, so that many reports in a moment gain nothing.</summary>
    public static readonly TimeSpan Slack = TimeSpan.FromSeconds(5);

    /// <summary>
    /// What is known to have been watched after a report: what was known before, and of what is new, from the front, as much as can have been played
    /// since. Where that comes to more than <see cref="MostRanges"/>, the shortest are left out. So nothing counts as watched that cannot have been.
    /// </summary>
    /// <param name="before">What was known, in lesson time.</param>
    /// <param name="reported">What the report says, in lesson time; it may hold what was known.</param>
    /// <param name="since">How much time has passed since the last report, or since the page was opened; 0 or more.</param>
    public static IReadOnlyList<TimeRange> After(IEnumerable<TimeRange> before, IEnumerable<TimeRange> reported, TimeSpan since)
    {
        var known = TimeRange.Union(before);
        var left = (since * HighestSpeed) + (since < Slack ? since : Slack);
        var added = new List<TimeRange>();
        foreach (var range in TimeRange.Without(reported, known))
        {
            if (left <= TimeSpan.Zero)
                break;
            var taken = range.Length <= left ? range : range with { End = range.Start + left };
            added.Add(taken);
            left -= taken.Length;
        }

        var all = TimeRange.Union(known.Concat(added));
        return all.Count <= MostRanges ? all : [.. all.OrderByDescending(r => r.Length).Take(MostRanges).OrderBy(r => r.Start)];
    }
}
