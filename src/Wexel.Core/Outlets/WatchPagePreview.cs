using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Xml;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;

namespace Wexel.Core.Outlets;

/// <summary>What other sites may know of a watch page: where its link is pasted, a preview appears.</summary>
/// <param name="Title">The lesson's title.</param>
/// <param name="Description">Its description; may be empty.</param>
/// <param name="Language">As a BCP 47 tag.</param>
/// <param name="House">The organisation's name.</param>
/// <param name="HouseAddress">The organisation's address.</param>
/// <param name="Page">The watch page.</param>
/// <param name="Embed">The page that stands in frames.</param>
/// <param name="Video">The video itself.</param>
/// <param name="VideoType">Its media type.</param>
/// <param name="Poster">The picture by which the lesson is known; null for none.</param>
/// <param name="PosterSize">Its size, in pixels.</param>
/// <param name="Size">The picture's size.</param>
/// <param name="Length">The length of the lesson.</param>
/// <param name="Released">When it was released.</param>
/// <param name="Sections">The contents, in lesson time.</param>
/// <param name="Details">What else is said about it.</param>
public sealed record WatchPagePreview(
    string Title,
    string Description,
    string Language,
    string House,
    Uri HouseAddress,
    Uri Page,
    Uri Embed,
    Uri Video,
    string VideoType,
    Uri? Poster,
    PictureSize PosterSize,
    PictureSize Size,
    TimeSpan Length,
    DateTimeOffset Released,
    IReadOnlyList<Section> Sections,
    PlayerDetails Details
)
{
    /// <summary>
    /// The tags for the page's head: discovery of oEmbed (oEmbed 1.0, section 4), Open Graph (ogp.me), and a schema.org VideoObject
    /// with a Clip for each section. All texts are escaped.
    /// </summary>
    /// <param name="oEmbed">The address of the oEmbed endpoint.</param>
    public string HeadTags(Uri oEmbed)
    {
        var tags = new StringBuilder();
        foreach (var (format, type) in Details.MayEmbed ? new[] { ("json", "application/json+oembed"), ("xml", "text/xml+oembed") } : [])
            tags.Append(
                CultureInfo.InvariantCulture,
                $"<link rel=\"alternate\" type=\"{type}\" "
                    + $"href=\"{Text($"{oEmbed}?url={Uri.EscapeDataString(Page.AbsoluteUri)}&format={format}")}\" title=\"{Text(Title)}\">\n"
            );
        foreach (var (name, value) in OpenGraph())
            tags.Append(CultureInfo.InvariantCulture, $"<meta property=\"{name}\" content=\"{Text(value)}\">\n");
        return tags.Append("<script type=\"application/ld+json\">").Append(VideoObject().ToJsonString(WexelJson.Options)).Append("</script>\n").ToString();
    }

    /// <summary>The answer of the oEmbed endpoint: the video type (oEmbed 1.0, section 2.3.4.2).</summary>
    /// <param name="maxWidth">The most pixels across that the asker has room for, or null.</param>
    /// <param name="maxHeight">The most pixels down, or null.</param>
    public OEmbedVideo OEmbed(int? maxWidth, int? maxHeight)
    {
        var size = Within(maxWidth, maxHeight);
        var html = string.Create(
            CultureInfo.InvariantCulture,
            $"<iframe src=\"{Text(Embed.AbsoluteUri)}\" title=\"{Text(Title)}\" width=\"{size.Width}\" height=\"{size.Height}\" style=\"border:0\" "
                + $"allow=\"fullscreen\" allowfullscreen></iframe>"
        );
        // A thumbnail may not be larger than the room either (section 2.3.4); then none is named.
        var poster = PosterSize.Width <= (maxWidth ?? int.MaxValue) && PosterSize.Height <= (maxHeight ?? int.MaxValue) ? Poster : null;
        return new OEmbedVideo(
            Title,
            House,
            HouseAddress.AbsoluteUri,
            html,
            size.Width,
            size.Height,
            poster?.AbsoluteUri,
            poster is null ? null : PosterSize.Width,
            poster is null ? null : PosterSize.Height
        );
    }

    private PictureSize Within(int? maxWidth, int? maxHeight)
    {
        var share = Math.Min(1, Math.Min((double)(maxWidth ?? Size.Width) / Size.Width, (double)(maxHeight ?? Size.Height) / Size.Height));
        return new PictureSize(Math.Max(1, (int)Math.Floor(Size.Width * share + 1e-9)), Math.Max(1, (int)Math.Floor(Size.Height * share + 1e-9)));
    }

    private IEnumerable<(string Name, string Value)> OpenGraph()
    {
        var (width, height) = (Size.Width.ToString(CultureInfo.InvariantCulture), Size.Height.ToString(CultureInfo.InvariantCulture));
        yield return ("og:type", "video.other");
        yield return ("og:site_name", House);
        yield return ("og:title", Title);
        if (Description.Length > 0)
            yield return ("og:description", Description);
        yield return ("og:url", Page.AbsoluteUri);
        if (Poster is { } poster)
        {
            yield return ("og:image", poster.AbsoluteUri);
            yield return ("og:image:width", PosterSize.Width.ToString(CultureInfo.InvariantCulture));
            yield return ("og:image:height", PosterSize.Height.ToString(CultureInfo.InvariantCulture));
        }

        if (Details.MayEmbed)
        {
            yield return ("og:video", Video.AbsoluteUri);
            yield return ("og:video:type", VideoType);
            yield return ("og:video:width", width);
            yield return ("og:video:height", height);
        }

        yield return ("og:locale", Language.Replace('-', '_'));
        yield return ("video:duration", ((long)Math.Round(Length.TotalSeconds)).ToString(CultureInfo.InvariantCulture));
        foreach (var tag in Details.Tags)
            yield return ("video:tag", tag);
    }

    private JsonObject VideoObject()
    {
        var video = new JsonObject
        {
            ["@context"] = "https://schema.org",
            ["@type"] = "VideoObject",
            ["name"] = Title,
            ["description"] = Description.Length > 0 ? Description : Title,
            ["inLanguage"] = Language,
            ["uploadDate"] = Released.ToString("yyyy-MM-ddTHH:mm:sszzz", CultureInfo.InvariantCulture),
            ["duration"] = XmlConvert.ToString(TimeSpan.FromSeconds(Math.Round(Length.TotalSeconds))),
            ["contentUrl"] = Video.AbsoluteUri,
        };
        if (Poster is { } poster)
            video["thumbnailUrl"] = new JsonArray(poster.AbsoluteUri);
        if (Details.MayEmbed)
            video["embedUrl"] = Embed.AbsoluteUri;
        if (Details.ShortTitle is { } shorter)
            video["alternateName"] = shorter;
        if (Details.Tags.Count > 0)
            video["keywords"] = new JsonArray([.. Details.Tags.Select(t => (JsonNode)t)]);
        if (Details.Category is { } category)
            video["genre"] = category;
        if (Details.Licence is { } licence)
            video[licence.Terms is null ? "copyrightNotice" : "license"] = licence.Terms ?? licence.Name;
        if (Details.Author is { } author)
            video["author"] = Person(author);
        if (Details.Permission is { } permission)
            video["creditText"] = permission;
        if (Details.ForChildren is { } forChildren)
            video["isFamilyFriendly"] = forChildren || Details.FromAge is null or 0;
        if (Details.FromAge is > 0 and var age)
            video["typicalAgeRange"] = string.Create(CultureInfo.InvariantCulture, $"{age}-");
        if (Sections.Count > 0)
            video["hasPart"] = new JsonArray([.. Chapters.FromSections(Sections, Length).Select(Clip)]);
        return video;
    }

    private static JsonObject Person(Author author)
    {
        var person = new JsonObject { ["@type"] = "Person", ["name"] = author.Name };
        if (author.Contact is { } contact)
            person[contact.StartsWith("http", StringComparison.OrdinalIgnoreCase) ? "url" : "email"] = contact;
        return person;
    }

    private JsonNode Clip(Chapter chapter)
    {
        var start = Seconds(chapter.Span.Start);
        return new JsonObject
        {
            ["@type"] = "Clip",
            ["name"] = chapter.Title,
            ["startOffset"] = start,
            ["endOffset"] = Seconds(chapter.Span.End),
            ["url"] = string.Create(CultureInfo.InvariantCulture, $"{Page}#t={start}"),
        };
    }

    private static decimal Seconds(TimeSpan time) => time.Ticks / TimeSpan.TicksPerMillisecond / 1000m;

    private static string Text(string text) => WebUtility.HtmlEncode(text);
}

