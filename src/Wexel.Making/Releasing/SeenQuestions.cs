using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Questions;
using Wexel.Core.Scoring;
using Wexel.Making.Lessons;

namespace Wexel.Making.Releasing;

/// <summary>A lesson's questions as learners see them: in lesson time, and what lies on the recording's picture where it is seen at that moment.</summary>
internal static class SeenQuestions
{
    internal static IReadOnlyList<Question> List(PlannedRendition planned) =>
        [.. Question.Kind.Following(planned.Lesson.Document.Questions, planned.Map).Select(q => q.Asks.IsOnPicture ? Seen(q, planned) : q)];

    private static Question Seen(Question question, PlannedRendition planned)
    {
        var frame = planned.Map.Grid.FrameAt(question.At);
        var part = planned.Plan.Picture?.Parts.FirstOrDefault(p => p.Kept.Any(k => frame >= k.At && frame < k.At + k.Count));
        return part is null ? question : question with { Asks = question.Asks.Seen(place => Seen(place, part, frame)) };
    }

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
}
