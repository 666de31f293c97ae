using System.Xml.Linq;
using Wexel.Core.Keys;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Packages;

public class CourseFolderTests
{
    private static IReadOnlyList<PackageFile> Plan(string title, string description, params (string Title, string Description)[] lessons) =>
        CourseFolder.Plan(
            title,
            description,
            [
                .. lessons.Select(
                    (l, i) =>
                        new LessonSources(
                            new PlayerLesson($"key{i}", l.Title, l.Description, "en", Ms.Of(60_000 * (i + 1)), 1280, 720, "", null, [], []),
                            new KeyedFile($"/v{i}.mp4", $"v{i}"),
                            i == 0 ? new LessonPoster(new KeyedFile("/p.jpg", "p"), new PictureSize(1280, 720)) : null
                        )
                ),
            ],
            [("wexel-player.js", new KeyedFile("/a.js", "a")), ("wexel-player.css", new KeyedFile("/a.css", "c")), ("hls.min.js", new KeyedFile("/h.js", "h"))]
        );

    private static string Text(IEnumerable<PackageFile> files, string path) => ((PackageContent.Text)files.Single(f => f.Path == path).Content).Value;

    [Fact]
    public void Each_lesson_has_a_folder_of_its_own_and_one_page_is_linked()
    {
        var files = Plan("Ticket desk", "", ("Fares", ""), ("Fares", ""), ("CON", ""), ("player", ""), ("a/b: c?", ""));
        files.Where(f => f.IsThePageToLink).ShouldHaveSingleItem().Path.ShouldBe("index.html");
        var pages = files.Select(f => f.Path).Where(p => p.EndsWith("/index.html", StringComparison.Ordinal)).Select(p => p[..^11]).ToList();
        pages.Count.ShouldBe(5);
        pages.ShouldBeUnique();
        pages[0].ShouldBe("Fares");
        // Windows knows no difference between letters' cases, and has names and characters of its own (Naming Files, Paths, and Namespaces).
        pages.Select(p => p.ToUpperInvariant()).ShouldBeUnique();
        pages.ShouldNotContain("player");
        pages.ShouldAllBe(p =>
            !p.Any(c => "/\\:*?\"<>|".Contains(c, StringComparison.Ordinal)) && !string.Equals(p, "CON", StringComparison.OrdinalIgnoreCase)
        );
        files.Select(f => f.Path).ShouldBeUnique();
        files.ShouldNotContain(f => f.Path.EndsWith("hls.min.js", StringComparison.Ordinal), "Nothing comes in pieces.");
    }

    [Fact]
    public void Lessons_stand_in_teaching_order_and_lead_to_each_other()
    {
        var files = Plan("Ticket desk", "For the desk.", ("One & two", "First.\nSecond."), ("Three", ""), ("Four", ""));
        var page = Text(files, "index.html");
        page.ShouldContain("3 lessons, 6:00");
        var at = new[] { "One &amp; two", "Three", "Four" }.Select(t => page.IndexOf($">{t}</a>", StringComparison.Ordinal)).ToList();
        at.ShouldBe(at.Where(a => a > 0).Order());
        page.ShouldContain("<p class=\"description\">First.</p>\n<p class=\"description\">Second.</p>");
        page.ShouldContain("""<li data-lesson="key0" data-length="60000" data-complete="90">""");
        page.ShouldContain("href=\"One%20%26%20two/index.html\"");

        System.Text.Json.JsonElement Place(string folder)
        {
            var html = Text(files, folder + "/index.html");
            var from = html.IndexOf("id=\"wexel-lesson\">", StringComparison.Ordinal) + 18;
            return System.Text.Json.JsonDocument.Parse(html[from..html.IndexOf("</script>", from, StringComparison.Ordinal)]).RootElement.GetProperty("place");
        }

        Place("Three").GetProperty("previous").GetProperty("address").GetString().ShouldBe("../One%20%26%20two/index.html");
        Place("Three").GetProperty("next").GetProperty("title").GetString().ShouldBe("Four");
        Place("Three").GetProperty("where").GetString().ShouldBe("lesson 2 of 3");
        Place("One & two").GetProperty("previous").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        Place("Four").GetProperty("next").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        Place("Four").GetProperty("allLessons").GetString().ShouldBe("../index.html");
    }

    /// <summary>Every address of the page is relative and names a file of the folder (URI: RFC 3986).</summary>
    [Fact]
    public void The_page_names_what_is_there_and_nothing_from_elsewhere()
    {
        var files = Plan("</script> & \"x\"", "<b>", ("עברית / 日本 🚢", "<i>"), (new string('x', 500), ""), (" ", ""));
        var page = Text(files, "index.html");
        // The page is well-formed but for the elements that HTML never closes.
        var body = page[page.IndexOf("<main", StringComparison.Ordinal)..(page.IndexOf("</main>", StringComparison.Ordinal) + 7)];
        var named = XElement
            .Parse(System.Text.RegularExpressions.Regex.Replace(body, "(<img[^>]*)>", "$1/>"))
            .DescendantsAndSelf()
            .Attributes()
            .Where(a => a.Name.LocalName is "href" or "src")
            .Select(a => Uri.UnescapeDataString(a.Value))
            .ToList();
        named.ShouldNotBeEmpty();
        named.ShouldBeSubsetOf(files.Select(f => f.Path));
        page.ShouldNotContain("http");
        page.ShouldNotContain("<b>");
        page.ShouldNotContain("<i>");
        files.SelectMany(f => f.Path.Split('/')).ShouldAllBe(part => part.Length <= 255);
    }
}
