using System.Globalization;
using System.Xml;
using System.Xml.Linq;

namespace Wexel.StandIns.Listening;

/// <summary>An episode as the app understands it.</summary>
internal sealed record ShowEpisode(
    string Guid,
    string Title,
    string Html,
    string Media,
    long Bytes,
    string Type,
    string Seconds,
    string Number,
    string? Chapters,
    string? Transcript
)
{
    /// <summary>A sound or a picture, by the type that the feed names.</summary>
    internal bool IsVideo => Type.StartsWith("video/", StringComparison.Ordinal);
}

/// <summary>A feed as the app understands it, and what it stumbled over.</summary>
internal sealed record Show(
    string Title,
    string Author,
    string Description,
    string? Artwork,
    string? OwnerMail,
    bool KeptOut,
    IReadOnlyList<ShowEpisode> Episodes,
    IReadOnlyList<string> Troubles
)
{
    private static readonly XNamespace ITunes = "http://www.itunes.com/dtds/podcast-1.0.dtd";
    private static readonly XNamespace Podcast = "https://podcastindex.org/namespace/1.0";
    private static readonly XNamespace Content = "http://purl.org/rss/1.0/modules/content/";

    internal static Show Read(byte[] feed)
    {
        try
        {
            using var reader = XmlReader.Create(new MemoryStream(feed), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit });
            return XDocument.Load(reader).Root?.Element("channel") is { } channel ? Of(channel) : Nothing("There is no channel in it: it is no podcast.");
        }
        catch (XmlException failed)
        {
            return Nothing($"It is not well-formed: {failed.Message}");
        }
    }

    private static Show Nothing(string why) => new("(unreadable)", "", "", null, null, false, [], [why]);

    private static Show Of(XElement channel)
    {
        var troubles = new List<string>();
        string Need(XElement from, XName name, string trouble)
        {
            var value = from.Element(name)?.Value.Trim() ?? "";
            if (value.Length == 0)
                troubles.Add(trouble);
            return value;
        }

        var title = Need(channel, "title", "The show has no title.");
        Need(channel, "link", "The show has no link.");
        var about = Need(channel, "description", "The show has no description.");
        Need(channel, "language", "The show names no language.");
        var author = Need(channel, ITunes + "author", "The show names no author.");
        Need(channel, ITunes + "explicit", "The show does not say whether it is explicit.");
        if (channel.Element(ITunes + "category")?.Attribute("text") is null)
            troubles.Add("The show has no category.");
        var artwork = channel.Element(ITunes + "image")?.Attribute("href")?.Value;
        if (artwork is null)
            troubles.Add("The show has no artwork.");
        var episodes = channel.Elements("item").Select(item => Episode(item, troubles)).OfType<ShowEpisode>().ToList();
        if (episodes.Count == 0)
            troubles.Add("There is nothing to play in it.");
        if (episodes.DistinctBy(e => e.Guid).Count() != episodes.Count)
            troubles.Add("Two episodes have the same guid.");
        return new Show(
            title,
            author,
            about,
            artwork,
            channel.Element(ITunes + "owner")?.Element(ITunes + "email")?.Value,
            string.Equals(channel.Element(ITunes + "block")?.Value, "yes", StringComparison.OrdinalIgnoreCase),
            episodes,
            troubles
        );
    }

    private static ShowEpisode? Episode(XElement item, List<string> troubles)
    {
        var title = item.Element("title")?.Value ?? "(no title)";
        if (item.Element("enclosure") is not { } enclosure || enclosure.Attribute("url")?.Value is not { Length: > 0 } url)
        {
            troubles.Add($"“{title}” has nothing to play.");
            return null;
        }

        if (!long.TryParse(enclosure.Attribute("length")?.Value, CultureInfo.InvariantCulture, out var bytes) || bytes <= 0)
            troubles.Add($"“{title}” does not say how large it is.");
        if (item.Element("guid")?.Value is not { Length: > 0 } guid)
        {
            troubles.Add($"“{title}” has no guid.");
            guid = url;
        }

        if (item.Element("pubDate") is null)
            troubles.Add($"“{title}” has no date.");
        return new ShowEpisode(
            guid,
            title,
            item.Element(Content + "encoded")?.Value ?? Pages.Text(item.Element("description")?.Value),
            url,
            bytes,
            enclosure.Attribute("type")?.Value ?? "",
            item.Element(ITunes + "duration")?.Value ?? "",
            item.Element(ITunes + "episode")?.Value ?? "",
            item.Element(Podcast + "chapters")?.Attribute("url")?.Value,
            item.Element(Podcast + "transcript")?.Attribute("url")?.Value
        );
    }
}
