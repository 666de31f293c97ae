namespace Wexel.Core.Timing;

/// <summary>A stretch of time from <paramref name="Start"/> up to, not including, <paramref name="End"/>.</summary>
/// <param name="Start">Where it starts; 0 or more.</param>
/// <param name="End">Where it ends; not before the start.</param>
public readonly record struct TimeRange(TimeSpan Start, TimeSpan End)
{
    /// <summary>How long it is.</summary>
    public TimeSpan Length => End - Start;

    /// <summary>The same stretches with overlaps and touching ones joined, in order; empty and backward ones are left out.</summary>
    public static IReadOnlyList<TimeRange> Union(IEnumerable<TimeRange> ranges)
    {
        var joined = new List<TimeRange>();
        foreach (var range in ranges.Where(r => r.End > r.Start).OrderBy(r => r.Start))
        {
            if (joined.Count > 0 && range.Start <= joined[^1].End)
                joined[^1] = joined[^1] with { End = range.End > joined[^1].End ? range.End : joined[^1].End };
            else
                joined.Add(range);
        }

        return joined;
    }
}
