namespace Wexel.Core.Outlets;

/// <summary>The line over which files go up, and what a hosting plan carries.</summary>
/// <param name="LineBitsPerSecond">How fast files go up, in bits a second.</param>
/// <param name="TrafficBytesAMonth">How much may be loaded by learners in a month, in bytes.</param>
public sealed record HostingPlan(long LineBitsPerSecond, long TrafficBytesAMonth)
{
    /// <summary>A line of an office, and a small plan: 2 GB a month (common practice, no source).</summary>
    public static HostingPlan Usual { get; } = new(10_000_000, 2_000_000_000);

    /// <summary>What somebody typed that cannot be, or null.</summary>
    public Problem? Unusable() =>
        this switch
        {
            { LineBitsPerSecond: < 100_000 or > 100_000_000_000 } => new Problem(
                "line-out-of-range",
                "The line must be between 0.1 and 100,000 Mbit/s.",
                "lineBitsPerSecond"
            ),
            { TrafficBytesAMonth: < 1_000_000 } => new Problem("traffic-out-of-range", "The traffic must be at least 0.001 GB a month.", "trafficBytesAMonth"),
            _ => null,
        };

    /// <summary>How long a file takes to go up.</summary>
    /// <param name="bytes">Its size.</param>
    public TimeSpan Upload(double bytes) => TimeSpan.FromSeconds(bytes * 8 / LineBitsPerSecond);

    /// <summary>How often it can be played to its end in a month.</summary>
    /// <param name="bytes">Its size.</param>
    public long PlaysAMonth(double bytes) => (long)(TrafficBytesAMonth / Math.Max(1, bytes));
}
