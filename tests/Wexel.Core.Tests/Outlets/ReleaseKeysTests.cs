using System.Text.Json.Nodes;
using Wexel.Core.Captions;
using Wexel.Core.Details;
using Wexel.Core.Documents;
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
    [InlineData("description", "channel webServer learningSystem video sound")]
    [InlineData("tags", "channel webServer learningSystem video sound")]
    [InlineData("short title", "channel")]
    [InlineData("age", "channel webServer learningSystem")]
    [InlineData("embedding", "channel")]
    [InlineData("download", "channel webServer learningSystem")]
    [InlineData("file to download", "channel")]
    [InlineData("profile of the file to download", "channel")]
    [InlineData("followers are told", "")]
    [InlineData("house’s licence", "channel webServer learningSystem video sound")]
    [InlineData("house’s licence, where the lesson has its own", "")]
    [InlineData("house’s licence, where the outlets have their own", "channel webServer learningSystem video sound")]
    [InlineData("title there", "channel webServer learningSystem video sound")]
    [InlineData("short title there", "channel")]
    public void A_change_makes_behind_what_it_touches(string change, string behind)
    {
        var before = change switch
        {
            "mark, not on the lesson" => Lesson with { HouseMark = false },
            "house’s licence, where the lesson has its own" => Lesson with { Details = new DetailSet(Licence: "CC-BY-4.0") },
            "file to download" or "profile of the file to download" => Lesson with
            {
                Details = new DetailSet(MayDownload: true, DownloadAs: Profiles.Small480.Id),
            },
            _ => Lesson,
        };
        var there = change.Contains("outlets have", StringComparison.Ordinal) ? new DetailSet(Licence: "CC0-1.0") : DetailSet.None;
        var now = new State(before, new HouseKeys(Mark.WholeKey, "p1", new DetailSet(Licence: "CC-BY-SA-4.0"), Profiles.All), "a1", p => p, DetailSet.None);
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
            "description" => now with { Lesson = before with { Description = "Other." } },
            "tags" => Says(new DetailSet(Tags: ["fares"])),
            "short title" => Says(new DetailSet(ShortTitle: "Fares")),
            "age" => Says(new DetailSet(FromAge: 16)),
            "embedding" => Says(new DetailSet(MayEmbed: false)),
            "download" => Says(new DetailSet(MayDownload: true)),
            "file to download" => Says(new DetailSet(MayDownload: true, DownloadAs: Profiles.FullHd.Id)),
            "profile of the file to download" => now with
            {
                House = now.House with { Profiles = [Profiles.Small480 with { Sound = Profiles.Small480.Sound! with { SampleRate = 44_100 } }] },
            },
            "followers are told" => Says(new DetailSet(TellFollowers: false)),
            "title there" => now with { Release = new DetailSet("Prices") },
            "short title there" => now with { Release = new DetailSet(ShortTitle: "Prices") },
            _ when change.StartsWith("house’s licence", StringComparison.Ordinal) => now with
            {
                House = now.House with { Details = new DetailSet(Licence: Licences.AllRightsReserved) },
            },
            _ => now,
        };
        State Says(DetailSet details) => now with { Lesson = before with { Details = details } };
        string[] outlets = ["channel", "webServer", "learningSystem", "video", "sound"];
        string.Join(' ', outlets.Where(o => Key(o, now) != Key(o, then))).ShouldBe(behind);
        // A key may be remembered under its frame, the lesson, and what is said there: none of them stays where it changes.
        string.Join(' ', outlets.Where(o => Remembered(o, now) != Remembered(o, then)).Intersect(behind.Split(' '))).ShouldBe(behind);

        string Key(string outlet, State at) => At(outlet, at).Key(Of(at), at.Release);
        (string, string, bool, string, string) Remembered(string outlet, State at) =>
            (At(outlet, at).Frame, Of(at).Key, Of(at).WantsMark, DetailSet.Format.Write(Of(at).Said), DetailSet.Format.Write(at.Release));
        static LessonAtHand Of(State at) => new(LessonKeys.DocumentKey(at.Lesson), at.Lesson.HouseMark, at.Lesson.Said);
        WantedAt At(string outlet, State at)
        {
            var kind = OutletKinds.Shipped[outlet is "video" or "sound" ? "podcastFeed" : outlet];
            var terms =
                outlet == "sound"
                    ? kind.Terms(
                        """{"title":"T","media":"sound","description":"","author":"","ownerMail":"","category":"Education","""
                            + """ "language":"en","explicit":false,"order":"serial","unlisted":true}"""
                    )
                    : kind.Terms(null);
            return new WantedAt(new OutletAtHand(terms, kind.Details, there, at.Artwork), at.Profile(terms.Usual), at.House);
        }
    }

    private sealed record State(LessonDocument Lesson, HouseKeys House, string Artwork, Func<Profile, Profile> Profile, DetailSet Release);

    [Fact]
    public void Keys_stay_what_they_are()
    {
        LessonKeys.DocumentKey(Lesson)[..12].ShouldBe("c6c4d6dfafb3");
        ProfileKeys.ProfileKey(Profiles.Web)[..12].ShouldBe("3205a07c837f");
        new WantedAt(
            new OutletAtHand(OutletKinds.Shipped["webServer"].Terms(null), DetailsThere.OnPage, DetailSet.None, null),
            Profiles.Web,
            new HouseKeys("m", "p", DetailSet.None, [])
        )
            .Key(new LessonAtHand("l", true, new DetailSet("Fares")), DetailSet.None)[..12]
            .ShouldBe("e3dd08451ee0");
        ReleaseKeys.WantedOfCourse("T", "", ["a", "b"])[..12].ShouldBe("b3248792eafa");
    }

    [Fact]
    public void Every_field_of_a_lesson_and_of_a_profile_makes_a_difference()
    {
        var lesson = LessonDocument.Format.Read(Fixture("lesson-9"));
        EveryField.MakesADifference(
            lesson,
            LessonKeys.DocumentKey,
            150,
            but: [.. new[] { "id", "fileName", "cueCount" }.Select(f => "$.captions[0]." + f), .. OfDraft, .. OfDetails(lesson), .. OfOthers(lesson)]
        );
        EveryField.MakesADifference(Profile.Format.Read(Fixture("profile-1")), ProfileKeys.ProfileKey, 18, but: ["$.id", "$.title", "$.description"]);
    }

    /// <summary>What is no field of its own: kinds of questions, of what areas do and of what a survey asks; what a translation is of and was made
    /// from.</summary>
    private static IEnumerable<string> OfOthers(LessonDocument lesson) =>
        [
            .. lesson.Questions.Select((_, i) => $"$.questions[{i}].asks.kind"),
            .. lesson.Areas.Select((_, i) => $"$.areas[{i}].action.kind"),
            .. lesson.Survey!.Items.Select((_, i) => $"$.survey.items[{i}].kind"),
            .. lesson.Translations.SelectMany((t, i) => t.Texts.Select((_, j) => $"$.translations[{i}].texts[{j}].source")),
        ];

    /// <summary>Which details make a difference depends on the place, see <see cref="DetailRule.Key"/>.</summary>
    private static IEnumerable<string> OfDetails(LessonDocument lesson) =>
        Leaves(JsonNode.Parse(WexelJson.Write(lesson))!["details"]!).Select(leaf => leaf.GetPath());

    private static IEnumerable<JsonNode> Leaves(JsonNode node) =>
        node switch
        {
            JsonObject o => o.SelectMany(p => p.Value is { } value ? Leaves(value) : []),
            JsonArray a => a.SelectMany(i => Leaves(i!)),
            _ => [node],
        };

    /// <summary>Learners do not get a draft, so nothing of it makes a difference to them but that it becomes none.</summary>
    private static IEnumerable<string> OfDraft => new[] { "id", "hash", "language", "fileName", "cueCount", "kind", "state" }.Select(f => "$.captions[1]." + f);

    private static string Fixture(string name) => File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Documents", "Fixtures", name + ".json"));
}
