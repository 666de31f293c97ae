namespace Wexel.Core.Captions;

/// <summary>Plain text in a script for libass (Advanced SubStation Alpha, as used).</summary>
public static class AssText
{
    /// <summary>The line that names the columns of styles.</summary>
    public const string StyleColumns =
        "Format: Name, Fontname, Fontsize, PrimaryColour, SecondaryColour, OutlineColour, BackColour, Bold, Italic, Underline, StrikeOut, ScaleX, "
        + "ScaleY, Spacing, Angle, BorderStyle, Outline, Shadow, Alignment, MarginL, MarginR, MarginV, Encoding";

    /// <summary>The line that names the columns of events.</summary>
    public const string EventColumns = "Format: Layer, Start, End, Style, Name, MarginL, MarginR, MarginV, Effect, Text";

    /// <summary>Braces start commands, and a backslash does before some letters; a word joiner behind it takes that away. Lines stay lines.</summary>
    public static string Escape(string text) =>
        text.ReplaceLineEndings("\n")
            .Replace("\\", "\\\u2060", StringComparison.Ordinal)
            .Replace("{", "\\{", StringComparison.Ordinal)
            .Replace("}", "\\}", StringComparison.Ordinal)
            .Replace("\n", "\\N", StringComparison.Ordinal);
}
