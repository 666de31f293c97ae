namespace Wexel.Core.Timing;

/// <summary>A stretch of time from <paramref name="Start"/> up to, not including, <paramref name="End"/>.</summary>
/// <param name="Start">Where it starts; 0 or more.</param>
/// <param name="End">Where it ends; not before the start.</param>
public readonly record struct TimeRange(TimeSpan Start, TimeSpan End)
{
    /// <summary>How long it is.</summary>
    public TimeSpan Length => End - Start;

    /// <summary>The part of it that lies between 0 and an end; empty, at its end, where it lies behind it.</summary>
    /// <param name="end">The end; 0 or more.</param>
    public TimeRange Within(TimeSpan end)
    {
        TimeSpan Between(TimeSpan time) =>
            time < TimeSpan.Zero ? TimeSpan.Zero
            : time > end ? end
            : time;
        return new TimeRange(Between(Start), Between(End));
    }

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

    /// <summary>The stretches that some ranges cover and others do not, in order and apart.</summary>
    /// <param name="ranges">What is covered.</param>
    /// <param name="taken">What is taken away from it.</param>
    public static IReadOnlyList<TimeRange> Without(IEnumerable<TimeRange> ranges, IEnumerable<TimeRange> taken)
    {
        var away = Union(taken);
        var left = new List<TimeRange>();
        foreach (var range in Union(ranges))
        {
            var from = range.Start;
            foreach (var gone in away.Where(a => a.Start < range.End && a.End > range.Start))
            {
                if (gone.Start > from)
                    left.Add(new TimeRange(from, gone.Start));
                from = gone.End;
            }

            if (from < range.End)
                left.Add(new TimeRange(from, range.End));
        }

        return left;
    }
}
