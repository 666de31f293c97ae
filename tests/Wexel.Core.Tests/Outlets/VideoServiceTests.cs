using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.Packages;
using Wexel.Core.People;

namespace Wexel.Core.Tests.Outlets;

/// <summary>What is said at a video service, and what is done so that it stands there.</summary>
public class VideoServiceTests
{
    private static readonly Guid Account = Guid.Parse("01a230a9-6499-71ae-9408-36eddaa3cec0");
    private static readonly DateTimeOffset Noon = new(2026, 12, 1, 12, 0, 0, TimeSpan.Zero);

    private static readonly VideoTexts Texts = new(
        "Closing the till",
        "How the till is closed.",
        ["till"],
        "Work",
        ForChildren: false,
        "CC-BY-4.0",
        MayEmbed: true,
        TellFollowers: false,
        Visibility.WithLink,
        [],
        OpensAt: null
    );

    private static readonly VideoWanted Wanted = new(
        new VideoPlace(Account, "desk", ["basics"]),
        "video",
        Texts,
        "picture",
        new Dictionary<string, string> { ["en"] = "captions" }
    );

    private static readonly VideoThere There = new(
        Account,
        "desk",
        "v1",
        "https://skerry.example/v/v1",
        VideoStage.Ready,
        Video: "video",
        Said: Texts,
        Thumbnail: "picture",
        Captions: new Dictionary<string, string> { ["en"] = "captions" },
        Lists: ["basics"]
    );

    private static PlayerLesson Lesson(string description, params Section[] sections) =>
        new("k", "Closing the till", description, "en", TimeSpan.FromMinutes(3), 1280, 720, "", null, sections, []);

    private static VideoTexts Say(Opening opening, params string[] named) =>
        VideoTexts.Of(Lesson("How."), DetailSet.None with { Tags = ["till"] }, 5000, opening, named, Noon);

    [Fact]
    public void Where_all_stands_as_it_is_wanted_nothing_is_done() => VideoPlan.Steps(Wanted, There).ShouldBeEmpty();

    [Fact]
    public void Where_nothing_stands_the_picture_is_chosen_last_and_after_it_is_ready() =>
        VideoPlan.Steps(Wanted, null).ShouldBe([VideoStep.Upload, VideoStep.Say, VideoStep.Captions, VideoStep.Lists, VideoStep.Await, VideoStep.Thumbnail]);

    public static TheoryData<string, VideoWanted, VideoThere, VideoStep[]> Changes =>
        new()
        {
            { "another title", Wanted with { Texts = Texts with { Title = "Shut" } }, There, [VideoStep.Say] },
            { "open to all", Wanted with { Texts = Texts with { Visibility = Visibility.Everybody } }, There, [VideoStep.Say] },
            { "other captions", Wanted with { Captions = new Dictionary<string, string> { ["en"] = "others" } }, There, [VideoStep.Captions] },
            { "no captions", Wanted with { Captions = new Dictionary<string, string>() }, There, [VideoStep.Captions] },
            { "another picture", Wanted with { Thumbnail = "other" }, There, [VideoStep.Thumbnail] },
            { "the service's own picture", Wanted with { Thumbnail = null }, There with { Thumbnail = null }, [] },
            { "another playlist", Wanted with { Place = Wanted.Place with { Lists = ["tides"] } }, There, [VideoStep.Lists] },
            { "another video", Wanted with { Video = "other" }, There, [VideoStep.Upload, VideoStep.Await, VideoStep.Thumbnail] },
            { "still processed", Wanted, There with { Stage = VideoStage.SmallSize, Thumbnail = null }, [VideoStep.Await, VideoStep.Thumbnail] },
            { "refused", Wanted, There with { Stage = VideoStage.Refused }, [VideoStep.Upload, VideoStep.Await, VideoStep.Thumbnail] },
            {
                "removed there",
                Wanted,
                There with
                {
                    Stage = VideoStage.Gone,
                },
                [VideoStep.Upload, VideoStep.Say, VideoStep.Captions, VideoStep.Lists, VideoStep.Await, VideoStep.Thumbnail]
            },
            {
                "another channel",
                Wanted with
                {
                    Place = Wanted.Place with { Channel = "news" },
                },
                There,
                [VideoStep.Remove, VideoStep.Upload, VideoStep.Say, VideoStep.Captions, VideoStep.Lists, VideoStep.Await, VideoStep.Thumbnail]
            },
        };

