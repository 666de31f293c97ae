using System.Text.RegularExpressions;

namespace Wexel.Core.Speech;

/// <summary>A word of a script.</summary>
/// <param name="Text">As it is written, with its marks.</param>
/// <param name="Plain">By which it is compared, see <see cref="WordList.Plain"/>.</param>
/// <param name="Paragraph">The number of its paragraph, from 0.</param>
/// <param name="EndsSentence">Whether a sentence ends with it.</param>
public sealed record ScriptWord(string Text, string Plain, int Paragraph, bool EndsSentence);

/// <summary>A heading of a script.</summary>
/// <param name="Title">What it says.</param>
/// <param name="BeforeWord">The number of the first word behind it, from 0.</param>
public sealed record ScriptHeading(string Title, int BeforeWord);

/// <summary>What a trainer wrote down to be said.</summary>
/// <param name="Words">In order.</param>
/// <param name="Headings">In order.</param>
public sealed partial record ScriptText(IReadOnlyList<ScriptWord> Words, IReadOnlyList<ScriptHeading> Headings)
{
    /// <summary>The most words that are read: a day of speech has fewer.</summary>
    public const int MostWords = 60_000;

    /// <summary>
    /// Reads a plain text or Markdown: paragraphs are parted by empty lines; lines that begin with # are headings; marks of lists, emphasis and links
    /// are not spoken; what stands in square brackets on a line of its own is a direction and not spoken either.
    /// </summary>
    /// <param name="text">Any text.</param>
    public static ScriptText Parse(string text)
    {
        var (words, headings, paragraph, isOpen) = (new List<ScriptWord>(), new List<ScriptHeading>(), 0, false);
        foreach (var raw in text.ReplaceLineEndings("\n").Split('\n'))
        {
            var line = raw.Trim();
            if (line.Length == 0 || (line is ['[', .., ']'] && !line[1..^1].Contains('[', StringComparison.Ordinal)) || Rule().IsMatch(line))
            {
                if (isOpen)
                    paragraph++;
                isOpen = false;
                continue;
            }

            if (Heading().Match(line) is { Success: true } heading)
            {
                if (isOpen)
                    paragraph++;
                isOpen = false;
                headings.Add(new ScriptHeading(Spoken(heading.Groups["title"].Value), words.Count));
                continue;
            }

            foreach (var word in Spoken(ListMark().Replace(line, "")).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries))
            {
                if (words.Count == MostWords)
                    return new ScriptText(words, headings);
                var plain = WordList.Plain(word);
                if (plain.Length > 0)
                    words.Add(new ScriptWord(word, plain, paragraph, word.TrimEnd('"', '”', '’', ')') is [.., '.' or '?' or '!' or '…']));
                // A mark that stands alone belongs to the word before it.
                else if (words.Count > 0)
                    words[^1] = words[^1] with { Text = $"{words[^1].Text} {word}" };
                isOpen = true;
            }
        }

        return new ScriptText(words, headings);
    }

    /// <summary>A line without the marks of Markdown.</summary>
    private static string Spoken(string line) => Emphasis().Replace(Link().Replace(line, "$1"), "").Replace("`", "", StringComparison.Ordinal).Trim();

    [GeneratedRegex(@"^#{1,6}\s+(?<title>.*?)\s*#*$", RegexOptions.NonBacktracking)]
    private static partial Regex Heading();

    [GeneratedRegex(@"^(([-*+]|\d{1,4}[.)])\s+|>\s*)", RegexOptions.NonBacktracking)]
    private static partial Regex ListMark();

    [GeneratedRegex(@"!?\[([^\]\n]{0,300})\]\([^)\n]{0,2000}\)", RegexOptions.NonBacktracking)]
    private static partial Regex Link();

    [GeneratedRegex(@"\*\*?|__", RegexOptions.NonBacktracking)]
    private static partial Regex Emphasis();

    [GeneratedRegex(@"^([-*_]\s*){3,}$", RegexOptions.NonBacktracking)]
    private static partial Regex Rule();
}
