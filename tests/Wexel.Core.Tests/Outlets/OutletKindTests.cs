using System.Text.Json.Nodes;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Outlets.LearningSystems;
using Wexel.Core.Outlets.PodcastFeeds;
using Wexel.Core.Outlets.WebServers;
using Wexel.Core.Placing;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Recordings;
using Wexel.Core.Surveys;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Outlets;

public class OutletKindTests
{
    private static OutletTerms Terms(string kind, string? media = null)
    {
        var found = OutletKinds.Shipped[kind];
        if (media is null)
            return found.Terms(null);
        found.Accept(new JsonObject { ["title"] = "On the way", ["media"] = media }).Is(out var settings, out _).ShouldBeTrue();
        return found.Terms(settings);
    }

    [Theory]
    [InlineData("web", "channel", null, null)]
    [InlineData("web", "learningSystem", null, null)]
    [InlineData("open-formats", "webServer", null, null)]
    [InlineData("open-formats", "learningSystem", null, "takes-format")]
    [InlineData("podcast-sound", "channel", null, "takes-picture")]
    [InlineData("master", "webServer", null, "takes-format")]
    [InlineData("adaptive", "learningSystem", null, "takes-one-file")]
    [InlineData("web", "podcastFeed", "video", "takes-every-frame")]
    [InlineData("podcast-720p", "podcastFeed", "video", null)]
    [InlineData("open-formats", "podcastFeed", "sound", "takes-format")]
    [InlineData("podcast-sound", "podcastFeed", "video", "takes-picture")]
    [InlineData("podcast-sound", "podcastFeed", "sound", null)]
    [InlineData("web", "podcastFeed", "sound", null)]
    public void An_outlet_says_what_it_would_refuse(string profile, string kind, string? media, string? code) =>
        (Terms(kind, media).Refusal(Profiles.Find(profile)!)?.Code).ShouldBe(code);

    [Fact]
    public void What_is_taken_is_said_from_what_is_declared()
    {
        Terms("learningSystem").Takes.Words.ShouldBe("MP4 or M4V with H.264 and AAC, 2 at a time");
        Terms("podcastFeed", "video").Takes.Words.ShouldBe("MP4, M4V or MOV with H.264 and AAC, at a constant frame rate");
        Terms("podcastFeed", "sound").Takes.Words.ShouldBe("MP4, M4V, MOV or M4A with AAC");
        (Takes.OnPages with { Largest = new PictureSize(1280, 720), MostBytes = 500_000_000, MostLength = TimeSpan.FromMinutes(15) }).Words.ShouldBe(
            "MP4, M4V, WebM or HLS with H.264, VP9 or AV1 and AAC or Opus, pictures of at most 1280 × 720, at most 500 MB, at most 15:00"
        );
        Terms("learningSystem")
            .Refusal(Profiles.Find("open-formats")!)!
            .Sentence.ShouldBe(
                "Learning systems take MP4 or M4V with H.264 and AAC, and “Open formats” makes WebM with AV1 and Opus. Take “Web, as recorded”."
            );
    }

    [Theory]
    [InlineData(1280, 720, null)]
    [InlineData(720, 1280, "takes-smaller-picture")]
    [InlineData(1920, 1080, "takes-smaller-picture")]
    public void A_picture_that_is_larger_than_is_taken_is_refused_before_it_is_made(int width, int height, string? code)
    {
        var takes = Takes.OnPages with { Largest = new PictureSize(1280, 720) };
        var plan = RenderPlanner.Plan(Reel.Of(Sample.Facts()), Reel.Of(Sample.Facts()).Map([]), Profiles.Web, new LessonLook());
        (takes.Unfit("Fares", plan with { Pictures = [plan.Picture! with { Size = new PictureSize(width, height) }] })?.Code).ShouldBe(code);
    }

    [Theory]
    [InlineData("channel", null)]
    [InlineData("webServer", null)]
    [InlineData("learningSystem", null)]
    [InlineData("podcastFeed", "video")]
    [InlineData("podcastFeed", "sound")]
    public void Every_outlet_takes_its_usual_profile(string kind, string? media) => Terms(kind, media).Refusal(Terms(kind, media).Usual).ShouldBeNull();

    [Fact]
    public void The_kinds_that_ship_are_found_in_the_order_of_lists() =>
        OutletKinds.Shipped.All.Select(k => k.Code).ShouldBe(["channel", "videoService", "webServer", "folder", "learningSystem", "podcastFeed"]);

    [Fact]
    public void Every_kind_says_of_each_part_of_a_lesson_what_becomes_of_it()
    {
        foreach (var kind in OutletKinds.Shipped.All)
            kind.Carries.Select(c => c.What).ShouldBe(OutletKind.Parts, kind.Code);
        Carried
            .Sentence([new("Contents"), new("Captions", "A transcript."), new("Completion", Lost: true)])
            .ShouldBe("Captions: A transcript. Completion: not there.");
        Carried.Sentence(new ChannelKind().Carries).ShouldBeEmpty();
    }

