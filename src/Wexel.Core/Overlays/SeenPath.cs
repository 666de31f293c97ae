using Wexel.Core.Scoring;

namespace Wexel.Core.Overlays;

/// <summary>A shape at a frame.</summary>
/// <param name="Frame">The lesson's frame.</param>
/// <param name="Points">Its corners, as shares of what is seen.</param>
public sealed record SeenAt(long Frame, IReadOnlyList<Place> Points);

/// <summary>
/// Where a shape on the recording's picture is seen over a stretch in which the picture may move in and out: as few frames as will do, between
/// which its corners go straight (the line simplification of Douglas and Peucker, 1973, over frames; each corner's distance is taken at equal
/// times).
/// </summary>
public static class SeenPath
{
    /// <summary>How far a corner may lie from where it is seen, as a share of the picture: half a per cent is about a letter's stem on a full screen.</summary>
    public const double Tolerance = 0.005;

    /// <summary>The frames at which the shape is given; one alone where it does not move.</summary>
    /// <param name="first">The first frame.</param>
    /// <param name="last">The last frame, at or after the first.</param>
    /// <param name="seen">The corners as they are seen at a frame, always as many.</param>
    public static IReadOnlyList<SeenAt> Along(long first, long last, Func<long, IReadOnlyList<Place>> seen)
    {
        var all = new IReadOnlyList<Place>[Math.Max(1, last - first + 1)];
        for (var i = 0; i < all.Length; i++)
            all[i] = seen(first + i);
        var kept = new SortedSet<int> { 0 };
        if (all.Any(points => Apart(points, all[0]) > Tolerance))
            Keep(all, kept);
        return [.. kept.Select(i => new SeenAt(first + i, all[i]))];
    }

    private static void Keep(IReadOnlyList<Place>[] all, SortedSet<int> kept)
    {
        var open = new Stack<(int From, int To)>([(0, all.Length - 1)]);
        kept.Add(all.Length - 1);
        while (open.TryPop(out var stretch))
        {
            var (worst, at) = (Tolerance, -1);
            for (var i = stretch.From + 1; i < stretch.To; i++)
            {
                var share = (double)(i - stretch.From) / (stretch.To - stretch.From);
                var off = Apart(
                    all[i],
                    [.. all[stretch.From].Zip(all[stretch.To], (a, b) => new Place(a.X + ((b.X - a.X) * share), a.Y + ((b.Y - a.Y) * share)))]
                );
                if (off > worst)
                    (worst, at) = (off, i);
            }

            if (at < 0)
                continue;
            kept.Add(at);
            open.Push((stretch.From, at));
            open.Push((at, stretch.To));
        }
    }

    private static double Apart(IReadOnlyList<Place> a, IReadOnlyList<Place> b) =>
        a.Zip(b, (p, q) => Math.Max(Math.Abs(p.X - q.X), Math.Abs(p.Y - q.Y))).DefaultIfEmpty(0).Max();
}
