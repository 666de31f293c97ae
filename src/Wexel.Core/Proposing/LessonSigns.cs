using Wexel.Core.Screens;
using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Proposing;

/// <summary>A sentence as it is said.</summary>
/// <param name="Span">When, in recording time.</param>
/// <param name="Text">On one line.</param>
public sealed record SaidSentence(TimeRange Span, string Text);

/// <summary>What is known of a lesson that its contents are proposed from, in recording time; what is cut is in it.</summary>
/// <param name="Length">How long the recordings are together.</param>
/// <param name="Said">What is said, in order.</param>
/// <param name="Screen">What stands on the screen, and when it is another.</param>
/// <param name="Headings">The script's headings where they are said.</param>
/// <param name="Joints">Where one recording follows another.</param>
public sealed record LessonSigns(
    TimeSpan Length,
    IReadOnlyList<SaidSentence> Said,
    ScreenText Screen,
    IReadOnlyList<PlacedHeading> Headings,
    IReadOnlyList<TimeSpan> Joints
);
