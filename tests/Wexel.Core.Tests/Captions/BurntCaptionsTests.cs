using Wexel.Core.Captions;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Captions;

/// <summary>Worked by hand for 1280 x 720: a line is 43 pixels high, three are 129; 128 are free at the sides, 36 below, and 21 to the mark.</summary>
public class BurntCaptionsTests
{
    private static readonly PictureSize Size = new(1280, 720);

    public static TheoryData<PictureRect?, CaptionPlacement> Marks =>
        new()
        {
            { null, new(43, 128, 128, 36) },
            // Far from where captions stand.
            { new PictureRect(1100, 20, 150, 80), new(43, 128, 128, 36) },
            // At the right, at the left, and further in than the usual room.
            { new PictureRect(1100, 620, 150, 80), new(43, 128, 201, 36) },
            { new PictureRect(30, 620, 150, 80), new(43, 201, 128, 36) },
            { new PictureRect(853, 620, 300, 80), new(43, 128, 448, 36) },
            { new PictureRect(852, 620, 300, 80), new(43, 128, 128, 121) },
            // In the middle: above it.
            { new PictureRect(400, 640, 480, 60), new(43, 128, 128, 101) },
            { new PictureRect(400, 200, 480, 520), new(43, 128, 128, 541) },
            { new PictureRect(400, 150, 480, 570), new(43, 128, 128, 591) },
            // Over nearly all of it: as usual.
            { new PictureRect(400, 186, 480, 534), new(43, 128, 128, 555) },
            { new PictureRect(400, 100, 480, 620), new(43, 128, 128, 36) },
            { new PictureRect(0, 0, 1280, 720), new(43, 128, 128, 36) },
        };

    [Theory]
    [MemberData(nameof(Marks))]
    public void Captions_keep_off_the_mark(PictureRect? mark, CaptionPlacement placed) => CaptionPlacement.On(Size, mark).ShouldBe(placed);

    [Theory]
    [InlineData(1172, 600, 10, 10, true)]
    [InlineData(1173, 600, 10, 10, false)]
    [InlineData(98, 600, 10, 10, true)]
    [InlineData(97, 600, 10, 10, false)]
    [InlineData(600, 704, 10, 10, true)]
    [InlineData(600, 705, 10, 10, false)]
    [InlineData(600, 525, 10, 10, true)]
    [InlineData(600, 524, 10, 10, false)]
    public void A_box_touches_where_less_than_the_gap_is_between(int x, int y, int width, int height, bool touches) =>
        new CaptionPlacement(43, 128, 128, 36).Touches(Size, new PictureRect(x, y, width, height), 21).ShouldBe(touches);

    [Fact]
    public void Captions_stand_between_a_camera_and_the_mark_or_above_them()
    {
        PictureRect mark = new(1024, 620, 192, 64);
        PictureRect Camera(int width) => new(26, 720 - 26 - (width * 9 / 16), width, width * 9 / 16);
        PictureRect[] narrow = [Camera(230), mark];
        PictureRect[] wide = [Camera(420), mark];
        var between = CaptionPlacement.Beside(Size, narrow);
        (between.Left > 256, between.Right > 256, between.Edge).ShouldBe((true, true, 36));
        var above = CaptionPlacement.Beside(Size, wide);
        above.Edge.ShouldBeGreaterThan(420 * 9 / 16);
        foreach (var (placed, camera) in new[] { (between, Camera(230)), (above, Camera(420)) })
            (placed.Touches(Size, camera, 4) || placed.Touches(Size, mark, 4)).ShouldBeFalse();
    }

    [Fact]
    public void The_script_says_where_they_stand()
    {
        var cue = new Cue(new TimeRange(Ms.Of(3_661_230), Ms.Of(3_662_000)), "Cast off");
        var script = BurntCaptions.Script([cue, cue with { AtTop = true }], Size, new PictureRect(1100, 620, 150, 80));
        script.ShouldContain("PlayResX: 1280\nPlayResY: 720\n");
        script.ShouldContain(",3,5,0,2,128,201,36,1\n");
        script.ShouldContain("Dialogue: 0,1:01:01.23,1:01:02.00,Caption,,0,0,0,,Cast off\n");
        script.ShouldContain(",Caption,,0,0,0,,{\\an8}Cast off\n");
    }
}
