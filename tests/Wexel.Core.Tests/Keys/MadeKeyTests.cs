using System.Text.Json.Nodes;
using CsCheck;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Keys;
using Wexel.Core.Mixing;
using Wexel.Core.Packages;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Keys;

/// <summary>
/// Keys name all that was ever made: what changes one has it all made again. The golden ones were written down when the rule was made;
/// they may change with a maker's version and with nothing else.
/// </summary>
public class MadeKeyTests
{
    private static readonly PicturePlan Picture = new(
        [
            new PartPlan(
                1,
                [new KeptStretch(3, 40, 7)],
                true,
                new CanvasPlacement(
                    new PictureSize(1280, 720),
                    new PictureRect(1, 2, 1276, 718),
                    new PictureRect(4, 6, 1270, 714),
                    new PictureSize(1920, 1080)
                ),
                [new ViewMove(8, 9, new PictureRect(0, 0, 1280, 720), new PictureRect(16, 10, 640, 360))],
                new ColourConversion("bt601", true),
                new PicturePreparation(FieldOrder.TopFirst, new WideColour("bt2020nc", "bt2020", "smpte2084", true))
            ),
        ],
        new PictureSize(1280, 720),
        new MarkPlan("mark-key", new PictureRect(1000, 600, 256, 90), 0.5),
        "captions as ASS",
        new FrameTiming(new FrameRate(30, 1), 29, 60, [0, 150], 300, [new FrameRun(20, 10)], [33], new FrameRate(25, 1), true),
        new CodingPlan(PictureCodec.H264, new H264Plan(H264Profile.High, 31, 4, 14_000_000, 14_000_001)),
        new RatePlan(RateRule.Quality, 23, 2_000_000, 2),
        Effort.Balanced,
        new CopyPlan([new CopyRun(5, 6, 7, true, 8)])
    );

    private static readonly SoundPlan Sound = new(
        [SoundMix.Mono, SoundMix.Stereo],
        2,
        SoundCodec.Aac,
        48_000,
        128_000,
        -18.5,
        new TimeRange(Ms.Of(10), Ms.Of(2000)),
        [
            [0],
            [1, 2],
        ]
    );

    private static readonly FilePlan File = new(Container.Mp4, 2, true, true, 9_000_000);

    private static readonly TimeMap Map = TimeMap.Of(new FrameRate(30, 1), Ms.Of(10_000), [new TimeRange(Ms.Of(1000), Ms.Of(2000))]);

    private static RenditionKeys Keys(RenderPlan plan) => RenditionKeys.Of(plan, Map, ["first", "second"]);

    [Fact]
    public void Keys_stay_what_they_are()
    {
        var keys = Keys(new RenderPlan(Ms.Of(9000), [Picture], Sound, File));
        new[]
        {
            keys.Pictures[0],
            keys.Composed,
            keys.Sound,
            keys.Encodes,
            keys.File(File, "Fares", [(Ms.Of(0), "Start")], [("en-GB", "WEBVTT")], null),
            FeedKeys.Episode("e", "Fares", [new(new TimeRange(Ms.Of(0), Ms.Of(9)), "Start")], FeedMedia.Sound, "a", null),
            FeedKeys.EpisodeId("feed", "lesson"),
            FeedKeys.Artwork(new ArtworkPlan("T", "H", "#102030"), "m"),
            PackageKeys.PackageKey([
                new("index.html", "p", new PackageContent.Text("t")),
                new("v.mp4", "p", new PackageContent.Copy(new KeyedFile("/x", "k"), true)),
            ]),
            RecordingKeys.Pictures("r"),
            RecordingKeys.Strips("r"),
            RecordingKeys.ViewingCopy("r", [0]),
            RecordingKeys.ViewingCopy("r", [1, 2]),
            RecordingKeys.Frames("r", 3),
            RecordingKeys.Detail("r", [new(1280, 720)]),
            RenditionKeys.Samples(new RenderPlan(Ms.Of(9000), [Picture], Sound, File), Map, ["r"]),
            RenditionKeys.Trial(Picture, new SampleWindow(1, 2, 0.5), Map, ["r"]),
            RenditionKeys.TrialFrame("t", 4),
            RenditionKeys.Compared("source", "k", 5),
        }
            .Select(key => key![..12])
            .ShouldBe([
                "ef91874e0a17",
                "00516f252337",
                "889f4abed651",
                "8feb33b2afb8",
                "717fb5f57958",
                "ae5bd4e415d5",
                "46517d344859",
                "9da3fd3f6270",
                "444dd32d19b4",
                "0bb96d3f34f5",
                "ece3f95d8b18",
                "38429b955a80",
                "9690107d464b",
                "842e290669a7",
                "e97230ad2ad4",
                "c8b37de8435e",
                "9ce3b1c5d807",
                "4139104b3402",
                "68a57811cb2f",
            ]);
    }

    [Fact]
    public void A_field_that_is_added_later_and_not_set_leaves_a_key_as_it_was() =>
        MadeKey
            .Hash("m/1", k => k.Add("a", 1))
            .ShouldBe(
                MadeKey.Hash("m/1", k =>
                    k.Add("a", 1)
                        .Add("b", (string?)null)
                        .Add("c", false)
                        .Add("d", (TimeSpan?)null)
                        .Each("e", (string[])[])
                        .Part("f", (string?)null, (_, _) => { })
                )
            );

    /// <summary>A text of fields can be read in one way alone: 1 and 23 are not 12 and 3, wherever the border stands.</summary>
    [Fact]
    public void Different_lists_have_different_keys() =>
        Gen.Select(Gen.String[Gen.Char["1;:{}[]a"], 0, 6].List[0, 4], Gen.String[Gen.Char["1;:{}[]a"], 0, 6].List[0, 4])
            .Sample((a, b) => a.SequenceEqual(b) == (Text(a) == Text(b)), iter: 20_000);

    private static string Text(IReadOnlyList<string> parts)
    {
        var fields = new KeyFields();
        fields.Each("parts", parts).Add("end", "1");
        return fields.ToString();
    }

    [Theory]
    [InlineData("1,23", "12,3")]
    [InlineData(",123", "123,")]
    public void Numbers_do_not_run_together(string one, string other) =>
        MadeKey.Hash("m/1", k => k.Each("n", one.Split(','))).ShouldNotBe(MadeKey.Hash("m/1", k => k.Each("n", other.Split(','))));

    /// <summary>Whoever adds a field to a plan and forgets to declare it would be given the file of another plan.</summary>
    [Fact]
    public void Every_field_of_a_plan_makes_a_difference_to_its_key()
    {
        var under = new UnderPlan(
            [new BedPlan("m", 2, [new PlayedPiece(Ms.Of(1), Ms.Of(2), Ms.Of(3), Ms.Of(4), Ms.Of(5))], [new GainPoint(Ms.Of(6), 0.5)])],
            0.75
        );
        var plan = new RenderPlan(Ms.Of(9000), [Picture], Sound with { Under = under }, File);
        EveryField.MakesADifference(plan, p => Keys(p).Encodes + Keys(p).File(p.File, "", [], [], null), 60, but: ["$.length"]);
    }
}
