using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>Captions as WebVTT (W3C WebVTT: The Web Video Text Tracks Format, section 4 syntax and section 6 parsing).</summary>
public static partial class WebVttText
{
    /// <summary>
    /// Reads a WebVTT text. Header, NOTE, STYLE and REGION blocks are passed over, and of cue settings all but whether a caption stands at the
    /// top; tags but bold, italics and underlines are taken out, character references resolved; identifiers are kept. A cue that cannot be read
    /// becomes a problem that names its line.
    /// </summary>
    public static CaptionReading Read(string text)
    {
        var lines = text.TrimStart('\uFEFF').ReplaceLineEndings("\n").Split('\n');
        if (!lines[0].StartsWith("WEBVTT", StringComparison.Ordinal))
            return new CaptionReading(
                [],
                [new Problem("captions-not-webvtt", "The file does not start with WEBVTT; save it again as WebVTT or SubRip.", "line 1")]
            );
        return TimedBlocks.Read(lines, start: 1, Arrow(), withIds: true, tagged =>
            CueMarkup.Read(tagged, Resolve) is var (words, markup) ? new CueText(words, markup) : default
        );
    }

    /// <summary>Prints cues as WebVTT for others: times with hours, text escaped, empty lines inside a cue left out, no identifiers.</summary>
    public static string Write(IEnumerable<Cue> cues) => Write(cues, withIds: false);

    /// <summary>Prints cues as they are kept: the same, each with its <see cref="Cue.Id"/> as identifier (section 4.1).</summary>
    public static string WriteKept(IEnumerable<Cue> cues) => Write(cues, withIds: true);

    private static string Write(IEnumerable<Cue> cues, bool withIds)
    {
        var text = new StringBuilder("WEBVTT\n");
        foreach (var cue in cues)
        {
            text.Append('\n').Append(withIds && cue.Id.Length > 0 ? cue.Id + "\n" : "");
            text.Append(CultureInfo.InvariantCulture, $"{TimeCode.Full(cue.Span.Start)} --> {TimeCode.Full(cue.Span.End)}{(cue.AtTop ? " line:0" : "")}\n");
            foreach (var line in (cue.Markup ?? Escape(cue.Text)).Split('\n', StringSplitOptions.RemoveEmptyEntries))
                text.Append(line).Append('\n');
        }

        return text.ToString();
    }

    /// <summary>Escapes the characters that WebVTT gives a meaning: &amp;, &lt; and &gt; (so that no cue text holds "--&gt;").</summary>
    public static string Escape(string text) =>
        text.Replace("&", "&amp;", StringComparison.Ordinal).Replace("<", "&lt;", StringComparison.Ordinal).Replace(">", "&gt;", StringComparison.Ordinal);

    /// <summary>Character references become the characters.</summary>
    internal static string Resolve(string text) =>
        Reference()
            .Replace(text, m => m.Value switch
                {
                    "&amp;" => "&",
                    "&lt;" => "<",
                    "&gt;" => ">",
                    "&nbsp;" => "\u00A0",
                    "&lrm;" => "\u200E",
                    "&rlm;" => "\u200F",
                    _ => m.Value,
                });

    [GeneratedRegex(@"^(?<from>(?:\d{2,}:)?\d{2}:\d{2}\.\d{3})[ \t]*-->[ \t]*(?<to>(?:\d{2,}:)?\d{2}:\d{2}\.\d{3})(?:[ \t](?<settings>.*))?$")]
    private static partial Regex Arrow();

    [GeneratedRegex(@"&(amp|lt|gt|nbsp|lrm|rlm);")]
    private static partial Regex Reference();
}
