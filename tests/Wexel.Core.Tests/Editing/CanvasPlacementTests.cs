using Wexel.Core.Editing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Editing;

/// <summary>Placements worked by hand.</summary>
public class CanvasPlacementTests
{
    private static CanvasPlacement Place(PictureSize recorded, PictureSize canvas, FitMode fit, PicturePart? part = null) =>
        CanvasPlacement.Of(recorded, new Canvas(canvas, fit, part ?? PicturePart.All), null);

    [Fact]
    public void A_wide_recording_stands_between_two_bars()
    {
        var placed = Place(new(1280, 720), new(640, 480), FitMode.Whole);
        (placed.From, placed.To).ShouldBe((new(0, 0, 1280, 720), new(0, 60, 640, 360)));
        (placed.Page, placed.SeenOnPage).ShouldBe((new(1280, 960), new(0, 120, 1280, 720)));
        (placed.ScalePercent, placed.EmptyPercent, placed.LeftOutPercent, placed.WholeFactor).ShouldBe((50, 25, 0, true));
        placed.WholeDelivered.ShouldBe(new PictureSize(640, 360));
        placed
            .Notes(new Canvas(new(640, 480), FitMode.Whole, PicturePart.All))
            .ShouldBe(["25 % of the picture would be black above and below. Filled, nothing is black, and 25 % of the recording is left out at the sides."]);
        // A quarter of it, and as much around as the canvas has room for.
        placed.OnPage(new PicturePart(0.5, 0.5, 0.25, 0.25)).ShouldBe(new PictureRect(640, 450, 320, 240));
        placed.OnPage(new PicturePart(0, 0, 0.25, 0.25)).ShouldBe(new PictureRect(0, 90, 320, 240));
        placed.OnPage(PicturePart.All).ShouldBe(new PictureRect(0, 0, 1280, 960));
        placed.OnPage(new PicturePart(0.9, 0.9, 0.1, 0.1)).ShouldBe(new PictureRect(1152, 756, 128, 96));
        placed.OnPage(new PicturePart(0.5, 0.5, 0.05, 0.25)).ShouldBe(new PictureRect(552, 480, 240, 180));
    }

    [Fact]
    public void A_narrow_recording_stands_between_two_bars_and_is_enlarged()
    {
        var placed = Place(new(800, 600), new(1280, 720), FitMode.Whole);
        (placed.From, placed.To).ShouldBe((new(0, 0, 800, 600), new(160, 0, 960, 720)));
        (placed.Page, placed.SeenOnPage).ShouldBe((new(1066, 600), new(132, 0, 800, 600)));
        (placed.ScalePercent, placed.EmptyPercent, placed.WholeFactor).ShouldBe((120, 25, false));
        placed.WholeDelivered.ShouldBe(new PictureSize(960, 720));
        placed
            .Notes(new Canvas(new(1280, 720), FitMode.Whole, PicturePart.All))
            .ShouldBe([
                "25 % of the picture would be black at the sides. Filled, nothing is black, and 25 % of the recording is left out above and below.",
                "The recording is enlarged, which makes it soft; a smaller canvas keeps it sharp.",
            ]);
    }

    [Fact]
    public void Filled_nothing_is_black_and_both_sides_lose_alike()
    {
        var wide = Place(new(1280, 720), new(640, 480), FitMode.Fill);
        (wide.From, wide.To).ShouldBe((new(160, 0, 960, 720), new(0, 0, 640, 480)));
        (wide.LeftOutPercent, wide.EmptyPercent).ShouldBe((25, 0));
        (wide.Page, wide.SeenOnPage).ShouldBe((new(960, 720), new(0, 0, 960, 720)));
        wide.WholeDelivered.ShouldBe(new PictureSize(853, 480));
        wide.Notes(new Canvas(new(640, 480), FitMode.Fill, PicturePart.All)).ShouldBe(["25 % of the recording is left out at the sides."]);
        // The corner of the recording is left of the page.
        wide.OnPage(new PicturePart(0.5, 0.25, 0.25, 0.25)).ShouldBe(new PictureRect(480, 150, 320, 240));
        var high = Place(new(800, 600), new(1280, 720), FitMode.Fill);
        (high.From, high.To).ShouldBe((new(0, 74, 800, 450), new(0, 0, 1280, 720)));
        high.Notes(new Canvas(new(1280, 720), FitMode.Fill, PicturePart.All))[0].ShouldBe("25 % of the recording is left out above and below.");
    }

