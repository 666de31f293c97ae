namespace Wexel.StandIns.Video;

/// <summary>Skerry's plain pages.</summary>
internal static class Look
{
    private const string Style =
        "body{font:15px/1.5 'DejaVu Sans',sans-serif;background:#fff;color:#222;margin:0}header{background:#5b2a86;color:#fff;padding:.6rem 1.5rem}"
        + "header a{color:#fff;text-decoration:none;font-weight:bold}main{max-width:60rem;margin:1rem auto;padding:0 1.5rem}a{color:#5b2a86}"
        + "table{border-collapse:collapse;width:100%}td,th{text-align:left;border-bottom:1px solid #ddd;padding:.3rem .6rem .3rem 0;vertical-align:top}"
        + "input,textarea,select,button{font:inherit}video{width:100%;background:#000}pre{white-space:pre-wrap;font:inherit}";

    internal static IResult Page(string title, string body, int status = 200) =>
        Results.Content(
            $"""
            <!doctype html>
            <html lang="en"><head><meta charset="utf-8"><title>{Text(
                title
            )} - Skerry</title><meta name="viewport" content="width=device-width, initial-scale=1">
            <link rel="icon" href="data:,"><style>{Style}</style></head>
            <body><header><a href="/">Skerry</a> videos for small harbours</header><main><h1>{Text(title)}</h1>{body}</main></body></html>
            """,
            "text/html; charset=utf-8",
            statusCode: status
        );

    /// <summary>A page for a frame: nothing but what is inside.</summary>
    internal static IResult Alone(string title, string inside) =>
        Results.Content(
            $"""
            <!doctype html>
            <html lang="en"><head><meta charset="utf-8"><title>{Text(title)}</title><style>{Style}</style></head>
            <body>{inside}</body></html>
            """,
            "text/html; charset=utf-8"
        );

    internal static string Text(string? text) => System.Net.WebUtility.HtmlEncode(text ?? "");
}
