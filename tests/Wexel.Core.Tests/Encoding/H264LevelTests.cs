using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Encoding;

public class H264LevelTests
{
    // ITU-T H.264, Table A-6 (maximum frame rates for some example frame sizes); values from memory, and each follows from
    // Table A-1 as MaxMBPS / frame size in macroblocks.
    [Theory]
    [InlineData(176, 144, 15.0, "1")]
    [InlineData(352, 288, 30.0, "1.3")]
    [InlineData(352, 288, 15.1, "1.2", 151, 10)]
    [InlineData(640, 480, 33.7, "3", 337, 10)]
    [InlineData(720, 576, 25.0, "3")]
    [InlineData(1280, 720, 30.0, "3.1")]
    [InlineData(1280, 720, 60.0, "3.2")]
    [InlineData(1280, 1024, 42.2, "3.2", 421, 10)]
    [InlineData(1920, 1088, 30.1, "4", 301, 10)]
    [InlineData(1920, 1088, 64.0, "4.2")]
    [InlineData(2048, 1088, 60.0, "4.2")]
    [InlineData(1920, 1088, 72.0, "5")]
    [InlineData(3840, 2160, 30.0, "5.1", 30, 1)]
    [InlineData(3840, 2160, 60.0, "5.2")]
    [InlineData(4096, 2304, 56.2, "5.2", 562, 10)]
    public void Follows_the_standards_example_rates(int width, int height, double rate, string level, int numerator = 0, int denominator = 1)
    {
        var exact = numerator > 0 ? new FrameRate(numerator, denominator) : new FrameRate((int)rate, 1);
        var lowest = H264Level.LowestFor(new PictureSize(width, height), exact).ShouldNotBeNull();
        double.Parse(lowest.Name, System.Globalization.CultureInfo.InvariantCulture)
            .ShouldBeLessThanOrEqualTo(double.Parse(level, System.Globalization.CultureInfo.InvariantCulture));
        lowest.Name.ShouldBe(level);
    }

    [Fact]
    public void A_little_more_than_the_tables_rate_needs_the_next_level()
    {
        H264Level.LowestFor(new PictureSize(1280, 720), new FrameRate(30001, 1000))!.Name.ShouldBe("3.2");
        H264Level.LowestFor(new PictureSize(1920, 1080), new FrameRate(31, 1))!.Name.ShouldBe("4.2");
    }

    [Fact]
    public void A_long_thin_picture_is_bound_by_its_side_not_its_area()
    {
        // 2048 x 64 is 512 macroblocks, under level 2.1's 792, but 128 across passes Sqrt(792 x 8) = 79.6; level 3.1 allows 169.
        H264Level.LowestFor(new PictureSize(2048, 64), new FrameRate(10, 1))!.Name.ShouldBe("3.1");
    }

    [Fact]
    public void Nothing_takes_more_than_the_highest_level() => H264Level.LowestFor(new PictureSize(16384, 16384), new FrameRate(30, 1)).ShouldBeNull();

    // ITU-T H.264, Table A-1 and the variable MaxDpbFrames of A.3.1: 4 frames of full HD at level 4, 9 of 720p at 4, 16 at most.
    [Theory]
    [InlineData(40, 1920, 1088, 4)]
    [InlineData(31, 1280, 720, 5)]
    [InlineData(40, 1280, 720, 9)]
    [InlineData(51, 640, 480, 16)]
    public void Holds_as_many_reference_frames_as_the_buffer(int level, int width, int height, int frames) =>
        H264Level.All.First(l => l.Number == level).MaxReferenceFrames(new PictureSize(width, height)).ShouldBe(frames);

    [Fact]
    public void Bit_rates_of_High_are_five_quarters_of_the_tables() =>
        H264Level.All.First(l => l.Name == "3.1").MaxBitsPerSecond(H264Profile.High).ShouldBe(17_500_000);

    // RFC 6381, section 3.3: the six hexadecimal digits; the example for High at 3.1 is common practice, no source.
    [Fact]
    public void Codecs_strings_are_in_hexadecimal() => CodecsString.Avc(100, 0, 31).ShouldBe("avc1.64001F");
}
