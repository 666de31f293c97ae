using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Server.Serving;

namespace Wexel.Server.Feeds;

/// <summary>The page on which listeners subscribe, its code and its banner; whoever has the address may.</summary>
internal static class SubscribeEndpoints
{
    internal static void MapSubscribing(this IEndpointRouteBuilder routes)
    {
        string[] reading = ["GET", "HEAD"];
        var group = routes.MapGroup("/subscribe/{token}").AllowAnonymous().ExcludeFromDescription();
        group.MapMethods("", reading, PageAsync);
        group.MapMethods("code.svg", reading, CodeAsync);
        group.MapMethods("banner.svg", reading, BannerAsync);
    }

    private static async Task<IResult> PageAsync(string token, HttpContext http, WexelDb db, FeedReader reader, CancellationToken cancel)
    {
        if (await OpenedFeed.FindAsync(db, token, cancel) is not { } opened)
            return TypedResults.NotFound();
        var folder = reader.Folder(token);
        var sources = await reader.SourcesAsync(opened.Feed, folder, cancel);
        http.Response.Headers.ContentSecurityPolicy = SafeHeaders.Watch;
        return Results.Content(SubscribePages.Page(sources, reader.SoundAddress(opened.Feed, token), reader.SubscribePage(token)), "text/html; charset=utf-8");
    }

    private static async Task<IResult> CodeAsync(string token, WexelDb db, FeedReader reader, CancellationToken cancel) =>
        await OpenedFeed.FindAsync(db, token, cancel) is null
            ? TypedResults.NotFound()
            : Results.Content(SubscribePages.Code(reader.SubscribePage(token)), "image/svg+xml");

    private static async Task<IResult> BannerAsync(string token, HttpContext http, WexelDb db, CancellationToken cancel)
    {
        if (await OpenedFeed.FindAsync(db, token, cancel) is not { } opened)
            return TypedResults.NotFound();
        SafeHeaders.ForOthers(http.Response);
        http.Response.Headers.CacheControl = "public, max-age=3600";
        return Results.Content(SubscribePages.Banner(FeedReader.Settings(opened.Feed.Outlet!)), "image/svg+xml");
    }
}
