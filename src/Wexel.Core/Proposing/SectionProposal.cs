namespace Wexel.Core.Proposing;

/// <summary>What speaks for a section.</summary>
public enum SectionSign
{
    /// <summary>The script has a heading there.</summary>
    Script,

    /// <summary>The page on the screen is another.</summary>
    PageChanged,

    /// <summary>A part of the screen is another, as where a window opens.</summary>
    WindowChanged,

    /// <summary>Large text is on the screen that was not there before.</summary>
    LargestText,

    /// <summary>The voice pauses for longer than it does elsewhere.</summary>
    Pause,

    /// <summary>What is said begins as people begin something new.</summary>
    Phrase,

    /// <summary>What is said from here on has other words than before.</summary>
    OtherWords,

    /// <summary>Another recording begins.</summary>
    Recording,

    /// <summary>It is the beginning.</summary>
    Beginning,
}

/// <summary>A section that is proposed.</summary>
/// <param name="At">Where it would begin, in recording time.</param>
/// <param name="Title">What it could be called.</param>
/// <param name="Signs">What speaks for it, what says most at the front; never empty.</param>
/// <param name="Pause">How long the voice pauses before it.</param>
/// <param name="Weight">How much speaks for it; comparable within a lesson.</param>
public sealed record SectionProposal(TimeSpan At, string Title, IReadOnlyList<SectionSign> Signs, TimeSpan Pause, double Weight);
