using System.Text.Json;
using System.Text.Json.Nodes;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Learning;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Outlets.LearningSystems;
using Wexel.Core.Outlets.PodcastFeeds;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.Outlets.WebServers;
using Wexel.Core.Packages;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Documents;

/// <summary>Every version of every kind of document that was ever written is read. A fixture is never changed; a new version gets a new one.</summary>
public class DocumentFormatTests
{
    /// <summary>All kinds, by the name of their fixtures, each with how one is read and written again.</summary>
    private static readonly Dictionary<string, (int Version, Func<string, string> Again)> Kinds = new()
    {
        ["lesson"] = Kind(LessonDocument.Format),
        ["details"] = Kind(DetailSet.Format),
        ["lessonfile"] = Kind(LessonFile.Format),
        ["page"] = Kind(PlayerLesson.Format),
        ["profile"] = Kind(Profile.Format),
        ["episode"] = Kind(Episode.Format),
        ["watched"] = Kind(Watched.Format),
        ["answered"] = Kind(Answered.Format),
        ["rescored"] = Kind(Rescored.Format),
        ["watchedbefore"] = Kind(WatchedBefore.Format),
        ["plan"] = Kind(MadeBy.Format),
        ["channel"] = Kind(new ChannelKind().Format),
        ["webserver"] = Kind(new WebServerKind().Format),
        ["learningsystem"] = Kind(new LearningSystemKind().Format),
        ["videoplace"] = Kind(VideoPlace.Format),
        ["videothere"] = Kind(VideoThere.Format),
        ["videoservice"] = Kind(new VideoServiceKind().Format),
        ["feed"] = Kind(new PodcastFeedKind().Format),
    };

    public static TheoryData<string> Fixtures => [.. Directory.EnumerateFiles(Folder, "*.json").Select(f => Path.GetFileNameWithoutExtension(f)).Order()];

    private static string Folder => Path.Combine(AppContext.BaseDirectory, "Documents", "Fixtures");

    private static (int, Func<string, string>) Kind<T>(DocumentFormat<T> format) => (format.Version, text => format.Write(format.Read(text)));

    private static string Text(string fixture) => File.ReadAllText(Path.Combine(Folder, fixture + ".json"));

    [Fact]
    public void There_is_a_fixture_of_every_version() =>
        Kinds
            .SelectMany(kind => Enumerable.Range(1, kind.Value.Version).Select(v => $"{kind.Key}-{v}"))
            .ShouldBeSubsetOf(Directory.EnumerateFiles(Folder).Select(f => Path.GetFileNameWithoutExtension(f)!));

    [Theory]
    [MemberData(nameof(Fixtures))]
    public void What_was_written_once_is_read_and_stays_the_same_when_it_is_written_again(string fixture)
    {
        var (version, again) = Kinds[fixture.Split('-')[0]];
        var once = again(Text(fixture));
        JsonNode.Parse(once)!["version"]!.GetValue<int>().ShouldBe(version);
        again(once).ShouldBe(once);
    }

    [Fact]
    public void A_lesson_of_the_first_days_has_what_it_had()
    {
        var lesson = LessonDocument.Format.Read(Text("lesson-1-first"));
        (lesson.Title, lesson.Cuts.Count, lesson.MoveIns.Count, lesson.HouseMark, lesson.Canvas).ShouldBe(("Opening the till", 0, 0, true, null));
        lesson.Sections.ShouldHaveSingleItem().Title.ShouldBe("Start");
    }

    [Fact]
    public void A_lesson_with_all_there_is_keeps_it()
    {
        var lesson = LessonDocument.Format.Read(Text("lesson-1"));
        lesson.Cuts.ShouldBe([new TimeRange(Ms.Of(0), Ms.Of(1500))]);
        lesson.Sections[1].ShouldBe(new("s2", Ms.Of(9000), "Float", true));
        lesson.MoveIns.ShouldHaveSingleItem().Span.ShouldBe(new TimeRange(Ms.Of(3000), Ms.Of(5000)));
        (lesson.Canvas!.Fit, lesson.Frames[0].Fit, lesson.HouseMark).ShouldBe((FitMode.Part, FitMode.Fill, false));
        lesson.Recordings.ShouldBe(["aa11", "bb22"]);
    }

    [Fact]
    public void A_profile_without_what_came_later_takes_what_is_usual_for_it()
    {
        var profile = Profile.Format.Read(Text("profile-1"));
        (profile.Picture!.Copy, profile.Picture.FurtherHeights, profile.Captions).ShouldBe((true, null, CaptionPlace.Inside));
    }

    [Fact]
    public void A_document_of_tomorrow_is_refused_in_a_sentence() =>
        Should.Throw<JsonException>(() => LessonDocument.Format.Read("""{ "version": 99, "title": "x" }""")).Message.ShouldContain("written by a newer");

    [Fact]
    public void Each_version_is_brought_up_by_one_step_after_the_other()
    {
        var format = new DocumentFormat<Dictionary<string, JsonElement>>(
            "thing",
            d => d["b"] = d["a"]!.GetValue<string>() + "1",
            d => d["c"] = d["b"]!.GetValue<string>() + "2"
        );
        format.Version.ShouldBe(3);
        format.Read("""{ "a": "x" }""")["c"].GetString().ShouldBe("x12");
        format.Read("""{ "version": 2, "a": "x", "b": "y" }""")["c"].GetString().ShouldBe("y2");
        format.Read("""{ "version": 3, "a": "x" }""").ShouldNotContainKey("c");
    }

    [Theory]
    [InlineData("true", 1)]
    [InlineData("false", 0)]
    [InlineData("null", 0)]
    public void Captions_inside_are_one_track(string inside, int tracks) =>
        MadeBy
            .Format.Read(Text("plan-1").Replace("\"captionsInside\": true", $"\"captionsInside\": {inside}", StringComparison.Ordinal))
            .Plan.File.CaptionTracks.ShouldBe(tracks);

    [Theory]
    [InlineData(3_600_000_000, true)]
    [InlineData(3_600_000_001, false)]
    [InlineData(-3_600_000_000, true)]
    public void A_time_lies_within_a_thousand_hours(long milliseconds, bool read)
    {
        var text = Text("lesson-2");
        var at = System.Text.RegularExpressions.Regex.Replace(text, "\"at\": \\d+", $"\"at\": {milliseconds}");
        at.ShouldNotBe(text);
        if (read)
            LessonDocument.Format.Read(at).Sections.ShouldAllBe(s => s.At == Ms.Of(milliseconds));
        else
            Should.Throw<JsonException>(() => LessonDocument.Format.Read(at));
    }
}
