using CsCheck;
using Wexel.Core.Cameras;
using Wexel.Core.Editing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Cameras;

public class CameraLookTests
{
    private static readonly PictureSize Hd = new(1280, 720);
    private static readonly PictureSize Camera = new(1920, 1080);

    [Fact]
    public void It_stands_in_its_corner_a_fifth_as_wide_as_the_picture()
    {
        var box = CameraLook.Usual.Small(Hd, Camera, CameraCorner.BottomRight);
        box.From.ShouldBe(new PictureRect(0, 0, 1920, 1080));
        (box.To.Width, box.To.Height).ShouldBe((256, 144));
        (Hd.Width - box.To.X - box.To.Width, Hd.Height - box.To.Y - box.To.Height).ShouldBe((26, 26), "2 % of the width from both edges");
        box.Radius.ShouldBe(14, "a fifth of half the shorter side");
        CameraLook.Usual.Small(Hd, Camera, CameraCorner.TopLeft).To.ShouldBe(new PictureRect(26, 26, 256, 144));
    }

    [Fact]
    public void Part_of_it_is_seen_undistorted_and_an_upright_one_is_no_higher_than_the_picture_has_room_for()
    {
        var square = CameraLook.Usual with { Part = new PicturePart(0.25, 0, 0.5625, 1), WidthPercent = 20 };
        square.Small(Hd, Camera, CameraCorner.TopRight).To.ShouldBe(new PictureRect(998, 26, 256, 256));
        var upright = CameraLook.Usual with { WidthPercent = 50 };
        var box = upright.Small(Hd, new PictureSize(1080, 1920), CameraCorner.BottomLeft).To;
        (box.Width, box.Height).ShouldBe((244, 434));
    }

    [Fact]
    public void Large_fills_the_picture_from_the_part_that_is_seen()
    {
        CameraLook.Usual.Large(Hd, Camera).ShouldBe(new CameraBox(new PictureRect(0, 0, 1920, 1080), new PictureRect(0, 0, 1280, 720), 0));
        // Of an upright camera a band is seen.
        CameraLook.Usual.Large(Hd, new PictureSize(1080, 1920)).From.ShouldBe(new PictureRect(0, 656, 1080, 608));
    }

    [Fact]
    public void Black_borders_are_left_out_as_proposed()
    {
        CameraLook.Proposed(Camera, null).ShouldBe(PicturePart.All);
        var part = CameraLook.Proposed(Camera, new PictureBorders(240, 0, 240, 0));
        part.ShouldBe(new PicturePart(0.125, 0, 0.75, 1));
        var from = (CameraLook.Usual with { Part = part }).Small(Hd, Camera, CameraCorner.TopLeft).From;
        from.ShouldBe(new PictureRect(240, 0, 1440, 1080));
    }

    [Fact]
    public void Whatever_is_asked_for_it_is_even_lies_on_the_picture_and_is_cut_out_of_the_camera()
    {
        var size = Gen.Int[16, 1000].Select(Gen.Int[16, 1000], (w, h) => new PictureSize(w * 2, h * 2));
        var part = Gen.Select(Gen.Double[-0.2, 1.2], Gen.Double[-0.2, 1.2], Gen.Double[0, 1.2], Gen.Double[0, 1.2], (x, y, w, h) =>
            new PicturePart(x, y, w, h)
        );
        var look = Gen.Select(Gen.Double[-10, 200], Gen.Double[-5, 60], Gen.Double[-5, 150], part, (w, d, r, p) => (w, d, r, p));
        Gen.Select(size, size, look, Gen.Enum<CameraCorner>())
            .Sample(
                (picture, camera, wanted, corner) =>
                {
                    var made = CameraLook.Usual with { WidthPercent = wanted.w, DistancePercent = wanted.d, RoundedPercent = wanted.r, Part = wanted.p };
                    foreach (var box in new[] { made.Small(picture, camera, corner), made.Large(picture, camera) })
                    {
                        foreach (var (rect, within) in new[] { (box.From, camera), (box.To, picture) })
                        {
                            (rect.X % 2 + rect.Y % 2 + rect.Width % 2 + rect.Height % 2).ShouldBe(0, rect.ToString());
                            (rect.X >= 0 && rect.Y >= 0 && rect.Width >= 2 && rect.Height >= 2).ShouldBeTrue(rect.ToString());
                            (rect.X + rect.Width <= within.Width && rect.Y + rect.Height <= within.Height).ShouldBeTrue($"{rect} in {within}");
                        }

                        (box.Radius * 2 <= Math.Min(box.To.Width, box.To.Height)).ShouldBeTrue();
                    }
                },
                iter: 3000
            );
    }

    /// <summary>Of a circle in its square, π/4 is covered.</summary>
    [Fact]
    public void A_mask_is_a_circle_where_it_is_as_round_as_can_be()
    {
        var mask = RoundCorners.Mask(new PictureSize(200, 200), 100);
        (mask.Sum(v => v / 255.0) / mask.Length).ShouldBe(Math.PI / 4, 0.001);
        RoundCorners.Mask(new PictureSize(40, 30), 0).ShouldAllBe(v => v == 255);
        var box = RoundCorners.Mask(new PictureSize(40, 30), 10);
        (box[0], box[20], box[(15 * 40) + 0]).ShouldBe(((byte)0, (byte)255, (byte)255));
    }
}
