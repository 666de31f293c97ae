namespace Wexel.Core.Lessons;

/// <summary>The stages of a lesson's way, as its page has them.</summary>
public enum LessonStage
{
    /// <summary>Its recordings and its title.</summary>
    BringIn,

    /// <summary>What is cut.</summary>
    Tidy,

    /// <summary>Contents, captions, details.</summary>
    MarkUp,

    /// <summary>Where it goes.</summary>
    Deliver,
}

/// <summary>How far a lesson is.</summary>
/// <param name="HasTitle">Whether it has a title.</param>
/// <param name="LookedThrough">Whether its recording was looked through, or could not be.</param>
/// <param name="Changed">Whether somebody changed anything since it was brought in.</param>
/// <param name="Rendering">Whether a file of it is being made, or waits to be.</param>
/// <param name="Rendered">Whether there is a file of it.</param>
/// <param name="Released">Whether it stands at an outlet.</param>
/// <param name="Behind">Whether it is another by now than it is at one of them.</param>
public readonly record struct LessonProgress(bool HasTitle, bool LookedThrough, bool Changed, bool Rendering, bool Rendered, bool Released, bool Behind);

/// <summary>What a lesson waits for.</summary>
/// <param name="Stage">Where that is done.</param>
/// <param name="Words">What it is, as something to do; empty where it waits for nobody.</param>
public sealed record NextStep(LessonStage Stage, string Words)
{
    /// <summary>The next step of a lesson.</summary>
    public static NextStep Of(LessonProgress lesson) =>
        lesson switch
        {
            { HasTitle: false } => new(LessonStage.BringIn, "Give it a title"),
            { Behind: true } => new(LessonStage.Deliver, "Bring its places up to date"),
            { Released: true } => new(LessonStage.Deliver, ""),
            { Rendering: true } => new(LessonStage.Deliver, ""),
            { Rendered: true } => new(LessonStage.Deliver, "Release it"),
            { Changed: true } => new(LessonStage.MarkUp, "Mark it up, then deliver"),
            { LookedThrough: true } => new(LessonStage.Tidy, "Tidy it"),
            _ => new(LessonStage.Tidy, ""),
        };
}
