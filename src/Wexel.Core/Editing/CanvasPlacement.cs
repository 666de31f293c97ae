using System.Globalization;
using Wexel.Core.Recordings;

namespace Wexel.Core.Editing;

/// <summary>Where a recording's picture stands on a canvas of a size.</summary>
/// <param name="Canvas">The size that is made.</param>
/// <param name="From">The part of the recording that is seen, in its pixels; sides and corner even.</param>
/// <param name="To">Where it stands on the canvas; sides and corner even.</param>
/// <param name="Recorded">The recording's size as it is shown.</param>
public sealed record CanvasPlacement(PictureSize Canvas, PictureRect From, PictureRect To, PictureSize Recorded)
{
    /// <summary>How large the recording is shown, in per cent of its own pixels.</summary>
    public double ScalePercent => 100.0 * To.Width / From.Width;

    /// <summary>Whether pixels are brought over one to one or in whole numbers, which keeps screen text crisp.</summary>
    public bool WholeFactor =>
        (From.Width % To.Width == 0 && From.Height % To.Height == 0 && From.Width / To.Width == From.Height / To.Height)
        || (To.Width % From.Width == 0 && To.Height % From.Height == 0 && To.Width / From.Width == To.Height / From.Height);

    /// <summary>The share of the recording that is not seen, in per cent.</summary>
    public double LeftOutPercent => 100.0 * (1 - ((double)From.Width * From.Height / ((double)Recorded.Width * Recorded.Height)));

    /// <summary>The share of the canvas that is black, in per cent.</summary>
    public double EmptyPercent => 100.0 * (1 - ((double)To.Width * To.Height / ((double)Canvas.Width * Canvas.Height)));

    /// <summary>The size that the whole recording has at the scale in which it is delivered.</summary>
    public PictureSize WholeDelivered =>
        new((int)Math.Round((double)Recorded.Width * To.Width / From.Width), (int)Math.Round((double)Recorded.Height * To.Height / From.Height));

    /// <summary>The canvas in the recording's own pixels, with what is black around it; sides even.</summary>
    public PictureSize Page =>
        new(
            To.Width == Canvas.Width ? From.Width : Near((double)Canvas.Width * From.Width / To.Width),
            To.Height == Canvas.Height ? From.Height : Near((double)Canvas.Height * From.Height / To.Height)
        );

    /// <summary>Where what is seen of the recording lies on the page; corner even.</summary>
    public PictureRect SeenOnPage =>
        new(
            Math.Min(Down((double)To.X * From.Width / To.Width), Page.Width - From.Width),
            Math.Min(Down((double)To.Y * From.Height / To.Height), Page.Height - From.Height),
            From.Width,
            From.Height
        );

    /// <summary>The least of the page, in the canvas's shape, that shows a part of the recording: sides and corner even, never beyond the page.</summary>
    /// <param name="part">The part.</param>
    public PictureRect OnPage(PicturePart part)
    {
        part = part.Within();
        var (page, seen) = (Page, SeenOnPage);
        var (x, y) = (seen.X + (part.X * Recorded.Width) - From.X, seen.Y + (part.Y * Recorded.Height) - From.Y);
        var (width, height) = (part.Width * Recorded.Width, part.Height * Recorded.Height);
        var share = Math.Clamp(Math.Max(width / page.Width, height / page.Height), PicturePart.Smallest, 1);
        var (w, h) = (Math.Min(Near(share * page.Width), page.Width), Math.Min(Near(share * page.Height), page.Height));
        int Corner(double from, double length, int taken, int most) => Math.Clamp(Down(from + ((length - taken) / 2) + 1), 0, most - taken);
        return new PictureRect(Corner(x, width, w, page.Width), Corner(y, height, h, page.Height), w, h);
    }

