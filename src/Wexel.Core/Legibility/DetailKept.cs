using Wexel.Core.Recordings;

namespace Wexel.Core.Legibility;

/// <summary>How much of a picture's fine detail is left after it was made smaller, on a grid.</summary>
/// <param name="Delivered">The size that the whole picture was brought to.</param>
/// <param name="Across">How many cells stand in a row; each is <see cref="CellSide"/> pixels of the recording wide and high.</param>
/// <param name="PerCent">For each cell, row after row, what is left of its detail, 0 to 100; 255 where it had none.</param>
public sealed record DetailKept(PictureSize Delivered, int Across, IReadOnlyList<byte> PerCent)
{
    /// <summary>The side of a cell, in pixels of the recording.</summary>
    public const int CellSide = 32;

    /// <summary>Marks a cell that had no detail.</summary>
    public const byte Nothing = 255;

    /// <summary>With less than this left, in per cent, detail counts as lost (common practice, no source: half of the energy, −3 dB).</summary>
    public const int LostUnder = 50;

    /// <summary>Mean square of the steps between neighbours from which a cell has fine detail, in code values squared: more than a rule or a frame
    /// that runs through it.</summary>
    private const double DetailFrom = 500;

    /// <summary>What is left over all cells that had detail, in per cent; 100 where none had.</summary>
    public double Mean => PerCent.Where(c => c != Nothing).Select(c => (double)c).DefaultIfEmpty(100).Average();

    /// <summary>The cells in which detail is lost, those beside each other in a row as one.</summary>
    public IEnumerable<PictureRect> Lost()
    {
        for (var at = 0; at < PerCent.Count; at++)
        {
            if (PerCent[at] >= LostUnder)
                continue;
            var from = at;
            while (at + 1 < PerCent.Count && (at + 1) % Across != 0 && PerCent[at + 1] < LostUnder)
                at++;
            yield return new PictureRect(from % Across * CellSide, from / Across * CellSide, (at - from + 1) * CellSide, CellSide);
        }
    }

    /// <summary>Compares a picture with what is left of it after it was scaled down and up again: the energy of its steps of brightness, cell by
    /// cell.</summary>
    /// <param name="picture">The picture's brightness, row after row.</param>
    /// <param name="returned">What came back, in the same size.</param>
    /// <param name="size">That size.</param>
    /// <param name="delivered">The size that it was brought to in between.</param>
    /// <exception cref="ArgumentException">There are fewer samples than the size says.</exception>
    public static DetailKept Of(ReadOnlySpan<byte> picture, ReadOnlySpan<byte> returned, PictureSize size, PictureSize delivered)
    {
        if (Math.Min(picture.Length, returned.Length) < size.Width * size.Height)
            throw new ArgumentException("There are fewer samples than the size says.", nameof(picture));
        var (across, down) = ((size.Width + CellSide - 1) / CellSide, (size.Height + CellSide - 1) / CellSide);
        var (before, after) = (new long[across * down], new long[across * down]);
        Energy(picture, size, across, before);
        Energy(returned, size, across, after);
        var kept = new byte[before.Length];
        for (var i = 0; i < kept.Length; i++)
            kept[i] = before[i] < DetailFrom * CellSide * CellSide ? Nothing : (byte)Math.Min(100, 100 * after[i] / before[i]);
        return new DetailKept(delivered, across, kept);
    }

    private static void Energy(ReadOnlySpan<byte> picture, PictureSize size, int across, long[] cells)
    {
        for (var y = 0; y + 1 < size.Height; y++)
        {
            var row = picture.Slice(y * size.Width, size.Width);
            var below = picture.Slice((y + 1) * size.Width, size.Width);
            var first = y / CellSide * across;
            for (var x = 0; x + 1 < size.Width; x++)
            {
                int dx = row[x + 1] - row[x],
                    dy = below[x] - row[x];
                cells[first + (x / CellSide)] += (dx * dx) + (dy * dy);
            }
        }
    }
}
