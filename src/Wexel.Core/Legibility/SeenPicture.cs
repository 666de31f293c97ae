using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Legibility;

/// <summary>A picture that a recording shows, and what there is to read on it.</summary>
/// <param name="Span">From the change that brings it to the change that ends it, in recording time.</param>
/// <param name="Lines">Its lines of text, in pixels of the recording as it is shown.</param>
/// <param name="Changed">The part that changes with it; null for the first.</param>
/// <param name="Kept">How much of its detail is left at each delivered size that was asked for.</param>
public sealed record SeenPicture(TimeRange Span, IReadOnlyList<TextLine> Lines, PictureRect? Changed, IReadOnlyList<DetailKept> Kept);

/// <summary>Where two pictures differ.</summary>
public static class ChangedPart
{
    private const int Cell = 16;

    /// <summary>A mean difference over a cell that is more than coding noise, in code values.</summary>
    private const int Noise = 3;

    /// <summary>The smallest rectangle of whole cells of 16 pixels that holds all that differs; null where nothing does.</summary>
    /// <param name="a">Brightness of the one, row after row.</param>
    /// <param name="b">Brightness of the other.</param>
    /// <param name="size">The size of both.</param>
    public static PictureRect? Between(ReadOnlySpan<byte> a, ReadOnlySpan<byte> b, PictureSize size)
    {
        int left = int.MaxValue,
            top = int.MaxValue,
            right = -1,
            bottom = -1;
        for (var y = 0; y < size.Height; y += Cell)
        {
            for (var x = 0; x < size.Width; x += Cell)
            {
                var (width, height) = (Math.Min(Cell, size.Width - x), Math.Min(Cell, size.Height - y));
                var sum = 0;
                for (var row = y; row < y + height; row++)
                {
                    var one = a.Slice((row * size.Width) + x, width);
                    var other = b.Slice((row * size.Width) + x, width);
                    for (var i = 0; i < width; i++)
                        sum += Math.Abs(one[i] - other[i]);
                }

                if (sum > Noise * width * height)
                    (left, top, right, bottom) = (Math.Min(left, x), Math.Min(top, y), Math.Max(right, x + width), Math.Max(bottom, y + height));
            }
        }

        return right < 0 ? null : new PictureRect(left, top, right - left, bottom - top);
    }
}
