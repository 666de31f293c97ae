using Wexel.Core.Recordings;

namespace Wexel.Core.Legibility;

/// <summary>
/// Finds lines of text on a picture of a screen and measures how high their small letters are. Letters are many strokes near each
/// other, so brightness changes often along a row; the rows between the base line and the top of an x carry most of the strokes,
/// the rows of ascenders and descenders few. The edges of that band, between pixels, are the measure.
/// </summary>
public static class TextFinder
{
    /// <summary>A step of brightness between neighbours that counts as the edge of a stroke, in code values.</summary>
    private const int Stroke = 24;

    /// <summary>Edges in a row that are this near belong together, in pixels.</summary>
    private const int Together = 10;

    /// <summary>A straight edge this long is a frame or a rule, not a letter, in pixels.</summary>
    private const int Rule = 28;

    /// <summary>The widest gap between words, by the lower one's height.</summary>
    private const double WordGap = 1.1;

    private const double SeedShare = 0.5;
    private const double BandShare = 0.32;

    /// <summary>A height that is measured well, in pixels.</summary>
    private const double MeasuredWell = 8;

    private const double LowBandShare = 0.2;

    /// <summary>What the height of an x is of a whole line, from ascenders to descenders, at least (common practice, no source).</summary>
    private const double LeastOfLine = 0.42;

    private const double EmptyShare = 0.06;
    private const int LowestBand = 3;
    private const int HighestBand = 40;

    /// <summary>The lines of text, from top to bottom; what is larger than about 160 pixels is left out.</summary>
    /// <param name="grey">The picture's brightness, 0 to 255, row after row.</param>
    /// <param name="size">Its size.</param>
    /// <exception cref="ArgumentException">There are fewer samples than the size says.</exception>
    public static IReadOnlyList<TextLine> Find(ReadOnlySpan<byte> grey, PictureSize size)
    {
        if (grey.Length < size.Width * size.Height)
            throw new ArgumentException("There are fewer samples than the size says.", nameof(grey));
        var (half, halfSize) = Halved(grey, size);
        var (quarter, quarterSize) = Halved(half, halfSize);
        // Large letters fall apart when they are looked at closely: what a smaller picture shows whole is not looked at again.
        var lines = new List<TextLine>();
        Add(quarter, quarterSize, 4, lines);
        Add(half, halfSize, 2, lines);
        Add(grey, size, 1, lines);
        return [.. lines.OrderBy(l => l.Box.Y).ThenBy(l => l.Box.X)];
    }

    private static void Add(ReadOnlySpan<byte> grey, PictureSize size, int times, List<TextLine> lines)
    {
        var found = new List<TextLine>();
        foreach (var block in Joined(Blocks(Edges(grey, size), size)))
            Measure(grey, size, block, found);
        foreach (var line in found)
        {
            var box = new PictureRect(line.Box.X * times, line.Box.Y * times, line.Box.Width * times, line.Box.Height * times);
            if ((times == 1 || line.XHeight >= MeasuredWell) && !lines.Exists(l => l.XHeight > line.XHeight * times && Covers(l, box)))
                lines.Add(new TextLine(box, Math.Round(line.XHeight * times, 2)));
        }
    }

    /// <summary>Whether the middle of a box lies on a line, with its ascenders and descenders.</summary>
    private static bool Covers(TextLine line, PictureRect box)
    {
        var (x, y, room) = (box.X + (box.Width / 2), box.Y + (box.Height / 2), 0.7 * line.XHeight);
        return x >= line.Box.X - room && x <= line.Box.X + line.Box.Width + room && y >= line.Box.Y - room && y <= line.Box.Y + line.Box.Height + room;
    }

    /// <summary>The picture in half its size, each sample the mean of four.</summary>
    private static (byte[] Grey, PictureSize Size) Halved(ReadOnlySpan<byte> grey, PictureSize size)
    {
        var half = new PictureSize(size.Width / 2, size.Height / 2);
        var samples = new byte[half.Width * half.Height];
        for (var y = 0; y < half.Height; y++)
        {
            var above = grey.Slice(2 * y * size.Width, size.Width);
            var below = grey.Slice(((2 * y) + 1) * size.Width, size.Width);
            for (var x = 0; x < half.Width; x++)
                samples[(y * half.Width) + x] = (byte)((above[2 * x] + above[(2 * x) + 1] + below[2 * x] + below[(2 * x) + 1] + 2) / 4);
        }

        return (samples, half);
    }

