using System.Globalization;
using System.Xml.Linq;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Server.Setup;

namespace Wexel.Server.Channel;

/// <summary>What search engines are told: the pages that everybody may see, by the sitemap protocol (sitemaps.org, 0.9).</summary>
internal sealed class Sitemap(WexelDb db, IOptions<WexelOptions> options, TimeProvider clock)
{
    /// <summary>As many as one map may hold.</summary>
    private const int Most = 50_000;

    private static readonly XNamespace Protocol = "http://www.sitemaps.org/schemas/sitemap/0.9";

    internal static void Map(IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/sitemap.xml", async (Sitemap map, CancellationToken cancel) =>
                TypedResults.Content(await map.WriteAsync(cancel), "application/xml; charset=utf-8")
            )
            .AllowAnonymous()
            .ExcludeFromDescription();
        routes
            .MapGet("/robots.txt", (IOptions<WexelOptions> options) =>
                TypedResults.Text($"User-agent: *\nDisallow: /api/\nSitemap: {new Uri(options.Value.PublicAddress, "sitemap.xml").AbsoluteUri}\n")
            )
            .AllowAnonymous()
            .ExcludeFromDescription();
    }

    private async Task<string> WriteAsync(CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        var open = db
            .Releases.Where(r =>
                r.Outlet!.Kind == Core.Outlets.Channels.ChannelKind.Channel
                && r.Visibility == Visibility.Everybody
                && (r.OpensAt == null || r.OpensAt <= now)
                && (r.EndsAt == null || r.EndsAt > now)
            )
            .OrderByDescending(r => r.ReleasedAt)
            .Select(r => new { r.Token, r.ReleasedAt });
        var lists = await db
            .LessonLists.Where(l => l.Visibility == Visibility.Everybody)
            .OrderBy(l => l.Name)
            .Select(l => l.Token)
            .Take(Most)
            .ToListAsync(cancel);
        XElement Page(string path) => new(Protocol + "loc", new Uri(options.Value.PublicAddress, path).AbsoluteUri);
        var map = new XElement(
            Protocol + "urlset",
            lists.Select(token => new XElement(Protocol + "url", Page($"list/{token}"))),
            (await open.Take(Most - lists.Count).ToListAsync(cancel)).Select(r => new XElement(
                Protocol + "url",
                Page($"watch/{r.Token}"),
                new XElement(Protocol + "lastmod", r.ReleasedAt.ToString("yyyy-MM-dd'T'HH:mm:sszzz", CultureInfo.InvariantCulture))
            ))
        );
        return new XDeclaration("1.0", "UTF-8", null) + "\n" + map;
    }
}
