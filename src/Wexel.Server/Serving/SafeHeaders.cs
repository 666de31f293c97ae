namespace Wexel.Server.Serving;

/// <summary>
/// Says with every answer what a browser may do with it. What is said here is the strictest; pages say what they need besides.
/// Styles may stand in pages, since the components of desk and player write theirs there; scripts may not.
/// </summary>
internal sealed class SafeHeaders(RequestDelegate next)
{
    /// <summary>The desk's pages: everything from here, in no frame.</summary>
    internal const string Desk = Common + "; connect-src 'self'; form-action 'self'; frame-ancestors 'none'";

    /// <summary>A learner's page; in frames of our own pages only.</summary>
    internal const string Watch = Common + "; connect-src 'self'; worker-src 'self' blob:; form-action 'self'; frame-ancestors 'self'";

    /// <summary>The same, to be put into pages of others.</summary>
    internal const string Embed = Common + "; connect-src 'self'; worker-src 'self' blob:; form-action 'none'; frame-ancestors *";

    private const string Common =
        "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; font-src 'self'; img-src 'self' data: blob:; media-src 'self' "
        + "blob:; frame-src 'self'; base-uri 'none'";
    private const string Nothing = "default-src 'none'; frame-ancestors 'none'";
    private const string NoDevices = "camera=(), microphone=(), geolocation=(), usb=(), serial=(), payment=(), display-capture=()";

    public Task InvokeAsync(HttpContext http)
    {
        // Said last, so that it is said of what a fault has emptied too; what said something of its own keeps it.
        http.Response.OnStarting(() =>
        {
            var headers = http.Response.Headers;
            headers.TryAdd("Content-Security-Policy", Nothing);
            headers.TryAdd("X-Content-Type-Options", "nosniff");
            headers.TryAdd("Referrer-Policy", "strict-origin-when-cross-origin");
            headers.TryAdd("Permissions-Policy", NoDevices);
            headers.TryAdd("Cross-Origin-Resource-Policy", "same-origin");
            // What is somebody's is kept by nobody; what may be kept says so.
            headers.TryAdd("Cache-Control", "private, no-store");
            return Task.CompletedTask;
        });
        return next(http);
    }

    /// <summary>Says that an answer may be used by pages of other sites: what anybody may see is put into theirs.</summary>
    internal static void ForOthers(HttpResponse response) => response.Headers["Cross-Origin-Resource-Policy"] = "cross-origin";
}