    /// <summary>Where strokes begin and end; straight edges of frames and rules are left out.</summary>
    private static bool[] Edges(ReadOnlySpan<byte> grey, PictureSize size)
    {
        var edges = new bool[size.Width * size.Height];
        for (var y = 0; y < size.Height; y++)
        {
            var row = grey.Slice(y * size.Width, size.Width);
            for (var x = 0; x + 1 < size.Width; x++)
                edges[(y * size.Width) + x] = Math.Abs(row[x + 1] - row[x]) >= Stroke;
        }

        for (var x = 0; x < size.Width; x++)
        {
            var from = 0;
            for (var y = 0; y <= size.Height; y++)
            {
                if (y < size.Height && edges[(y * size.Width) + x])
                    continue;
                if (y - from >= Rule)
                {
                    for (var r = from; r < y; r++)
                        edges[(r * size.Width) + x] = false;
                }

                from = y + 1;
            }
        }

        return edges;
    }

    /// <summary>Edges that are near each other in a row are one run; runs that touch from row to row are one block.</summary>
    private static IEnumerable<Block> Blocks(bool[] edges, PictureSize size)
    {
        var parents = new List<int>();
        var runs = new List<Run>();
        int Root(int i)
        {
            while (parents[i] != i)
                i = parents[i] = parents[parents[i]];
            return i;
        }

        var before = new List<int>();
        for (var y = 0; y < size.Height; y++)
        {
            var now = new List<int>();
            int start = -1,
                last = -1;
            void Close()
            {
                // One edge alone is no letter.
                if (start >= 0 && last > start)
                {
                    now.Add(runs.Count);
                    parents.Add(runs.Count);
                    runs.Add(new Run(y, start, last + 1));
                }
            }

            for (var x = 0; x < size.Width; x++)
            {
                if (!edges[(y * size.Width) + x])
                    continue;
                if (start < 0 || x - last > Together)
                {
                    Close();
                    start = x;
                }

                last = x;
            }

            Close();
            var b = 0;
            foreach (var i in now)
            {
                while (b < before.Count && runs[before[b]].To < runs[i].From)
                    b++;
                for (var touching = b; touching < before.Count && runs[before[touching]].From <= runs[i].To; touching++)
                    parents[Root(i)] = Root(before[touching]);
            }

            before = now;
        }

        return Enumerable
            .Range(0, runs.Count)
            .GroupBy(Root)
            .Select(g => new Block([.. g.Select(i => runs[i])]))
            .Where(b => b.Rows >= LowestBand && b.Right - b.Left >= 2 * LowestBand);
    }

    /// <summary>Words that stand beside each other are one block: a word alone may have too few letters to tell the band by.</summary>
    private static List<Block> Joined(IEnumerable<Block> blocks)
    {
        var joined = new List<Block>();
        foreach (var block in blocks.OrderBy(b => b.Left))
        {
            var before = joined.FindIndex(b =>
                Math.Min(b.Rows, block.Rows) is var lower
                && Math.Max(b.Rows, block.Rows) <= 2 * lower
                && Math.Min(b.Bottom, block.Bottom) - Math.Max(b.Top, block.Top) + 1 >= lower / 2
                && block.Left - b.Right <= WordGap * lower
                && block.Left >= b.Left
            );
            if (before < 0)
                joined.Add(block);
            else
                joined[before] = new Block([.. joined[before].Runs, .. block.Runs]);
        }

        return joined;
    }

    private static void Measure(ReadOnlySpan<byte> grey, PictureSize size, Block block, List<TextLine> lines)
    {
        // A row above and below, where the letters end.
        var (top, bottom) = (Math.Max(0, block.Top - 2), Math.Min(size.Height - 1, block.Bottom + 2));
        var ground = Ground(grey, size, block);
        var profile = new double[bottom - top + 1];
        foreach (var run in block.Runs)
        {
            var row = grey.Slice(run.Row * size.Width, size.Width);
            for (var x = run.From; x < Math.Min(run.To + 1, size.Width); x++)
                profile[run.Row - top] += Math.Abs(row[x] - ground);
        }

        var empty = profile.Max() * EmptyShare;
        for (var from = 0; from < profile.Length; )
        {
            if (profile[from] <= empty)
            {
                from++;
                continue;
            }

            var to = from;
            while (to < profile.Length && profile[to] > empty)
                to++;
            foreach (var (first, last) in Likely(profile, from, to))
            {
                if (Line(grey, size, block, profile, top, first, last, ground) is { } line)
                    lines.Add(line);
            }

            from = to;
        }
    }

    /// <summary>The bands of a line or of lines that touch. One band that is little of its line is the bars of large letters, not their height.</summary>
    private static List<(int First, int Last)> Likely(double[] profile, int from, int to)
    {
        foreach (var share in new[] { BandShare, LowBandShare })
        {
            var bands = Bands(profile, from, to, share).ToList();
            if (bands.Count > 1 || bands[0].Last - bands[0].First + 1 >= LeastOfLine * (to - from))
                return bands;
        }

        return [];
    }