    [Theory]
    [MemberData(nameof(Changes))]
    public void Only_what_differs_is_done(string what, VideoWanted wanted, VideoThere there, VideoStep[] steps) =>
        VideoPlan.Steps(wanted, there).ShouldBe(steps, what);

    [Fact]
    public void Contents_stand_below_the_description_as_lines_of_time_and_title()
    {
        // The list starts at 0:00, or times in it are no links (common practice, no source).
        var lesson = Lesson("How.", new Section("s1", TimeSpan.FromSeconds(12), "Coins"), new Section("s2", TimeSpan.FromSeconds(70), "Notes"));
        VideoTexts
            .Of(lesson, DetailSet.None, 5000, new Opening(Visibility.WithLink), [], Noon)
            .Description.ShouldBe("How.\n\nContents:\n0:00 …\n0:12 Coins\n1:10 Notes");
        VideoTexts.Of(lesson, DetailSet.None, 20, new Opening(Visibility.WithLink), [], Noon).Description.ShouldBe("How.", "too long with them");
    }

    [Fact]
    public void What_becomes_public_opens_by_itself_and_all_else_is_private_until_its_time_and_after()
    {
        var (before, after) = (Noon.AddHours(-1), Noon.AddHours(1));
        var ahead = Say(new Opening(Visibility.Everybody, after));
        (ahead.Visibility, ahead.OpensAt).ShouldBe((Visibility.Everybody, after));
        Say(new Opening(Visibility.WithLink, after)).Visibility.ShouldBe(Visibility.OnlyMe);
        Say(new Opening(Visibility.WithLink, before)).Visibility.ShouldBe(Visibility.WithLink);
        Say(new Opening(Visibility.Everybody, null, before)).Visibility.ShouldBe(Visibility.OnlyMe);
        Say(new Opening(Visibility.Named), "joss.reed@brackwater.example").Named.ShouldBe(["joss.reed@brackwater.example"]);
        Say(new Opening(Visibility.WithLink), "joss.reed@brackwater.example").Named.ShouldBeEmpty();
    }

    [Fact]
    public void What_is_said_otherwise_is_named_with_both_sides()
    {
        var theirs = Texts with { Title = "Shut the till", Visibility = Visibility.Named, Named = ["joss.reed@brackwater.example"], ForChildren = true };
        VideoTexts
            .Differences(Texts, theirs)
            .Select(d => (d.Field, d.Ours, d.Theirs))
            .ShouldBe([
                ("title", "Closing the till", "Shut the till"),
                ("forChildren", "no", "yes"),
                ("visibility", "Whoever has the address", "Named people: joss.reed@brackwater.example"),
            ]);
        VideoTexts.Differences(Texts, Texts).ShouldBeEmpty();
    }

    [Fact]
    public void Every_field_makes_a_difference_to_the_key() =>
        EveryField.MakesADifference(Texts with { Named = ["joss.reed@brackwater.example"], OpensAt = Noon }, t => t.Key, 11, []);

    [Fact]
    public void It_asks_for_title_description_a_tag_a_category_and_whether_it_is_for_children()
    {
        var kind = new VideoServiceKind();
        DetailRule.Missing(kind.Details, DetailSet.None, "Skerry").Select(p => p.Field).ShouldBe(["title", "description", "tags", "category", "forChildren"]);
        // 2 GB a video, 10 at a time (common practice, no source).
        (kind.Terms(null).Takes.MostBytes, kind.Terms(null).Takes.FilesAtATime).ShouldBe((2_000_000_000, 10));
        kind.WhoMaySee.ShouldNotContain(Visibility.SignedIn, "services do not know who belongs to the house");
        kind.Terms(null).Refusal(Profiles.VideoService).ShouldBeNull();
        kind.Terms(null).Refusal(Profiles.Adaptive).ShouldNotBeNull();
    }
}
