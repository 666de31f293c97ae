namespace Wexel.Core;

/// <summary>Something that a person can mend: what is wrong, in one sentence that also says what to do.</summary>
/// <param name="Code">A stable name for programs, in lower case with hyphens, such as <c>recording-no-picture</c>.</param>
/// <param name="Sentence">One plain sentence for people.</param>
/// <param name="Field">The field or place that it is about, or null when it is about the whole.</param>
public sealed record Problem(string Code, string Sentence, string? Field = null)
{
    /// <summary>The most problems that are said of one text; nobody reads more, and a text that is none at all has one a line.</summary>
    public const int Most = 100;

    /// <summary>As much of a line as a sentence about it shows.</summary>
    public static string Shown(string line) => line.Length <= 40 ? line : line[..39] + "…";
}
