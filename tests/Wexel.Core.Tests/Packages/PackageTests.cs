using Wexel.Core.Captions;
using Wexel.Core.Keys;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Packages;

public class PackageTests
{
    private const string Nasty = "</script><script>alert(1)</script> & \"quoted\" <b>";

    private static PlayerLesson Lesson() =>
        new(
            "key",
            Nasty,
            Nasty,
            "en",
            Ms.Of(60_000),
            1280,
            720,
            "",
            null,
            [new("a", Ms.Of(0), Nasty)],
            [new PlayerCaptions("en", [new Cue(new TimeRange(Ms.Of(0), Ms.Of(1000)), Nasty)])]
        );

    [Fact]
    public void A_page_shows_markup_as_text()
    {
        var html = PlayerPage.Html(Lesson(), "player/");
        html.ShouldNotContain("<script>alert");
        html.ShouldNotContain("<b>");
        html.ShouldContain("&lt;/script&gt;");
    }

    /// <summary>A section leads into the video by its time (W3C Media Fragments 1.0, section 4.2.1: <c>#t=</c> and seconds).</summary>
    [Fact]
    public void Without_scripts_there_are_the_video_its_captions_and_its_contents()
    {
        var lesson = Lesson() with
        {
            Video = "/watch/abc/video.mp4",
            Description = "First.\n\nThen.",
            Sections = [new("a", Ms.Of(0), "One"), new("b", Ms.Of(61_500), "Two")],
            Captions = [new PlayerCaptions("en-GB", []), new PlayerCaptions("es", [], TrackKind.Translation), new PlayerCaptions("fr", [], Draft: true)],
        };
        var site = new PlayerSite("House", "Where", null, null, new PlayerLink("Next & last", "/watch/def"));
        var html = PlayerPage.Html(lesson, "player/", site, files: "/watch/abc/");
        html = html[html.IndexOf("<noscript>", StringComparison.Ordinal)..html.IndexOf("</noscript>", StringComparison.Ordinal)];
        html.ShouldContain("<p dir=\"auto\" lang=\"en\">Then.</p>");
        html.ShouldContain("<a href=\"/watch/abc/video.mp4#t=61.5\">1:01</a>");
        html.ShouldContain("<track kind=\"captions\" src=\"/watch/abc/captions-en-GB.vtt\" srclang=\"en-GB\" label=\"en-GB\" default>");
        html.ShouldContain("<track kind=\"subtitles\" src=\"/watch/abc/captions-es.vtt\"");
        html.ShouldContain("label=\"fr, draft\"");
        html.ShouldContain("<a href=\"/watch/def\" dir=\"auto\">Next &amp; last</a>");
        // What is made for children leads nowhere else.
        var forChildren = lesson with { Details = PlayerDetails.Of(new Core.Details.DetailSet(ForChildren: true)) };
        PlayerPage.Html(forChildren, "player/", site).ShouldNotContain("Next lesson:");
    }

    /// <summary>Where the page comes from a server its picture stands in it, before any script has run.</summary>
    [Fact]
    public void A_page_from_a_server_shows_the_picture_at_once_and_one_from_a_package_as_the_player_does()
    {
        var lesson = Lesson() with { Poster = new PlayerPoster("/watch/a\"b/poster.jpg", 1280, 720), Width = 640, Height = 480 };
        var site = new PlayerSite("<House>", "Where", null, Served: new PlayerServed("https://a.example/watch/ab", null, null, null));
        var html = PlayerPage.Html(lesson, "player/", site);
        html = html[html.IndexOf("</noscript>", StringComparison.Ordinal)..html.IndexOf("<script", StringComparison.Ordinal)];
        html.ShouldContain("<img src=\"/watch/a&quot;b/poster.jpg\" width=\"640\" height=\"480\" alt=\"\"");
        html.ShouldContain("--ratio:1.3333");
        html.ShouldContain("&lt;House&gt;");
        PlayerPage.Html(lesson, "player/", site with { Served = null }).ShouldNotContain("<img");
        PlayerPage.Html(lesson with { Embedded = true }, "player/", site).ShouldNotContain("<img");
        PlayerPage.Html(lesson with { Poster = null }, "player/", site).ShouldNotContain("<img");
    }

