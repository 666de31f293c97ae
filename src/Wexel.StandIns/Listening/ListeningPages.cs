using System.Globalization;
using System.Text.Json;
using Wexel.StandIns.Writing;

namespace Wexel.StandIns.Listening;

/// <summary>The podcast app.</summary>
internal static class ListeningPages
{
    private const string Radio =
        "body{font:17px/1.5 'DejaVu Sans',sans-serif;background:#2a1730;color:#f7e9d7;margin:0}main{max-width:60rem;margin:0 auto;padding:1rem "
        + "1.5rem 3rem}a,summary{color:#ffb56b}h1,h2{font-weight:400;letter-spacing:.04em}img{border-radius:16px;width:220px;"
        + "height:220px}li{margin:.3rem 0}button,input{font:inherit;padding:.3rem .7rem}video,audio{width:100%;"
        + "max-width:44rem}pre{white-space:pre-wrap;background:#1d0f22;padding:.8rem;font-size:14px}";

    internal static void MapListening(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/podcasts", (Subscriptions all) => Page(
                "Podcast app",
                $"""
                <form method="post" action="/podcasts">
                <label>Address of the feed <input name="address" type="url" size="60" required></label> <button>Subscribe</button></form>
                <ul>{string.Concat(all.All.Select(s => $"<li><a href=\"/podcasts/{s.Number}\">{Pages.Text(s.Show?.Title)}</a></li>"))}</ul>
                """
            ));
        routes.MapPost("/podcasts", async (HttpRequest request, Subscriptions all, CancellationToken cancel) =>
            Uri.TryCreate((await request.ReadFormAsync(cancel))["address"], UriKind.Absolute, out var address) && address.Scheme is "http" or "https"
                ? Results.Redirect($"/podcasts/{(await all.AddAsync(address, cancel)).Number}")
                : Page("No such address", "<p>Give a whole web address.</p>", 400)
        );
        routes.MapGet("/podcasts/{number:int}", (int number, Subscriptions all) =>
            all.Find(number) is { Show: { } show } found ? ShowPage(found, show) : Page("No such show", "", 404)
        );
        routes.MapPost("/podcasts/{number:int}/refresh", async (int number, Subscriptions all, CancellationToken cancel) =>
        {
            if (all.Find(number) is { } found)
                await all.RefreshAsync(found, cancel);
            return Results.Redirect($"/podcasts/{number}");
        });
        routes.MapGet("/podcasts/{number:int}/{episode:int}", EpisodeAsync);
        routes.MapPost("/podcasts/{number:int}/{episode:int}/download", async (int number, int episode, Subscriptions all, CancellationToken cancel) =>
        {
            if (all.Find(number) is { Show: { } show } found && episode < show.Episodes.Count)
                await all.DownloadAsync(found, episode, cancel);
            return Results.Redirect($"/podcasts/{number}/{episode}");
        });
        routes.MapGet("/podcasts/{number:int}/{episode:int}/media", (int number, int episode, Subscriptions all) =>
            all.Find(number) is { Show: { } show } found && episode < show.Episodes.Count && File.Exists(all.Kept(found, episode))
                ? Results.File(all.Kept(found, episode), show.Episodes[episode].IsVideo ? "video/mp4" : "audio/mp4", enableRangeProcessing: true)
                : Results.NotFound()
        );
    }

    private static IResult ShowPage(Subscription found, Show show) =>
        Page(
            show.Title,
            $"""
            <p><a href="/podcasts">all shows</a></p>
            {(show.Artwork is { } artwork ? $"<img src=\"{Pages.Text(artwork)}\" alt=\"Artwork of {Pages.Text(show.Title)}\">" : "")}
            <p>{Pages.Text(show.Author)}</p><p>{Pages.Text(show.Description)}</p>
            <form method="post" action="/podcasts/{found.Number}/refresh"><button>Refresh</button></form>
            <h2>Episodes</h2>
            <ol>{string.Concat(
                show.Episodes.Select((e, i) => $"<li><a href=\"/podcasts/{found.Number}/{i}\">{Pages.Text(e.Title)}</a>, {Length(e.Seconds)}</li>")
            )}</ol>
            <h2>What is wrong with it</h2>
            {(show.Troubles.Count == 0 ? "<p>Nothing.</p>" : $"<ul>{string.Concat(show.Troubles.Select(t => $"<li>{Pages.Text(t)}</li>"))}</ul>")}
            <h2>What was asked of its server</h2><pre>{Pages.Text(string.Join('\n', found.Asked))}</pre>
            """
        );

    private static async Task<IResult> EpisodeAsync(int number, int episode, Subscriptions all, CancellationToken cancel)
    {
        if (all.Find(number) is not { Show: { } show } found || episode >= show.Episodes.Count)
            return Page("No such episode", "", 404);
        var e = show.Episodes[episode];
        var (chapters, transcript) = (await all.TextAsync(e.Chapters, cancel), await all.TextAsync(e.Transcript, cancel));
        var kept = File.Exists(all.Kept(found, episode));
        var tag = e.IsVideo ? "video" : "audio";
        return Page(
            e.Title,
            $"""
            <p><a href="/podcasts/{number}">{Pages.Text(show.Title)}</a></p>
            {(kept
                ? $"<{tag} id=\"player\" controls src=\"/podcasts/{number}/{episode}/media\" aria-label=\"{Pages.Text(e.Title)}\"></{tag}>"
                : $"<form method=\"post\" action=\"/podcasts/{number}/{episode}/download\"><button>Download, "
                    + $"{(e.Bytes / 1000).ToString(CultureInfo.InvariantCulture)} kB</button></form>")}
            {Cleaning.Clean(e.Html)}
            {(chapters is null ? "" : $"<h2>Chapters</h2><ol>{Chapters(chapters)}</ol>")}
            {(transcript is null ? "" : $"<h2>Transcript</h2><pre tabindex=\"0\">{Pages.Text(transcript)}</pre>")}
            <script>for (const b of document.querySelectorAll('[data-at]')) b.onclick = () => {"{"} const p = document.getElementById('player'); "
                + "if (p) p.currentTime = Number(b.dataset.at) {"}"}</script>
            """
        );
    }

    private static string Chapters(string json) =>
        string.Concat(
            JsonSerializer
                .Deserialize<JsonElement>(json)
                .GetProperty("chapters")
                .EnumerateArray()
                .Select(c =>
                {
                    var at = c.GetProperty("startTime").GetDouble().ToString(CultureInfo.InvariantCulture);
                    return $"<li><button data-at=\"{at}\">{Length(at)} {Pages.Text(c.GetProperty("title").GetString())}</button></li>";
                })
        );

    private static string Length(string seconds) =>
        double.TryParse(seconds, CultureInfo.InvariantCulture, out var s)
            ? TimeSpan.FromSeconds(Math.Floor(s)).ToString("m\\:ss", CultureInfo.InvariantCulture)
            : Pages.Text(seconds);

    private static IResult Page(string title, string body, int status = 200) => Pages.Html(title, body, status, Radio);
}
