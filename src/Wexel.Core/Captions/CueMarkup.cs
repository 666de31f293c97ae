using System.Text;
using System.Text.RegularExpressions;

namespace Wexel.Core.Captions;

/// <summary>
/// The bold, italics and underlines of a caption: its text as WebVTT writes it (W3C WebVTT, section 1.3 and 4.2.2), with those tags and no
/// others.
/// </summary>
public static partial class CueMarkup
{
    /// <summary>Takes a tagged text apart.</summary>
    /// <param name="tagged">The text with tags; any other than bold, italics and underlines is taken out.</param>
    /// <param name="plain">What makes plain text of what stands between tags, such as resolving character references.</param>
    /// <returns>The text without tags, and with them; the latter null where there are none.</returns>
    public static (string Text, string? Markup) Read(string tagged, Func<string, string> plain)
    {
        var (text, markup, open) = (new StringBuilder(), new StringBuilder(), new Stack<char>());
        var opened = new Dictionary<char, int>();
        var (any, at) = (false, 0);
        foreach (var tag in Bracketed.In(tagged, '<', '>'))
        {
            Add(tagged[at..tag.Start]);
            at = tag.End.Value;
            var inside = tagged[(tag.Start.Value + 1)..(at - 1)];
            var (ends, name) = inside.StartsWith('/') ? (true, Name(inside[1..])) : (false, Name(inside));
            if (name is not { } kept)
                continue;
            if (!ends)
            {
                open.Push(kept);
                opened[kept] = opened.GetValueOrDefault(kept) + 1;
                markup.Append('<').Append(kept).Append('>');
                any = true;
            }
            else if (opened.GetValueOrDefault(kept) > 0)
            {
                // What was opened inside and not closed ends with it.
                char closed;
                do
                {
                    markup.Append("</").Append(closed = open.Pop()).Append('>');
                    opened[closed]--;
                } while (closed != kept);
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

    /// <summary>The text in runs that look alike, each plain with the tags that it stands in.</summary>
    /// <param name="markup">A text with bold, italics and underlines, and character references.</param>
    internal static IEnumerable<(string Text, IReadOnlySet<char> Tags)> Runs(string markup)
    {
        var open = new List<char>();
        foreach (var piece in Pieces().Matches(markup).Select(p => p.Value))
        {
            if (piece is ['<', '/', var ended, '>'])
                open.Remove(ended);
            else if (piece is ['<', var begun, '>'])
                open.Add(begun);
            else
                yield return (WebVttText.Resolve(piece), open.ToHashSet());
        }
    }

    /// <summary>The markup as SubRip has it: the same tags, and no character references.</summary>
    internal static string ForSubRip(string markup) =>
        string.Concat(Pieces().Matches(markup).Select(p => p.Value.StartsWith('<') ? p.Value : WebVttText.Resolve(p.Value)));

    /// <summary>The markup as a script for libass has it.</summary>
    internal static string ForLibass(string markup) =>
        string.Concat(
            Pieces()
                .Matches(markup)
                .Select(piece =>
                    piece.Value switch
                    {
                        ['<', '/', var tag, '>'] => $"{{\\{tag}0}}",
                        ['<', var tag, '>'] => $"{{\\{tag}1}}",
                        var words => AssText.Escape(WebVttText.Resolve(words)),
                    }
                )
        );

    /// <summary>The tag's letter, small; null for one that is not kept.</summary>
    private static char? Name(string inside) =>
        inside is [var letter, ..] && char.ToLowerInvariant(letter) is 'b' or 'i' or 'u' && (inside.Length == 1 || !char.IsAsciiLetter(inside[1]))
            ? char.ToLowerInvariant(letter)
            : null;

    [GeneratedRegex("<[^>]*>|[^<]+")]
    private static partial Regex Pieces();
}
