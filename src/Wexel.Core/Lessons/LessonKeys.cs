using Wexel.Core.Cameras;
using Wexel.Core.Captions;
using Wexel.Core.Editing;
using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Questions;
using Wexel.Core.Scoring;
using Wexel.Core.Surveys;
using Wexel.Core.Translating;

namespace Wexel.Core.Lessons;

/// <summary>The key of what a lesson says: two revisions with the same key are the same to learners.</summary>
public static class LessonKeys
{
    /// <summary>The key of a lesson, but for what the house and profiles add to it.</summary>
    public static string DocumentKey(LessonDocument lesson) => MadeKey.Hash(Makers.Lesson, k =>
        {
            k.Add("title", lesson.Title)
                .Add("description", lesson.Description)
                .Add("language", lesson.Language)
                .Each("recordings", lesson.Recordings)
                .Each("cuts", lesson.Cuts, (f, cut) => f.Add("is", cut))
                .Each("captions", [.. lesson.Captions.Where(c => c.IsForLearners)], (f, c) =>
                    Draft(f.Add("hash", c.Hash).Add("language", c.Language).Add("kind", (TrackKind?)c.Kind), c)
                )
                .Each("translations", [.. lesson.Translations.Where(t => t.ForLearners.Any())], LessonTranslation.Declare)
                .Add("mark", lesson.HouseMark)
                .Part("canvas", lesson.Canvas, (f, c) =>
                    f.Add("width", c.Size?.Width).Add("height", c.Size?.Height).Add("fit", (FitMode?)c.Fit).Each("part", [c.Part], Declare)
                )
                .Part("picture", lesson.Picture, LessonPicture.Declare)
                .Part("goal", lesson.Goal == new LessonGoal() ? null : lesson.Goal, (f, g) =>
                    f.Add("rule", (GoalRule?)g.Rule).Add("pass", (long?)g.PassPercent)
                )
                .Each("draws", lesson.Draws, QuestionDraw.Declare)
                .Part("survey", lesson.Survey, Survey.Declare)
                .Each("frames", lesson.Frames, (f, r) => f.Add("recording", r.Recording).Add("fit", (FitMode?)r.Fit).Each("part", [r.Part], Declare))
                .Each("cameras", lesson.Cameras, (f, c) =>
                    f.Add("over", c.Over).Add("recording", c.Recording).Add("starts", c.Clock.Starts).Add("drift", c.Clock.Drift)
                )
                .Part("camera look", lesson.CameraLook, CameraLook.Declare);
            PlacedLists.Read(lesson, new Declaring(lesson, k));
        });

    private sealed class Declaring(LessonDocument lesson, KeyFields key) : IPlacedWork
    {
        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T>
        {
            key.Each(kind.Plural, list(lesson), kind.Declare);
            return list(lesson);
        }
    }

    /// <summary>Learners are told of a draft that it is one.</summary>
    private static KeyFields Draft(KeyFields key, CaptionTrack track) => track.State == TrackState.Draft ? key.Add("draft", true) : key;

    private static void Declare(KeyFields key, PicturePart part) => key.Add("x", part.X).Add("y", part.Y).Add("width", part.Width).Add("height", part.Height);
}
