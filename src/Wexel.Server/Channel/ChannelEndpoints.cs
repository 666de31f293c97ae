using System.Net;
using System.Security.Claims;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Rendering;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Channel;

/// <summary>What a player sends: ranges watched since the last time, and the place.</summary>
internal sealed record ProgressReport(string Learner, IReadOnlyList<IReadOnlyList<long>> Watched, long Position);

/// <summary>What is known about a learner: all ranges, the place, and whether the lesson is complete.</summary>
internal sealed record ProgressState(IReadOnlyList<IReadOnlyList<long>> Watched, long Position, double SeenShare, bool Complete);

/// <summary>Wexel's own learner pages.</summary>
internal static class ChannelEndpoints
{
    private const int MostRanges = 5000;

    internal static void MapChannel(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("").AllowAnonymous().ExcludeFromDescription();
        group.MapGet("/channel", ListAsync);
        group.MapGet("/watch/{token}", (string token, HttpContext http, ChannelReader reader, IOptions<WexelOptions> options, CancellationToken cancel) => PageAsync(token, false, http, reader, options, cancel));
        group.MapGet("/embed/{token}", (string token, HttpContext http, ChannelReader reader, IOptions<WexelOptions> options, CancellationToken cancel) => PageAsync(token, true, http, reader, options, cancel));
        group.MapGet("/oembed", OEmbedAsync);
        group.MapMethods("/watch/{token}/video.{ending}", ["GET", "HEAD"], VideoAsync);
        group.MapMethods($"/watch/{{token}}/{LessonFiles.PiecesFolder}{{**piece}}", ["GET", "HEAD"], PieceAsync);
        group.MapGet("/watch/{token}/poster.jpg", PosterAsync);
        group.MapGet("/watch/{token}/progress", ReadProgressAsync);
        group.MapPost("/watch/{token}/progress", WriteProgressAsync);
    }

    private static async Task<IResult> PageAsync(string token, bool embedded, HttpContext http, ChannelReader reader, IOptions<WexelOptions> options, CancellationToken cancel)
    {
        if (await reader.FindAsync(token, cancel) is not { } release)
            return NoPage("There is no such lesson", "The link is wrong, or the lesson was taken down. Ask the person who gave you the link.", null, StatusCodes.Status404NotFound);
        if (!MaySee(release, http.User))
        {
            var signIn = $"/sign-in?to={Uri.EscapeDataString($"/watch/{token}")}";
            return NoPage("Please sign in", "This lesson is for signed-in people.", (signIn, embedded ? "Open and sign in" : "Sign in"), StatusCodes.Status401Unauthorized);
        }

        var player = Json.Read<PlayerLesson>(release.Player) with { Embedded = embedded };
        http.Response.Headers.ContentSecurityPolicy = embedded ? "frame-ancestors *" : "frame-ancestors 'self'";
        var place = embedded ? null : await reader.PlaceAsync(release, http.User.Identity?.IsAuthenticated == true, cancel);
        return Page(PlayerPage.Html(player, "/player/", place, reader.Preview(release)?.HeadTags(new Uri(options.Value.PublicAddress, "oembed")) ?? ""));
    }

    /// <summary>oEmbed 1.0. A lesson for signed-in people answers 401 (section 2.3.4) and says nothing of itself.</summary>
    private static async Task<IResult> OEmbedAsync(string? url, string? format, int? maxwidth, int? maxheight, ChannelReader reader, CancellationToken cancel)
    {
        if (format is not (null or "json" or "xml"))
            return TypedResults.StatusCode(StatusCodes.Status501NotImplemented);
        if (!Uri.TryCreate(url, UriKind.Absolute, out var link))
            return TypedResults.BadRequest();
        if (await reader.FindByLinkAsync(link, cancel) is not { } release)
            return TypedResults.NotFound();
        if (reader.Preview(release) is not { } preview)
            return TypedResults.StatusCode(StatusCodes.Status401Unauthorized);
        var answer = preview.OEmbed(maxwidth > 0 ? maxwidth : null, maxheight > 0 ? maxheight : null);
        return format == "xml" ? TypedResults.Content(answer.Xml(), "text/xml; charset=utf-8") : TypedResults.Content(answer.Json(), "application/json; charset=utf-8");
    }

    private static async Task<IResult> ListAsync(HttpContext http, ChannelReader reader, IOptions<WexelOptions> options, CancellationToken cancel)
    {
        if (http.User.Identity?.IsAuthenticated != true)
            return NoPage("Please sign in", "The list of lessons is for signed-in people.", ("/sign-in?to=%2Fchannel", "Sign in"), StatusCodes.Status401Unauthorized);
        var items = new StringBuilder();
        foreach (var release in await reader.AllAsync(cancel))
            items.Append($"<li><a href=\"/watch/{release.Token}\" dir=\"auto\">{WebUtility.HtmlEncode(release.Lesson!.Title)}</a></li>");
        return Page(PlainPage(options.Value.House, $"<h1>{WebUtility.HtmlEncode(options.Value.House)}: lessons</h1>{(items.Length == 0 ? $"<p>No lesson is released yet{(await reader.BeingMadeAsync(cancel) is > 0 and var made ? $"; {made} {(made == 1 ? "is" : "are")} being made. Look again in a minute" : "")}.</p>" : $"<ol class=\"plain-list\">{items}</ol>")}"));
    }

