using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Editing;

/// <summary>What holds for the cuts of a lesson.</summary>
public static class CutRules
{
    /// <summary>The most cuts that a lesson may have.</summary>
    public const int MostCuts = 2000;

    /// <summary>In order, within the recording, overlapping and touching ones joined; what is shorter than half a frame is left out, since it would
    /// take nothing.</summary>
    /// <param name="cuts">The cuts, in recording time, in any order.</param>
    /// <param name="length">The recording's length.</param>
    /// <param name="grid">The rate of the lesson's frames.</param>
    public static IReadOnlyList<TimeRange> Tidy(IEnumerable<TimeRange> cuts, TimeSpan length, FrameRate grid)
    {
        TimeSpan Within(TimeSpan time) =>
            time < TimeSpan.Zero ? TimeSpan.Zero
            : time > length ? length
            : time;
        var shortest = grid.TimeOf(1) / 2;
        return [.. TimeRange.Union(cuts.Select(c => new TimeRange(Within(c.Start), Within(c.End)))).Where(c => c.Length >= shortest)];
    }

    /// <summary>Why cuts cannot stand, or null.</summary>
    public static Problem? Refusal(IReadOnlyList<TimeRange> cuts, TimeMap map) =>
        (cuts.Count, map.Frames) switch
        {
            (> MostCuts, _) => new Problem("cuts-too-many", $"There are {cuts.Count} cuts; {MostCuts} is the most that one lesson may have.", "cuts"),
            (_, 0) => new Problem("cuts-everything", "That would cut the whole lesson. Keep at least one moment of it, or delete the lesson.", "cuts"),
            _ => null,
        };
}
