using System.Globalization;
using System.Net;
using QRCoder;
using Wexel.Core.Feeds;
using Wexel.Core.Packages;
using Wexel.Core.Timing;

namespace Wexel.Server.Feeds;

/// <summary>What listeners see of a feed: how to subscribe to it, and what leads there from other pages.</summary>
internal static class SubscribePages
{
    private const int Newest = 5;

    /// <summary>The address by which the listener's own app opens a feed: podcast apps take this scheme for that of the web (common practice, no
    /// source).</summary>
    private static string InApp(Uri feed) => "podcast://" + feed.AbsoluteUri[(feed.Scheme.Length + Uri.SchemeDelimiter.Length)..];

    /// <param name="sources">The feed.</param>
    /// <param name="sound">The address of the feed of sound beside it; null for none.</param>
    /// <param name="page">The page's own address.</param>
    internal static string Page(FeedSources sources, Uri? sound, Uri page)
    {
        var (settings, feed) = (sources.Settings, sources.Address);
        var artwork = new Uri(sources.Folder, sources.Artwork).PathAndQuery;
        var newest = sources.Entries.OrderByDescending(e => e.PublishedAt).Take(Newest).ToList();
        var episodes = string.Concat(
            newest.Select(e => $"<li><b dir=\"auto\">{Text(e.Episode.Title)}</b> <span>{TimeCode.Brief(e.Episode.Length)}</span></li>")
        );
        var here = page.AbsolutePath;
        return $"""
            <!doctype html>
            <html lang="{Text(settings.Language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
            <title>{Text(settings.Title)}</title><link rel="icon" href="data:,"><link rel="stylesheet" href="/player/{PlayerPage.Style}">
            <link rel="alternate" type="{FeedFiles.FeedType}" title="{Text(settings.Title)}" href="{Text(feed.AbsoluteUri)}"></head>
            <body><main class="subscribe" lang="en">
            <img class="artwork" src="{artwork}" alt="" width="220" height="220">
            <div><h1 dir="auto" lang="{Text(settings.Language)}">{Text(settings.Title)}</h1>
            <p dir="auto" lang="{Text(settings.Language)}">{Text(settings.Description)}</p>
            <p>{Text(settings.Author)}</p>
            {(settings.Private ? "<p><b>This address is yours alone.</b> Keep it: it can be withdrawn, and then opens nothing any more.</p>" : "")}
            <p><a class="main" href="{Text(InApp(feed))}">Open it in your podcast app</a></p>
            <p><label>Or copy the address into the app <input readonly value="{Text(feed.AbsoluteUri)}" size="48"></label></p>
            {(
                sound is null
                    ? ""
                    : $"""
                    <p>To listen without the picture, take the same lessons as sound: <a href="{Text(InApp(sound))}">open them in your podcast app</a></p>
                    <p><label>Or copy their address <input readonly value="{Text(sound.AbsoluteUri)}" size="48"></label></p>
                    """
            )}</div>
            <figure><img src="{here}/code.svg" alt="A code that leads a phone’s camera to this page" width="200" height="200">
            <figcaption>Or point a phone’s camera at this.</figcaption></figure>
            {(
                newest.Count == 0
                    ? "<p>There is no episode yet.</p>"
                    : $"<section><h2>Newest</h2><ul lang=\"{Text(settings.Language)}\">{episodes}</ul></section>"
            )}
            </main></body></html>
            """;
    }

    /// <summary>An address as a code that cameras read (ISO/IEC 18004), by QRCoder.</summary>
    internal static string Code(Uri address)
    {
        using var generator = new QRCodeGenerator();
        using var data = generator.CreateQrCode(address.AbsoluteUri, QRCodeGenerator.ECCLevel.M);
        return new SvgQRCode(data).GetGraphic(8, "#000000", "#ffffff", sizingMode: SvgQRCode.SizingMode.ViewBoxAttribute);
    }

    /// <summary>A banner for pages of others.</summary>
    internal static string Banner(FeedSettings settings) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"""
            <svg xmlns="http://www.w3.org/2000/svg" width="360" height="72" viewBox="0 0 360 72" role="img" aria-label="Subscribe to {Text(settings.Title)}">
            <rect width="360" height="72" fill="{settings.Colour}"/><rect y="68" width="360" height="4" fill="#00000055"/>
            <text x="18" y="30" font-family="sans-serif" font-size="14" fill="#ffffff">Listen and subscribe</text>
            <text x="18" y="54" font-family="sans-serif" font-size="20" font-weight="bold" fill="#ffffff">{Text(Shortened(settings.Title))}</text></svg>
            """
        );

    /// <summary>As much of a title as fits on the banner.</summary>
    private static string Shortened(string title)
    {
        var whole = new StringInfo(title);
        return whole.LengthInTextElements <= 30 ? title : whole.SubstringByTextElements(0, 29) + "…";
    }

    private static string Text(string text) => WebUtility.HtmlEncode(text);
}
