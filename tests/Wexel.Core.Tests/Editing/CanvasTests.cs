using CsCheck;
using Wexel.Core.Editing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Editing;

public sealed class CanvasTests
{
    private static readonly PictureSize Hd = new(1280, 720);

    private static Canvas On(int width, int height, FitMode fit = FitMode.Whole) => new(new(width, height), fit, PicturePart.All);

    [Fact]
    public void As_recorded_nothing_is_scaled_black_or_left_out()
    {
        var placed = CanvasPlacement.Of(Hd, Canvas.AsRecorded, null);
        placed.ShouldBe(new CanvasPlacement(Hd, new(0, 0, 1280, 720), new(0, 0, 1280, 720), Hd));
        (placed.ScalePercent, placed.WholeFactor, placed.LeftOutPercent, placed.EmptyPercent).ShouldBe((100, true, 0, 0));
        placed.Notes(Canvas.AsRecorded).ShouldBeEmpty();
    }

    [Fact]
    public void A_4_3_recording_on_a_16_9_canvas_is_black_at_the_sides_by_a_quarter()
    {
        // 640 × 480 on 1280 × 720: 960 of 1280 columns are used, a quarter is black; filled, a quarter of the recording is left out.
        var canvas = On(1280, 720);
        var whole = CanvasPlacement.Of(new(640, 480), canvas, null);
        whole.To.ShouldBe(new PictureRect(160, 0, 960, 720));
        (whole.ScalePercent, whole.WholeFactor, whole.EmptyPercent).ShouldBe((150, false, 25));
        whole
            .Notes(canvas)
            .ShouldBe([
                "25 % of the picture would be black at the sides. Filled, nothing is black, and 25 % of the recording is left out above and below.",
                "The recording is enlarged, which makes it soft; a smaller canvas keeps it sharp.",
            ]);
        var filled = CanvasPlacement.Of(new(640, 480), On(1280, 720, FitMode.Fill), null);
        (filled.From, filled.To, filled.WholeFactor).ShouldBe((new PictureRect(0, 60, 640, 360), new PictureRect(0, 0, 1280, 720), true));
        filled.LeftOutPercent.ShouldBe(25);
    }

    // Facts of the trade, common practice, no source: 2:1 keeps screen text crisp, other factors soften it.
    [Theory]
    [InlineData(1280, 720, 640, 360, 50, true)]
    [InlineData(1920, 1080, 1280, 720, 66.7, false)]
    [InlineData(640, 480, 320, 240, 50, true)]
    public void Says_whether_the_factor_is_whole(int width, int height, int canvasWidth, int canvasHeight, double percent, bool whole)
    {
        var placed = CanvasPlacement.Of(new(width, height), On(canvasWidth, canvasHeight), null);
        placed.ScalePercent.ShouldBe(percent, 0.05);
        placed.WholeFactor.ShouldBe(whole);
        placed.EmptyPercent.ShouldBe(0);
    }

    [Fact]
    public void A_chosen_part_stays_in_view_on_any_canvas()
    {
        var part = new PicturePart(0.5, 0.25, 0.25, 0.25);
        foreach (var size in Canvas.Standard)
        {
            var placed = CanvasPlacement.Of(Hd, new Canvas(size, FitMode.Part, part), null);
            placed.From.ShouldSatisfyAllConditions(
                () => placed.From.X.ShouldBeLessThanOrEqualTo(640),
                () => placed.From.Y.ShouldBeLessThanOrEqualTo(180),
                () => (placed.From.X + placed.From.Width).ShouldBeGreaterThanOrEqualTo(958),
                () => (placed.From.Y + placed.From.Height).ShouldBeGreaterThanOrEqualTo(358)
            );
        }

        // With the canvas's own shape, exactly the part.
        CanvasPlacement.Of(Hd, new Canvas(null, FitMode.Part, part), null).From.ShouldBe(new PictureRect(640, 180, 320, 180));
    }

