using System.Net;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Packages;

namespace Wexel.Server.Serving;

/// <summary>The desk's pages: one file, whose script shows the view of the address. An address that is none of its views is not there.</summary>
internal static class DeskPages
{
    /// <summary>The views' addresses, as <c>web/desk/src/app/App.tsx</c> has them; a test holds the two together.</summary>
    internal static readonly IReadOnlyList<string> Views =
    [
        "/",
        "/sign-in",
        "/new-password",
        "/account",
        "/bin",
        "/lessons/{id}/{stage?}",
        "/board",
        "/queue",
        "/renditions/{id}/compare",
        "/results",
        "/results/{id}",
        "/kit",
        "/kit/profiles/{id}",
        "/kit/space",
        "/kit/done",
        "/kit/people",
        "/kit/sign-in",
        "/kit/lists",
        "/kit/words",
        "/kit/sounds",
        "/kit/outlets/new",
        "/kit/outlets/{id}",
        "/kit/feeds/new",
        "/kit/feeds/{id}",
    ];

    internal static void MapDesk(this IEndpointRouteBuilder routes, string folder)
    {
        foreach (var view in Views)
            routes.MapGet(view, (HttpContext http) => Page(http, folder)).AllowAnonymous().ExcludeFromDescription();
        routes.MapFallback("{**path}", (HttpContext http) => NotThere(http)).AllowAnonymous();
    }

    private static IResult Page(HttpContext http, string folder)
    {
        var page = Path.Combine(folder, "index.html");
        if (!File.Exists(page))
            return NotThere(http);
        http.Response.Headers.ContentSecurityPolicy = SafeHeaders.Desk;
        http.Response.Headers.CacheControl = "public, no-cache";
        http.Response.Headers["Cross-Origin-Opener-Policy"] = "same-origin";
        return TypedResults.PhysicalFile(page, "text/html; charset=utf-8", lastModified: File.GetLastWriteTimeUtc(page));
    }

    private static ContentHttpResult NotThere(HttpContext http)
    {
        http.Response.Headers.ContentSecurityPolicy = SafeHeaders.Watch;
        return TypedResults.Content(
            PlainPages.Html(
                "There is no such page",
                $"<h1>There is no such page</h1><p>{WebUtility.HtmlEncode(http.Request.Path)} leads nowhere. Look whether the address is "
                    + $"complete.</p><p><a href=\"/\">Go to Wexel</a></p>"
            ),
            "text/html; charset=utf-8",
            statusCode: StatusCodes.Status404NotFound
        );
    }
}

/// <summary>Pages with a few words on them.</summary>
internal static class PlainPages
{
    /// <param name="title">The page's title, as text.</param>
    /// <param name="body">What stands on it, as HTML.</param>
    internal static string Html(string title, string body) =>
        $"""
            <!doctype html>
            <html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>{WebUtility.HtmlEncode(
                title
            )}</title>
            <link rel="icon" href="data:,"><link rel="stylesheet" href="/player/{PlayerPage.Style}"></head><body><main class="plain">{body}</main></body></html>
            """;
}
