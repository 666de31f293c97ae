using Wexel.Core.Editing;
using Wexel.Core.Keys;

namespace Wexel.Core.Lessons;

/// <summary>The key of what a lesson says: two revisions with the same key are the same to learners.</summary>
public static class LessonKeys
{
    /// <summary>The key of a lesson, but for what the house and profiles add to it.</summary>
    public static string Of(LessonDocument lesson) => MadeKey.Of(Makers.Lesson, k => k
        .Add("title", lesson.Title).Add("description", lesson.Description).Add("language", lesson.Language).Each("recordings", lesson.Recordings)
        .Each("cuts", lesson.Cuts, (f, cut) => f.Add("is", cut))
        .Each("sections", lesson.Sections, (f, s) => f.Add("id", s.Id).Add("at", s.At).Add("title", s.Title).Add("nested", s.Nested))
        .Part("captions", lesson.Captions, (f, c) => f.Add("hash", c.Hash).Add("language", c.Language))
        .Add("mark", lesson.HouseMark).Part("canvas", lesson.Canvas, (f, c) => f.Add("width", c.Size?.Width).Add("height", c.Size?.Height).Add("fit", (FitMode?)c.Fit).Each("part", [c.Part], Declare))
        .Each("moves", lesson.MoveIns, (f, m) => f.Add("id", m.Id).Add("span", m.Span).Each("part", [m.Part], Declare).Add("ease", m.Ease))
        .Each("frames", lesson.Frames, (f, r) => f.Add("recording", r.Recording).Add("fit", (FitMode?)r.Fit).Each("part", [r.Part], Declare)));

    private static void Declare(KeyFields key, PicturePart part) => key.Add("x", part.X).Add("y", part.Y).Add("width", part.Width).Add("height", part.Height);
}
