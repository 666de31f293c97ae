using Wexel.Core.Recordings;

namespace Wexel.Core.Screens;

/// <summary>Compares two pictures square by square.</summary>
public static class ScreenSquares
{
    /// <summary>How many squares stand beside each other.</summary>
    private const int Across = 80;

    /// <summary>A pixel that differs by more is another one, in code values; coding noise lies under it.</summary>
    private const int Other = 24;

    /// <summary>How many pixels of a square are others before it is another square, of a thousand.</summary>
    private const int OfThousand = 8;

    /// <summary>The share of squares, 0 to 1, in which something is another.</summary>
    /// <param name="before">Brightness, 0 to 255, row after row.</param>
    /// <param name="now">The same of the other picture.</param>
    /// <param name="size">Their size.</param>
    /// <exception cref="ArgumentException">There are fewer samples than the size says.</exception>
    public static double Changed(ReadOnlySpan<byte> before, ReadOnlySpan<byte> now, PictureSize size)
    {
        if (before.Length < size.Width * size.Height || now.Length < size.Width * size.Height)
            throw new ArgumentException("There are fewer samples than the size says.", nameof(now));
        var side = Math.Max(1, size.Width / Across);
        var (columns, rows) = ((size.Width + side - 1) / side, (size.Height + side - 1) / side);
        var counts = new int[columns * rows];
        for (var y = 0; y < size.Height; y++)
        {
            var a = before.Slice(y * size.Width, size.Width);
            var b = now.Slice(y * size.Width, size.Width);
            // Most rows are the same to the last pixel.
            if (a.SequenceEqual(b))
                continue;
            var from = y / side * columns;
            for (var x = 0; x < size.Width; x++)
            {
                if (Math.Abs(a[x] - b[x]) > Other)
                    counts[from + (x / side)]++;
            }
        }

        var enough = Math.Max(1, side * side * OfThousand / 1000);
        return (double)counts.Count(c => c >= enough) / counts.Length;
    }
}
