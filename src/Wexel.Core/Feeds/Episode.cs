using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Documents;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Feeds;

/// <summary>A lesson in a podcast feed.</summary>
/// <param name="Id">What apps know it by; it never changes.</param>
/// <param name="Name">The stem of its files' names: letters, digits and hyphens.</param>
/// <param name="Title">The title.</param>
/// <param name="Summary">What it is about, plain text; may be empty.</param>
/// <param name="Language">As a BCP 47 tag.</param>
/// <param name="Length">How long it is.</param>
/// <param name="Bytes">The size of the file, in bytes.</param>
/// <param name="Sections">The contents, in lesson time.</param>
/// <param name="Transcripts">The language of each transcript.</param>
/// <param name="ArtworkKey">The key of the artwork inside the file, or null where the file carries none.</param>
/// <param name="Tags">Words by which it is found; null for none.</param>
/// <param name="Author">Who made it; null where that is the feed's author.</param>
/// <param name="Licence">The identifier of its licence, or what is allowed in one's own words; null where nobody said.</param>
/// <param name="Permission">By whose permission there is material of others in it; null where there is none.</param>
/// <param name="Picture">The size of its picture, in pixels; null where it has none.</param>
public sealed record Episode(
    string Id,
    string Name,
    string Title,
    string Summary,
    string Language,
    TimeSpan Length,
    long Bytes,
    IReadOnlyList<Section> Sections,
    IReadOnlyList<string> Transcripts,
    string? ArtworkKey = null,
    IReadOnlyList<string>? Tags = null,
    string? Author = null,
    string? Licence = null,
    string? Permission = null,
    PictureSize? Picture = null
)
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<Episode> Format { get; } = new("episode", TranscriptsInAList, NothingElseSaid, NoPicture);

    /// <summary>The same episode in the feed of sound beside it.</summary>
    /// <param name="bytes">The size of its file there, in bytes.</param>
    public Episode AsSound(long bytes) => this with { Bytes = bytes };

    /// <summary>Each transcript's language, and the part of a file's name that tells it from the others; the first has none, so that its address
    /// stays.</summary>
    [JsonIgnore]
    public IEnumerable<(string Language, string? Apart)> TranscriptFiles =>
        Transcripts
            .Zip(CaptionFileName.ForLanguages(Transcripts), (language, name) => (language, name))
            .Select((t, i) => (t.language, i == 0 ? null : (string?)t.name));

    /// <summary>There was one transcript or none.</summary>
    private static void TranscriptsInAList(JsonObject episode)
    {
        var language = episode["transcriptLanguage"]?.GetValue<string>();
        episode.Remove("transcriptLanguage");
        episode["transcripts"] = language is null ? new JsonArray() : new JsonArray(language);
    }

    /// <summary>Title and summary were all that was said.</summary>
    private static void NothingElseSaid(JsonObject episode) => episode["tags"] = null;

    /// <summary>Only the feed had a picture.</summary>
    private static void NoPicture(JsonObject episode) => episode["picture"] = null;

    /// <summary>The summary with a paragraph a line, and the contents as a list of times and titles. All texts are escaped.</summary>
    public string SummaryHtml()
    {
        var html = new StringBuilder();
        foreach (var line in Summary.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
            html.Append("<p>").Append(WebUtility.HtmlEncode(line)).Append("</p>");
        if (Permission is { } permission)
            html.Append("<p>").Append(WebUtility.HtmlEncode(permission)).Append("</p>");
        if (Sections.Count > 0)
            html.Append("<ul>").AppendJoin("", Sections.Select(s => $"<li>{TimeCode.Brief(s.At)} {WebUtility.HtmlEncode(s.Title)}</li>")).Append("</ul>");
        return html.ToString();
    }

    /// <summary>
    /// The summary with the contents below it as lines of time and title, from which apps that know no chapters make links; the title where neither
    /// was written. Contents that would make it longer than directories take are left away.
    /// </summary>
    public string SummaryText() =>
        DescribedContents.Write(Summary.Trim(), Sections) is { Length: > 0 and <= LongestSummary } whole ? whole
        : Summary.Trim() is { Length: > 0 } written ? written
        : Title;

    /// <summary>The longest description of an episode that directories take, in characters (iTunes namespace).</summary>
    private const int LongestSummary = 4000;

    /// <summary>The contents as JSON chapters 1.2 (Podcasting 2.0 namespace, "JSON Chapters Format"); times in seconds.</summary>
    public string ChaptersJson() => JsonChapters.Write(Title, Chapters.FromSections(Sections, Length));
}

/// <summary>An episode as it stands in a feed.</summary>
/// <param name="Episode">The episode.</param>
/// <param name="PublishedAt">When it was released first.</param>
/// <param name="Season">The number of its course in the feed, from 1.</param>
/// <param name="Number">Its place in that course, from 1.</param>
/// <param name="Course">What the course is called; may be empty.</param>
public sealed record FeedEntry(Episode Episode, DateTimeOffset PublishedAt, int Season, int Number, string Course = "");
