using Microsoft.AspNetCore.StaticFiles;

namespace Wexel.StandIns;

/// <summary>The sites on the host's disk.</summary>
internal sealed class Sites(string data)
{
    private readonly string _root = Directory.CreateDirectory(Path.Combine(data, "sites")).FullName;

    internal IEnumerable<string> All => Directory.EnumerateDirectories(_root).Select(d => Path.GetFileName(d)).Order(StringComparer.Ordinal);

    internal void Unpack(string name, Stream zip)
    {
        if (!Archive.IsPlainName(name))
            throw new RefusedException("A site's name has lower-case letters, digits and hyphens, 60 at most.");
        Archive.Unpack(zip, Path.Combine(_root, name));
    }

    internal string? Find(string name, string path) => Archive.Find(Path.Combine(_root, name), path.Length == 0 ? "index.html" : path);
}

/// <summary>Takes a ZIP by form or by PUT and serves what is in it.</summary>
internal static class WebHostPages
{
    private static readonly FileExtensionContentTypeProvider Types = new() { Mappings = { [".vtt"] = "text/vtt" } };

    internal static void MapWebHost(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/host", (Sites sites) => Pages.Html(
                "Web host",
                $"""
                <form method="post" action="/host" enctype="multipart/form-data">
                <p><label>Site <input name="name" required pattern="[a-z0-9-]+"></label>
                <label>ZIP <input type="file" name="zip" accept=".zip" required></label> <button>Unpack</button></p></form>
                <ul>{string.Concat(sites.All.Select(s => $"<li><a href=\"/sites/{s}/\">{s}</a></li>"))}</ul>
                """
            ));
        routes.MapPost("/host", async (HttpRequest request, Sites sites) =>
        {
            var form = await request.ReadFormAsync();
            if (form.Files["zip"] is not { } file)
                return Pages.Html("Not taken", "<p>There is no file.</p>", 400);
            await using var zip = file.OpenReadStream();
            return Take(sites, form["name"].ToString(), zip);
        });
        routes.MapPut("/sites/{name}", (string name, HttpRequest request, Sites sites) => Archive.WithBodyAsync(request, zip => Take(sites, name, zip)));
        routes.MapGet("/sites/{name}/{**path}", (string name, string? path, Sites sites, HttpRequest request) =>
        {
            if (string.IsNullOrEmpty(path) && !request.Path.Value!.EndsWith('/'))
                return Results.Redirect(request.Path + "/");
            return sites.Find(name, path ?? "") is { } file
                ? Results.File(file, Types.TryGetContentType(file, out var type) ? type : "application/octet-stream", enableRangeProcessing: true)
                : Pages.Html("Not found", "", 404);
        });
    }

    private static IResult Take(Sites sites, string name, Stream zip)
    {
        try
        {
            sites.Unpack(name, zip);
            return Results.Redirect($"/sites/{name}/");
        }
        catch (RefusedException refused)
        {
            return Pages.Html("Not taken", $"<p>{Pages.Text(refused.Message)}</p>", 400);
        }
    }
}