    [Fact]
    public void A_page_loads_nothing_from_anywhere_else()
    {
        var html = PlayerPage.Html(Lesson(), "player/");
        html.ShouldNotContain("http:");
        html.ShouldNotContain("https:");
        html.ShouldNotContain("src=\"//");
    }

    [Fact]
    public void A_folder_names_one_page_to_link_and_explains_every_file()
    {
        var files = WebFolder.Plan(
            new LessonSources(Lesson(), new KeyedFile("/v.mp4", "v"), new LessonPoster(new KeyedFile("/p.jpg", "p"), new PictureSize(1280, 720))),
            [("wexel-player.js", new KeyedFile("/a.js", "a")), ("wexel-player.css", new KeyedFile("/a.css", "c"))]
        );
        files.Where(f => f.IsThePageToLink).ShouldHaveSingleItem().Path.ShouldBe("index.html");
        files
            .Select(f => f.Path)
            .ShouldBe([
                "index.html",
                "lesson.mp4",
                "poster.jpg",
                "captions-en.vtt",
                "contents.vtt",
                "player/wexel-player.js",
                "player/wexel-player.css",
                "read me.txt",
            ]);
        files.ShouldAllBe(f => f.Purpose.EndsWith('.'));
        var explained = ((PackageContent.Text)files[^1].Content).Value;
        files.SkipLast(1).ShouldAllBe(f => explained.Contains(f.Path));
    }

    [Fact]
    public void A_lesson_without_captions_contents_and_poster_has_a_smaller_folder() =>
        WebFolder
            .Plan(new LessonSources(Lesson() with { Captions = [], Sections = [] }, new KeyedFile("/v.mp4", "v"), null), [])
            .Select(f => f.Path)
            .ShouldBe(["index.html", "lesson.mp4", "read me.txt"]);

    [Fact]
    public void An_embed_code_is_safe_in_any_page_and_keeps_the_shape()
    {
        var code = HandOn.EmbedCode(new Uri("http://desk.example/embed/abc?x=1&y=2"), Nasty, new PictureSize(1440, 1080));
        code.ShouldStartWith("<iframe src=\"http://desk.example/embed/abc?x=1&amp;y=2\"");
        code.ShouldContain("aspect-ratio:1440/1080");
        code.ShouldNotContain("<script>");
        code.Count(c => c == '<').ShouldBe(2);
    }

    /// <summary>A lesson that asks, and one that does not: each page and package has the parts of the player that it needs, and no others.</summary>
    [Fact]
    public void Parts_of_the_player_come_with_the_lessons_that_need_them()
    {
        var question = new Question("q1", default, "Which lane?", new TrueOrFalse(true), AskedWhen.SectionEnd);
        var asks = Lesson() with { Questions = PlayerQuestion.List([question], [], TimeSpan.FromMinutes(1)) };
        IReadOnlyList<(string, KeyedFile)> player =
        [
            .. new[] { "wexel-player.js", "wexel-questions.js", "wexel-questions.css", "wexel-scorm12.js" }.Select(name =>
                (name, new KeyedFile("/" + name, name))
            ),
        ];
        IEnumerable<string> Of(PlayerLesson lesson) => LessonFiles.OfPlayer(player, [lesson]).Select(f => f.Path);
        Of(Lesson()).ShouldBe(["player/wexel-player.js"]);
        Of(asks).ShouldBe(["player/wexel-player.js", "player/wexel-questions.js", "player/wexel-questions.css"]);
        Of(Lesson() with { Runtime = Scorm12Package.Runtime }).ShouldBe(["player/wexel-player.js", "player/wexel-scorm12.js"]);
        PlayerPage.Html(Lesson(), "player/").ShouldNotContain("wexel-questions");
        var html = PlayerPage.Html(asks, "player/");
        // Parts register themselves before the player begins.
        html.IndexOf("player/wexel-questions.js", StringComparison.Ordinal)
            .ShouldBeInRange(1, html.IndexOf("player/wexel-player.js", StringComparison.Ordinal));
        html.ShouldContain("player/wexel-questions.css");
        // Without a section to end, it is asked at the lesson's end.
        asks.Questions[0].At.ShouldBe(TimeSpan.FromMinutes(1));
        html.ShouldContain("\"correct\":[\"true\"]");
        PlayerPage.Html(asks.WithoutKeys, "player/").ShouldNotContain("correct");
    }
}
