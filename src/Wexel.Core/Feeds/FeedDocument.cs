using System.Globalization;
using System.Text;
using System.Xml;
using Wexel.Core.Details;

namespace Wexel.Core.Feeds;

/// <summary>What a feed is written from.</summary>
/// <param name="Settings">What the trainer says of it.</param>
/// <param name="House">The publisher's name.</param>
/// <param name="HouseAddress">The publisher's address.</param>
/// <param name="Folder">The address under which all its files lie, with a slash at its end.</param>
/// <param name="Artwork">The artwork's name in that folder.</param>
/// <param name="ChangedAt">When anything in it changed last.</param>
/// <param name="Entries">Its episodes, in any order.</param>
/// <param name="Identity">What it is known by wherever it moves, see <see cref="FeedGuid"/>.</param>
/// <param name="Name">The feed's own name in that folder.</param>
public sealed record FeedSources(
    FeedSettings Settings,
    string House,
    Uri HouseAddress,
    Uri Folder,
    string Artwork,
    DateTimeOffset ChangedAt,
    IReadOnlyList<FeedEntry> Entries,
    Guid Identity,
    string Name = FeedFiles.Feed
)
{
    /// <summary>The address under which it is read.</summary>
    public Uri Address => new(Folder, Name);
}

/// <summary>
/// Writes RSS 2.0 with the iTunes and Podcasting 2.0 namespaces, and <c>atom:link</c> (RFC 4287) to itself. The same sources give the
/// same bytes.
/// </summary>
public static class FeedDocument
{
    /// <summary>The iTunes podcast namespace.</summary>
    public const string ITunes = "http://www.itunes.com/dtds/podcast-1.0.dtd";

    /// <summary>The Podcasting 2.0 namespace.</summary>
    public const string Podcast = "https://podcastindex.org/namespace/1.0";

    /// <summary>The Media RSS namespace (RSS Advisory Board, Media RSS Specification 1.5.1).</summary>
    public const string Media = "http://search.yahoo.com/mrss/";

    /// <summary>The longest name of a season, in characters (Podcasting 2.0 namespace, "Season").</summary>
    private const int LongestSeason = 128;

    private const string Atom = "http://www.w3.org/2005/Atom";
    private const string Content = "http://purl.org/rss/1.0/modules/content/";

    /// <summary>The feed as UTF-8 without a byte order mark.</summary>
    public static byte[] Write(FeedSources sources)
    {
        using var bytes = new MemoryStream();
        using (
            var xml = XmlWriter.Create(
                bytes,
                new XmlWriterSettings
                {
                    Encoding = new UTF8Encoding(false),
                    Indent = true,
                    NewLineChars = "\n",
                }
            )
        )
        {
            xml.WriteStartElement("rss");
            xml.WriteAttributeString("version", "2.0");
            foreach (var (prefix, name) in new[] { ("itunes", ITunes), ("podcast", Podcast), ("atom", Atom), ("content", Content), ("media", Media) })
                xml.WriteAttributeString("xmlns", prefix, null, name);
            xml.WriteStartElement("channel");
            WriteChannel(xml, sources);
            foreach (var entry in Ordered(sources))
                WriteItem(xml, sources, entry);
            xml.WriteEndElement();
            xml.WriteEndElement();
        }

        return bytes.ToArray();
    }

    /// <summary>A date in the form of RFC 822 with a year of four digits, as RSS 2.0 wants it.</summary>
    public static string Date(DateTimeOffset at) => at.UtcDateTime.ToString("ddd, dd MMM yyyy HH:mm:ss 'GMT'", CultureInfo.InvariantCulture);

    private static IEnumerable<FeedEntry> Ordered(FeedSources sources) =>
        sources.Settings.Order == FeedOrder.Serial
            ? sources.Entries.OrderBy(e => e.Season).ThenBy(e => e.Number)
            : sources.Entries.OrderByDescending(e => e.PublishedAt).ThenBy(e => e.Episode.Id, StringComparer.Ordinal);

