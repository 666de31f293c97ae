using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Recordings;

namespace Wexel.Making.Lessons;

/// <summary>The picture by which a lesson is known, as it will be made.</summary>
/// <param name="Key">The key under which it lies.</param>
/// <param name="Size">Its size, in pixels.</param>
/// <param name="Own">The key of what somebody gave; null where it is a frame.</param>
/// <param name="Frame">Which of the lesson's frames it is, where it is one.</param>
/// <param name="Planned">What a frame is taken from; null without a picture.</param>
public sealed record PlannedPicture(string Key, PictureSize Size, string? Own, long Frame, PlannedRendition? Planned)
{
    /// <summary>How large frames are: what every page and preview shows well.</summary>
    private static readonly Profile Shape = Profiles.Web720;

    /// <summary>Plans the picture of a lesson.</summary>
    /// <param name="lesson">The lesson; all that a render needs is known of its recordings.</param>
    /// <param name="picture">Which picture.</param>
    /// <returns>Null where it would be a frame, and there is none.</returns>
    public static PlannedPicture? Of(LessonToMake lesson, LessonPicture picture)
    {
        if (lesson.With(Shape) is not { } planned)
            return null;
        var plan = planned.Plan.Picture;
        if (picture.Own is { } own)
        {
            var size = LessonPicture.SizeOfOwn(plan?.Size);
            return new PlannedPicture(LessonPicture.OwnKey(own, size), size, own, 0, null);
        }

        if (plan is null || planned.Map.Frames == 0)
            return null;
        var grid = planned.Map.Grid;
        var frame = Math.Clamp(grid.FrameAt(planned.Map.ToLesson(picture.At ?? TimeSpan.Zero)), 0, planned.Map.Frames - 1);
        return new PlannedPicture(LessonPicture.FrameKey(planned.Keys.Pictures[0], frame), plan.Size, null, frame, planned);
    }
}
