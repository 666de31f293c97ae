using Wexel.Core.Captions;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Outlets;

/// <summary>What makes a release behind, and what does not: a change touches what is made of it and nothing else.</summary>
public class ReleaseKeysTests
{
    private static readonly LessonDocument Lesson = new(
        "Fares",
        "How fares are sold.",
        "en-GB",
        "aa",
        [],
        [new("s1", Ms.Of(0), "Start")],
        [new CaptionTrack("t1", "c1", "en-GB", "a.vtt", 3)],
        houseMark: true
    );

    private static readonly MarkOnPicture Mark = new("m1", new PictureSize(400, 100), MarkPlacement.Usual);

    /// <summary>A line a change, and the outlets at which it makes a release behind; the last two are feeds of video and of sound.</summary>
    [Theory]
    [InlineData("nothing", "")]
    [InlineData("title", "channel webServer learningSystem video sound")]
    [InlineData("caption", "channel webServer learningSystem video sound")]
    [InlineData("section", "channel webServer learningSystem video sound")]
    [InlineData("title, and back", "")]
    [InlineData("mark", "channel webServer learningSystem video")]
    [InlineData("mark elsewhere", "channel webServer learningSystem video")]
    [InlineData("mark, not on the lesson", "")]
    [InlineData("player", "webServer learningSystem")]
    [InlineData("artwork", "sound")]
    [InlineData("profile", "channel webServer learningSystem video sound")]
    [InlineData("profile’s name", "")]
    [InlineData("profile without mark", "channel webServer learningSystem video")]
    public void A_change_makes_behind_what_it_touches(string change, string behind)
    {
        var before = change == "mark, not on the lesson" ? Lesson with { HouseMark = false } : Lesson;
        (LessonDocument Lesson, HouseKeys House, string Artwork, Func<Profile, Profile> Profile) now = (before, new HouseKeys(Mark.WholeKey, "p1"), "a1", p =>
            p
        );
        var then = now;
        now = change switch
        {
            "title" => now with { Lesson = before with { Title = "Prices" } },
            "caption" => now with { Lesson = before with { Captions = [before.Captions[0] with { Hash = "c2" }] } },
            "section" => now with { Lesson = before with { Sections = [new("s1", Ms.Of(0), "Begin")] } },
            "title, and back" => now with { Lesson = (before with { Title = "Prices" }) with { Title = before.Title } },
            "mark" => now with { House = now.House with { Mark = (Mark with { Key = "m2" }).WholeKey } },
            "mark elsewhere" => now with
            {
                House = now.House with { Mark = (Mark with { Placement = MarkPlacement.Usual with { Position = MarkPosition.TopLeft } }).WholeKey },
            },
            "mark, not on the lesson" => now with { House = now.House with { Mark = (Mark with { Key = "m2" }).WholeKey } },
            "player" => now with { House = now.House with { Player = "p2" } },
            "artwork" => now with { Artwork = "a2" },
            "profile" => now with { Profile = p => p with { Sound = p.Sound! with { SampleRate = 44_100 } } },
            "profile’s name" => now with { Profile = p => p with { Title = "Other", Description = "Other." } },
            "profile without mark" => now with { Profile = p => p with { Picture = p.Picture is null ? null : p.Picture with { HouseMark = false } } },
            _ => now,
        };
        string[] outlets = ["channel", "webServer", "learningSystem", "video", "sound"];
        string.Join(' ', outlets.Where(o => Key(o, now) != Key(o, then))).ShouldBe(behind);

        string Key(string outlet, (LessonDocument Lesson, HouseKeys House, string Artwork, Func<Profile, Profile> Profile) at)
        {
            var terms =
                outlet == "sound"
                    ? OutletKinds
                        .Shipped["podcastFeed"]
                        .Terms(
                            """{"title":"T","media":"sound","description":"","author":"","ownerMail":"","category":"Education","""
                                + """ "language":"en","explicit":false,"order":"serial","unlisted":true}"""
                        )
                    : OutletKinds.Shipped[outlet == "video" ? "podcastFeed" : outlet].Terms(null);
            return ReleaseKeys.Wanted(
                terms,
                new LessonAtHand(LessonKeys.DocumentKey(at.Lesson), at.Lesson.HouseMark),
                at.Profile(terms.Usual),
                at.House,
                at.Artwork
            );
        }
    }

    [Fact]
    public void Keys_stay_what_they_are()
    {
        LessonKeys.DocumentKey(Lesson)[..12].ShouldBe("c6c4d6dfafb3");
        ProfileKeys.ProfileKey(Profiles.Web)[..12].ShouldBe("3205a07c837f");
        ReleaseKeys
            .Wanted(OutletKinds.Shipped["webServer"].Terms(null), new LessonAtHand("l", true), Profiles.Web, new HouseKeys("m", "p"), null)[..12]
            .ShouldBe("7ce918d201d7");
        ReleaseKeys.WantedOfCourse("T", ["a", "b"])[..12].ShouldBe("03c480ad01fe");
    }

    [Fact]
    public void Every_field_of_a_lesson_and_of_a_profile_makes_a_difference()
    {
        var lesson = LessonDocument.Format.Read(Fixture("lesson-2"));
        EveryField.MakesADifference(
            lesson,
            LessonKeys.DocumentKey,
            30,
            but: [.. new[] { "id", "fileName", "cueCount" }.Select(f => "$.captions[0]." + f), .. OfDraft]
        );
        EveryField.MakesADifference(Profile.Format.Read(Fixture("profile-1")), ProfileKeys.ProfileKey, 18, but: ["$.id", "$.title", "$.description"]);
    }

    /// <summary>Learners do not get a draft, so nothing of it makes a difference to them but that it becomes none.</summary>
    private static IEnumerable<string> OfDraft => new[] { "id", "hash", "language", "fileName", "cueCount", "kind", "state" }.Select(f => "$.captions[1]." + f);

    private static string Fixture(string name) => File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Documents", "Fixtures", name + ".json"));
}