    private static void WriteChannel(XmlWriter xml, FeedSources sources)
    {
        var settings = sources.Settings;
        var link = settings.Link ?? sources.HouseAddress.AbsoluteUri;
        var artwork = At(sources, sources.Artwork);
        Element(xml, "title", settings.Title);
        Element(xml, "link", link);
        Element(xml, "description", settings.Description);
        Element(xml, "language", settings.Language);
        Element(xml, "lastBuildDate", Date(sources.ChangedAt));
        Element(xml, "generator", "Wexel");
        xml.WriteStartElement("atom", "link", Atom);
        xml.WriteAttributeString("href", sources.Address.AbsoluteUri);
        xml.WriteAttributeString("rel", "self");
        xml.WriteAttributeString("type", FeedFiles.FeedType);
        xml.WriteEndElement();
        xml.WriteStartElement("image");
        Element(xml, "url", artwork);
        Element(xml, "title", settings.Title);
        Element(xml, "link", link);
        xml.WriteEndElement();
        Element(xml, "author", settings.Author, ITunes);
        xml.WriteStartElement("owner", ITunes);
        Element(xml, "name", sources.House, ITunes);
        Element(xml, "email", settings.OwnerMail, ITunes);
        xml.WriteEndElement();
        xml.WriteStartElement("image", ITunes);
        xml.WriteAttributeString("href", artwork);
        xml.WriteEndElement();
        xml.WriteStartElement("category", ITunes);
        xml.WriteAttributeString("text", settings.Category);
        if (settings.Subcategory is { } under)
        {
            xml.WriteStartElement("category", ITunes);
            xml.WriteAttributeString("text", under);
            xml.WriteEndElement();
        }

        xml.WriteEndElement();
        Element(xml, "explicit", settings.Explicit ? "true" : "false", ITunes);
        Element(xml, "type", settings.Order == FeedOrder.Serial ? "serial" : "episodic", ITunes);
        if (settings.Unlisted || settings.Private)
            Element(xml, "block", "Yes", ITunes);
        Element(xml, "guid", sources.Identity.ToString(), Podcast);
        // Nobody else may take it over: whoever tries must ask its owner (Podcasting 2.0 namespace, "Locked").
        xml.WriteStartElement("locked", Podcast);
        if (settings.OwnerMail.Length > 0)
            xml.WriteAttributeString("owner", settings.OwnerMail);
        xml.WriteString("yes");
        xml.WriteEndElement();
        if (settings.Author.Length > 0)
            WritePerson(xml, settings.Author);
        Element(xml, "medium", settings.Media == FeedMedia.Video ? "video" : "podcast", Podcast);
    }

