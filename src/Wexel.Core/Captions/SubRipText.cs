using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Wexel.Core.Captions;

/// <summary>Captions as SubRip, as it is used: numbers optional, comma or point before the milliseconds, simple tags.</summary>
public static partial class SubRipText
{
    /// <summary>Reads a SubRip text; its numbers only count and name nothing; bold, italics and underlines are kept, <c>{\an7}</c> to <c>{\an9}</c>
    /// place it at the top, and other tags are taken out.</summary>
    public static CaptionReading Read(string text) =>
        TimedBlocks.Read(text.TrimStart('\uFEFF').ReplaceLineEndings("\n").Split('\n'), start: 0, Arrow(), withIds: false, tagged =>
        {
            var (words, markup) = CueMarkup.Read(WithoutOthers(tagged), t => t);
            return new CueText(words, markup, Top().IsMatch(tagged));
        });

    /// <summary>Prints captions as SubRip: numbered from 1, a comma before the milliseconds, <c>{\an8}</c> for what stands at the top.</summary>
    public static string Write(IEnumerable<Cue> cues)
    {
        var text = new StringBuilder();
        foreach (var (index, cue) in cues.Index())
        {
            text.Append(CultureInfo.InvariantCulture, $"{index + 1}\n{Time(cue.Span.Start)} --> {Time(cue.Span.End)}\n{(cue.AtTop ? "{\\an8}" : "")}");
            var words = cue.Markup is { } markup ? CueMarkup.ForSubRip(markup) : cue.Text;
            text.AppendJoin('\n', words.Split('\n', StringSplitOptions.RemoveEmptyEntries)).Append("\n\n");
        }

        return text.ToString();
    }

    private static string Time(TimeSpan time) =>
        string.Create(CultureInfo.InvariantCulture, $"{(int)time.TotalHours:00}:{time.Minutes:00}:{time.Seconds:00},{time.Milliseconds:000}");

    [GeneratedRegex(@"^\s*(?<from>\d{1,2}:\d{1,2}:\d{1,2}[,.]\d{1,3})\s*-->\s*(?<to>\d{1,2}:\d{1,2}:\d{1,2}[,.]\d{1,3}).*$")]
    private static partial Regex Arrow();

    /// <summary>Tags that WebVTT does not have. What is in angle brackets and no tag that is used in such files is text.</summary>
    private static string WithoutOthers(string tagged)
    {
        var plain = Bracketed.Without(tagged, '{', '}', at => at + 1 < tagged.Length && tagged[at + 1] == '\\');
        return Bracketed.Without(plain, '<', '>', at => IsOther(plain.AsSpan(at + 1)));
    }

    private static bool IsOther(ReadOnlySpan<char> tag)
    {
        tag = tag.StartsWith("/") ? tag[1..] : tag;
        var name =
            tag.StartsWith("font", StringComparison.OrdinalIgnoreCase) ? 4
            : tag.StartsWith("s", StringComparison.OrdinalIgnoreCase) ? 1
            : 0;
        return name > 0 && (tag.Length == name || !(char.IsLetterOrDigit(tag[name]) || tag[name] == '_'));
    }

    [GeneratedRegex(@"\{[^}]*\\an[789]", RegexOptions.NonBacktracking)]
    private static partial Regex Top();
}
