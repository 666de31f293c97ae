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

    private static readonly TimeSpan Frame = new FrameRate(30, 1).TimeOf(1);

    /// <summary>The last value that is taken of each fact, and the first that is not.</summary>
    public static TheoryData<string, RenditionFacts, RenditionFacts> Edges
    {
        get
        {
            var (tick, planned) = (TimeSpan.FromTicks(1), Plan.Length);
            RenditionFacts Seen(Func<PictureMeasured, PictureMeasured> change) => Good with { Picture = change(Picture) };
            RenditionFacts Heard(Func<SoundMeasured, SoundMeasured> change) => Good with { Sound = change(Sound) };
            RenditionFacts Moment(double ssim, double sharpness) => Seen(p => p with { Moments = [new(Ms.Of(5000), ssim, sharpness, false)] });
            RenditionFacts Black(double from, double to) =>
                Seen(p => p with { Black = [Span(from, to)], Moments = [new(Ms.Of(5000), 1, 100, true), new(Ms.Of(6000), 1, 100, false)] });
            return new()
            {
                { "length", Good with { Length = planned + Frame }, Good with { Length = planned + Frame + tick } },
                { "length", Good with { Length = planned - Frame }, Good with { Length = planned - Frame - tick } },
                { "length", Seen(p => p with { Length = planned + (Frame * 1.5) }), Seen(p => p with { Length = planned + (Frame * 1.5) + tick }) },
                { "borders", Seen(p => p with { Borders = new(0.015, 0, 0, 0) }), Seen(p => p with { Borders = new(0.016, 0, 0, 0) }) },
                { "borders", Seen(p => p with { Borders = new(0, 0.015, 0, 0) }), Seen(p => p with { Borders = new(0, 0.016, 0, 0) }) },
                { "borders", Seen(p => p with { Borders = new(0, 0, 0.015, 0) }), Seen(p => p with { Borders = new(0, 0, 0.016, 0) }) },
                { "borders", Seen(p => p with { Borders = new(0, 0, 0, 0.015) }), Seen(p => p with { Borders = new(0, 0, 0, 0.016) }) },
                { "black", Black(5000, 5500), Black(5001, 5500) },
                { "black", Black(4500, 5000), Black(4500, 4999) },
                { "frozen", Seen(p => p with { Still = [Span(40_000, 42_000)] }), Seen(p => p with { Still = [Span(40_000, 42_001)] }) },
                { "frozen", Seen(p => p with { Still = [Span(17_500, 30_000)] }), Seen(p => p with { Still = [Span(17_499, 30_000)] }) },
                { "frozen", Seen(p => p with { Still = [Span(19_000, 30_000)] }), Seen(p => p with { Still = [Span(19_000, 30_001)] }) },
                { "combed", Seen(p => p with { Combed = new(5, 100) }), Seen(p => p with { Combed = new(6, 100) }) },
                { "ssim", Moment(FileCheck.LeastSsim, 100), Moment(FileCheck.LeastSsim - 1e-9, 100) },
                { "sharpness", Moment(1, FileCheck.LeastSharpness), Moment(1, FileCheck.LeastSharpness - 1e-9) },
                { "together", Heard(s => s with { Start = Ms.Of(40) }), Heard(s => s with { Start = Ms.Of(41) }) },
                { "together", Heard(s => s with { Length = Ms.Of(65_065) }), Heard(s => s with { Length = Ms.Of(65_066) }) },
                { "together", Heard(s => s with { Length = Ms.Of(64_935) }), Heard(s => s with { Length = Ms.Of(64_934) }) },
                { "silence", Heard(s => s with { Silent = [Span(28_000, 35_000)] }), Heard(s => s with { Silent = [Span(28_000, 35_001)] }) },
                { "clipping", Heard(s => s with { Loudness = new(-16, 5, -0.5) }), Heard(s => s with { Loudness = new(-16, 5, -0.4) }) },
                { "loudness", Heard(s => s with { Loudness = new(-17, 5, -3) }), Heard(s => s with { Loudness = new(-17.1, 5, -3) }) },
                { "loudness", Heard(s => s with { Loudness = new(-15, 5, -3) }), Heard(s => s with { Loudness = new(-14.9, 5, -3) }) },
                { "captions-end", Good with { CaptionsEnd = planned + FileCheck.Together }, Good with { CaptionsEnd = planned + FileCheck.Together + tick } },
                {
                    "section-key-frames",
                    Seen(p => p with { KeyFrames = [Ms.Of(0), Ms.Of(12_516)] }),
                    Seen(p => p with { KeyFrames = [Ms.Of(0), Ms.Of(12_517)] })
                },
                { "key-frame-distance", Seen(p => p with { MostBetweenKeyFrames = 300 }), Seen(p => p with { MostBetweenKeyFrames = 301 }) },
            };
        }
    }

    [Theory]
    [MemberData(nameof(Edges))]
    public void Each_fact_is_taken_up_to_its_edge_and_not_beyond(string code, RenditionFacts taken, RenditionFacts refused)
    {
        FileCheck.Findings(taken, Plan, 2, Source).Where(f => f.Verdict == Verdict.Wrong).ShouldBeEmpty();
        FileCheck.Findings(refused, Plan, 2, Source).Where(f => f.Verdict == Verdict.Wrong).Select(f => f.Code).ShouldBe([code]);
    }

    [Theory]
    [InlineData(1_000_000, Verdict.Right)]
    [InlineData(999_999, Verdict.Wrong)]
    public void A_file_is_as_large_as_was_asked_at_most(long most, Verdict verdict) =>
        FileCheck.Findings(Good, Plan with { File = Plan.File with { Bytes = most } }, 2, Source).Single(f => f.Code == "file-size").Verdict.ShouldBe(verdict);

    [Theory]
    [InlineData(0.5, Verdict.Right)]
    [InlineData(0.6, Verdict.Wrong)]
    public void Sound_that_is_left_as_loud_as_it_is_may_come_up_to_full_scale(double peak, Verdict verdict)
    {
        var check = FileCheck.Findings(
            Good with
            {
                Sound = Sound with { Loudness = new Loudness(-10, 5, peak) },
            },
            Plan with
            {
                Sound = Plan.Sound! with { TargetLufs = null },
            },
            2,
            Source
        );
        check.Single(f => f.Code == "clipping").Verdict.ShouldBe(verdict);
        check.ShouldNotContain(f => f.Code == "loudness");
    }

    [Fact]
    public void What_was_found_is_told_in_words_and_numbers()
    {
        string Said(RenditionFacts facts, string code) => FileCheck.Findings(facts, Plan, 2, Source).Single(f => f.Code == code).Measured;
        Said(Good, "length").ShouldBe("1:05.01, picture 1:05.00");
        Said(Good with { Length = Ms.Of(65_000) }, "length").ShouldBe("1:05.00");
        Said(Good with { Length = Ms.Of(59_990) }, "length").ShouldBe("59.99 s, picture 1:05.00");
        Said(Good, "section-key-frames").ShouldBe("1 of 1");
        Said(Good with { Picture = Picture with { KeyFrames = [Ms.Of(0)] } }, "section-key-frames").ShouldBe("0 of 1");
        Said(Good, "key-frame-distance").ShouldBe("10.00 s and 60 frames at most");
        Said(Good with { Picture = Picture with { KeyFrames = [] } }, "key-frame-distance").ShouldBe("1:05.00 and 60 frames at most");
        Said(Good, "borders").ShouldBe("none");
        Said(Good with { Picture = Picture with { Borders = new BorderShares(0.1, 0.0049, 0, 0.005) } }, "borders").ShouldBe("left 10 %, bottom 0.5 %");
        Said(Good, "black").ShouldBe("nowhere");
        Said(Good with { Picture = Picture with { Black = [Span(9000, 10_000)] } }, "black").ShouldBe("from 0:09, for 1.00 s");
        Said(Good with { Picture = Picture with { Black = [Span(9000, 10_000), Span(20_000, 21_000)] } }, "black").ShouldBe("2 times, first from 0:09");
        Said(Good, "together").ShouldBe("start 0 ms, end 10 ms apart");
        Said(Good, "clipping").ShouldBe("−1.4 dBTP");
        Said(Good with { Sound = Sound with { Loudness = new Loudness(null, 0, null) } }, "clipping").ShouldBe("silence");
        Said(Good with { Picture = Picture with { PixelAspect = 1.1 } }, "size").ShouldBe("1280 × 720, pixels 1.100 as wide as high");
        Said(Good with { Picture = Picture with { PixelAspect = 1.0009 } }, "size").ShouldBe("1280 × 720, square pixels");
    }

    [Fact]
    public void A_stretch_is_where_it_begins()
    {
        TimeSpan? At(RenditionFacts facts, string code) => FileCheck.Findings(facts, Plan, 2, Source).Single(f => f.Code == code).At;
        At(Good with { Picture = Picture with { Black = [Span(9000, 10_000)] } }, "black").ShouldBe(Ms.Of(9000));
        At(Good with { Picture = Picture with { Still = [Span(40_000, 44_000)] } }, "frozen").ShouldBe(Ms.Of(40_000));
        At(Good with { Sound = Sound with { Silent = [Span(40_000, 44_000)] } }, "silence").ShouldBe(Ms.Of(40_000));
        At(Good, "black").ShouldBeNull();
        At(Good, "frozen").ShouldBeNull();
        At(Good, "silence").ShouldBeNull();
        // Of two stretches that nothing covers the longer one is told.
        At(Good with { Picture = Picture with { Still = [Span(17_000, 31_000)] } }, "frozen").ShouldBe(Ms.Of(28_000));
        At(Good with { Picture = Picture with { Still = [Span(16_000, 31_000)] } }, "frozen").ShouldBe(Ms.Of(16_000));
    }

    private static readonly RenderPlan InPieces = Plan with
    {
        Pictures = [Plan.Picture!, Plan.Picture! with { Size = new PictureSize(640, 360) }],
        File = new FilePlan(Container.Hls, 1, false, false, null),
    };

    private static readonly RenditionFacts Small = Good with { Picture = Picture with { Size = new PictureSize(640, 360) }, Sound = null };

    private static StreamFacts Pieces(RenditionFacts? large = null, RenditionFacts? small = null, int captions = 1, params string[] breaches) =>
        new(2_000_000, [(large ?? Good) with { ChapterStarts = [] }, (small ?? Small) with { ChapterStarts = [] }], breaches, captions);

    private static List<string> Wrong(StreamFacts facts) =>
        [.. FileCheck.Findings(facts, InPieces, Source).Where(f => f.Verdict == Verdict.Wrong).Select(f => f.Code)];

    [Fact]
    public void A_folder_of_pieces_is_right_where_each_size_is_and_all_fit()
    {
        Wrong(Pieces()).ShouldBeEmpty();
        Wrong(Pieces(captions: 0)).ShouldBe(["captions"]);
        Wrong(Pieces(captions: 2)).ShouldBe(["captions"]);
        Wrong(Pieces(breaches: "EXT-X-TARGETDURATION is missing")).ShouldBe(["playlists"]);
        Wrong(Pieces(small: Small with { Picture = Small.Picture! with { Size = new PictureSize(640, 362) } })).ShouldBe(["size-360"]);
        Wrong(Pieces(large: Good with { Picture = Picture with { Level = 40 } })).ShouldBe(["codec"]);
        var check = FileCheck.Findings(Pieces(), InPieces, Source);
        check.Single(f => f.Code == "size-360").Fact.ShouldBe("360 lines: picture size");
        check.Single(f => f.Code == "aligned").Measured.ShouldBe("at the same moments");
        check.Single(f => f.Code == "playlists").Measured.ShouldBe("yes");
        FileCheck.Findings(Pieces(breaches: "No end"), InPieces, Source).Single(f => f.Code == "playlists").Measured.ShouldBe("No end");
    }

    [Fact]
    public void Key_frames_of_all_sizes_stand_at_the_same_moments()
    {
        RenditionFacts Moved(TimeSpan by) =>
            Small with
            {
                Picture = Small.Picture! with { KeyFrames = [Ms.Of(0), .. Picture.KeyFrames.Skip(1).Select(k => k + by)] },
            };
        Wrong(Pieces(small: Moved(Ms.Of(16)))).ShouldNotContain("aligned");
        Wrong(Pieces(small: Moved(Ms.Of(17)))).ShouldContain("aligned");
        Wrong(Pieces(small: Small with { Picture = Small.Picture! with { KeyFrames = [.. Picture.KeyFrames.SkipLast(1)] } })).ShouldContain("aligned");
        Wrong(Pieces(small: Small with { Picture = null })).ShouldContain("aligned");
    }

    [Fact]
    public void What_was_measured_is_said_as_it_is()
    {
        string Measured(string code, RenditionFacts facts) => FileCheck.Findings(facts, Plan, 2, Source).Single(f => f.Code == code).Measured;
        Measured("codec", Good).ShouldBe("H.264 High, level 3.1, yuv420p");
        Measured("codec", Good with { Picture = Picture with { Codec = "vp9", CodecProfile = "Profile 0" } }).ShouldBe("VP9 Profile 0, yuv420p");
        Measured("sound", Good).ShouldBe("AAC, stereo, 48 kHz");
        Measured("sound", Good with { Sound = Sound with { Channels = 1 } }).ShouldBe("AAC, mono, 48 kHz");
        Measured("sound", Good with { Sound = Sound with { Channels = 6, SampleRate = 44_100 } }).ShouldBe("AAC, 6 channels, 44.1 kHz");
    }
}