/// <summary>An oEmbed answer of the type video, as it stands on the wire.</summary>
public sealed record OEmbedVideo(
    string Title,
    string ProviderName,
    string ProviderUrl,
    string Html,
    int Width,
    int Height,
    string? ThumbnailUrl,
    int? ThumbnailWidth,
    int? ThumbnailHeight
)
{
    private IEnumerable<(string Name, object? Value)> Members =>
        [
            ("type", "video"),
            ("version", "1.0"),
            ("title", Title),
            ("provider_name", ProviderName),
            ("provider_url", ProviderUrl),
            ("html", Html),
            ("width", Width),
            ("height", Height),
            ("thumbnail_url", ThumbnailUrl),
            ("thumbnail_width", ThumbnailWidth),
            ("thumbnail_height", ThumbnailHeight),
        ];

    /// <summary>As JSON.</summary>
    public string Json() =>
        new JsonObject(Members.Where(m => m.Value is not null).Select(m => KeyValuePair.Create(m.Name, (JsonNode?)JsonValue.Create(m.Value)))).ToJsonString();

    /// <summary>As XML.</summary>
    public string Xml()
    {
        var text = new StringBuilder();
        using (var writer = XmlWriter.Create(text, new XmlWriterSettings { OmitXmlDeclaration = true }))
        {
            writer.WriteStartElement("oembed");
            foreach (var (name, value) in Members.Where(m => m.Value is not null))
                writer.WriteElementString(name, XmlText.Printable(Convert.ToString(value, CultureInfo.InvariantCulture)!));
            writer.WriteEndElement();
        }

        return $"<?xml version=\"1.0\" encoding=\"utf-8\" standalone=\"yes\"?>\n{text}\n";
    }
}
