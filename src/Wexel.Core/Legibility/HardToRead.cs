using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Legibility;

/// <summary>A line of text that is hard to read where it is delivered.</summary>
/// <param name="Box">Where it stands, in pixels of the recording.</param>
/// <param name="Height">How high its small letters are delivered, in pixels.</param>
public sealed record HardLine(PictureRect Box, double Height);

/// <summary>A stretch in which something is hard to read.</summary>
/// <param name="Span">The stretch, in recording time.</param>
/// <param name="Smallest">How high the smallest letters are delivered, in pixels.</param>
/// <param name="Lines">The lines that are hard to read.</param>
/// <param name="KeptPerCent">How much of the picture's detail is left at the delivered size, 0 to 100.</param>
/// <param name="Lost">Where detail is lost, in pixels of the recording.</param>
/// <param name="Proposal">The move-in that would make it readable; null where none would.</param>
public sealed record HardStretch(
    TimeRange Span,
    double Smallest,
    IReadOnlyList<HardLine> Lines,
    double KeptPerCent,
    IReadOnlyList<PictureRect> Lost,
    ProposedMoveIn? Proposal
);

/// <summary>A move-in that is proposed.</summary>
/// <param name="Span">When, in recording time.</param>
/// <param name="Part">What would be seen, as shares of the recording.</param>
/// <param name="Factor">How much larger than without it.</param>
/// <param name="WholeFactor">Whether the recording's pixels come over one to one or in whole numbers.</param>
/// <param name="Smallest">How high the smallest letters in it would be delivered, in pixels.</param>
public sealed record ProposedMoveIn(TimeRange Span, PicturePart Part, double Factor, bool WholeFactor, double Smallest);

/// <summary>Tells what will be hard to read where a lesson is delivered, and what would help.</summary>
public static class HardToRead
{
    /// <summary>
    /// Small letters under this height are hard to read, in delivered pixels. Reading is fluent from an x-height of 0.2° on (Legge and
    /// Bigelow, “Does print size matter for reading?”, Journal of Vision 11(5):8, 2011; value from memory); at 96 pixels an inch, seen
    /// from 68 cm, that is 9 pixels.
    /// </summary>
    public const double EasyFrom = 9;

    /// <summary>A move-in shorter than this shows nothing that could be read.</summary>
    private static readonly TimeSpan Shortest = TimeSpan.FromSeconds(2);

    private const double LargestFactor = 4;

    /// <summary>How much more than needed a factor may be so that it is whole.</summary>
    private const double WorthWhole = 1.6;

    /// <summary>Less than this much short of what is needed is within what is measured.</summary>
    private const double NearlyEnough = 0.97;

    /// <summary>A change over more of the picture than this is a new page: all of it is looked at.</summary>
    private const double NewPage = 0.5;

    /// <summary>The stretches in which something is hard to read, the worst first. What is cut is left out, and so is what a move-in makes readable.</summary>
    /// <param name="pictures">What the recording shows, in order.</param>
    /// <param name="placement">Where the recording stands on the canvas, as it is delivered.</param>
    /// <param name="map">The lesson's times.</param>
    /// <param name="moveIns">The lesson's move-ins, in order and apart.</param>
    public static IReadOnlyList<HardStretch> In(IReadOnlyList<SeenPicture> pictures, CanvasPlacement placement, TimeMap map, IReadOnlyList<MoveIn> moveIns)
    {
        var hard = new List<HardStretch>();
        foreach (var picture in pictures.Where(p => map.ToLesson(p.Span) is not null))
        {
            var views = Views(picture.Span, placement, moveIns);
            var lines = picture
                .Lines.Select(l => (Line: l, Height: Delivered(l, placement, views)))
                .Where(l => l.Height < EasyFrom * NearlyEnough)
                .Select(l => new HardLine(l.Line.Box, Math.Round(l.Height!.Value, 1)))
                .ToList();
            if (lines.Count == 0)
                continue;
            var proposal = map.ToLesson(picture.Span)!.Value.Length < Shortest ? null : Proposal(picture, lines, placement);
            var kept = picture.Kept.FirstOrDefault(k => k.Delivered == placement.WholeDelivered);
            var stretch = new HardStretch(picture.Span, lines.Min(l => l.Height), lines, Math.Round(kept?.Mean ?? 100), [.. kept?.Lost() ?? []], proposal);
            if (hard.Count > 0 && Joined(hard[^1], stretch) is { } joined)
                hard[^1] = joined;
            else
                hard.Add(stretch);
        }

        return [.. hard.OrderBy(h => h.Smallest).ThenByDescending(h => h.Lines.Count)];
    }

