using System.Text;
using System.Text.RegularExpressions;

namespace Wexel.Core.Captions;

/// <summary>
/// The bold, italics and underlines of a caption: its text as WebVTT writes it (W3C WebVTT, section 1.3 and 4.2.2), with those tags and no
/// others.
/// </summary>
public static partial class CueMarkup
{
    private static readonly string[] Tags = ["b", "i", "u"];

    /// <summary>Takes a tagged text apart.</summary>
    /// <param name="tagged">The text with tags; any other than bold, italics and underlines is taken out.</param>
    /// <param name="plain">What makes plain text of what stands between tags, such as resolving character references.</param>
    /// <returns>The text without tags, and with them; the latter null where there are none.</returns>
    public static (string Text, string? Markup) Read(string tagged, Func<string, string> plain)
    {
        var (text, markup, open) = (new StringBuilder(), new StringBuilder(), new Stack<string>());
        var any = false;
        var at = 0;
        foreach (Match tag in Tag().Matches(tagged))
        {
            Add(tagged[at..tag.Index]);
            at = tag.Index + tag.Length;
            var name = tag.Groups["name"].Value.ToLowerInvariant();
            if (!Tags.Contains(name))
                continue;
            if (tag.Groups["end"].Length == 0)
            {
                open.Push(name);
                markup.Append('<').Append(name).Append('>');
                any = true;
            }
            else if (open.Contains(name))
            {
                // What was opened inside and not closed ends with it.
                string closed;
                do
                    markup.Append("</").Append(closed = open.Pop()).Append('>');
                while (closed != name);
            }
        }

        Add(tagged[at..]);
        while (open.Count > 0)
            markup.Append("</").Append(open.Pop()).Append('>');
        return (text.ToString().Trim(), any ? markup.ToString().Trim() : null);

        void Add(string between)
        {
            var words = plain(between);
            text.Append(words);
            markup.Append(WebVttText.Escape(words));
        }
    }

    /// <summary>The markup as a script for libass has it.</summary>
    internal static string ForLibass(string markup) => string.Concat(Pieces().Matches(markup).Select(piece => piece.Value switch
    {
        ['<', '/', var tag, '>'] => $"{{\\{tag}0}}",
        ['<', var tag, '>'] => $"{{\\{tag}1}}",
        var words => AssText.Escape(WebVttText.Resolve(words)),
    }));

    [GeneratedRegex(@"<(?<end>/?)(?<name>[A-Za-z]*)[^>]*>")]
    private static partial Regex Tag();

    [GeneratedRegex("<[^>]*>|[^<]+")]
    private static partial Regex Pieces();
}
