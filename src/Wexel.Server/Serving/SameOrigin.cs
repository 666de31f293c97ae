using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Serving;

/// <summary>
/// Refuses what pages of other sites have a browser ask for, whose cookie goes along: everything that changes something, and the live line. Browsers say
/// where a request comes from (Fetch Metadata, <c>Sec-Fetch-Site</c>; RFC 6454, <c>Origin</c>); what is no browser has no cookie of somebody's.
/// </summary>
internal sealed class SameOrigin(RequestDelegate next, IOptions<WexelOptions> options, SecurityLog log)
{
    private readonly string _public = options.Value.PublicAddress.GetLeftPart(UriPartial.Authority);

    public Task InvokeAsync(HttpContext http)
    {
        if (!Changes(http.Request) || IsFromHere(http.Request))
            return next(http);
        log.Write($"{http.Request.Method} {http.Request.Path}", http.User.Identity?.Name, "refused", "asked for by a page of another site");
        return Problems
            .Answer(new Problem("other-site", "A page of another site has asked for this. Open Wexel itself and do it there."), StatusCodes.Status403Forbidden)
            .ExecuteAsync(http);
    }

    private static bool Changes(HttpRequest request) =>
        !(HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || HttpMethods.IsOptions(request.Method))
        || request.Path.StartsWithSegments("/live");

    private bool IsFromHere(HttpRequest request) =>
        request.Headers["Sec-Fetch-Site"].ToString() switch
        {
            "same-origin" or "none" => true,
            "" => request.Headers.Origin.ToString() is var origin
                && (origin.Length == 0 || origin == $"{request.Scheme}://{request.Host}" || origin == _public),
            _ => false,
        };
}