    /// <summary>How high the smallest letters are that learners see, in delivered pixels; null where there is no text.</summary>
    /// <inheritdoc cref="In"/>
    public static double? Smallest(IReadOnlyList<SeenPicture> pictures, CanvasPlacement placement, TimeMap map, IReadOnlyList<MoveIn> moveIns)
    {
        var smallest = pictures
            .Where(p => map.ToLesson(p.Span) is not null)
            .SelectMany(p => Views(p.Span, placement, moveIns) is var views ? p.Lines.Select(l => Delivered(l, placement, views)) : [])
            .Min();
        return smallest is { } height ? Math.Round(height, 1) : null;
    }

    /// <summary>What of the page is seen in a stretch: all of it where no move-in stands for some time, and the part of each move-in.</summary>
    private static List<PictureRect> Views(TimeRange span, CanvasPlacement placement, IReadOnlyList<MoveIn> moveIns)
    {
        TimeSpan Shared(TimeRange other) => (span.End < other.End ? span.End : other.End) - (span.Start > other.Start ? span.Start : other.Start);
        var within = moveIns.Select(m => (m.Part, Time: Shared(m.Span))).Where(m => m.Time >= TimeSpan.FromSeconds(0.5)).ToList();
        var without = span.Length - within.Aggregate(TimeSpan.Zero, (sum, m) => sum + m.Time);
        var views = within.Select(m => placement.OnPage(m.Part)).ToList();
        if (without >= TimeSpan.FromSeconds(1) || views.Count == 0)
            views.Add(new PictureRect(0, 0, placement.Page.Width, placement.Page.Height));
        return views;
    }

    /// <summary>How high a line's small letters are at their largest; null where the line is not seen.</summary>
    private static double? Delivered(TextLine line, CanvasPlacement placement, IReadOnlyList<PictureRect> views)
    {
        var box = OnPage(line.Box, placement);
        return views
            .Where(v => box.X >= v.X - 1 && box.Y >= v.Y - 1 && box.X + box.Width <= v.X + v.Width + 1 && box.Y + box.Height <= v.Y + v.Height + 1)
            .Select(v => (double?)(line.XHeight * placement.Canvas.Width / v.Width))
            .Max();
    }

    private static PictureRect OnPage(PictureRect box, CanvasPlacement placement) =>
        box with
        {
            X = box.X + placement.SeenOnPage.X - placement.From.X,
            Y = box.Y + placement.SeenOnPage.Y - placement.From.Y,
        };

    private static ProposedMoveIn? Proposal(SeenPicture picture, IReadOnlyList<HardLine> lines, CanvasPlacement placement)
    {
        var page = placement.Page;
        // What changes just then is what is spoken of; where a whole page comes, all that is hard to read on it.
        var looked =
            picture.Changed is { } changed && (double)changed.Width * changed.Height < NewPage * page.Width * page.Height
                ? lines.Where(l => Touch(l.Box, changed)).ToList()
                : [];
        var focus = (looked.Count > 0 ? looked : lines).Select(l => (l.Height, Box: OnPage(l.Box, placement))).ToList();
        // A scrap of the smallest letters must not rule over all that is read: the smallest twentieth is left out where there are many.
        var smallest = focus.Select(f => f.Height).Order().ElementAt(focus.Count / 20);
        var needed = Math.Min(EasyFrom / smallest, LargestFactor);
        var holds = Bounds(focus.Select(f => f.Box));
        var largest = Math.Min((double)page.Width / Math.Max(1, holds.Width + (2 * Margin)), (double)page.Height / Math.Max(1, holds.Height + (2 * Margin)));
        var (factor, whole) = Factor(needed, largest, placement);
        if (factor < 1.05)
            return null;
        var (width, height) = (page.Width / factor, page.Height / factor);
        var (x, y) =
            factor <= largest + 0.001 ? (holds.X + (holds.Width / 2.0), holds.Y + (holds.Height / 2.0)) : Densest([.. focus.Select(f => f.Box)], width, height);
        var (left, top) = (Math.Clamp(x - (width / 2), 0, page.Width - width), Math.Clamp(y - (height / 2), 0, page.Height - height));
        var part = new PicturePart(
            (left - placement.SeenOnPage.X + placement.From.X) / placement.Recorded.Width,
            (top - placement.SeenOnPage.Y + placement.From.Y) / placement.Recorded.Height,
            width / placement.Recorded.Width,
            height / placement.Recorded.Height
        ).Within();
        var seen = placement.OnPage(part);
        var heights = focus
            .Where(f =>
                f.Box.X >= seen.X && f.Box.Y >= seen.Y && f.Box.X + f.Box.Width <= seen.X + seen.Width && f.Box.Y + f.Box.Height <= seen.Y + seen.Height
            )
            .Select(f => f.Height)
            .ToList();
        return heights.Count == 0
            ? null
            : new ProposedMoveIn(picture.Span, part, Math.Round(factor, 2), whole, Math.Round(heights.Min() * page.Width / seen.Width, 1));
    }

