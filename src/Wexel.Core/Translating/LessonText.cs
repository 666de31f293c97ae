using Wexel.Core.Contents;

namespace Wexel.Core.Translating;

/// <summary>A text of a lesson that can be translated.</summary>
/// <param name="Id">Names it within the lesson, also when it is written otherwise.</param>
/// <param name="Name">What it is, in a few words.</param>
/// <param name="Source">What it says.</param>
/// <param name="Most">The most characters that its translation may have.</param>
/// <param name="Lines">Whether it may have several lines.</param>
public sealed record LessonText(string Id, string Name, string Source, int Most, bool Lines = false)
{
    /// <summary>A translation as it is kept.</summary>
    /// <param name="text">What somebody wrote.</param>
    public string Tidy(string text)
    {
        if (!Lines)
            return SectionRules.OneLine(text, Most);
        var trimmed = text.ReplaceLineEndings("\n").Trim();
        return trimmed.Length <= Most ? trimmed : trimmed[..Most];
    }
}

/// <summary>What texts of a lesson are called.</summary>
public static class TextNames
{
    /// <summary>Its title.</summary>
    public const string Title = "title";

    /// <summary>Its description.</summary>
    public const string Description = "description";

    /// <summary>A section’s title.</summary>
    /// <param name="id">The section’s own name.</param>
    public static string Section(string id) => "section." + id;

    /// <summary>A caption.</summary>
    /// <param name="id">The caption’s own name.</param>
    public static string Cue(string id) => "caption." + id;
}
