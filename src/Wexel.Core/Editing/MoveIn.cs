using Wexel.Core.Timing;

namespace Wexel.Core.Editing;

/// <summary>A stretch in which a part of the picture is seen large.</summary>
/// <param name="Id">A name inside the lesson that stays.</param>
/// <param name="Span">From the start of moving in to the end of moving out, in recording time.</param>
/// <param name="Part">What must be seen, as shares of the recording's picture; the canvas shows at least that.</param>
/// <param name="Ease">How long moving in and moving out take, each.</param>
public sealed record MoveIn(string Id, TimeRange Span, PicturePart Part, TimeSpan Ease)
{
    /// <summary>How long moving takes where nobody chose.</summary>
    public static readonly TimeSpan UsualEase = TimeSpan.FromSeconds(0.5);
}

/// <summary>What holds for the move-ins of a lesson.</summary>
public static class MoveInRules
{
    /// <summary>The most that a lesson may have.</summary>
    public const int Most = 200;

    /// <summary>The shortest that is kept.</summary>
    public static readonly TimeSpan Shortest = TimeSpan.FromSeconds(0.2);

    private static readonly TimeSpan LongestEase = TimeSpan.FromSeconds(3);

    /// <summary>In order, within the recording and its picture, apart: where two lie over each other, the earlier one ends as the later one starts.</summary>
    /// <param name="moveIns">The move-ins, in any order.</param>
    /// <param name="length">The recording's length.</param>
    public static IReadOnlyList<MoveIn> Tidy(IEnumerable<MoveIn> moveIns, TimeSpan length)
    {
        TimeSpan Within(TimeSpan time, TimeSpan most) => time < TimeSpan.Zero ? TimeSpan.Zero : time > most ? most : time;
        var tidy = new List<MoveIn>();
        foreach (var moveIn in moveIns.OrderBy(m => m.Span.Start))
        {
            var span = new TimeRange(Within(moveIn.Span.Start, length), Within(moveIn.Span.End, length));
            if (span.Length < Shortest)
                continue;
            while (tidy.Count > 0 && tidy[^1].Span.End > span.Start)
            {
                var before = tidy[^1] with { Span = new TimeRange(tidy[^1].Span.Start, span.Start) };
                tidy.RemoveAt(tidy.Count - 1);
                if (before.Span.Length >= Shortest)
                    tidy.Add(before);
            }

            tidy.Add(moveIn with { Span = span, Part = moveIn.Part.Within(), Ease = Within(moveIn.Ease, LongestEase) });
        }

        return tidy;
    }

    /// <summary>Why move-ins cannot stand, or null.</summary>
    public static Problem? Refusal(IReadOnlyList<MoveIn> moveIns) =>
        moveIns.Count > Most ? new Problem("move-ins-too-many", $"There are {moveIns.Count} move-ins; {Most} is the most that one lesson may have.", "moveIns")
        : moveIns.Select(m => m.Id).Distinct().Count() != moveIns.Count ? new Problem("move-ins-same-twice", "Two move-ins have the same name inside; load the page again.", "moveIns")
        : null;
}
