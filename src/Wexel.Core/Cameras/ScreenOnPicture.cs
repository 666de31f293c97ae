using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Cameras;

/// <summary>How the recordings of the screen lie on a lesson's picture, and what changes on them.</summary>
/// <param name="reel">The recordings.</param>
/// <param name="changes">For each of them what changed on its screen; null where nobody looked.</param>
/// <param name="placements">For each of them where it stands on the lesson's canvas.</param>
/// <param name="moveIns">The move-ins, in recording time, in order and apart.</param>
public sealed class ScreenOnPicture(
    Reel reel,
    IReadOnlyList<IReadOnlyList<ChangedFields>?> changes,
    IReadOnlyList<CanvasPlacement> placements,
    IReadOnlyList<MoveIn> moveIns
)
{
    private readonly Dictionary<(CameraLook, LaidCamera), IReadOnlyList<Happening>> _known = [];

    /// <summary>Whether it is known of a recording what changes on its screen.</summary>
    /// <param name="part">Its place in the reel.</param>
    public bool Knows(int part) => changes[part] is not null;

    /// <summary>What happens where a camera might stand small, in lesson time, in order.</summary>
    internal IReadOnlyList<Happening> Happening(CameraLook look, LaidCamera camera, TimeMap map)
    {
        if (_known.TryGetValue((look, camera), out var known))
            return known;
        var (index, found) = (camera.Part, new List<Happening>());
        var (placement, start) = (placements[index], reel.SpanOf(index).Start);
        var path = ViewPath.Of(moveIns, map, placement, reel.SpanOf(index));
        List<PictureRect> boxes = [.. Enum.GetValues<CameraCorner>().Select(c => look.Small(placement.Canvas, camera.Facts.Picture!.ShownSize, c).To)];
        foreach (var change in changes[index] ?? [])
        {
            var at = start + change.At;
            if (change.IsWholeScreen || !map.Keeps(at))
                continue;
            var lesson = map.ToLesson(at);
            var seen = path.At(map.Grid.FrameAt(lesson));
            var corners = boxes.Index().Where(b => Touches(change, b.Item, placement, seen)).Sum(b => 1 << b.Index);
            if (corners != 0)
                found.Add(new Happening(lesson, corners));
        }

        return _known[(look, camera)] = [.. found.OrderBy(h => h.At)];
    }

    /// <summary>Whether something changed under a box, as the picture is seen then.</summary>
    private static bool Touches(ChangedFields change, PictureRect box, CanvasPlacement placement, PictureRect seen)
    {
        var (recorded, page, from) = (placement.Recorded, placement.SeenOnPage, placement.From);
        // From the canvas to the page, and from there to the recording, as shares of it.
        double X(double onCanvas) => (seen.X + (onCanvas * seen.Width / placement.Canvas.Width) - page.X + from.X) / recorded.Width;
        double Y(double onCanvas) => (seen.Y + (onCanvas * seen.Height / placement.Canvas.Height) - page.Y + from.Y) / recorded.Height;
        return change.Touches(X(box.X), Y(box.Y), X(box.X + box.Width), Y(box.Y + box.Height));
    }
}
