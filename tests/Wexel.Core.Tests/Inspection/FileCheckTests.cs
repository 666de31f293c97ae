using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Inspection;

public class FileCheckTests
{
    private static readonly RenderPlan Plan = RenderPlanner.Plan(
        Reel.Of(Sample.Facts(), SoundSides.Stereo),
        Reel.Of(Sample.Facts()).Map([]),
        Profiles.Web,
        new LessonLook([new("a", Ms.Of(0), "A"), new("b", Ms.Of(12_500), "B")])
    );

    private static readonly PictureMeasured Picture = new(
        Ms.Of(0),
        Ms.Of(65_000),
        new PictureSize(1280, 720),
        1,
        "h264",
        "High",
        31,
        "yuv420p",
        new ColourFacts("bt709", "bt709", "bt709", false),
        [Ms.Of(0), Ms.Of(10_000), Ms.Of(12_500), Ms.Of(20_000), Ms.Of(30_000), Ms.Of(40_000), Ms.Of(50_000), Ms.Of(60_000)],
        60,
        200,
        Ms.Of(1000),
        null,
        [],
        [Span(20_000, 28_000)],
        [new(Ms.Of(5000), 0.999, 99, false), new(Ms.Of(42_000), 0.98, 93, false)]
    );

    private static readonly SoundMeasured Sound = new(Ms.Of(0), Ms.Of(65_010), "aac", 2, 48_000, new Loudness(-16.3, 5, -1.4), [Span(30_000, 33_000)]);

    private static readonly ExpectedOfSource Source = new([Span(19_500, 28_000)], [Span(30_000, 33_000)], Ms.Of(65_000));

    private static TimeRange Span(double from, double to) => new(Ms.Of((long)from), Ms.Of((long)to));

    private static readonly RenditionFacts Good = new(
        1_000_000,
        Ms.Of(65_010),
        "mov,mp4,m4a,3gp,3g2,mj2",
        true,
        Picture,
        Sound,
        [Ms.Of(0), Ms.Of(12_500)],
        0,
        null,
        "avc1.64001F, mp4a.40.2",
        []
    );

    [Fact]
    public void What_was_planned_is_right() => FileCheck.Findings(Good, Plan, 2, Source).ShouldAllBe(f => f.Verdict == Verdict.Right);

    public static TheoryData<string, RenditionFacts> Broken =>
        new()
        {
            { "length", Good with { Length = Ms.Of(64_000) } },
            { "length", Good with { Picture = Picture with { Length = Ms.Of(64_000) } } },
            { "size", Good with { Picture = Picture with { Size = new(1280, 718) } } },
            { "size", Good with { Picture = Picture with { PixelAspect = 1.1 } } },
            { "codec", Good with { Picture = Picture with { Level = 40 } } },
            { "codec", Good with { Picture = Picture with { CodecProfile = "Main" } } },
            { "codec", Good with { Picture = Picture with { PixelFormat = "yuv444p" } } },
            { "colour", Good with { Picture = Picture with { Colour = new(null, null, null, null) } } },
            { "colour", Good with { Picture = Picture with { Colour = Picture.Colour with { FullRange = true } } } },
            { "colour", Good with { Picture = Picture with { Colour = Picture.Colour with { FullRange = null } } } },
            { "colour", Good with { Picture = Picture with { Colour = Picture.Colour with { Transfer = "smpte170m" } } } },
            { "index", Good with { IndexAtFront = false } },
            { "length", Good with { Picture = Picture with { Length = Ms.Of(65_060) } } },
            { "decodes", Good with { Errors = ["Invalid NAL unit"] } },
            { "sound", Good with { Sound = null } },
            { "sound", Good with { Sound = Sound with { Channels = 1 } } },
            { "sound", Good with { Sound = Sound with { Codec = "mp3" } } },
            { "sound", Good with { Sound = Sound with { SampleRate = 44_100 } } },
            { "together", Good with { Sound = Sound with { Start = Ms.Of(60) } } },
            { "together", Good with { Sound = Sound with { Length = Ms.Of(64_800) } } },
            { "silence", Good with { Sound = Sound with { Silent = [Span(29_000, 35_500)] } } },
            { "clipping", Good with { Sound = Sound with { Loudness = new Loudness(-16, 5, 0.2) } } },
            { "loudness", Good with { Sound = Sound with { Loudness = new Loudness(-18.1, 5, -3) } } },
            { "borders", Good with { Picture = Picture with { Borders = new BorderShares(0.05, 0, 0, 0) } } },
            { "black", Good with { Picture = Picture with { Black = [Span(9000, 10_000)] } } },
            { "frozen", Good with { Picture = Picture with { Still = [Span(40_000, 44_000)] } } },
            { "frozen", Good with { Picture = Picture with { Still = [Span(17_000, 28_000)] } } },
            { "combed", Good with { Picture = Picture with { Combed = new CombedFrames(30, 100) } } },
            { "ssim", Good with { Picture = Picture with { Moments = [new(Ms.Of(5000), 0.9, 90, false)] } } },
            { "sharpness", Good with { Picture = Picture with { Moments = [new(Ms.Of(5000), 0.99, 40, false)] } } },
            { "captions-end", Good with { CaptionTracks = 0, CaptionsEnd = Ms.Of(66_000) } },
            { "section-key-frames", Good with { Picture = Picture with { KeyFrames = [.. Picture.KeyFrames.Where(k => k != Ms.Of(12_500))] } } },
            { "key-frame-distance", Good with { Picture = Picture with { MostBetweenKeyFrames = 301 } } },
            { "chapters", Good with { ChapterStarts = [] } },
            { "picture", Good with { Picture = null } },
            { "captions", Good with { CaptionTracks = 1 } },
        };

