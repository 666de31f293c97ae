using System.Text.RegularExpressions;

namespace Wexel.Core.Captions;

/// <summary>Captions as SubRip, as it is used: numbers optional, comma or point before the milliseconds, simple tags.</summary>
public static partial class SubRipText
{
    /// <summary>Reads a SubRip text; bold, italics and underlines are kept, <c>{\an7}</c> to <c>{\an9}</c> place it at the top, and other tags are taken out.</summary>
    public static CaptionReading Read(string text) =>
        TimedBlocks.Read(text.TrimStart('\uFEFF').ReplaceLineEndings("\n").Split('\n'), start: 0, Arrow(), tagged =>
        {
            var (words, markup) = CueMarkup.Read(Elsewhere().Replace(tagged, ""), t => t);
            return new CueText(words, markup, Top().IsMatch(tagged));
        });

    [GeneratedRegex(@"^\s*(?<from>\d{1,2}:\d{1,2}:\d{1,2}[,.]\d{1,3})\s*-->\s*(?<to>\d{1,2}:\d{1,2}:\d{1,2}[,.]\d{1,3}).*$")]
    private static partial Regex Arrow();

    /// <summary>What is in angle brackets and no tag that is used in such files is text.</summary>
    [GeneratedRegex(@"</?(?:s|font)\b[^>]*>|\{\\[^}]*\}", RegexOptions.IgnoreCase)]
    private static partial Regex Elsewhere();

    [GeneratedRegex(@"\{[^}]*\\an[789]")]
    private static partial Regex Top();
}
