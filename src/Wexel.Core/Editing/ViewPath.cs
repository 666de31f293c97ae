using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Editing;

/// <summary>What is seen goes from one part of the page to another.</summary>
/// <param name="First">The lesson's last frame that shows the part that it goes from; −1 for a jump at the very start.</param>
/// <param name="Frames">After how many frames it has arrived; 1 or more.</param>
/// <param name="From">The part that it goes from, in whole pixels of the page.</param>
/// <param name="To">The part that it goes to.</param>
public sealed record ViewMove(long First, long Frames, PictureRect From, PictureRect To)
{
    /// <summary>The frame at which it has arrived.</summary>
    public long Last => First + Frames;

    /// <summary>What is seen at one of its frames, in whole pixels; the way is smooth at both ends.</summary>
    public PictureRect At(long frame)
    {
        var share = Math.Clamp((double)(frame - First) / Frames, 0, 1);
        var eased = share * share * (3 - (2 * share));
        int Between(int from, int to) => (int)Math.Floor(from + ((to - from) * eased) + 0.5);
        return new PictureRect(Between(From.X, To.X), Between(From.Y, To.Y), Between(From.Width, To.Width), Between(From.Height, To.Height));
    }
}

/// <summary>
/// What is seen of the page at each frame of a lesson. The page is the recording as it lies on the canvas, in the recording's own
/// pixels, so that moving in brings out detail that the delivered size has lost.
/// </summary>
/// <param name="Page">The page's size.</param>
/// <param name="Moves">In order; none begins before the one before has arrived.</param>
public sealed record ViewPath(PictureSize Page, IReadOnlyList<ViewMove> Moves)
{
    /// <summary>Where less than this lies between two move-ins, the second is gone to at once and not by way of the whole picture.</summary>
    public static readonly TimeSpan Near = TimeSpan.FromSeconds(1.5);

    /// <summary>All of the page.</summary>
    public PictureRect Whole => new(0, 0, Page.Width, Page.Height);

    /// <summary>What is seen at a frame of the lesson.</summary>
    public PictureRect At(long frame)
    {
        var index = LastFrom(frame);
        return index < 0 ? Whole : Moves[index].At(frame);
    }

    /// <summary>The way that move-ins come to.</summary>
    /// <param name="moveIns">In order and apart, in recording time; see <see cref="MoveIn.Kind"/>.</param>
    /// <param name="map">The lesson's times.</param>
    /// <param name="placement">Where the recording stands on the canvas.</param>
    /// <param name="within">The stretch of the reel that the recording takes; null where it is all there is.</param>
    public static ViewPath Of(IReadOnlyList<MoveIn> moveIns, TimeMap map, CanvasPlacement placement, TimeRange? within = null)
    {
        var bounds = within ?? new TimeRange(TimeSpan.Zero, map.RecordingLength);
        long FrameOf(TimeSpan time) => time >= map.Length ? map.Frames : map.Grid.FrameAt(time);
        var (first, after) = (FrameOf(map.ToLesson(bounds.Start)), FrameOf(map.ToLesson(bounds.End)));
        var stays = new List<Stay>();
        foreach (var moveIn in moveIns)
        {
            var there = new TimeRange(
                moveIn.Span.Start > bounds.Start ? moveIn.Span.Start : bounds.Start,
                moveIn.Span.End < bounds.End ? moveIn.Span.End : bounds.End
            );
            if (there.End <= there.Start || map.ToLesson(there) is not { } span)
                continue;
            var (start, end) = (FrameOf(span.Start), FrameOf(span.End));
            if (end > start)
                stays.Add(new Stay(start, end, placement.OnPage(moveIn.Part), (long)Math.Round(moveIn.Ease.TotalSeconds * map.Grid.PerSecond)));
        }

        return new ViewPath(placement.Page, [.. Between(stays, map.Grid, first, after, new PictureRect(0, 0, placement.Page.Width, placement.Page.Height))]);
    }

    private static IEnumerable<ViewMove> Between(IReadOnlyList<Stay> stays, FrameRate grid, long first, long after, PictureRect whole)
    {
        var near = (long)(Near.TotalSeconds * grid.PerSecond);
        var at = whole;
        for (var i = 0; i < stays.Count; i++)
        {
            var (start, end, part, ease) = stays[i];
            // Moving must leave time to look; at the recording's own ends there is nothing to come from or to go to.
            ease = Math.Min(ease, (end - start) / 2);
            if (part != at)
                yield return start == first || ease == 0 ? new ViewMove(start - 1, 1, at, part) : new ViewMove(start, ease, at, part);
            at = part;
            if ((i + 1 < stays.Count && stays[i + 1].Start - end < near) || end >= after)
                continue;
            if (part != whole)
                yield return ease == 0 ? new ViewMove(end - 1, 1, part, whole) : new ViewMove(end - ease, ease, part, whole);
            at = whole;
        }
    }

    private int LastFrom(long frame)
    {
        int low = 0,
            high = Moves.Count;
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (Moves[middle].First <= frame)
                low = middle + 1;
            else
                high = middle;
        }

        return low - 1;
    }

    private readonly record struct Stay(long Start, long End, PictureRect Part, long Ease);
}
