using System.Text.RegularExpressions;

namespace Wexel.Core.Captions;

/// <summary>Captions as SubRip, as it is used: numbers optional, comma or point before the milliseconds, simple tags.</summary>
public static partial class SubRipText
{
    /// <summary>Reads a SubRip text; tags such as <c>&lt;i&gt;</c> and <c>{\an8}</c> are taken out.</summary>
    public static CaptionReading Read(string text) =>
        TimedBlocks.Read(text.TrimStart('\uFEFF').ReplaceLineEndings("\n").Split('\n'), start: 0, Arrow(), t => Tag().Replace(t, ""));

    [GeneratedRegex(@"^\s*(?<from>\d{1,2}:\d{1,2}:\d{1,2}[,.]\d{1,3})\s*-->\s*(?<to>\d{1,2}:\d{1,2}:\d{1,2}[,.]\d{1,3}).*$")]
    private static partial Regex Arrow();

    [GeneratedRegex(@"</?(?:b|i|u|s|font)\b[^>]*>|\{\\[^}]*\}", RegexOptions.IgnoreCase)]
    private static partial Regex Tag();
}
