namespace Wexel.Media.Probing;

/// <summary>How evenly frames follow each other.</summary>
/// <param name="MedianSeconds">The usual time between two frames; 0 where there are fewer than three.</param>
/// <param name="Varies">Whether that time differs along the recording.</param>
internal readonly record struct Pace(double MedianSeconds, bool Varies)
{
    /// <summary>Containers round to milliseconds, so two deltas of one rate may differ by this.</summary>
    private const double Rounding = 0.0021;

    /// <summary>A dropped frame here and there does not make a rate vary.</summary>
    private const double StrayShare = 0.02;

    internal static Pace Of(List<double> times)
    {
        if (times.Count < 3)
            return new Pace(0, false);
        var gaps = times.Zip(times.Skip(1), (a, b) => b - a).Order().ToList();
        var median = gaps[gaps.Count / 2];
        var strays = gaps.Count(gap => Math.Abs(gap - median) > (median * 0.2) + Rounding);
        return new Pace(median, strays > gaps.Count * StrayShare);
    }
}