    [Theory]
    [InlineData(null, 60_000, 300, Verdict.Right)]
    [InlineData(null, 60_100, 60, Verdict.Wrong)]
    [InlineData(10.0, 12_000, 60, Verdict.Wrong)]
    [InlineData(10.0, 10_000, 300, Verdict.Right)]
    public void Key_frames_are_as_far_apart_as_the_profile_lets_them(double? asked, long apart, int frames, Verdict verdict)
    {
        var facts = Sample.Facts() with { Length = TimeSpan.FromMinutes(2) };
        var plan = RenderPlanner.Plan(
            Reel.Of(facts),
            Reel.Of(facts).Map([]),
            Profiles.Web with
            {
                Picture = Profiles.Web.Picture! with { KeyFrameSeconds = asked },
            },
            new LessonLook()
        );
        var picture = Picture with
        {
            Length = plan.Length,
            KeyFrames = [.. Enumerable.Range(0, (int)(120_000 / apart) + 1).Select(i => Ms.Of(i * apart))],
            MostBetweenKeyFrames = frames,
        };
        FileCheck
            .Findings(Good with { Length = plan.Length, Picture = picture }, plan, 0, Source)
            .Single(f => f.Code == "key-frame-distance")
            .Verdict.ShouldBe(verdict);
    }

    [Fact]
    public void What_the_source_has_too_is_no_fault()
    {
        FileCheck
            .Findings(Good with { Picture = Picture with { Black = [Span(4000, 6000)], Moments = [new(Ms.Of(5000), 1, 100, true)] } }, Plan, 2, Source)
            .ShouldAllBe(f => f.Verdict == Verdict.Right);
        // A canvas of another shape, and a dark edge that one of the source's pictures has besides.
        var bordered = Picture with
        {
            Borders = new BorderShares(0.13, 0, 0.12, 0),
            Moments =
            [
                new(Ms.Of(5000), 1, 100, false, new BorderShares(0.125, 0, 0.125, 0)),
                new(Ms.Of(9000), 1, 100, false, new BorderShares(0.125, 0, 0.6, 0)),
            ],
        };
        FileCheck.Findings(Good with { Picture = bordered }, Plan, 2, Source).ShouldAllBe(f => f.Verdict == Verdict.Right);
        // A recording whose sound ends before its picture.
        FileCheck
            .Findings(Good with { Sound = Sound with { Length = Ms.Of(50_000) } }, Plan, 2, Source with { SoundLength = Ms.Of(50_000) })
            .ShouldAllBe(f => f.Verdict == Verdict.Right);
        // Hardly anything to hear stays as it is.
        FileCheck
            .Findings(Good with { Sound = Sound with { Loudness = new Loudness(-58, 1, -40) } }, Plan, 2, Source)
            .ShouldAllBe(f => f.Verdict == Verdict.Right);
    }

    [Fact]
    public void The_worst_moment_is_shown()
    {
        var check = FileCheck.Findings(Good, Plan, 2, Source);
        check.Single(f => f.Code == "ssim").At.ShouldBe(Ms.Of(42_000));
        check.Single(f => f.Code == "sharpness").Measured.ShouldBe("93 % at worst");
    }

    [Theory]
    [MemberData(nameof(Broken))]
    public void Each_fault_is_found_and_nothing_else_and_what_was_measured_reads_other_than_what_should_be(string code, RenditionFacts facts)
    {
        var wrong = FileCheck.Findings(facts, Plan, 2, Source).Where(f => f.Verdict == Verdict.Wrong).ToList();
        wrong.Select(f => f.Code).ShouldBe([code]);
        wrong[0].Measured.ShouldNotBe(wrong[0].Expected);
    }
}
