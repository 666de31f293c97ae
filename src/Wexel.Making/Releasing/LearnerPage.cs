using Wexel.Core.Captions;
using Wexel.Core.Details;
using Wexel.Core.Overlays;
using Wexel.Core.Packages;
using Wexel.Core.Questions;
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
    /// <param name="said">What is said about the lesson where it stands.</param>
    public static PlayerLesson Compose(string key, PlannedRendition planned, DetailSet said)
    {
        var plan = planned.Plan;
        var size = plan.Picture?.Size ?? Nothing;
        // Captions that are part of the picture are not shown a second time over it.
        var tracks = planned.Tracks.Skip(plan.Picture?.Captions is null ? 0 : 1);
        var captions = tracks.Select(t => new PlayerCaptions(t.Track.Language, t.Cues, t.Track.Kind, t.Track.State == TrackState.Draft)).ToList();
        var questions = SeenOnPicture.Questions(planned);
        return new PlayerLesson(
            key,
            said.Title ?? "",
            said.Description ?? "",
            said.Language ?? planned.Lesson.Document.Language,
            plan.Length,
            size.Width,
            size.Height,
            "",
            null,
            planned.Sections,
            captions,
            Details: PlayerDetails.Of(said),
            Translations:
            [
                .. planned
                    .Lesson.Document.Translations.Select(t => PlayerTranslation.Of(t, planned.Sections, planned.Lesson.Document.Said, said))
                    .OfType<PlayerTranslation>(),
            ],
            Questions: PlayerQuestion.List(questions, planned.Sections, plan.Length),
            Goal: planned.Lesson.Document.Goal,
            Draws: DrawnFrom.In(questions, planned.Lesson.Document.Draws),
            Areas: SeenOnPicture.Areas(planned),
            Notes: PlayerNote.List(Note.Kind.Following(planned.Lesson.Document.Notes, planned.Map)),
            Survey: planned.Lesson.Document.Survey
        );
    }
}