    private static async Task<IResult> VideoAsync(string token, HttpContext http, ChannelReader reader, FileStore store, CancellationToken cancel) =>
        await reader.FindAsync(token, cancel) is not { } release ? TypedResults.NotFound()
        : !MaySee(release, http.User) ? TypedResults.Unauthorized()
        : TypedResults.PhysicalFile(store.Derived(release.FileKey, Finishing.FileName(release.Container)), ContainerFacts.Of(release.Container).MediaType, enableRangeProcessing: true);

    /// <summary>A playlist or a piece of a lesson that is loaded piece by piece.</summary>
    private static async Task<IResult> PieceAsync(string token, string? piece, HttpContext http, ChannelReader reader, FileStore store, CancellationToken cancel)
    {
        if (await reader.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!MaySee(release, http.User))
            return TypedResults.Unauthorized();
        var linked = store.Derived(release.FileKey, Finishing.FileName(release.Container));
        return piece is not null && Finishing.Pieces(release.Container, linked)?.Contains(piece) == true
            ? TypedResults.PhysicalFile(Path.Combine(Path.GetDirectoryName(linked)!, piece), HlsFolder.MediaType(piece), enableRangeProcessing: true)
            : TypedResults.NotFound();
    }

    private static async Task<IResult> PosterAsync(string token, HttpContext http, ChannelReader reader, FileStore store, CancellationToken cancel)
    {
        if (await reader.FindAsync(token, cancel) is not { } release || !MaySee(release, http.User))
            return TypedResults.NotFound();
        return release.PosterKey is not { } key ? TypedResults.NotFound() : TypedResults.PhysicalFile(store.Derived(key, PlannedRender.PosterName), "image/jpeg");
    }

    private static async Task<Results<Ok<ProgressState>, NotFound, UnauthorizedHttpResult>> ReadProgressAsync(string token, string learner, HttpContext http, ChannelReader reader, WexelDb db, CancellationToken cancel)
    {
        if (await reader.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!MaySee(release, http.User))
            return TypedResults.Unauthorized();
        var key = KeyOf(learner, http.User);
        var record = await db.LearnerRecords.AsNoTracking().FirstOrDefaultAsync(r => r.LessonId == release.LessonId && r.LearnerKey == key, cancel);
        return TypedResults.Ok(record is null ? new ProgressState([], 0, 0, false) : State(record));
    }

    private static async Task<Results<Ok<ProgressState>, NotFound, UnauthorizedHttpResult, BadRequest>> WriteProgressAsync(string token, ProgressReport report, HttpContext http, ChannelReader reader, ProgressKeeper keeper, CancellationToken cancel)
    {
        if (await reader.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!MaySee(release, http.User))
            return TypedResults.Unauthorized();
        if (report.Watched.Count > MostRanges || report.Learner.Length > 100 || report.Watched.Any(r => r.Count != 2))
            return TypedResults.BadRequest();
        var key = KeyOf(report.Learner, http.User);
        var length = Json.Read<PlayerLesson>(release.Player).Length;
        return TypedResults.Ok(State(await keeper.AddAsync(release.LessonId, key, http.User.FindFirstValue(ClaimTypes.GivenName), length, report.Watched, report.Position, cancel)));
    }

    private static ProgressState State(LearnerRecord record) =>
        new(Json.Read<IReadOnlyList<IReadOnlyList<long>>>(record.Watched), (long)record.Position.TotalMilliseconds, record.SeenShare, record.CompletedAt is not null);

    private static bool MaySee(Release release, ClaimsPrincipal user) => release.Visibility == Visibility.WithLink || user.Identity?.IsAuthenticated == true;

    private static string KeyOf(string learner, ClaimsPrincipal user) => user.Identity?.IsAuthenticated == true ? user.Id().ToString("N") : "link-" + learner;

    private static ContentHttpResult Page(string html, int status = StatusCodes.Status200OK) => TypedResults.Content(html, "text/html; charset=utf-8", statusCode: status);

    private static ContentHttpResult NoPage(string title, string text, (string Address, string Label)? next, int status) =>
        Page(PlainPage(title, $"<h1>{title}</h1><p>{text}</p>{(next is { } n ? $"<p><a href=\"{n.Address}\" target=\"_top\">{n.Label}</a></p>" : "")}"), status);

    private static string PlainPage(string title, string body) => $"""
        <!doctype html>
        <html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>{WebUtility.HtmlEncode(title)}</title>
        <link rel="icon" href="data:,"><link rel="stylesheet" href="/player/{PlayerPage.Style}"></head><body><main class="plain">{body}</main></body></html>
        """;
}