    /// <summary>Rows that carry most of the strokes, with the rows at their sides that still carry many.</summary>
    private static IEnumerable<(int First, int Last)> Bands(double[] profile, int from, int to, double share)
    {
        var most = profile[from..to].Max();
        for (var row = from; row < to; row++)
        {
            if (profile[row] < most * SeedShare)
                continue;
            var (first, last) = (row, row);
            while (first > from && profile[first - 1] >= most * share)
                first--;
            while (last + 1 < to && profile[last + 1] >= most * share)
                last++;
            yield return (first, last);
            row = last;
        }
    }

    private static TextLine? Line(ReadOnlySpan<byte> grey, PictureSize size, Block block, double[] profile, int top, int first, int last, int ground)
    {
        if (last - first + 1 is < LowestBand or > HighestBand)
            return null;
        var within = profile[(first + 1)..last].Order().ToArray();
        var level = within.Length == 0 ? profile[first..(last + 1)].Max() : within[within.Length / 2];
        double At(int row) => row >= 0 && row < profile.Length ? profile[row] : 0;
        // Where brightness along the rows is half way between the band and what is beyond it, between pixels.
        double Crossing(int inner, int step)
        {
            var beyond = Math.Min(At(inner + step), At(inner + (2 * step)));
            var half = (Math.Min(level, Math.Max(At(inner), At(inner - step))) + beyond) / 2;
            var at = inner;
            while (At(at) < half && at != inner - (3 * step))
                at -= step;
            while (At(at + step) >= half && Math.Abs(at - inner) < 3)
                at += step;
            var (here, next) = (At(at), At(at + step));
            return at + 0.5 + (step * (here > next ? (here - half) / (here - next) : 0.5));
        }

        var (upper, lower) = (Crossing(first, -1), Crossing(last, 1));
        var height = lower - upper;
        var rows = block.Runs.Where(r => r.Row >= top + first && r.Row <= top + last).ToList();
        if (height < LowestBand - 0.5 || rows.Count == 0)
            return null;
        var (left, right) = (rows.Min(r => r.From), rows.Max(r => r.To) + 1);
        var strokes = Strokes(grey.Slice((top + ((first + last) / 2)) * size.Width, size.Width), left, Math.Min(right, size.Width), ground);
        var perX = strokes * height / (right - left);
        // Letters are about one to two strokes for each x; fewer is a drawing, more is a pattern.
        return right - left < 1.5 * height || strokes < 3 || perX is < 0.45 or > 3.5
            ? null
            : new TextLine(new PictureRect(left, top + first, right - left, last - first + 1), Math.Round(height, 2));
    }

    /// <summary>How often brightness leaves the ground along a row.</summary>
    private static int Strokes(ReadOnlySpan<byte> row, int from, int to, int ground)
    {
        var most = 0;
        for (var x = from; x < to; x++)
            most = Math.Max(most, Math.Abs(row[x] - ground));
        if (most < Stroke)
            return 0;
        var (strokes, on) = (0, false);
        for (var x = from; x < to; x++)
        {
            var away = Math.Abs(row[x] - ground);
            if (!on && away > most * 0.5)
                (strokes, on) = (strokes + 1, true);
            else if (on && away < most * 0.35)
                on = false;
        }

        return strokes;
    }

    /// <summary>The brightness that most of a block has: what its letters stand on.</summary>
    private static int Ground(ReadOnlySpan<byte> grey, PictureSize size, Block block)
    {
        Span<int> counts = stackalloc int[256];
        counts.Clear();
        foreach (var run in block.Runs)
        {
            foreach (var value in grey.Slice((run.Row * size.Width) + run.From, run.To - run.From))
                counts[value]++;
        }

        // Single letters leave less ground between them than around them.
        foreach (var row in new[] { block.Top - 2, block.Bottom + 2 })
        {
            if (row >= 0 && row < size.Height)
            {
                foreach (var value in grey.Slice((row * size.Width) + block.Left, block.Right - block.Left))
                    counts[value]++;
            }
        }

        var (best, most) = (0, -1);
        for (var value = 0; value < 256; value++)
        {
            var near = counts[value] + (value > 0 ? counts[value - 1] : 0) + (value < 255 ? counts[value + 1] : 0);
            if (near > most || (near == most && counts[value] > counts[best]))
                (best, most) = (value, near);
        }

        return best;
    }

    private readonly record struct Run(int Row, int From, int To);

    private sealed record Block(IReadOnlyList<Run> Runs)
    {
        public int Top { get; } = Runs.Min(r => r.Row);

        public int Bottom { get; } = Runs.Max(r => r.Row);

        public int Left { get; } = Runs.Min(r => r.From);

        public int Right { get; } = Runs.Max(r => r.To);

        public int Rows => Bottom - Top + 1;
    }
}
