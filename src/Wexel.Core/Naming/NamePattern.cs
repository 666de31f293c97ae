using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Wexel.Core.Naming;

/// <summary>What a file may be named after.</summary>
/// <param name="Title">The lesson's title.</param>
/// <param name="ShortTitle">Its short title; null where it has none.</param>
/// <param name="Course">Its course's title.</param>
/// <param name="Number">Its place in the course, from 1.</param>
/// <param name="Profile">What the file was made with; null where that is not told apart.</param>
/// <param name="Date">When it was made.</param>
public sealed record NameParts(
    string Title,
    string? ShortTitle = null,
    string? Course = null,
    int? Number = null,
    string? Profile = null,
    DateOnly? Date = null
);

/// <summary>How the house names what it makes: a text with the names of parts in braces, such as <c>{course} {number} {title}</c>.</summary>
public sealed class NamePattern
{
    /// <summary>What is taken where nobody said.</summary>
    public const string UsualText = "{title} - {profile}";

    /// <summary>The longest pattern, in units of UTF-16.</summary>
    public const int Longest = 200;

    private static readonly ImmutableSortedDictionary<string, Func<NameParts, string?>> Parts = new Dictionary<string, Func<NameParts, string?>>
    {
        ["title"] = p => p.Title,
        ["short"] = p => p.ShortTitle ?? p.Title,
        ["course"] = p => p.Course,
        // Two digits, so that files sort in teaching order.
        ["number"] = p => p.Number?.ToString("00", CultureInfo.InvariantCulture),
        ["profile"] = p => p.Profile,
        ["date"] = p => p.Date?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
    }.ToImmutableSortedDictionary();

    private readonly IReadOnlyList<(bool IsPart, string Text)> _pieces;

    private NamePattern(IReadOnlyList<(bool IsPart, string Text)> pieces) => _pieces = pieces;

    /// <summary>What is taken where nobody said.</summary>
    public static NamePattern Usual { get; } = Parse(UsualText).Is(out var usual, out _) ? usual : throw new InvalidOperationException(UsualText);

    /// <summary>The names of all parts.</summary>
    public static IReadOnlyList<string> PartNames { get; } = [.. Parts.Keys];

    /// <summary>Reads a pattern.</summary>
    /// <returns>The pattern; or what is wrong with it: too long, a brace too many or too few, a part that there is not, or neither title nor number
    /// in it, so that two lessons could not be told apart.</returns>
    public static Result<NamePattern> Parse(string text)
    {
        var pieces = new List<(bool IsPart, string Text)>();
        if (text.Length > Longest)
            return Wrong($"The pattern has {text.Length} characters; write at most {Longest}.");
        for (var at = 0; at < text.Length; )
        {
            var open = text.IndexOfAny(['{', '}'], at);
            if (open != at)
                pieces.Add((false, open < 0 ? text[at..] : text[at..open]));
            if (open < 0)
                break;
            var close = text[open] == '{' ? text.IndexOfAny(['{', '}'], open + 1) : -1;
            if (close < 0 || text[close] != '}')
                return Wrong($"A brace stands alone at character {open + 1}. Each part stands in a pair of them, such as {{title}}.");
            var name = text[(open + 1)..close];
            if (!Parts.ContainsKey(name))
                return Wrong($"There is no part {{{Problem.Shown(name)}}}; there are {string.Join(", ", PartNames.Select(p => $"{{{p}}}"))}.");
            pieces.Add((true, name));
            at = close + 1;
        }

        return pieces.Any(p => p is { IsPart: true, Text: "title" or "short" or "number" })
            ? new NamePattern(pieces)
            : Wrong("Write {title}, {short} or {number} in it, so that two lessons can be told apart.");
    }

    private static Problem Wrong(string sentence) => new("name-pattern-unusable", sentence, "filePattern");

    /// <summary>The name of a file, without its ending; safe on Windows, macOS and Linux.</summary>
    /// <param name="parts">What it is named after. A part that there is not goes with the signs that join it.</param>
    public string Name(NameParts parts)
    {
        var (name, joint) = (new StringBuilder(), "");
        foreach (var (isPart, text) in _pieces)
        {
            if (!isPart)
            {
                joint += text;
                continue;
            }

            if (string.IsNullOrWhiteSpace(Parts[text](parts)))
            {
                joint = "";
                continue;
            }

            // What joins stands between two parts that there are; words stand for themselves.
            if (name.Length > 0 || joint.Any(char.IsLetterOrDigit))
                name.Append(joint);
            name.Append(Parts[text](parts));
            joint = "";
        }

        if (joint.Any(char.IsLetterOrDigit))
            name.Append(joint);
        return FileName.Safe(name.ToString(), "lesson");
    }
}