    /// <summary>Places a recording on a lesson's canvas, at the size in which it is delivered.</summary>
    /// <param name="recorded">The recording's size as it is shown; each side 16 or more.</param>
    /// <param name="canvas">The canvas.</param>
    /// <param name="atMostHeight">The greatest height that is delivered, or null for the canvas's own.</param>
    public static CanvasPlacement Of(PictureSize recorded, Canvas canvas, int? atMostHeight)
    {
        canvas = canvas.Within();
        var size = CanvasFit.Under(canvas.Size ?? recorded, atMostHeight).Target;
        var shape = (double)size.Width / size.Height;
        var (x, y, width, height) = canvas.Fit switch
        {
            FitMode.Fill => Around(recorded, 0, 0, recorded.Width, recorded.Height, shape, inside: true),
            FitMode.Part => Around(
                recorded,
                canvas.Part.X * recorded.Width,
                canvas.Part.Y * recorded.Height,
                canvas.Part.Width * recorded.Width,
                canvas.Part.Height * recorded.Height,
                shape,
                inside: false
            ),
            _ => (0, 0, recorded.Width, recorded.Height),
        };
        var seen = new PictureRect(Down(x), Down(y), Math.Min(Near(width), recorded.Width & ~1), Math.Min(Near(height), recorded.Height & ~1));
        seen = seen with { X = Math.Min(seen.X, (recorded.Width - seen.Width) & ~1), Y = Math.Min(seen.Y, (recorded.Height - seen.Height) & ~1) };
        var scale = Math.Min((double)size.Width / seen.Width, (double)size.Height / seen.Height);
        // A sliver of black less than a hundredth is rounding, not a border.
        int Fitted(double side, int whole) => whole - side < Math.Max(2, whole * 0.01) ? whole : Math.Max(2, Near(side));
        var (w, h) = (Fitted(seen.Width * scale, size.Width), Fitted(seen.Height * scale, size.Height));
        return new CanvasPlacement(size, seen, new PictureRect(Down((size.Width - w) / 2.0), Down((size.Height - h) / 2.0), w, h), recorded);
    }

    /// <summary>What somebody should know of it, in sentences: what is black or left out, and the one change that avoids it.</summary>
    /// <param name="canvas">The canvas that was placed on.</param>
    public IReadOnlyList<string> Notes(Canvas canvas)
    {
        var notes = new List<string>();
        if (EmptyPercent >= 0.05)
        {
            var filled = Of(Recorded, canvas with { Fit = FitMode.Fill }, null);
            notes.Add(
                $"{Percent(EmptyPercent)} of the picture would be black {(To.Width < Canvas.Width ? "at the sides" : "above and below")}. Filled, "
                    + $"nothing is black, and {Percent(filled.LeftOutPercent)} of the recording is left out {filled.Where()}."
            );
        }

        if (canvas.Fit == FitMode.Fill && LeftOutPercent >= 0.05)
            notes.Add($"{Percent(LeftOutPercent)} of the recording is left out {Where()}.");
        if (ScalePercent > 100.5)
            notes.Add("The recording is enlarged, which makes it soft; a smaller canvas keeps it sharp.");
        return notes;
    }

    private string Where() =>
        From.Width < (Recorded.Width & ~1)
            ? From.Height < (Recorded.Height & ~1)
                ? "around it"
                : "at the sides"
            : "above and below";

    /// <summary>The part of a shape that fills a part from inside, or the one that holds all of it and lies on the picture where it can.</summary>
    private static (double X, double Y, double Width, double Height) Around(
        PictureSize recorded,
        double x,
        double y,
        double width,
        double height,
        double shape,
        bool inside
    )
    {
        var wide = inside == width / height > shape;
        var (w, h) = wide ? (height * shape, height) : (width, width / shape);
        (w, h) = (Math.Min(w, recorded.Width), Math.Min(h, recorded.Height));
        return (Math.Clamp(x + ((width - w) / 2), 0, recorded.Width - w), Math.Clamp(y + ((height - h) / 2), 0, recorded.Height - h), w, h);
    }

    private static int Down(double value) => (int)Math.Floor(value / 2) * 2;

    private static int Near(double value) => Math.Max(2, (int)Math.Round(value / 2, MidpointRounding.AwayFromZero) * 2);

    private static string Percent(double value) => value.ToString("0.#", CultureInfo.InvariantCulture) + " %";
}
