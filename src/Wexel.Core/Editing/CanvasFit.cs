using Wexel.Core.Recordings;

namespace Wexel.Core.Editing;

/// <summary>How a recording's picture becomes the picture of a rendition.</summary>
/// <param name="Source">The part that is used, from the top left corner, in upright square pixels.</param>
/// <param name="Target">The size that is made: both sides even.</param>
public readonly record struct CanvasFit(PictureSize Source, PictureSize Target)
{
    /// <summary>The longest side that is made, in pixels: what browsers' hardware decoders take (common practice, no source).</summary>
    public const int LongestSide = 3840;

    /// <summary>Whether the picture must be scaled at all.</summary>
    public bool Scales => Source != Target;

    /// <summary>Target width by source width, in per cent.</summary>
    public double ScalePercent => 100.0 * Target.Width / Source.Width;

    /// <summary>Whether the source is a whole multiple of the target, which keeps screen text crisp.</summary>
    public bool WholeFactor =>
        Source.Width % Target.Width == 0 && Source.Height % Target.Height == 0 && Source.Width / Target.Width == Source.Height / Target.Height;

    /// <summary>
    /// Fits a picture under a height without ever scaling it up. Sides come out even: unscaled, an odd last row or column is left
    /// out so that text stays sharp; scaled, the nearest even number is taken.
    /// </summary>
    /// <param name="shown">The recording's size, upright and with square pixels; each side 16 or more.</param>
    /// <param name="atMostHeight">The greatest height that may come out, or null for no limit but <see cref="LongestSide"/>.</param>
    public static CanvasFit Under(PictureSize shown, int? atMostHeight)
    {
        var byHeight = atMostHeight is { } limit ? Math.Min(1.0, (double)limit / shown.Height) : 1.0;
        var scale = Math.Min(byHeight, Math.Min(1.0, (double)LongestSide / Math.Max(shown.Width, shown.Height)));
        if (scale >= 1.0)
        {
            var even = new PictureSize(shown.Width & ~1, shown.Height & ~1);
            return new CanvasFit(even, even);
        }

        static int Even(double side) => Math.Max(2, (int)Math.Round(side / 2, MidpointRounding.AwayFromZero) * 2);
        return new CanvasFit(
            shown,
            new PictureSize(Math.Min(Even(shown.Width * scale), shown.Width & ~1), Math.Min(Even(shown.Height * scale), shown.Height & ~1))
        );
    }
}