    private static void WriteItem(XmlWriter xml, FeedSources sources, FeedEntry entry)
    {
        var (episode, settings) = (entry.Episode, sources.Settings);
        xml.WriteStartElement("item");
        Element(xml, "title", episode.Title);
        Element(xml, "description", episode.SummaryText());
        if (episode.SummaryHtml() is { Length: > 0 } html)
            Element(xml, "encoded", html, Content);
        xml.WriteStartElement("guid");
        xml.WriteAttributeString("isPermaLink", "false");
        xml.WriteString(episode.Id);
        xml.WriteEndElement();
        Element(xml, "pubDate", Date(entry.PublishedAt));
        xml.WriteStartElement("enclosure");
        xml.WriteAttributeString("url", At(sources, FeedFiles.Media(episode.Name, settings.Media)));
        xml.WriteAttributeString("length", episode.Bytes.ToString(CultureInfo.InvariantCulture));
        xml.WriteAttributeString("type", FeedFiles.MediaType(settings.Media));
        xml.WriteEndElement();
        Element(xml, "title", episode.Title, ITunes);
        Element(xml, "duration", ((long)Math.Round(episode.Length.TotalSeconds)).ToString(CultureInfo.InvariantCulture), ITunes);
        Element(xml, "season", entry.Season.ToString(CultureInfo.InvariantCulture), ITunes);
        Element(xml, "episode", entry.Number.ToString(CultureInfo.InvariantCulture), ITunes);
        Element(xml, "episodeType", "full", ITunes);
        Element(xml, "explicit", settings.Explicit ? "true" : "false", ITunes);
        WriteSeason(xml, entry);
        if (episode.Author is { } author)
        {
            Element(xml, "author", author, ITunes);
            WritePerson(xml, author);
        }

        foreach (var tag in episode.Tags ?? [])
            Element(xml, "category", tag);
        if (episode.Licence is { } licence)
            WriteLicence(xml, licence);
        if (episode.Picture is { } picture)
        {
            // Directories take square pictures alone as an episode's artwork; this is the lesson's own, for apps that show it as it is.
            xml.WriteStartElement("thumbnail", Media);
            xml.WriteAttributeString("url", At(sources, FeedFiles.Picture(episode.Name)));
            xml.WriteAttributeString("width", picture.Width.ToString(CultureInfo.InvariantCulture));
            xml.WriteAttributeString("height", picture.Height.ToString(CultureInfo.InvariantCulture));
            xml.WriteEndElement();
        }

        if (episode.Sections.Count > 0)
            Linked(xml, "chapters", At(sources, FeedFiles.ChaptersOf(episode.Name)), FeedFiles.ChaptersType, null);
        foreach (var (language, apart) in episode.TranscriptFiles)
            Linked(xml, "transcript", At(sources, FeedFiles.Transcript(episode.Name, apart)), FeedFiles.TranscriptType, language);
        xml.WriteEndElement();
    }

    /// <summary>Who made it (Podcasting 2.0 namespace, "Person", with a role of its taxonomy).</summary>
    private static void WritePerson(XmlWriter xml, string name)
    {
        xml.WriteStartElement("person", Podcast);
        xml.WriteAttributeString("group", "writing");
        xml.WriteAttributeString("role", "author");
        xml.WriteString(XmlText.Printable(name));
        xml.WriteEndElement();
    }

    /// <summary>The course with its name, and the place in it (Podcasting 2.0 namespace, "Season" and "Episode").</summary>
    private static void WriteSeason(XmlWriter xml, FeedEntry entry)
    {
        xml.WriteStartElement("season", Podcast);
        if (entry.Course.Length > 0)
            xml.WriteAttributeString("name", XmlText.Printable(entry.Course.Length <= LongestSeason ? entry.Course : entry.Course[..LongestSeason].TrimEnd()));
        xml.WriteString(entry.Season.ToString(CultureInfo.InvariantCulture));
        xml.WriteEndElement();
        Element(xml, "episode", entry.Number.ToString(CultureInfo.InvariantCulture), Podcast);
    }

    /// <summary>An identifier of the SPDX list in small letters, or one's own words (Podcasting 2.0 namespace, "License").</summary>
    private static void WriteLicence(XmlWriter xml, string licence)
    {
        var known = Licences.Find(licence);
        xml.WriteStartElement("license", Podcast);
        if (known?.Terms is { } terms)
            xml.WriteAttributeString("url", terms.AbsoluteUri);
        xml.WriteString(XmlText.Printable(known is { Terms: not null } ? known.Id.ToLowerInvariant() : known?.Name ?? licence));
        xml.WriteEndElement();
    }

    private static void Linked(XmlWriter xml, string name, string url, string type, string? language)
    {
        xml.WriteStartElement(name, Podcast);
        xml.WriteAttributeString("url", url);
        xml.WriteAttributeString("type", type);
        if (language is not null)
            xml.WriteAttributeString("language", language);
        xml.WriteEndElement();
    }

    private static void Element(XmlWriter xml, string name, string text, string? ns = null)
    {
        xml.WriteStartElement(name, ns);
        xml.WriteString(XmlText.Printable(text));
        xml.WriteEndElement();
    }

    private static string At(FeedSources sources, string path) => new Uri(sources.Folder, path).AbsoluteUri;
}
