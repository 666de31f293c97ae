using System.Text.RegularExpressions;

namespace Wexel.Core.Captions;

/// <summary>Names of languages as pages and feeds write them: a language, and where it matters a script and a region (RFC 5646, section 2.1).</summary>
public static partial class LanguageTag
{
    /// <summary>What is taken where nobody said.</summary>
    public const string Usual = "en-GB";

    /// <summary>A tag as it is written by custom: the language small, the script with a capital, the region in capitals (section 2.1.1).</summary>
    /// <param name="text">Such as <c>en-gb</c> or <c>zh_hant_TW</c>.</param>
    /// <returns>Null for what is no such tag.</returns>
    public static string? Parse(string text)
    {
        var parts = Tag().Match(text.Trim().Replace('_', '-'));
        if (!parts.Success)
            return null;
        string Part(string name, Func<string, string> cased) => parts.Groups[name] is { Length: > 0, Value: var value } ? "-" + cased(value) : "";
        return parts.Groups["language"].Value.ToLowerInvariant()
            + Part("script", s => char.ToUpperInvariant(s[0]) + s[1..].ToLowerInvariant())
            + Part("region", r => r.ToUpperInvariant());
    }

    /// <summary>The language of a tag, without script and region.</summary>
    public static string Base(string tag) => tag.Split('-')[0].ToLowerInvariant();

    /// <summary>Whether two tags are of one language, whatever its region.</summary>
    public static bool Alike(string one, string other) => Base(one) == Base(other);

    [GeneratedRegex("^(?<language>[A-Za-z]{2,3})(-(?<script>[A-Za-z]{4}))?(-(?<region>[A-Za-z]{2}|[0-9]{3}))?$")]
    private static partial Regex Tag();
}
