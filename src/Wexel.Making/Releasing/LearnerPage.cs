using Wexel.Core.Packages;
using Wexel.Core.Recordings;
using Wexel.Making.Lessons;

namespace Wexel.Making.Releasing;

/// <summary>What the learner's page of a lesson is told.</summary>
public static class LearnerPage
{
    /// <summary>A feed of sound alone has no picture; its page shows none.</summary>
    private static readonly PictureSize Nothing = new(1280, 720);

    /// <summary>The page's data; where video, poster and reports go is for whoever serves it.</summary>
    /// <param name="key">A name under which a browser remembers the place.</param>
    /// <param name="planned">The rendition that it plays.</param>
    public static PlayerLesson Of(string key, PlannedRendition planned)
    {
        var (document, plan) = (planned.Lesson.Document, planned.Plan);
        var size = plan.Picture?.Size ?? Nothing;
        // Captions that are part of the picture are not shown a second time over it.
        var captions = document.Captions is not { } track || plan.Picture?.Captions is not null ? null : new PlayerCaptions(track.Language, planned.Cues);
        return new PlayerLesson(key, document.Title, document.Description, document.Language, plan.Length, size.Width, size.Height, "", null, planned.Sections, captions);
    }
}
