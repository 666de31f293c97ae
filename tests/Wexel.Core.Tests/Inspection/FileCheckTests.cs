using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Inspection;

public class FileCheckTests
{
    private static readonly RenderPlan Plan = RenderPlanner.Plan(Reel.Of(Sample.Facts(), SoundSides.Stereo), Reel.Of(Sample.Facts()).Map([]), [new("a", Ms.Of(0), "A"), new("b", Ms.Of(12_500), "B")], Profiles.Web);

    private static readonly RenditionFacts Good = new(
        1_000_000, Ms.Of(65_010), Ms.Of(65_000), new PictureSize(1280, 720), 1, "h264", "High", 31, "yuv420p",
        new ColourFacts("bt709", "bt709", "bt709", false), true, new SoundFacts("aac", 2, null, 48000),
        [Ms.Of(0), Ms.Of(10_000), Ms.Of(12_500), Ms.Of(20_000), Ms.Of(30_000), Ms.Of(40_000), Ms.Of(50_000), Ms.Of(60_000)],
        200, Ms.Of(1000), [Ms.Of(0), Ms.Of(12_500)], "avc1.64001F, mp4a.40.2");

    [Fact]
    public void What_was_planned_is_right() => FileCheck.Of(Good, Plan, 2).ShouldAllBe(f => f.Verdict == Verdict.Right);

    public static TheoryData<string, RenditionFacts> Broken => new()
    {
        { "length", Good with { Length = Ms.Of(64_000) } },
        { "length", Good with { PictureLength = Ms.Of(64_000) } },
        { "size", Good with { Size = new(1280, 718) } },
        { "size", Good with { PixelAspect = 1.1 } },
        { "codec", Good with { Level = 40 } },
        { "codec", Good with { CodecProfile = "Main" } },
        { "codec", Good with { PixelFormat = "yuv444p" } },
        { "colour", Good with { Colour = new(null, null, null, null) } },
        { "colour", Good with { Colour = Good.Colour with { FullRange = true } } },
        { "index", Good with { IndexAtFront = false } },
        { "sound", Good with { Sound = null } },
        { "sound", Good with { Sound = new("aac", 1, null, 48000) } },
        { "section-key-frames", Good with { KeyFrames = [.. Good.KeyFrames.Where(k => k != Ms.Of(12_500))] } },
        { "key-frame-distance", Good with { KeyFrames = [Ms.Of(0), Ms.Of(12_500), Ms.Of(25_000)] } },
        { "chapters", Good with { ChapterStarts = [] } },
    };

    [Theory]
    [MemberData(nameof(Broken))]
    public void Each_fault_is_found_and_nothing_else(string code, RenditionFacts facts) =>
        FileCheck.Of(facts, Plan, 2).Where(f => f.Verdict == Verdict.Wrong).Select(f => f.Code).ShouldBe([code]);
}
