using Wexel.Core.Timing;

namespace Wexel.Core.Cameras;

/// <summary>Something happens on the screen where a camera might stand.</summary>
/// <param name="At">When it was seen, in lesson time; it happened at most <see cref="KeepClear.Sampled"/> before.</param>
/// <param name="Corners">In which corners a camera would lie over it, a bit each, as <see cref="CameraCorner"/> numbers them.</param>
public readonly record struct Happening(TimeSpan At, int Corners);

/// <summary>
/// Chooses in which corner a camera stands while things happen on the screen, so that it covers none of them: in its own corner where it can,
/// seldom moved, and hidden only where something happens in all four. It is the cheapest way through all steps (a shortest path, R. Bellman, 1957).
/// </summary>
public static class KeepClear
{
    /// <summary>How far samples of the screen are apart.</summary>
    public static readonly TimeSpan Sampled = TimeSpan.FromSeconds(0.5);

    /// <summary>For how long learners look at what happened.</summary>
    public static readonly TimeSpan LookedAt = TimeSpan.FromSeconds(1.5);

    private const int Corners = 4;
    private const int Hidden = Corners;

    /// <summary>What a step costs in another corner, by how that lies to its own: beside it, above or below it, across.</summary>
    private static readonly double[] Elsewhere = [0, 1, 1.1, 1.2];

    private const double Unseen = 4;
    private const double Moves = 6;

    /// <summary>Chooses.</summary>
    /// <param name="span">Where the camera is to stand small, in lesson time.</param>
    /// <param name="own">The corner in which it stands where nothing is said against it.</param>
    /// <param name="happening">What happens, in order of time.</param>
    /// <returns>The stretch in pieces, in order and without gaps: in which corner it stands, null for none.</returns>
    public static IReadOnlyList<(TimeRange Span, CameraCorner? Corner)> Choose(TimeRange span, CameraCorner own, IReadOnlyList<Happening> happening)
    {
        var steps = Math.Max(1, (int)Math.Ceiling(span.Length / Sampled));
        var covered = new int[steps];
        foreach (var (at, corners) in happening.Where(h => h.Corners != 0 && h.At > span.Start - LookedAt && h.At < span.End + Sampled))
        {
            var (from, until) = ((at - Sampled - span.Start) / Sampled, (at + LookedAt - span.Start) / Sampled);
            for (var step = Math.Max(0, (int)Math.Floor(from)); step < Math.Min(steps, (int)Math.Ceiling(until)); step++)
                covered[step] |= corners;
        }

        var chosen = Cheapest(covered, (int)own);
        var pieces = new List<(TimeRange, CameraCorner?)>();
        for (var i = 0; i < steps; )
        {
            var next = i;
            while (next < steps && chosen[next] == chosen[i])
                next++;
            var end = next == steps ? span.End : span.Start + (Sampled * next);
            pieces.Add((new TimeRange(span.Start + (Sampled * i), end), chosen[i] == Hidden ? null : (CameraCorner)chosen[i]));
            i = next;
        }

        return pieces;
    }

    private static int[] Cheapest(int[] covered, int own)
    {
        double Stands(int where, int step) =>
            where == Hidden ? Unseen
            : (covered[step] & (1 << where)) != 0 ? double.PositiveInfinity
            : Elsewhere[where ^ own];
        var (costs, from) = (new double[Corners + 1], new int[covered.Length, Corners + 1]);
        for (var where = 0; where <= Hidden; where++)
            costs[where] = Stands(where, 0);
        for (var step = 1; step < covered.Length; step++)
        {
            var next = new double[Corners + 1];
            for (var where = 0; where <= Hidden; where++)
            {
                var best = where;
                for (var before = 0; before <= Hidden; before++)
                {
                    if (costs[before] + (before == where ? 0 : Moves) < costs[best] + (best == where ? 0 : Moves))
                        best = before;
                }

                from[step, where] = best;
                next[where] = costs[best] + (best == where ? 0 : Moves) + Stands(where, step);
            }

            costs = next;
        }

        var chosen = new int[covered.Length];
        chosen[^1] = Array.IndexOf(costs, costs.Min());
        for (var step = covered.Length - 1; step > 0; step--)
            chosen[step - 1] = from[step, chosen[step]];
        return chosen;
    }
}
