using System.Globalization;
using System.Net;
using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Searching;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Following;
using Wexel.Server.Learning;
using Wexel.Server.People;
using Wexel.Server.Serving;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;

namespace Wexel.Server.Channel;

/// <summary>Wexel's own learner pages.</summary>
internal static class ChannelEndpoints
{
    private const int LongestSearch = 200;

    internal static void MapChannel(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("").AllowAnonymous().ExcludeFromDescription().AddEndpointFilter(ForOthersAsync);
        group.MapGet("/channel", ListAsync);
        group.MapGet("/c/{address}", FrontAsync);
        group.MapGet("/c/{address}/picture.jpg", PictureAsync);
        group.MapGet("/list/{token}", LearnersListAsync);
        group.MapGet("/search", SearchAsync);
        foreach (var (address, embedded) in new[] { ("/watch/{token}", false), ("/embed/{token}", true) })
        {
            group.MapGet(
                address,
                (
                    string token,
                    HttpContext http,
                    ChannelReader reader,
                    Viewers viewers,
                    IOptions<WexelOptions> options,
                    TimeProvider clock,
                    CancellationToken cancel
                ) => PageAsync(token, embedded, http, reader, viewers, options, clock, cancel)
            );
        }

        group.MapGet("/oembed", OEmbedAsync);
        group.MapGet("/watch/{token}/correct", CorrectAsync);
        LearnerProgress.Map(group);
        LearnerSurveys.Map(group);
        LearnerFiles.Map(group);
        ReleasedFiles.Map(routes);
        Sitemap.Map(routes);
    }