    /// <summary>Room around what is to be read, in pixels of the recording.</summary>
    private const int Margin = 12;

    /// <summary>The factor that is needed, or one that is a little more and brings pixels over in whole numbers, where all stays in view.</summary>
    private static (double Factor, bool Whole) Factor(double needed, double largest, CanvasPlacement placement)
    {
        var oneToOne = (double)placement.Page.Width / placement.Canvas.Width;
        for (var times = 1; times <= 4; times++)
        {
            var factor = oneToOne * times;
            if (factor >= needed * NearlyEnough && factor <= Math.Max(needed * WorthWhole, 1) && (factor <= largest || largest < needed))
                return (factor, true);
        }

        return (needed, false);
    }

    /// <summary>The middle of the window that holds most of what is to be read.</summary>
    private static (double X, double Y) Densest(IReadOnlyList<PictureRect> boxes, double width, double height)
    {
        var best = (X: 0.0, Y: 0.0, Held: -1.0);
        foreach (var box in boxes)
        {
            // The window begins at a line's left edge, at its top or with it at the bottom.
            foreach (var top in new[] { box.Y - Margin, box.Y + box.Height + Margin - height })
            {
                var left = (double)box.X - Margin;
                var held = boxes
                    .Where(b => b.X >= left && b.X + b.Width <= left + width && b.Y >= top && b.Y + b.Height <= top + height)
                    .Sum(b => (double)b.Width);
                if (held > best.Held)
                    best = (left + (width / 2), top + (height / 2), held);
            }
        }

        return (best.X, best.Y);
    }

    private static bool Touch(PictureRect a, PictureRect b) =>
        a.X < b.X + b.Width + Margin && b.X < a.X + a.Width + Margin && a.Y < b.Y + b.Height + Margin && b.Y < a.Y + a.Height + Margin;

    private static PictureRect Bounds(IEnumerable<PictureRect> boxes)
    {
        var all = boxes.ToList();
        var (left, top) = (all.Min(b => b.X), all.Min(b => b.Y));
        return new PictureRect(left, top, all.Max(b => b.X + b.Width) - left, all.Max(b => b.Y + b.Height) - top);
    }

    /// <summary>Two stretches that follow each other and ask for much the same are one; so is one that is too short to ask for anything with the one
    /// beside it.</summary>
    private static HardStretch? Joined(HardStretch a, HardStretch b)
    {
        if (b.Span.Start - a.Span.End > TimeSpan.FromSeconds(0.5))
            return null;
        if (a.Proposal is not null && b.Proposal is not null && Shared(a.Proposal.Part, b.Proposal.Part) < 0.7)
            return null;
        var worse = a.Smallest <= b.Smallest ? a : b;
        var span = new TimeRange(a.Span.Start, b.Span.End);
        return worse with { Span = span, Proposal = (worse.Proposal ?? a.Proposal ?? b.Proposal) is { } proposal ? proposal with { Span = span } : null };
    }

    /// <summary>What two parts have in common, as a share of both together.</summary>
    private static double Shared(PicturePart a, PicturePart b)
    {
        var width = Math.Min(a.X + a.Width, b.X + b.Width) - Math.Max(a.X, b.X);
        var height = Math.Min(a.Y + a.Height, b.Y + b.Height) - Math.Max(a.Y, b.Y);
        return width <= 0 || height <= 0 ? 0 : width * height / ((a.Width * a.Height) + (b.Width * b.Height) - (width * height));
    }
}
