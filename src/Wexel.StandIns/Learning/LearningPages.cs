using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.StaticFiles;

namespace Wexel.StandIns.Learning;

/// <summary>The practice learning system: takes packages, launches their items, and shows what they recorded.</summary>
internal static class LearningPages
{
    private const string Exercise =
        "body{font:17px/1.6 'DejaVu Serif',serif;color:#22305c;background:#fff linear-gradient(#e6ecf7 1px,transparent 1px) 0 0/100% "
        + "28px;margin:0}main{max-width:72rem;margin:0 auto;padding:1rem 2rem 3rem;border-left:2px solid "
        + "#d98b8b}a{color:#22305c}table{border-collapse:collapse;background:#fff;width:100%;font-size:15px}td,th{border:1px solid "
        + "#9fb0d8;padding:.25rem .6rem;text-align:left;overflow-wrap:anywhere}iframe{width:100%;height:720px;border:1px solid "
        + "#22305c;background:#fff}input,button{font:inherit}";

    private static readonly FileExtensionContentTypeProvider Types = new() { Mappings = { [".vtt"] = "text/vtt" } };
    private static readonly string Runtime = ReadRuntime();

    internal static void MapLearning(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/learning", (School school) => Page(
                "Practice learning system",
                $"""
                <form method="post" action="/learning" enctype="multipart/form-data">
                <label>Name <input name="name" required pattern="[a-z0-9\-]+"></label>
                <label>Package <input type="file" name="zip" accept=".zip" required></label> <button>Take it in</button></form>
                <ol>{string.Concat(school.Names.Select(n => $"<li><a href=\"/learning/courses/{n}\">{Pages.Text(school.Open(n)!.Title)}</a></li>"))}</ol>
                """
            ));
        routes.MapPost("/learning", async (HttpRequest request, School school) =>
        {
            var form = await request.ReadFormAsync();
            var name = form["name"].ToString();
            if (form.Files["zip"] is not { } file)
                return Page("Not taken", "<p>There is no file.</p>", 400);
            try
            {
                await using var zip = file.OpenReadStream();
                school.Take(name, zip);
                return Results.Redirect($"/learning/courses/{name}");
            }
            catch (RefusedException refused)
            {
                return Page("Not taken", $"<p role=\"alert\">{Pages.Text(refused.Message)}</p>", 422);
            }
        });
        routes.MapPut("/learning/packages/{name}", (string name, HttpRequest request, School school) => Archive.WithBodyAsync(request, zip =>
            {
                try
                {
                    var package = school.Take(name, zip);
                    var page = $"{request.Scheme}://{request.Host}/learning/courses/{name}";
                    if (school.Processing > TimeSpan.Zero)
                        return Processing(request.HttpContext, school, name);
                    return Results.Created(
                        page,
                        new
                        {
                            package.Title,
                            Items = package.Items.Select(i => i.Title),
                            Page = page,
                        }
                    );
                }
                catch (RefusedException refused)
                {
                    return Results.Problem(refused.Message, statusCode: 422, title: "The package was not taken");
                }
            }));
        // Where a package is made ready after it was taken, this says how far that is.
        routes.MapGet("/learning/packages/{name}/state", (string name, HttpContext http, School school) => school.Open(name) is null ? Results.NotFound()
            : school.LeftOf(name) > TimeSpan.Zero ? Processing(http, school, name)
            : Results.Redirect($"/learning/courses/{name}"));
        routes.MapGet("/learning/courses/{name}", (string name, School school) =>
            school.Open(name) is { } package ? Page(package.Title, Course(name, package, school)) : Page("No such course", "", 404)
        );
        routes.MapGet("/learning/launch/{name}/{item}", Launch);
        routes.MapGet("/learning/records/{name}/{item}/{pupil}", Record);
        routes.MapPost("/learning/records/{name}/{item}/{pupil}", (string name, string item, string pupil, JsonElement kept, School school) =>
        {
            if (Found(school, name, item, pupil) is null)
                return Results.NotFound();
            school.Keep(name, item, pupil, kept);
            return Results.NoContent();
        });
        routes.MapGet("/learning/runtime.js", () => Results.Text(Runtime, "text/javascript"));
        routes.MapGet("/learning/content/{name}/{**path}", (string name, string path, School school) =>
            school.Content(name, path) is { } file
                ? Results.File(file, Types.TryGetContentType(file, out var type) ? type : "application/octet-stream", enableRangeProcessing: true)
                : Results.NotFound()
        );
    }

    private static string Course(string name, Package package, School school) =>
        string.Concat(
            package.Items.Select(
                (item, number) =>
                    $"""
                        <h2>{number + 1}. {Pages.Text(
                            item.Title
                        )}</h2><table><thead><tr><th>Learner</th><th>cmi.core.lesson_status</th><th>cmi.core.total_time</th><th>Launch</th></tr></thead><tbody>
                        {string.Concat(School.Pupils.Select(p => Row(name, item, p, school)))}</tbody></table>
                        """
            )
        );

    private static string Row(string name, Item item, Pupil pupil, School school)
    {
        var elements = school.Kept(name, item.Id, pupil.Id)["elements"];
        var launch = $"/learning/launch/{name}/{Uri.EscapeDataString(item.Id)}?pupil={pupil.Id}";
        string Link(string where, string text) =>
            $"<a href=\"{Pages.Text($"{launch}&{where}")}\" aria-label=\"{Pages.Text($"{text}: {item.Title}, as {pupil.Name}")}\">{text}</a>";
        return $"""
            <tr><td>{Pages.Text(pupil.Name)}</td><td>{Pages.Text(elements?["cmi.core.lesson_status"]?.ToString() ?? "not attempted")}</td><td>{Pages.Text(
                elements?["cmi.core.total_time"]?.ToString() ?? ""
            )}</td>
            <td>{Link("place=frame", "in a frame")}, {Link("place=window", "in a window")}, {Link("place=frame&mode=browse", "browse")}, {Link(
                "place=frame&mode=review",
                "review"
            )}; <a href="/learning/records/{name}/{Uri.EscapeDataString(item.Id)}/{pupil.Id}" aria-label="{Pages.Text(
                $"Record: {item.Title}, {pupil.Name}"
            )}">record</a></td></tr>
            """;
    }

    /// <summary>It has a package and is not through with it (RFC 9110, section 15.3.3): where to ask, and when.</summary>
    private static IResult Processing(HttpContext http, School school, string name)
    {
        http.Response.Headers.RetryAfter = Math.Max(1, (int)Math.Ceiling(Math.Min(5, school.LeftOf(name).TotalSeconds))).ToString(CultureInfo.InvariantCulture);
        return Results.Accepted($"/learning/packages/{name}/state", new { Left = school.LeftOf(name).TotalSeconds });
    }

    private static IResult Launch(string name, string item, string pupil, School school, string place = "frame", string mode = "normal")
    {
        if (Found(school, name, item, pupil) is not var (launched, who))
            return Page("No such item", "", 404);
        var page = $"/learning/content/{name}/{launched.Page}";
        var start = JsonSerializer.Serialize(
            new
            {
                pupil = new { id = who.Id, name = who.Name },
                mode = mode is "browse" or "review" ? mode : "normal",
                page,
                keepAt = $"/learning/records/{name}/{Uri.EscapeDataString(item)}/{pupil}",
                kept = school.Kept(name, item, pupil),
                launch = Guid.NewGuid(),
            },
            JsonSerializerOptions.Web
        );
        return Page(
            launched.Title,
            $"""
            <p>{Pages.Text(who.Name)} · <a href="/learning/courses/{name}">back to the course</a> · <a href="/learning/records/{name}/{Uri.EscapeDataString(
                item
            )}/{pupil}">record</a></p>
            <script type="application/json" id="start">{start}</script><script src="/learning/runtime.js"></script>
            {(
                place == "window"
                    ? "<p><button id=\"open\">Open the lesson</button></p>"
                    : $"<iframe title=\"{Pages.Text(launched.Title)}\" src=\"{Pages.Text(page)}\" allow=\"fullscreen\"></iframe>"
            )}
            """
        );
    }

    private static IResult Record(string name, string item, string pupil, School school)
    {
        if (Found(school, name, item, pupil) is not var (kept, who))
            return Page("No such item", "", 404);
        var record = school.Kept(name, item, pupil);
        var elements = record["elements"]?.AsObject() ?? [];
        var log = record["log"]?.AsArray() ?? [];
        return Page(
            $"{kept.Title}: {who.Name}",
            $"""
            <p><a href="/learning/courses/{name}">back to the course</a></p>
            <table><thead><tr><th>Element</th><th>Value</th></tr></thead><tbody>{string.Concat(
                elements.OrderBy(e => e.Key, StringComparer.Ordinal).Select(e =>
                    $"<tr><td>{Pages.Text(e.Key)}</td><td>{Pages.Text(e.Value?.ToString())}</td></tr>"
                )
            )}</tbody></table>
            <h2>Calls</h2>
            <table><thead><tr><th>Call</th><th>Answer</th><th>Error</th></tr></thead><tbody>{string.Concat(
                log.Select(l =>
                    $"<tr><td>{Pages.Text(l?["call"]?.ToString())}</td><td>{Pages.Text(l?["answer"]?.ToString())}</td>"
                    + $"<td>{Pages.Text(l?["error"]?.ToString())}</td></tr>"
                )
            )}</tbody></table>
            """
        );
    }

    private static (Item Item, Pupil Pupil)? Found(School school, string name, string item, string pupil) =>
        school.Open(name)?.Items.FirstOrDefault(i => i.Id == item) is { } found && School.Pupils.FirstOrDefault(p => p.Id == pupil) is { } who
            ? (found, who)
            : null;

    private static IResult Page(string title, string body, int status = 200) =>
        Pages.Html(title, $"<p><a href=\"/learning\">all courses</a></p>{body}", status, Exercise);

    private static string ReadRuntime()
    {
        using var stream = typeof(LearningPages).Assembly.GetManifestResourceStream("Wexel.StandIns.Learning.runtime.js")!;
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