    /// <summary>What learners get stands in pages of others too.</summary>
    private static ValueTask<object?> ForOthersAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        SafeHeaders.ForOthers(context.HttpContext.Response);
        return next(context);
    }

    private static async Task<IResult> PageAsync(
        string token,
        bool embedded,
        HttpContext http,
        ChannelReader reader,
        Viewers viewers,
        IOptions<WexelOptions> options,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        http.Response.Headers.ContentSecurityPolicy = embedded ? SafeHeaders.Embed : SafeHeaders.Watch;
        if (await reader.FindAsync(token, cancel) is not { } release)
            return await AwayAsync(token, http, reader, cancel);
        var (shown, viewer, now) = (release.Shown(), await viewers.FindAsync(http.User, cancel), clock.GetUtcNow());
        if (!Seeing.May(shown, viewer, SeenIn.Address, now))
            return NotForThem(token, embedded, shown.Opening, viewer, now, http);
        // What is not for everybody is not found, whoever links to it.
        if (!Seeing.May(shown, Viewer.Stranger, SeenIn.Sitemap, now))
            http.Response.Headers["X-Robots-Tag"] = "noindex";

        var player = PlayerLesson.Format.Read(release.Player).WithoutKeys with { Embedded = embedded };
        if (embedded && !player.Details.MayEmbed)
            return NoPage(
                "Not on other sites",
                "This lesson may not stand on other sites.",
                ($"/watch/{token}", "Open it on its own page"),
                StatusCodes.Status403Forbidden
            );
        var place = embedded ? null : await reader.PlaceAsync(release, viewer, cancel);
        return Page(
            PlayerPage.Html(
                player,
                "/player/",
                place,
                reader.Preview(release)?.HeadTags(new Uri(options.Value.PublicAddress, "oembed")) ?? "",
                $"/watch/{token}/"
            )
        );
    }

    /// <summary>Leads whoever makes lessons from a moment of what learners see to its caption.</summary>
    /// <param name="token">The release.</param>
    /// <param name="at">The moment, in milliseconds of the lesson as it is seen.</param>
    private static async Task<Results<RedirectHttpResult, NotFound>> CorrectAsync(
        string token,
        double at,
        HttpContext http,
        ChannelReader reader,
        Viewers viewers,
        LessonReels reels,
        WexelDb db,
        CancellationToken cancel
    )
    {
        if (await reader.FindAsync(token, cancel) is not { } release || !(await viewers.FindAsync(http.User, cancel)).MakesLessons)
            return TypedResults.NotFound();
        var document = LessonDocument.Format.Read(
            await db.LessonRevisions.Where(r => r.LessonId == release.LessonId && r.Number == release.Revision).Select(r => r.Document).SingleAsync(cancel)
        );
        if (await reels.TimesAsync(document.Recordings, cancel) is not { } reel)
            return TypedResults.NotFound();
        var map = reel.Map(document.Cuts);
        var moment = TimeSpan.FromMilliseconds(double.IsFinite(at) ? Math.Clamp(at, 0, map.Length.TotalMilliseconds) : 0);
        return TypedResults.Redirect($"/lessons/{release.LessonId}/mark-up?at={(long)map.ToRecording(moment).TotalMilliseconds}");
    }

    /// <summary>A lesson that whoever asks may not see now.</summary>
    private static ContentHttpResult NotForThem(string token, bool embedded, Opening opening, Viewer viewer, DateTimeOffset now, HttpContext http)
    {
        if (opening.IsAhead(now))
            return NotYet(opening.From!.Value, now, http);
        if (opening.IsOver(now))
            return NoPage(
                "This lesson has ended",
                $"It could be watched here until {TimeWords(opening.Until!.Value)}. Ask the person who gave you the link.",
                null,
                StatusCodes.Status403Forbidden
            );
        if (viewer.IsSignedIn)
            return NoPage(
                "This lesson is for others",
                "You are signed in, and are not among the people whom it is open to. Ask the person who gave you the link.",
                null,
                StatusCodes.Status403Forbidden
            );
        var whose = opening.Visibility == Visibility.SignedIn ? "signed-in people" : "people who are named";
        return NoPage(
            "Please sign in",
            $"This lesson is for {whose}.{(opening.Visibility == Visibility.Named ? " You need no account: a code can be sent to your mail address." : "")}",
            ($"/sign-in?to={Uri.EscapeDataString($"/watch/{token}")}", embedded ? "Open and sign in" : "Sign in"),
            StatusCodes.Status401Unauthorized
        );
    }

    /// <summary>A moment with the time zone that it is said in.</summary>
    private static string TimeWords(DateTimeOffset time)
    {
        var at = TimeZoneInfo.ConvertTime(time, TimeZoneInfo.Local);
        return at.ToString("d MMMM yyyy, HH:mm", CultureInfo.InvariantCulture)
            + (at.Offset == TimeSpan.Zero ? " UTC" : at.ToString(" 'UTC'zzz", CultureInfo.InvariantCulture));
    }

    /// <summary>A lesson whose time has not come (503 with the time to ask again, RFC 9110, sections 15.6.4 and 10.2.3).</summary>
    private static ContentHttpResult NotYet(DateTimeOffset from, DateTimeOffset now, HttpContext http)
    {
        http.Response.Headers.RetryAfter = ((long)Math.Ceiling((from - now).TotalSeconds)).ToString(CultureInfo.InvariantCulture);
        return NoPage(
            "This lesson opens later",
            $"It can be watched here from {TimeWords(from)} on, under this link.",
            null,
            StatusCodes.Status503ServiceUnavailable
        );
    }

    /// <summary>An address whose lesson is not there: it is being prepared (503 with a time to ask again, RFC 9110, section 15.6.4), was taken down
    /// (410, section 15.5.11), or never was.</summary>
    private static async Task<IResult> AwayAsync(string token, HttpContext http, ChannelReader reader, CancellationToken cancel)
    {
        if (await reader.FindAwayAsync(token, cancel) is not { } release)
            return NoPage("There is no such lesson", "The link is wrong. Ask the person who gave you the link.", null, StatusCodes.Status404NotFound);
        if (release.Phase == ReleasePhase.TakenDown)
            return NoPage(
                "This lesson was taken down",
                "It stood here, and does not any more. Ask the person who gave you the link.",
                null,
                StatusCodes.Status410Gone
            );
        http.Response.Headers.RetryAfter = "30";
        var trainer = http.User.IsInRole(Roles.Trainer);
        var who = release.WantedVisibility switch
        {
            Visibility.OnlyMe => "its owner alone",
            Visibility.Named => "the people who are named",
            Visibility.SignedIn => "signed-in people",
            Visibility.WithLink => "whoever has this link",
            _ => "everybody",
        };
        return NoPage(
            "This lesson is being prepared",
            trainer
                ? $"“{WebUtility.HtmlEncode(release.Lesson!.Title)}” will be here for {who}. "
                    + (release.Phase == ReleasePhase.Failed ? "Something stands in its way." : "This page stays; load it again in a while.")
                : "It will be here soon, under this link. Load the page again in a while.",
            trainer ? ($"/lessons/{release.LessonId}/deliver", "See how far it is") : null,
            StatusCodes.Status503ServiceUnavailable
        );
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
        if (!preview.Details.MayEmbed)
            return TypedResults.NotFound();
        var answer = preview.OEmbed(maxwidth > 0 ? maxwidth : null, maxheight > 0 ? maxheight : null);
        return format == "xml"
            ? TypedResults.Content(answer.Xml(), "text/xml; charset=utf-8")
            : TypedResults.Content(answer.Json(), "application/json; charset=utf-8");
    }

    /// <summary>All channels in which whoever asks may see something.</summary>
    private static async Task<IResult> ListAsync(
        HttpContext http,
        ChannelLists lists,
        LearnersLists across,
        ChannelReader reader,
        Viewers viewers,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    )
    {
        http.Response.Headers.ContentSecurityPolicy = SafeHeaders.Watch;
        var viewer = await viewers.FindAsync(http.User, cancel);
        var channels = await lists.AllAsync(viewer, cancel);
        if (channels.Count > 0)
            return Page(ChannelPages.Start(channels, await across.AllAsync(viewer, channels, cancel), Guest(http.User, options.Value)));
        if (!viewer.IsSignedIn)
            return SignInFirst("The list of lessons is for signed-in people.", "/channel");
        var house = options.Value.House;
        return Page(
            PlainPages.Html(
                house,
                $"<h1>{WebUtility.HtmlEncode(house)}: lessons</h1><p>No lesson is released yet{BeingMade(await reader.BeingMadeAsync(cancel))}.</p>"
            )
        );
    }

    /// <summary>The front page of a channel, in the order that was asked for last.</summary>
    private static async Task<IResult> FrontAsync(
        string address,
        string? order,
        string? tag,
        string? language,
        HttpContext http,
        ChannelLists lists,
        Viewers viewers,
        Follows follows,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    )
    {
        http.Response.Headers.ContentSecurityPolicy = SafeHeaders.Watch;
        var viewer = await viewers.FindAsync(http.User, cancel);
        var channels = await lists.AllAsync(viewer, cancel);
        if (channels.FirstOrDefault(c => c.Address == address) is not { } channel)
            return viewer.IsSignedIn
                ? NoPage(
                    "There is nothing here for you",
                    "No channel has this address, or you may see nothing in it.",
                    ("/channel", "All channels"),
                    StatusCodes.Status404NotFound
                )
                : SignInFirst("What there is here is for signed-in people.", $"/c/{address}");
        if (Enum.TryParse<ListOrder>(order, ignoreCase: true, out var asked) && Enum.IsDefined(asked))
            http.Response.Cookies.Append(
                OrderCookie,
                asked.ToString(),
                new CookieOptions
                {
                    MaxAge = TimeSpan.FromDays(365),
                    HttpOnly = true,
                    SameSite = SameSiteMode.Lax,
                    Secure = http.Request.IsHttps,
                }
            );
        else if (!Enum.TryParse(http.Request.Cookies[OrderCookie], out asked) || !Enum.IsDefined(asked))
            asked = ListOrder.Teaching;
        var followed = viewer.Person is { } person ? await follows.WhatAsync(person, cancel) : null;
        return Page(ChannelPages.Front(channel, channels, asked, new ChannelFilter(tag, language), Guest(http.User, options.Value, followed)));
    }

    /// <summary>A list across courses.</summary>
    /// <param name="from">The place at which the page begins, from 1.</param>
    private static async Task<IResult> LearnersListAsync(
        string token,
        int? from,
        HttpContext http,
        ChannelLists lists,
        LearnersLists across,
        Viewers viewers,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    )
    {
        http.Response.Headers.ContentSecurityPolicy = SafeHeaders.Watch;
        if (await across.FindAsync(token, cancel) is not { } list)
            return NoPage("There is no such list", "The link is wrong, or the list was removed.", ("/channel", "All channels"), StatusCodes.Status404NotFound);
        var viewer = await viewers.FindAsync(http.User, cancel);
        if (!across.May(list, viewer))
            return viewer.IsSignedIn
                ? NoPage("This list is for others", "You are signed in, and are not among the people whom it is open to.", null, StatusCodes.Status403Forbidden)
                : SignInFirst("This list is for people who are signed in.", $"/list/{token}");
        if (list.Visibility != Visibility.Everybody)
            http.Response.Headers["X-Robots-Tag"] = "noindex";
        var channels = await lists.AllAsync(viewer, cancel);
        return Page(
            ChannelPages.List(await across.WithLessonsAsync(list, channels, cancel), Math.Max(1, from ?? 1), channels, Guest(http.User, options.Value))
        );
    }

    /// <summary>The picture of a channel, for whoever may see something in it.</summary>
    private static async Task<Results<PhysicalFileHttpResult, NotFound>> PictureAsync(
        string address,
        HttpContext http,
        ChannelLists lists,
        Viewers viewers,
        FileStore store,
        CancellationToken cancel
    )
    {
        var channels = await lists.NamedAsync(await viewers.FindAsync(http.User, cancel), cancel);
        if (channels.FirstOrDefault(c => c.Address == address)?.Settings.Picture is not { } key || ChannelCare.Picture(store, key) is not { } file)
            return TypedResults.NotFound();
        http.Response.Headers.CacheControl = "private, max-age=3600";
        return TypedResults.PhysicalFile(file, "image/jpeg");
    }

    /// <summary>What is said, in all that whoever asks may see.</summary>
    private static async Task<IResult> SearchAsync(
        string? q,
        HttpContext http,
        ReleasedSearch search,
        ChannelLists lists,
        Viewers viewers,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    )
    {
        http.Response.Headers.ContentSecurityPolicy = SafeHeaders.Watch;
        http.Response.Headers["X-Robots-Tag"] = "noindex";
        var viewer = await viewers.FindAsync(http.User, cancel);
        var typed = (q ?? "").Trim();
        typed = typed.Length <= LongestSearch ? typed : typed[..LongestSearch];
        var found = SearchWords.Parse(typed) is { } words ? await search.FindAsync(words, viewer, cancel) : null;
        return Page(ChannelPages.Search(typed, found, await lists.NamedAsync(viewer, cancel), Guest(http.User, options.Value)));
    }

    private const string OrderCookie = "wexel-order";

    private static ChannelGuest Guest(ClaimsPrincipal user, WexelOptions options, IReadOnlySet<Guid>? follows = null) =>
        new(options.House, user.Identity?.IsAuthenticated == true ? user.FindFirstValue(ClaimTypes.GivenName) : null, follows ?? new HashSet<Guid>());

    private static ContentHttpResult SignInFirst(string why, string to) =>
        NoPage("Please sign in", why, ($"/sign-in?to={Uri.EscapeDataString(to)}", "Sign in"), StatusCodes.Status401Unauthorized);

    private static string BeingMade(int lessons) => lessons == 0 ? "" : $"; {lessons} {(lessons == 1 ? "is" : "are")} being made. Look again in a minute";

    private static ContentHttpResult Page(string html, int status = StatusCodes.Status200OK) =>
        TypedResults.Content(html, "text/html; charset=utf-8", statusCode: status);

    private static ContentHttpResult NoPage(string title, string text, (string Address, string Label)? next, int status) =>
        Page(
            PlainPages.Html(title, $"<h1>{title}</h1><p>{text}</p>{(next is { } n ? $"<p><a href=\"{n.Address}\" target=\"_top\">{n.Label}</a></p>" : "")}"),
            status
        );
}
