using Wexel.StandIns.Video.Door;

namespace Wexel.StandIns.Video.Studio;

/// <summary>What people see at Skerry: the videos, one that plays, and where it is changed by hand.</summary>
internal static class StudioPages
{
    internal static void MapStudio(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/", Home);
        routes.MapGet("/v/{id}", Watch);
        routes.MapGet("/e/{id}", Embedded);
        routes.MapGet("/v/{id}/file", (string id, Store store) =>
            store.Find(id) is { } v && store.Plays(v) is { } f && v.State(DateTimeOffset.UtcNow) is VideoState.Small or VideoState.Ready
                ? Results.File(f, "video/mp4", enableRangeProcessing: true)
                : Results.NotFound()
        );
        routes.MapGet("/v/{id}/thumbnail", (string id, Store store) =>
            store.Find(id) is { Thumbnail: not null } ? Results.File(store.Thumbnail(id), "image/jpeg") : Results.NotFound()
        );
        routes.MapGet("/v/{id}/captions/{language}", (string id, string language, Store store) =>
            store.Find(id)?.Captions.ContainsKey(language) == true ? Results.File(store.Captions(id, language), "text/vtt") : Results.NotFound()
        );
        routes.MapPost("/studio/{id}", ByHandAsync);
        routes.MapPost("/troubles", async (HttpRequest request, Troubles troubles) =>
        {
            var form = await request.ReadFormAsync();
            troubles.Set(form["code"].ToString(), int.TryParse(form["requests"], out var requests) ? requests : 1, form["to"].ToString());
            return Results.Redirect("/");
        });
        routes.MapPost("/studio/done", (Store store) =>
        {
            store.BeDone();
            return Results.Redirect("/");
        });
    }

    private static IResult Home(Store store, Accounts accounts, Troubles troubles)
    {
        var now = DateTimeOffset.UtcNow;
        return Look.Page(
            "Everything at Skerry",
            $"""
            <table><tr><th>Video</th><th>Channel</th><th>State</th><th>Who sees it</th></tr>{string.Concat(store.All.Select(v => Row(v, now)))}</table>
            <form method="post" action="/studio/done"><button>Be done with processing now</button></form>
            <h2>Lists</h2><ul>{string.Concat(store.Lists.Select(l => $"<li>{Look.Text(l.Title)} ({l.Visibility}): {l.Videos.Count} videos</li>"))}</ul>
            <h2>Programs that were let in</h2><ul>{string.Concat(accounts.All.Select(Row))}</ul>
            <h2>What goes wrong</h2><form method="post" action="/troubles"><label>It <select name="code">{string.Concat(
                Troubles.All.Select(t => $"<option value=\"{t.Code}\">{t.Words}</option>")
            )}</select></label> <label>for <input name="requests" type="number" value="1" min="0"> requests</label>
            <label>on to <input name="to" placeholder="http://169.254.169.254/"></label> <button>So be it</button></form>
            <ul>{string.Concat(Troubles.All.Where(t => troubles.Left(t.Code) > 0).Select(t => $"<li>{t.Words}: {troubles.Left(t.Code)} more</li>"))}</ul>
            """
        );
    }

    private static string Row(Video video, DateTimeOffset now) =>
        $"<tr><td><a href=\"/v/{video.Id}\">{Look.Text(video.Texts.Title)}</a></td><td>{Look.Text(video.Channel)}</td>"
        + $"<td>{Words(video, now)}</td><td>{video.SeenBy(now)}</td></tr>";

    private static string Row(Accounts.Allowed allowed) =>
        $"<li>{Look.Text(allowed.Client)} for {Look.Text(allowed.Account)} <form method=\"post\" action=\"/door/withdraw?grant={allowed.Grant}\" "
        + "style=\"display:inline\"><button>Withdraw</button></form></li>";

