namespace Wexel.Core.Recordings;

/// <summary>What a picture of a recording looks like, as far as it goes by that whether it could stand for the lesson.</summary>
/// <param name="At">When it is seen, in the recording.</param>
/// <param name="Sharpness">How sharp it is: the mean step of brightness between neighbours where there is one at all, 0 (none) to 1 (black to white).</param>
/// <param name="Filled">How much stands on it: the share of its fields in which something is drawn, 0 to 1.</param>
/// <param name="Tones">How bright each part of it is, left to right and top to bottom: <see cref="PictureLooks.TonesAcross"/> by
/// <see cref="PictureLooks.TonesDown"/>, each 0 (black) to 255 (white).</param>
public sealed record PictureLook(TimeSpan At, double Sharpness, double Filled, byte[] Tones);

/// <summary>Measures pictures for <see cref="PictureProposals"/>.</summary>
public static class PictureLooks
{
    /// <summary>How many parts there are across.</summary>
    public const int TonesAcross = 16;

    /// <summary>How many parts there are down.</summary>
    public const int TonesDown = 9;

    /// <summary>The width and height of a field in which something is drawn or is not, in pixels.</summary>
    private const int Field = 8;

    /// <summary>From which step between neighbours on there is an edge; less is noise or a shade (from memory of screen recordings).</summary>
    private const int Edge = 24;

    /// <summary>Measures a picture.</summary>
    /// <param name="at">When it is seen.</param>
    /// <param name="grey">Its brightness, row by row.</param>
    /// <param name="size">Its size; at least <see cref="TonesAcross"/> by <see cref="TonesDown"/>.</param>
    public static PictureLook Measure(TimeSpan at, ReadOnlySpan<byte> grey, PictureSize size)
    {
        var (across, down) = (size.Width / Field, size.Height / Field);
        var drawn = new bool[Math.Max(1, across * down)];
        long steps = 0,
            edges = 0;
        Span<long> sums = stackalloc long[TonesAcross * TonesDown];
        Span<int> counts = stackalloc int[TonesAcross * TonesDown];
        for (var y = 0; y < size.Height; y++)
        {
            var row = grey.Slice(y * size.Width, size.Width);
            var below = y + 1 < size.Height ? grey.Slice((y + 1) * size.Width, size.Width) : row;
            for (var x = 0; x < size.Width; x++)
            {
                var tone = (y * TonesDown / size.Height * TonesAcross) + (x * TonesAcross / size.Width);
                sums[tone] += row[x];
                counts[tone]++;
                var step = Math.Max(Math.Abs(row[x] - below[x]), x + 1 < size.Width ? Math.Abs(row[x] - row[x + 1]) : 0);
                if (step < Edge)
                    continue;
                steps += step;
                edges++;
                if (x / Field < across && y / Field < down)
                    drawn[(y / Field * across) + (x / Field)] = true;
            }
        }

        var tones = new byte[TonesAcross * TonesDown];
        for (var i = 0; i < tones.Length; i++)
            tones[i] = (byte)(sums[i] / Math.Max(1, counts[i]));
        return new PictureLook(at, edges == 0 ? 0 : steps / (255.0 * edges), (double)drawn.Count(d => d) / drawn.Length, tones);
    }
}

/// <summary>Proposes pictures that could stand for a lesson: sharp, with much on them, and unlike each other.</summary>
public static class PictureProposals
{
    /// <summary>How many are proposed at most.</summary>
    public const int Most = 3;

    /// <summary>
    /// From which difference on two pictures are unlike, as far as lessons go, most of whose screen stays: the mean of their parts' differences, 0 to 1.
    /// </summary>
    public const double Unlike = PictureMoments.NewPicture / 4;

    /// <summary>From which difference on being more unlike makes none better.</summary>
    private const double FarApart = PictureMoments.NewPicture * 4;

    /// <summary>Chooses among pictures.</summary>
    /// <param name="looks">Those that there are, in order of time.</param>
    /// <returns>At most <see cref="Most"/>, the best first; fewer where the rest looks like one of them. None of which nothing is drawn, where there are
    /// others.</returns>
    public static IReadOnlyList<PictureLook> Choose(IReadOnlyList<PictureLook> looks)
    {
        var left = looks.Any(l => l.Filled > 0) ? looks.Where(l => l.Filled > 0).ToList() : [.. looks.Take(1)];
        var chosen = new List<PictureLook>();
        while (chosen.Count < Most && left.Count > 0)
        {
            // The further from all that was chosen, the better; far enough is far enough.
            var best = left.MaxBy(l => Worth(l) * Math.Min(1, chosen.Count == 0 ? 1 : chosen.Min(c => Difference(c, l)) / FarApart))!;
            chosen.Add(best);
            left.RemoveAll(l => Difference(l, best) < Unlike);
        }

        return chosen;
    }

    /// <summary>How unlike two pictures are: the mean difference of their parts' brightness, 0 (alike) to 1 (black to white everywhere).</summary>
    public static double Difference(PictureLook a, PictureLook b) => a.Tones.Zip(b.Tones, (x, y) => Math.Abs(x - y)).Average() / 255.0;

    private static double Worth(PictureLook look) => look.Filled * look.Sharpness;
}
