namespace Wexel.StandIns.Video.Studio;

/// <summary>What Skerry takes and what it refuses.</summary>
internal static class Rules
{
    internal const long MostBytes = 2_000_000_000;
    internal const int MostAtOnce = 10;
    internal const int LongestTitle = 100;
    internal const int LongestDescription = 5000;

    internal static readonly IReadOnlyList<string> Categories = ["Learning", "Work", "Harbour life", "Sea and weather", "Other"];

    internal static readonly IReadOnlyList<string> Licences = ["standard", "cc-by"];

    internal static readonly IReadOnlyList<string> Visibilities = ["public", "unlisted", "private"];

    /// <summary>The heights in which a video plays, in pixels, the largest first.</summary>
    internal static readonly IReadOnlyList<int> Heights = [720, 480, 360];

    /// <summary>What is wrong with texts, each with its field; empty where nothing is.</summary>
    internal static IReadOnlyDictionary<string, string> Faults(VideoTexts texts)
    {
        var faults = new Dictionary<string, string>();
        if (string.IsNullOrWhiteSpace(texts.Title))
            faults["title"] = "A video needs a title.";
        else if (texts.Title.Length > LongestTitle)
            faults["title"] = $"A title has at most {LongestTitle} characters.";
        else if (texts.Title.AsSpan().ContainsAny('<', '>'))
            faults["title"] = "A title has no angle brackets.";
        if (string.IsNullOrWhiteSpace(texts.Description))
            faults["description"] = "A video needs a description.";
        else if (texts.Description.Length > LongestDescription)
            faults["description"] = $"A description has at most {LongestDescription} characters.";
        if (texts.Tags is not { Count: > 0 })
            faults["tags"] = "A video needs at least one tag.";
        if (texts.Category is null || !Categories.Contains(texts.Category))
            faults["category"] = $"The category is one of: {string.Join(", ", Categories)}.";
        if (texts.MadeForChildren is null)
            faults["madeForChildren"] = "Say whether it is made for children; there is no default.";
        if (texts.Licence is not null && !Licences.Contains(texts.Licence))
            faults["licence"] = $"The licence is one of: {string.Join(", ", Licences)}.";
        if (!Visibilities.Contains(texts.Visibility))
            faults["visibility"] = "It is public, unlisted or private.";
        if (texts.PublishAt is not null && texts.Visibility != "public")
            faults["publishAt"] = "Only what becomes public has a time for it.";
        return faults;
    }
}
