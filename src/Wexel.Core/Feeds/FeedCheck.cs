using System.Globalization;
using System.Xml;
using System.Xml.Linq;
using Wexel.Core.Kit;

namespace Wexel.Core.Feeds;

/// <summary>How much a finding weighs.</summary>
public enum FindingWeight
{
    /// <summary>A directory or an app refuses the feed, or shows it wrong.</summary>
    Wrong,

    /// <summary>It works, and would be better otherwise.</summary>
    Advice,
}

/// <summary>One thing that was found in a feed.</summary>
/// <param name="Rule">The rule, with the document that it stands in.</param>
/// <param name="Where">The feed, or the episode's title.</param>
/// <param name="Sentence">What is wrong and what to do.</param>
/// <param name="Weight">How much it weighs.</param>
public sealed record FeedFinding(string Rule, string Where, string Sentence, FindingWeight Weight);

/// <summary>
/// Looks a feed through as a directory would, from what is served and nothing else: RSS 2.0, the iTunes and Podcasting 2.0 namespaces,
/// and the requirements that podcast directories publish (from memory).
/// </summary>
public static class FeedCheck
{
    private const string Here = "the feed";
    private static readonly XNamespace ITunes = FeedDocument.ITunes;
    private static readonly XNamespace Podcast = FeedDocument.Podcast;

    /// <summary>The endings and media types of episodes that directories take.</summary>
    private static readonly Dictionary<string, string[]> Types = new(StringComparer.OrdinalIgnoreCase)
    {
        [".m4a"] = ["audio/x-m4a", "audio/mp4"],
        [".mp3"] = ["audio/mpeg"],
        [".m4v"] = ["video/x-m4v"],
        [".mp4"] = ["video/mp4"],
        [".mov"] = ["video/quicktime"],
    };

    /// <summary>All findings, the heavy ones first.</summary>
    /// <param name="feed">The feed as it is served.</param>
    /// <param name="artwork">What was measured of its artwork, or null where that is not known.</param>
    public static IReadOnlyList<FeedFinding> Findings(ReadOnlyMemory<byte> feed, ImageFacts? artwork)
    {
        XDocument document;
        try
        {
            using var reader = XmlReader.Create(new MemoryStream(feed.ToArray()), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit });
            document = XDocument.Load(reader);
        }
        catch (XmlException failed)
        {
            return
            [
                new FeedFinding(
                    "XML 1.0: a feed is well-formed",
                    Here,
                    $"The feed cannot be read at line {failed.LineNumber}: {failed.Message}",
                    FindingWeight.Wrong
                ),
            ];
        }