    [Fact]
    public void What_some_lessons_alone_have_is_said_of_those()
    {
        var lesson = new LessonDocument("T", "", "en", "a", [], [], []);
        string Of(LessonDocument said) => Carried.Sentence(Carried.For(new PodcastFeedKind().Carries, [said]));
        string Said(params Question[] questions) => Of(lesson with { Questions = questions });
        Said().ShouldNotContain("Questions");
        var question = new Question("q", default, "?", new TrueOrFalse(true));
        Said(question).ShouldContain("Questions: not there. Score: not there.");
        Said(question with { Points = 0 }).ShouldNotContain("Score");
        Of(lesson).ShouldNotContain("notes");
        Of(lesson with { Notes = [new("n", new TimeRange(default, Ms.Of(1000)), "Here")] }).ShouldContain("Places to click, and notes: not there.");
        Of(lesson).ShouldNotContain("Survey");
        Of(lesson with { Survey = new Survey("", false, []) }).ShouldContain("Survey: not there.");
    }

    [Fact]
    public void Two_kinds_cannot_have_one_code() => Should.Throw<ArgumentException>(() => new OutletKinds([new WebServerKind(), new WebServerKind()]));

    [Fact]
    public void Every_field_that_is_asked_for_is_one_of_the_settings_and_what_can_be_chosen_is_taken()
    {
        foreach (var kind in OutletKinds.Shipped.All)
        {
            foreach (var field in kind.Fields)
            {
                kind.Start().ContainsKey(field.Name).ShouldBeTrue($"{kind.Code}: {field.Name}");
                foreach (var choice in field.Choices ?? [])
                {
                    kind.Accept(new JsonObject { ["title"] = "T", [field.Name] = choice.Value })
                        .Is(out var kept, out var problem)
                        .ShouldBeTrue(problem?.Sentence);
                    kind.Show(kept)[field.Name]!.GetValue<string>().ShouldBe(choice.Value);
                }
            }
        }
    }

    [Theory]
    [InlineData("webServer", "page", "intranet", "outlet-page-unusable")]
    [InlineData("learningSystem", "standard", "none", "outlet-standard-unknown")]
    [InlineData("podcastFeed", "media", "smell", "outlet-settings-unreadable")]
    public void What_cannot_be_used_is_said_with_its_field(string kind, string field, string value, string code)
    {
        OutletKinds.Shipped[kind].Accept(new JsonObject { ["title"] = "T", [field] = value }).Is(out _, out var problem).ShouldBeFalse();
        (problem!.Code, problem.Field).ShouldBe((code, field));
    }

    [Fact]
    public void Settings_that_are_kept_say_their_version()
    {
        new WebServerKind().Accept(new JsonObject { ["page"] = "https://intranet.example/lessons/" }).Is(out var kept, out _).ShouldBeTrue();
        kept.ShouldBe("""{"version":1,"page":"https://intranet.example/lessons/"}""");
    }

    [Fact]
    public void A_title_that_is_too_long_for_learning_systems_is_said_in_whole_words()
    {
        // imscp_rootv1p1p2.xsd, titleType: 200 characters.
        var title = string.Join(' ', Enumerable.Repeat("crossing", 30));
        new LearningSystemKind()
            .TitleThere(title)
            .ShouldBe(
                $"Learning systems take titles of at most 200 characters; in their lists it reads “{string.Join(' ', Enumerable.Repeat("crossing", 22))}…”."
            );
        new LearningSystemKind().TitleThere(title[..200]).ShouldBeNull();
        OutletKinds.Shipped["channel"].TitleThere(title).ShouldBeNull();
    }

    /// <summary>What the desk and the server go by, kind by kind.</summary>
    [Theory]
    [InlineData("channel", true, false, false, false)]
    [InlineData("webServer", false, true, true, true)]
    [InlineData("folder", false, true, true, true)]
    [InlineData("learningSystem", false, true, false, false)]
    [InlineData("podcastFeed", false, false, false, false)]
    public void Each_kind_says_what_it_is(string kind, bool pages, bool courses, bool files, bool takesBack)
    {
        var found = OutletKinds.Shipped[kind];
        (found.HasPages, found.TakesCourses, found.DeliversFiles, found.TakesBack).ShouldBe((pages, courses, files, takesBack));
    }

    [Theory]
    [InlineData(4000, null)]
    [InlineData(4001, "channel-about-too-long")]
    public void What_a_channel_is_about_has_an_end(int length, string? code)
    {
        OutletKinds.Shipped["channel"].Accept(new JsonObject { ["about"] = new string('a', length) }).Is(out _, out var problem);
        (problem?.Code).ShouldBe(code);
    }

    [Fact]
    public void A_new_feed_is_fit_for_children_and_kept_out_of_directories()
    {
        OutletKinds.Shipped["podcastFeed"].Accept(new JsonObject { ["title"] = "On the way" }).Is(out var settings, out _).ShouldBeTrue();
        var shown = OutletKinds.Shipped["podcastFeed"].Show(settings);
        (shown["explicit"]!.GetValue<bool>(), shown["unlisted"]!.GetValue<bool>()).ShouldBe((false, true));
    }
}
