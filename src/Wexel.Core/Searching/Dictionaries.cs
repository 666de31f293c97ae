namespace Wexel.Core.Searching;

/// <summary>The dictionaries by which words of a language are brought to their stems when they are searched, by PostgreSQL's names of them.</summary>
public static class Dictionaries
{
    /// <summary>For a language that none is there for: words as they stand, in lower case.</summary>
    public const string None = "simple";

    private static readonly Dictionary<string, string> ByLanguage = new(StringComparer.OrdinalIgnoreCase)
    {
        ["ar"] = "arabic",
        ["hy"] = "armenian",
        ["eu"] = "basque",
        ["ca"] = "catalan",
        ["da"] = "danish",
        ["nl"] = "dutch",
        ["en"] = "english",
        ["fi"] = "finnish",
        ["fr"] = "french",
        ["de"] = "german",
        ["el"] = "greek",
        ["hi"] = "hindi",
        ["hu"] = "hungarian",
        ["id"] = "indonesian",
        ["ga"] = "irish",
        ["it"] = "italian",
        ["lt"] = "lithuanian",
        ["ne"] = "nepali",
        ["nb"] = "norwegian",
        ["nn"] = "norwegian",
        ["no"] = "norwegian",
        ["pt"] = "portuguese",
        ["ro"] = "romanian",
        ["ru"] = "russian",
        ["sr"] = "serbian",
        ["es"] = "spanish",
        ["sv"] = "swedish",
        ["ta"] = "tamil",
        ["tr"] = "turkish",
        ["yi"] = "yiddish",
    };

    /// <summary>All of them.</summary>
    public static IReadOnlyList<string> All { get; } = [.. ByLanguage.Values.Append(None).Distinct().Order(StringComparer.Ordinal)];

    /// <summary>The one of a language.</summary>
    /// <param name="language">A tag of BCP 47.</param>
    public static string For(string language) => ByLanguage.GetValueOrDefault(language.Split('-', '_')[0], None);
}