    [Theory]
    [InlineData(0.25, 0.25, 0.25, 0.5, 240, 270, 960, 540)]
    [InlineData(0.25, 0.25, 0.5, 0.125, 480, 66, 960, 540)]
    [InlineData(0, 0, 0.1, 0.5, 0, 0, 960, 540)]
    [InlineData(0.9, 0.5, 0.1, 0.5, 960, 540, 960, 540)]
    [InlineData(0, 0, 0.5, 0.125, 0, 0, 960, 540)]
    [InlineData(0.5, 0.875, 0.5, 0.125, 960, 540, 960, 540)]
    [InlineData(0, 0, 1, 0.5, 0, 0, 1920, 1080)]
    public void A_part_has_as_much_around_it_as_the_canvas_has_room_for(double x, double y, double width, double height, int left, int top, int w, int h)
    {
        var placed = Place(new(1920, 1080), new(1280, 720), FitMode.Part, new PicturePart(x, y, width, height));
        placed.From.ShouldBe(new PictureRect(left, top, w, h));
        placed.To.ShouldBe(new PictureRect(0, 0, 1280, 720));
    }

    [Theory]
    [InlineData(1366, 768, 1280, 720, 0, 0, 1280, 720)]
    [InlineData(1280, 714, 1280, 720, 0, 0, 1280, 720)]
    [InlineData(1280, 712, 1280, 720, 0, 4, 1280, 712)]
    public void Less_than_a_hundredth_of_black_is_none(int width, int height, int across, int down, int x, int y, int w, int h) =>
        Place(new(width, height), new(across, down), FitMode.Whole).To.ShouldBe(new PictureRect(x, y, w, h));

    [Theory]
    [InlineData(640, 360, 1280, 720, true)]
    [InlineData(1280, 720, 640, 360, true)]
    [InlineData(1280, 720, 1280, 720, true)]
    [InlineData(1280, 720, 640, 240, false)]
    [InlineData(640, 360, 1280, 1080, false)]
    [InlineData(600, 400, 400, 400, false)]
    [InlineData(600, 400, 600, 300, false)]
    [InlineData(1280, 720, 854, 480, false)]
    public void Whole_factors_are_those_of_both_sides(int fromWidth, int fromHeight, int toWidth, int toHeight, bool whole) =>
        new CanvasPlacement(new(2000, 2000), new(0, 0, fromWidth, fromHeight), new(0, 0, toWidth, toHeight), new(2000, 2000)).WholeFactor.ShouldBe(whole);

    [Theory]
    [InlineData(1920, 1080, null)]
    [InlineData(1922, 1080, "1920 × 1080")]
    [InlineData(3840, 2160, "1920 × 1080")]
    [InlineData(2560, 1920, "1440 × 1080")]
    [InlineData(2160, 3840, "1080 × 1920")]
    [InlineData(320, 180, null)]
    [InlineData(318, 180, null)]
    [InlineData(2000, 1000, null)]
    public void A_size_that_the_web_takes_well_is_proposed(int width, int height, string? proposed) =>
        Canvas.Proposed(new(width, height)).ToString().ShouldBe(proposed ?? "");

    [Theory]
    [InlineData(FitMode.Whole, true)]
    [InlineData(FitMode.Fill, true)]
    [InlineData(FitMode.Part, false)]
    public void In_its_own_size_only_a_part_is_another_picture(FitMode fit, bool same)
    {
        new Canvas(null, fit, PicturePart.All).IsAsRecorded.ShouldBe(same);
        new Canvas(new(640, 360), fit, PicturePart.All).IsAsRecorded.ShouldBeFalse();
    }

    [Theory]
    [InlineData(100, 75, 200, 150, true)]
    [InlineData(200, 150, 100, 75, true)]
    [InlineData(100, 75, 200, 151, false)]
    [InlineData(100, 75, 201, 150, false)]
    [InlineData(200, 151, 100, 75, false)]
    [InlineData(201, 150, 100, 75, false)]
    [InlineData(100, 75, 200, 225, false)]
    [InlineData(200, 225, 100, 75, false)]
    [InlineData(100, 75, 100, 75, true)]
    public void A_factor_is_whole_where_both_sides_go_by_the_same_number(int fromWidth, int fromHeight, int toWidth, int toHeight, bool whole) =>
        (
            Place(new(400, 400), new(400, 400), FitMode.Whole) with
            {
                From = new(0, 0, fromWidth, fromHeight),
                To = new(0, 0, toWidth, toHeight),
            }
        ).WholeFactor.ShouldBe(whole);
}
