using System.Net;
using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Server.Serving;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Following;

/// <param name="All">What is followed.</param>
/// <param name="Daily">Whether what is new comes in one mail a day.</param>
internal sealed record FollowsView(IReadOnlyList<Followed> All, bool Daily);

/// <param name="Daily">Whether what is new comes in one mail a day.</param>
internal sealed record MailsWanted(bool Daily);

/// <summary>Following, and ending it: on channels' pages, in one's account, and from a mail.</summary>
internal static class FollowEndpoints
{
    internal static void MapFollowing(this IEndpointRouteBuilder routes)
    {
        var mine = routes.MapGroup("/api/me/follows").RequireAuthorization();
        mine.MapGet("", ListAsync).WithName("Follows");
        mine.MapPut("mails", ChooseAsync).WithName("ChooseMails");
        mine.MapPut("{what:guid}", BeginAsync).WithName("Follow");
        mine.MapDelete("{what:guid}", EndAsync).WithName("EndFollow");
        // Forms of pages that work without scripts.
        var pages = routes.MapGroup("/follow").ExcludeFromDescription();
        pages.MapPost("{what:guid}", ByFormAsync).RequireAuthorization().DisableAntiforgery();
        pages.MapGet("stop/{token}", StopPageAsync).AllowAnonymous();
        pages.MapPost("stop/{token}", StopAsync).AllowAnonymous().DisableAntiforgery();
    }

    private static async Task<Ok<FollowsView>> ListAsync(ClaimsPrincipal user, Follows follows, WexelDb db, CancellationToken cancel)
    {
        var id = user.Id();
        return TypedResults.Ok(
            new FollowsView(await follows.ListAsync(id, cancel), await db.Users.Where(p => p.Id == id).Select(p => p.MailsDaily).FirstAsync(cancel))
        );
    }

    private static async Task<NoContent> ChooseAsync(MailsWanted wanted, ClaimsPrincipal user, WexelDb db, CancellationToken cancel)
    {
        var id = user.Id();
        await db.Users.Where(p => p.Id == id).ExecuteUpdateAsync(set => set.SetProperty(p => p.MailsDaily, wanted.Daily), cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> BeginAsync(Guid what, ClaimsPrincipal user, Follows follows, CancellationToken cancel) =>
        await follows.BeginAsync(user.Id(), what, cancel) ? TypedResults.NoContent() : Problems.NotThere("channel or course");

    private static async Task<NoContent> EndAsync(Guid what, ClaimsPrincipal user, Follows follows, CancellationToken cancel)
    {
        await follows.EndAsync(user.Id(), what, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<IResult> ByFormAsync(Guid what, HttpRequest request, ClaimsPrincipal user, Follows follows, CancellationToken cancel)
    {
        var form = await request.ReadFormAsync(cancel);
        if (form["end"].Count > 0)
            await follows.EndAsync(user.Id(), what, cancel);
        else if (!await follows.BeginAsync(user.Id(), what, cancel))
            return Problems.NotThere("channel or course");
        var back = form["back"].ToString();
        return TypedResults.LocalRedirect(RedirectHttpResult.IsLocalUrl(back) ? back : "/channel");
    }

    /// <summary>What a link in a mail shows: nothing ends by looking, since programs look at links too.</summary>
    private static async Task<IResult> StopPageAsync(string token, HttpContext http, Follows follows, CancellationToken cancel)
    {
        http.Response.Headers.ContentSecurityPolicy = SafeHeaders.Watch;
        http.Response.Headers["X-Robots-Tag"] = "noindex";
        return await follows.FindAsync(token, cancel) is { } followed
            ? Page(
                "Follow no more",
                $"<p>You follow “{WebUtility.HtmlEncode(followed.Name)}”.</p><form method=\"post\"><button name=\"page\" value=\"yes\">Tell me of it no "
                    + "more</button></form>"
            )
            : Page("You follow it no more", "<p>There is nothing to end: no more mails of it come.</p>");
    }

    /// <summary>Ends it in one request, as mail programs send it (RFC 8058, section 3.2), with no cookie and no question; and as the page does.</summary>
    private static async Task<IResult> StopAsync(string token, HttpRequest request, HttpContext http, Follows follows, CancellationToken cancel)
    {
        http.Response.Headers.ContentSecurityPolicy = SafeHeaders.Watch;
        var form = request.HasFormContentType ? await request.ReadFormAsync(cancel) : FormCollection.Empty;
        if (form["List-Unsubscribe"] != "One-Click" && form["page"].Count == 0)
            return TypedResults.BadRequest();
        if (await follows.FindAsync(token, cancel) is { } followed)
            await follows.StopAsync(followed.Id, cancel);
        return Page("You follow it no more", "<p>No more mails of it come.</p>");
    }

    private static ContentHttpResult Page(string title, string body) =>
        TypedResults.Content(PlainPages.Html(title, $"<h1>{title}</h1>{body}<p><a href=\"/channel\">To the lessons</a></p>"), "text/html; charset=utf-8");
}
