using Wexel.Core.Recordings;

namespace Wexel.Core.Inspection;

/// <summary>
/// How like each other two pictures are: the structural similarity of their brightness (Wang, Bovik, Sheikh, Simoncelli: Image quality
/// assessment, 2004), over windows of 8 × 8 pixels that are four apart.
/// </summary>
public static class StructuralSimilarity
{
    private const int Block = 4;
    private const int Window = 2 * Block;
    private const double White = 255;

    /// <summary>Compares two pictures.</summary>
    /// <param name="one">The brightness of one, row after row.</param>
    /// <param name="other">That of the other, in the same size.</param>
    /// <param name="size">The size, two pixels at least. Up to three rows and columns that fill no block of four are not looked at; a picture that is
    /// smaller than a window is one.</param>
    /// <returns>1 for the same, less for others, as the mean of all windows.</returns>
    /// <exception cref="ArgumentException">There are fewer samples than the size says.</exception>
    public static double Compare(ReadOnlySpan<byte> one, ReadOnlySpan<byte> other, PictureSize size)
    {
        var pixels = size.Width * size.Height;
        if (Math.Min(one.Length, other.Length) < pixels)
            throw new ArgumentException("There are fewer samples than the size says.", nameof(one));
        if (Math.Min(size.Width, size.Height) < Window)
            return Sums.Of(one[..pixels], other[..pixels]).Similarity(pixels);
        var (across, down) = (size.Width / Block, size.Height / Block);
        var (above, below) = (new Sums[across], new Sums[across]);
        BlocksOf(one, other, size.Width, 0, above);
        var sum = 0.0;
        for (var row = 1; row < down; row++)
        {
            BlocksOf(one, other, size.Width, row, below);
            for (var i = 1; i < across; i++)
                sum += (above[i - 1] + above[i] + below[i - 1] + below[i]).Similarity(Window * Window);
            (above, below) = (below, above);
        }

        return sum / ((down - 1) * (across - 1));
    }

    private static void BlocksOf(ReadOnlySpan<byte> one, ReadOnlySpan<byte> other, int width, int row, Span<Sums> blocks)
    {
        blocks.Clear();
        for (var y = row * Block; y < (row + 1) * Block; y++)
        {
            var a = one.Slice(y * width, width);
            var b = other.Slice(y * width, width);
            for (var i = 0; i < blocks.Length; i++)
                blocks[i] += Sums.Of(a.Slice(i * Block, Block), b.Slice(i * Block, Block));
        }
    }

    /// <summary>Sums over the samples of one picture, of the other, over the squares of both, and over their products.</summary>
    private readonly record struct Sums(int One, int Other, long Squares, long Products)
    {
        internal double Similarity(double pixels)
        {
            // The constants keep what is dark and flat from dividing by nothing. The first is a sixty-fourth of the paper's: so encoders and
            // ffmpeg have it, whose numbers people know.
            var (means, spreads) = (0.01 * 0.01 * White * White * pixels, 0.03 * 0.03 * White * White * pixels * (pixels - 1));
            double one = One,
                other = Other;
            var spread = (pixels * Squares) - (one * one) - (other * other);
            var together = (pixels * Products) - (one * other);
            return ((2 * one * other) + means) * ((2 * together) + spreads) / (((one * one) + (other * other) + means) * (spread + spreads));
        }

        internal static Sums Of(ReadOnlySpan<byte> one, ReadOnlySpan<byte> other)
        {
            var (sumOne, sumOther, squares, products) = (0, 0, 0L, 0L);
            for (var i = 0; i < one.Length; i++)
            {
                int a = one[i],
                    b = other[i];
                sumOne += a;
                sumOther += b;
                squares += (a * a) + (b * b);
                products += a * b;
            }

            return new Sums(sumOne, sumOther, squares, products);
        }

        public static Sums operator +(Sums a, Sums b) => new(a.One + b.One, a.Other + b.Other, a.Squares + b.Squares, a.Products + b.Products);
    }
}