    [Fact]
    public void What_is_delivered_smaller_shows_the_same_part()
    {
        var canvas = new Canvas(new(1920, 1080), FitMode.Part, new PicturePart(0.1, 0.1, 0.5, 0.5));
        var (large, small) = (CanvasPlacement.Of(Hd, canvas, null), CanvasPlacement.Of(Hd, canvas, 480));
        small.Canvas.ShouldBe(new PictureSize(854, 480));
        ((double)small.From.X).ShouldBe(large.From.X, 2);
        ((double)small.From.Width).ShouldBe(large.From.Width, 4);
    }

    [Fact]
    public void Wherever_it_is_placed_it_lies_on_recording_and_canvas_in_even_pixels_and_keeps_its_shape()
    {
        var size = Gen.Select(Gen.Int[64, 4000], Gen.Int[64, 4000], (w, h) => new PictureSize(w, h));
        var part = Gen.Select(Gen.Double[-0.2, 1.2], Gen.Double[-0.2, 1.2], Gen.Double[0, 1.5], Gen.Double[0, 1.5], (x, y, w, h) =>
            new PicturePart(x, y, w, h)
        );
        Gen.Select(size, size, Gen.Int[0, 2], part, Gen.Int[0, 1])
            .Sample(
                (recorded, canvas, fit, chosen, limited) =>
                {
                    var placed = CanvasPlacement.Of(recorded, new Canvas(canvas, (FitMode)fit, chosen), limited == 0 ? null : 480);
                    var (from, to) = (placed.From, placed.To);
                    (from.X % 2 + from.Y % 2 + from.Width % 2 + from.Height % 2 + to.X % 2 + to.Y % 2 + to.Width % 2 + to.Height % 2).ShouldBe(0);
                    (from.X >= 0 && from.Y >= 0 && from.X + from.Width <= recorded.Width && from.Y + from.Height <= recorded.Height).ShouldBeTrue(
                        $"{from} of {recorded}"
                    );
                    (to.X >= 0 && to.Y >= 0 && to.X + to.Width <= placed.Canvas.Width && to.Y + to.Height <= placed.Canvas.Height).ShouldBeTrue(
                        $"{to} of {placed.Canvas}"
                    );
                    (placed.EmptyPercent is >= 0 and < 100 && placed.LeftOutPercent is >= 0 and < 100).ShouldBeTrue();
                    if (from is { Width: > 150, Height: > 150 } && to is { Width: > 150, Height: > 150 })
                        ((double)to.Width / to.Height / ((double)from.Width / from.Height)).ShouldBe(1, 0.04);
                    if (
                        fit == 1
                        && recorded is { Width: > 150, Height: > 150 }
                        && placed.Canvas is { Width: > 150, Height: > 150 }
                        && (double)recorded.Width / recorded.Height is > 0.2 and < 5
                        && (double)canvas.Width / canvas.Height is > 0.2 and < 5
                    )
                        placed.EmptyPercent.ShouldBeLessThan(3);
                }
            );
    }

    [Fact]
    public void Proposes_the_recorded_size_where_the_web_takes_it()
    {
        Canvas.Proposed(new(1920, 1080)).ShouldBeNull();
        Canvas.Proposed(new(2560, 1440)).ShouldBe(new PictureSize(1920, 1080));
        Canvas.Proposed(new(2880, 2160)).ShouldBe(new PictureSize(1440, 1080));
        Canvas.Proposed(new(3440, 1440)).ShouldBeNull();
    }

    [Fact]
    public void Odd_and_endless_sides_become_ones_that_can_be_made() =>
        new Canvas(new(1, 99_999), (FitMode)9, new PicturePart(2, -1, 0, 9))
            .Within()
            .ShouldBe(new Canvas(new(64, 3840), FitMode.Whole, new PicturePart(0.95, 0, 0.05, 1)));
}