        var look = new Look();
        if (document.Root is not { Name.LocalName: "rss" } root || root.Attribute("version")?.Value != "2.0" || root.Element("channel") is not { } channel)
            return [new FeedFinding("RSS 2.0: <rss version=\"2.0\"> with one <channel>", Here, "This is not an RSS 2.0 feed.", FindingWeight.Wrong)];
        look.Channel(channel);
        foreach (var wrong in artwork is null ? [] : ArtworkRules.Wrong(artwork))
            look.Wrong("iTunes namespace: itunes:image, square, 1400 to 3000 pixels, JPEG or PNG, RGB", Here, wrong.Sentence);
        var items = channel.Elements("item").ToList();
        if (items.Count == 0)
            look.Wrong(
                "Directories' requirements: at least one episode",
                Here,
                "There is no episode yet; directories take a feed with at least one. Release a lesson to it."
            );
        foreach (var item in items)
            look.Item(item);
        foreach (var same in items.GroupBy(i => i.Element("guid")?.Value).Where(g => g.Key is not null && g.Count() > 1))
            look.Wrong("RSS 2.0: <guid> is unique", Title(same.First()), $"{same.Count()} episodes have the same guid; apps show one of them.");
        return [.. look.Found.OrderBy(f => f.Weight)];
    }

    private static string Title(XElement item) => item.Element("title")?.Value is { Length: > 0 } title ? $"“{title}”" : "an episode without a title";

    private sealed class Look
    {
        internal List<FeedFinding> Found { get; } = [];

        internal void Wrong(string rule, string where, string sentence) => Found.Add(new FeedFinding(rule, where, sentence, FindingWeight.Wrong));

        internal void Channel(XElement channel)
        {
            foreach (
                var (name, sentence) in new[]
                {
                    ("title", "The feed has no title."),
                    ("link", "The feed names no page about it."),
                    ("description", "The feed does not say what it is about. Write a description."),
                }
            )
            {
                if (Text(channel, name) is null)
                    Wrong($"RSS 2.0: <{name}> is required", Here, sentence);
            }

            Address("RSS 2.0: <link> is an address", Here, Text(channel, "link"), "page");
            if (Text(channel, "language") is not { } language || !LooksLikeLanguage(language))
                Wrong("iTunes namespace: <language> by ISO 639", Here, "The language is missing or is not a language tag, such as en or en-GB.");
            if (Text(channel, ITunes + "author") is null)
                Wrong("Directories' requirements: <itunes:author>", Here, "Nobody is named as the author. Write who makes the feed.");
            if (channel.Element(ITunes + "owner")?.Element(ITunes + "email")?.Value is not { } mail || !LooksLikeMail(mail))
                Wrong(
                    "Directories' requirements: <itunes:email> of the owner",
                    Here,
                    "The owner's mail address is missing or no address; a directory writes to it to see whose feed it is."
                );
            var category = channel.Element(ITunes + "category");
            if (
                category?.Attribute("text")?.Value is not { } main
                || !FeedCategories.Has(main, category.Element(ITunes + "category")?.Attribute("text")?.Value)
            )
                Wrong("iTunes namespace: <itunes:category> from the list", Here, "The category is missing or not in the directories' list.");
            Explicit(channel, Here, required: true);
            if (Text(channel, ITunes + "type") is not (null or "serial" or "episodic"))
                Wrong("iTunes namespace: <itunes:type> is serial or episodic", Here, "The order of the episodes is neither serial nor episodic.");
            var image = channel.Element(ITunes + "image")?.Attribute("href")?.Value;
            if (image is null || !(image.EndsWith(".jpg", StringComparison.OrdinalIgnoreCase) || image.EndsWith(".png", StringComparison.OrdinalIgnoreCase)))
                Wrong("iTunes namespace: <itunes:image> ends in .jpg or .png", Here, "The artwork is missing, or its address ends in neither .jpg nor .png.");
            Reachable(channel, image);
            if (Text(channel, "description") is { Length: > 4000 })
                Wrong("iTunes namespace: <description> of at most 4,000 characters", Here, "The description has more than 4,000 characters; shorten it.");
            if (string.Equals(Text(channel, ITunes + "block"), "yes", StringComparison.OrdinalIgnoreCase))
                Advise(
                    "iTunes namespace: <itunes:block> keeps a feed out",
                    Here,
                    "The feed is unlisted: directories will not show it. Hand its address on, or list it before you submit it."
                );
        }

        internal void Item(XElement item)
        {
            var where = Title(item);
            if (Text(item, "title") is null)
                Wrong("iTunes namespace: <title> of each episode", where, "The episode has no title.");
            if (Text(item, "guid") is null)
                Wrong("RSS 2.0: <guid>", where, "The episode has no guid; apps would show it anew after each change.");
            if (Text(item, "pubDate") is not { } date || !IsRfc822(date))
                Wrong("RSS 2.0: <pubDate> in the form of RFC 822", where, "The date is missing or not in the form “Wed, 25 Nov 2026 08:00:00 GMT”.");
            Enclosure(item.Elements("enclosure").ToList(), where);
            if (Text(item, ITunes + "duration") is not { } duration)
                Advise("iTunes namespace: <itunes:duration>", where, "The length is not told.");
            else if (!duration.Split(':').All(p => uint.TryParse(p, CultureInfo.InvariantCulture, out _)) || duration.Split(':').Length > 3)
                Wrong(
                    "iTunes namespace: <itunes:duration> in seconds or HH:MM:SS",
                    where,
                    $"The length “{duration}” is neither seconds nor hours, minutes and seconds."
                );
            foreach (var name in new[] { "season", "episode" })
            {
                if (Text(item, ITunes + name) is { } number && !(uint.TryParse(number, CultureInfo.InvariantCulture, out var value) && value > 0))
                    Wrong($"iTunes namespace: <itunes:{name}> is a whole number from 1", where, $"“{number}” is no {name} number.");
            }

            Explicit(item, where, required: false);
            Linked(item, "chapters", FeedFiles.ChaptersType, where);
            Linked(item, "transcript", FeedFiles.TranscriptType, where);
            if (item.Element(Podcast + "transcript") is null)
                Advise(
                    "Podcasting 2.0: <podcast:transcript>",
                    where,
                    "There is no transcript. Add captions to the lesson: people who cannot hear it, or search in it, need them."
                );
        }

        private void Enclosure(List<XElement> enclosures, string where)
        {
            if (enclosures is not [var enclosure])
            {
                Wrong(
                    "RSS 2.0: one <enclosure> an episode",
                    where,
                    enclosures.Count == 0 ? "The episode has no file." : "The episode has several files; apps take one."
                );
                return;
            }

            var (url, type) = (enclosure.Attribute("url")?.Value, enclosure.Attribute("type")?.Value);
            Address("RSS 2.0: <enclosure url>", where, url, "file");
            if (!long.TryParse(enclosure.Attribute("length")?.Value, CultureInfo.InvariantCulture, out var length) || length <= 0)
                Wrong("RSS 2.0: <enclosure length> in bytes", where, "The size of the file is missing.");
            var ending = Uri.TryCreate(url, UriKind.Absolute, out var address) ? Path.GetExtension(address.AbsolutePath) : "";
            if (!Types.TryGetValue(ending, out var fitting))
                Wrong("Directories' requirements: M4A, MP3, M4V, MP4 or MOV", where, $"Directories do not take files that end in “{ending}”.");
            else if (!fitting.Contains(type))
                Wrong("RSS 2.0: <enclosure type>", where, $"The type “{type}” does not go with “{ending}”, which is {fitting[0]}.");
        }

        private void Linked(XElement item, string name, string type, string where)
        {
            foreach (var linked in item.Elements(Podcast + name))
            {
                Address($"Podcasting 2.0: <podcast:{name} url>", where, linked.Attribute("url")?.Value, name);
                if (linked.Attribute("type")?.Value != type)
                    Wrong($"Podcasting 2.0: <podcast:{name} type>", where, $"The type of the {name} is not {type}.");
            }
        }

        private void Explicit(XElement element, string where, bool required)
        {
            var said = Text(element, ITunes + "explicit");
            if (said is not ("true" or "false") && (required || said is not null))
                Wrong("iTunes namespace: <itunes:explicit> is true or false", where, "It does not say whether it is fit for children.");
        }

        private void Address(string rule, string where, string? text, string what)
        {
            if (text is not null && !(Uri.TryCreate(text, UriKind.Absolute, out var address) && address.Scheme is "http" or "https"))
                Wrong(rule, where, $"The address of the {what}, “{text}”, is no whole web address.");
        }

        private void Reachable(XElement channel, string? image)
        {
            if (!Uri.TryCreate(image, UriKind.Absolute, out var address))
                return;
            if (address.IsLoopback)
                Advise(
                    "Directories' requirements: a public address",
                    Here,
                    $"The address {address.Authority} is reached from this machine alone. Directories and learners need a public one."
                );
            else if (address.Scheme != "https")
                Advise("Directories' requirements: HTTPS", Here, "The feed is served without HTTPS; some apps refuse that.");
            if (!channel.Elements(XName.Get("link", "http://www.w3.org/2005/Atom")).Any(l => l.Attribute("rel")?.Value == "self"))
                Advise("RFC 4287: atom:link rel=\"self\"", Here, "The feed does not name its own address.");
        }

        private void Advise(string rule, string where, string sentence) => Found.Add(new FeedFinding(rule, where, sentence, FindingWeight.Advice));

        private static string? Text(XElement parent, XName name) => parent.Element(name)?.Value.Trim() is { Length: > 0 } text ? text : null;

        private static bool LooksLikeLanguage(string tag) => tag.Split('-') is [{ Length: 2 or 3 } main, ..] && main.All(char.IsAsciiLetter);

        private static bool LooksLikeMail(string mail) =>
            mail.Split('@') is [{ Length: > 0 }, { Length: > 2 } host] && host.Contains('.', StringComparison.Ordinal) && !mail.Any(char.IsWhiteSpace);

        /// <summary>RFC 822, section 5.1, with a year of four digits; the name of the day is optional.</summary>
        private static bool IsRfc822(string date) =>
            DateTimeOffset.TryParseExact(
                date.Replace("GMT", "+0000", StringComparison.Ordinal).Replace("UT", "+0000", StringComparison.Ordinal),
                ["ddd, d MMM yyyy HH:mm:ss zzz", "d MMM yyyy HH:mm:ss zzz", "ddd, d MMM yyyy HH:mm zzz", "ddd, dd MMM yyyy HH:mm:ss zzz"],
                CultureInfo.InvariantCulture,
                DateTimeStyles.None,
                out _
            );
    }
}
