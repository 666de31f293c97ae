namespace Wexel.StandIns;

/// <summary>The stand-ins' plain pages. Each has a look of its own, so that nobody takes it for the product or for one of the others.</summary>
internal static class Pages
{
    private const string Terminal =
        "body{font:16px/1.5 monospace;background:#10241b;color:#d7f5e3}main{max-width:60rem;margin:2rem auto;padding:0 "
        + "1rem}a{color:#ffd479}table{border-collapse:collapse;width:100%}td,th{text-align:left;border-bottom:1px solid #3b6350;padding:.3rem "
        + ".6rem .3rem 0}pre{white-space:pre-wrap;border:1px solid #3b6350;padding:1rem}input,button{font:inherit;padding:.3rem .6rem}";

    internal static IResult Html(string title, string body, int status = 200, string style = Terminal) =>
        Results.Content(
            $"""
            <!doctype html>
            <html lang="en"><head><meta charset="utf-8"><title>{Text(title)}</title><meta name="viewport" content="width=device-width, initial-scale=1">
            <link rel="icon" href="data:,">
            <style>{style}</style>
            </head><body><main><p><a href="/">outside world</a></p><h1>{Text(title)}</h1>{body}</main></body></html>
            """,
            "text/html; charset=utf-8",
            statusCode: status
        );

    internal static string Text(string? text) => System.Net.WebUtility.HtmlEncode(text ?? "");
}