    private static string Player(Video video)
    {
        var poster = video.Thumbnail is null ? "" : $" poster=\"/v/{video.Id}/thumbnail\"";
        var tracks = video.Captions.Keys.Select(l => $"<track kind=\"captions\" srclang=\"{l}\" label=\"{l}\" src=\"/v/{video.Id}/captions/{l}\">");
        return $"<video controls preload=\"metadata\" src=\"/v/{video.Id}/file\"{poster}>{string.Concat(tracks)}</video>";
    }

    private static string Facts(Video video, DateTimeOffset now) =>
        string.Join(
            " · ",
            new[]
            {
                Words(video, now),
                video.SeenBy(now),
                Look.Text(video.Texts.Category),
                Look.Text(string.Join(", ", video.Texts.Tags ?? [])),
                video.Texts.MadeForChildren == true ? "made for children" : "not made for children",
            }
        );

    private static string Words(Video video, DateTimeOffset now) =>
        video.State(now) switch
        {
            VideoState.Uploading => "uploading",
            VideoState.Processing => "processing",
            VideoState.Small => "plays in a small size, processing",
            VideoState.Ready => "ready",
            _ => $"refused: {Look.Text(video.Reason)}",
        };

    /// <param name="who">Who somebody says they are: named people and the account's owner see what is private.</param>
    private static IResult Watch(string id, string? who, Store store)
    {
        if (store.Find(id) is not { } video)
            return Look.Page("This video is not there", "<p>It was removed, or never was.</p>", 404);
        var (now, t) = (DateTimeOffset.UtcNow, video.Texts);
        if (video.SeenBy(now) == "private" && who != Account.Find(video.Account)!.Mail && t.Named?.Contains(who, StringComparer.OrdinalIgnoreCase) != true)
            return Look.Page("This video is private", "<form><label>I am <input name=\"who\" type=\"email\"></label> <button>Look</button></form>", 403);
        var state = video.State(now);
        var plays = state is VideoState.Small or VideoState.Ready;
        return Look.Page(
            t.Title ?? "",
            $"""
            {(plays ? Player(video) : "<p><b>This video is not ready yet.</b></p>")}
            <p>{Facts(video, now)}</p>
            <pre>{Look.Text(t.Description)}</pre>
            <h2>Change it by hand</h2><form method="post" action="/studio/{id}">
            <p><label>Title <input name="title" size="60" value="{Look.Text(t.Title)}"></label></p>
            <p><label>Description <textarea name="description" cols="70" rows="5">{Look.Text(t.Description)}</textarea></label></p>
            <p><label>Who sees it <select name="visibility">{string.Concat(
                Rules.Visibilities.Select(v => $"<option{(v == t.Visibility ? " selected" : "")}>{v}</option>")
            )}</select></label> <button>Change</button> <button name="remove" value="yes">Remove it</button></p></form>
            """
        );
    }

    /// <summary>The player alone, for pages of others; what others may not show, or not everybody may see, says so there.</summary>
    private static IResult Embedded(string id, Store store)
    {
        var now = DateTimeOffset.UtcNow;
        var video = store.Find(id);
        var inside =
            video is not { Texts.MayEmbed: true } || video.SeenBy(now) == "private" ? "<p>This video is shown at Skerry alone.</p>"
            : video.State(now) is VideoState.Small or VideoState.Ready ? Player(video)
            : "<p>This video is not ready yet.</p>";
        return Look.Alone(video?.Texts.Title ?? "Skerry", inside);
    }

    private static async Task<IResult> ByHandAsync(string id, HttpRequest request, Store store)
    {
        var form = await request.ReadFormAsync();
        if (store.Find(id) is not { } video)
            return Results.NotFound();
        if (form["remove"].Count > 0)
        {
            store.Remove(video);
            return Results.Redirect("/");
        }

        store.Change(id, v =>
            v with
            {
                Version = v.Version + 1,
                Texts = v.Texts with
                {
                    Title = form["title"].ToString(),
                    Description = form["description"].ToString().ReplaceLineEndings("\n"),
                    Visibility = form["visibility"].ToString(),
                },
            }
        );
        return Results.Redirect($"/v/{id}");
    }
}
