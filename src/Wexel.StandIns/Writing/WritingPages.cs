namespace Wexel.StandIns.Writing;

/// <summary>Two places where links and embed codes are pasted: a discussion and a page editor.</summary>
internal static class WritingPages
{
    private const string Cork =
        "body{font:16px/1.6 'DejaVu Sans',sans-serif;background:#efe7f5;color:#2b1a3d;margin:0}main{max-width:52rem;margin:0 auto;padding:1rem "
        + "1.5rem 3rem}a{color:#5a2a8a}article{background:#fff;border-radius:10px;padding:.8rem 1.2rem;margin:1rem "
        + "0}textarea{width:100%;min-height:6rem;font:inherit}button{font:inherit}blockquote{border-left:4px solid #b89ad6;margin:.6rem "
        + "0;padding:.2rem 0 .2rem 1rem}iframe{max-width:100%}";

    internal static void MapWriting(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/discussion", (Discussion discussion) => Pages.Html(
                "Discussion",
                $"""
                <form method="post"><label for="text">Say something, with a link</label>
                <textarea id="text" name="text" required></textarea><button>Post</button></form>
                {string.Concat(discussion.All.Reverse().Select(Show))}
                """,
                style: Cork
            ));
        routes.MapPost("/discussion", async (HttpRequest request, Discussion discussion, CancellationToken cancel) =>
        {
            await discussion.AddAsync((await request.ReadFormAsync(cancel))["text"].ToString(), cancel);
            return Results.Redirect("/discussion");
        });
        routes.MapGet("/page-editor", () => Editor(""));
        routes.MapPost("/page-editor", async (HttpRequest request, CancellationToken cancel) =>
            Editor((await request.ReadFormAsync(cancel))["html"].ToString())
        );
    }

    private static string Show(Post post) =>
        $"""
            <article><p>{Pages.Text(post.Text)}</p>
            {(
                post.Preview is { } p
                    ? $"<blockquote><p><a href=\"{Pages.Text(post.Link)}\">{Pages.Text(p.Title)}</a><br>{Pages.Text(p.Provider)}</p>{p.Html}</blockquote>"
                    : ""
            )}
            {(post.NoPreview is { } reason ? $"<p>No preview: {Pages.Text(reason)}.</p>" : "")}</article>
            """;

    private static IResult Editor(string html)
    {
        var clean = Cleaning.Clean(html);
        return Pages.Html(
            "Page editor",
            $"""
            <form method="post"><label for="html">HTML of the page</label><textarea id="html" name="html">{Pages.Text(
                html
            )}</textarea><button>Show</button></form>
            {(html.Length == 0 ? "" : $"<h2>As it is shown</h2><article>{clean}</article><h2>What was kept</h2><pre>{Pages.Text(clean)}</pre>")}
            """,
            style: Cork
        );
    }
}
