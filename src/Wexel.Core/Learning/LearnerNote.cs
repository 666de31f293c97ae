using Wexel.Core.Timing;

namespace Wexel.Core.Learning;

/// <summary>What a learner says of a moment.</summary>
public enum NoteKind
{
    /// <summary>What is shown there is not so any more.</summary>
    OutOfDate,

    /// <summary>It is not understood.</summary>
    NotUnderstood,
}

/// <summary>What holds for notes from learners.</summary>
public static class NoteRules
{
    /// <summary>The longest text, in characters.</summary>
    public const int LongestText = 1000;

    /// <summary>How many notes of one learner at one lesson may wait for an answer.</summary>
    public const int MostWaiting = 20;

    /// <summary>Why a note is not taken; null where it is.</summary>
    /// <param name="text">In the learner's words; may be empty.</param>
    /// <param name="at">Of which moment, in lesson time.</param>
    /// <param name="length">How long the lesson is.</param>
    /// <param name="waiting">How many of this learner's notes at the lesson wait already.</param>
    public static Problem? Refusal(string text, TimeSpan at, TimeSpan length, int waiting)
    {
        if (text.Length > LongestText)
            return new Problem("note-too-long", $"A note has at most {LongestText} characters, and this one has {text.Length}. Say it in fewer words.", "text");
        if (at < TimeSpan.Zero || at > length)
            return new Problem(
                "note-outside",
                $"The lesson is {TimeCode.Brief(length)} long; the note is for a moment that it has not. Load the page again.",
                "at"
            );
        return waiting >= MostWaiting
            ? new Problem("notes-too-many", $"{waiting} of your notes at this lesson wait for an answer. More can be left when some are answered.")
            : null;
    }
}
