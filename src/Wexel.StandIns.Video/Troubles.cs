using System.Globalization;

namespace Wexel.StandIns.Video;

/// <summary>What goes wrong, as somebody chose it: each for so many requests to the interface for programs.</summary>
internal sealed class Troubles
{
    private readonly Lock _lock = new();
    private readonly Dictionary<string, int> _left = [];
    private readonly Dictionary<string, string> _under = [];
    private string _redirect = "";

    /// <summary>What can be chosen.</summary>
    internal static readonly IReadOnlyList<(string Code, string Words)> All =
    [
        ("busy", "answers 503"),
        ("slow-down", "answers 429, to be asked again after a second"),
        ("not-json", "answers something that is no JSON"),
        ("endless", "answers without an end"),
        ("elsewhere", "sends on to another address"),
        ("expire", "says that the token is no longer good"),
        ("quota", "has the day’s quota used up, from the seventh piece of an upload"),
        ("clock", "has a clock that is an hour ahead"),
    ];

    /// <param name="code">What.</param>
    /// <param name="requests">For how many requests.</param>
    /// <param name="redirect">Where it sends on to.</param>
    /// <param name="under">Only for addresses that begin so.</param>
    internal void Set(string code, int requests, string redirect = "", string under = "/")
    {
        lock (_lock)
        {
            (_left[code], _under[code]) = (requests, under);
            if (redirect.Length > 0)
                _redirect = redirect;
        }
    }

    internal int Left(string code)
    {
        lock (_lock)
            return _left.GetValueOrDefault(code);
    }

    /// <summary>Whether something goes wrong now; then there is one less.</summary>
    internal bool Take(string code, string path)
    {
        lock (_lock)
        {
            var left = path.StartsWith(_under.GetValueOrDefault(code, "/"), StringComparison.Ordinal) ? _left.GetValueOrDefault(code) : 0;
            if (left > 0)
                _left[code] = left - 1;
            return left > 0;
        }
    }

    /// <summary>What the clock says.</summary>
    internal DateTimeOffset Now => DateTimeOffset.UtcNow + (Left("clock") > 0 ? TimeSpan.FromHours(1) : TimeSpan.Zero);

    /// <summary>Before a request of a program is answered.</summary>
    internal async Task MiddleAsync(HttpContext http, RequestDelegate next)
    {
        http.Response.Headers.Date = Now.ToString("r", CultureInfo.InvariantCulture);
        var path = http.Request.Path.Value!;
        if (Take("busy", path))
            http.Response.StatusCode = 503;
        else if (Take("slow-down", path))
            (http.Response.StatusCode, http.Response.Headers.RetryAfter) = (429, "1");
        else if (Take("expire", path))
            (http.Response.StatusCode, http.Response.Headers.WWWAuthenticate) = (401, "Bearer error=\"invalid_token\"");
        else if (Take("elsewhere", path))
            http.Response.Redirect(_redirect, permanent: false, preserveMethod: true);
        else if (Take("not-json", path))
            await http.Response.WriteAsync("<h1>Skerry is being painted</h1>");
        else if (Take("endless", path))
        {
            http.Response.ContentType = "application/json";
            var piece = new string(' ', 65536);
            while (!http.RequestAborted.IsCancellationRequested)
                await http.Response.WriteAsync(piece, http.RequestAborted);
        }
        else
            await next(http);
    }
}
