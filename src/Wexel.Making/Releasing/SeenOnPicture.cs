using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Overlays;
using Wexel.Core.Packages;
using Wexel.Core.Questions;
using Wexel.Core.Scoring;
using Wexel.Making.Lessons;

namespace Wexel.Making.Releasing;

/// <summary>What lies on the recording's picture as learners see it: in lesson time, and where it is seen then.</summary>
internal static class SeenOnPicture
{
    internal static IReadOnlyList<Question> Questions(PlannedRendition planned) =>
        [.. Question.Kind.Following(planned.Lesson.Document.Questions, planned.Map).Select(q => At(q, planned, planned.Map.Grid.FrameAt(q.At)))];

    internal static IReadOnlyList<PlayerArea> Areas(PlannedRendition planned)
    {
        var document = planned.Lesson.Document;
        return [.. Area.Kind.Following(document.Areas, planned.Map).Select(area => Seen(area, planned, SectionAt))];

        // A section of which nothing is kept has a place still: where the lesson goes on behind it.
        TimeSpan? SectionAt(string id) =>
            planned.Sections.FirstOrDefault(s => s.Id == id)?.At
            ?? (document.Sections.FirstOrDefault(s => s.Id == id) is { } cut ? planned.Map.ToLesson(cut.At) : null);
    }

    private static PlayerArea Seen(Area area, PlannedRendition planned, Func<string, TimeSpan?> sectionAt)
    {
        var grid = planned.Map.Grid;
        var (first, last) = (grid.FrameAt(area.Span.Start), Math.Max(grid.FrameAt(area.Span.Start), grid.FrameAt(area.Span.End) - 1));
        var does = area.Action.Does(sectionAt);
        return new PlayerArea(
            area.Id,
            area.Span.Start,
            area.Span.End,
            area.Text,
            area.Shape.Kind,
            [
                .. SeenPath
                    .Along(first, last, frame =>
                        PartAt(planned, frame) is { } part ? [.. area.Shape.Points.Select(p => Seen(p, part, frame))] : area.Shape.Points
                    )
                    .Select(seen => new PlayerOutline(grid.TimeOf(seen.Frame), [.. seen.Points.Select(p => new Place(Four(p.X), Four(p.Y)))])),
            ],
            does
        );
    }

    /// <summary>A question with what is clicked on the picture where it is seen at a frame of the lesson; others stay as they are.</summary>
    internal static Question At(Question question, PlannedRendition planned, long frame) =>
        question.Asks.IsOnPicture && PartAt(planned, frame) is { } part
            ? question with
            {
                Asks = question.Asks.Seen(place => Seen(place, part, frame)),
            }
            : question;

    private static PartPlan? PartAt(PlannedRendition planned, long frame) =>
        planned.Plan.Picture?.Parts.FirstOrDefault(p => p.Kept.Any(k => frame >= k.At && frame < k.At + k.Count));

    /// <summary>Where a place of the recording is seen, as shares of what learners see.</summary>
    private static Place Seen(Place place, PartPlan part, long frame)
    {
        var (placement, view) = (part.Placement, new ViewPath(part.Placement.Page, part.Moves).At(frame));
        var (x, y) = (
            placement.SeenOnPage.X + (place.X * placement.Recorded.Width) - placement.From.X,
            placement.SeenOnPage.Y + (place.Y * placement.Recorded.Height) - placement.From.Y
        );
        return new Place((x - view.X) / view.Width, (y - view.Y) / view.Height);
    }

    private static double Four(double share) => Math.Round(share, 4);
}
