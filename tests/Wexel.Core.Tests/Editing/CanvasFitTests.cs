using CsCheck;
using Wexel.Core.Editing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Editing;

public class CanvasFitTests
{
    // Common practice, no source: the sizes that trainers deliver.
    [Theory]
    [InlineData(1280, 720, null, 1280, 720)]
    [InlineData(1920, 1080, 720, 1280, 720)]
    [InlineData(1920, 1080, 480, 854, 480)]
    [InlineData(1440, 1080, 480, 640, 480)]
    [InlineData(640, 480, 720, 640, 480)]
    [InlineData(1281, 721, null, 1280, 720)]
    [InlineData(8192, 4608, null, 3840, 2160)]
    [InlineData(1080, 1920, 720, 406, 720)]
    public void Fits_under_a_height(int width, int height, int? limit, int expectedWidth, int expectedHeight) =>
        CanvasFit.Under(new PictureSize(width, height), limit).Target.ShouldBe(new PictureSize(expectedWidth, expectedHeight));

    [Fact]
    public void Never_odd_never_larger_and_in_shape() =>
        Gen.Select(Gen.Int[16, 9000], Gen.Int[16, 9000], Pick.From<int?>(null, 480, 720))
            .Sample(
                (width, height, limit) =>
                {
                    var fit = CanvasFit.Under(new PictureSize(width, height), limit);
                    var shape = (double)width / height;
                    return fit.Target.Width % 2 == 0
                        && fit.Target.Height % 2 == 0
                        && fit.Target.Width is >= 2
                        && fit.Target.Height is >= 2
                        && fit.Target.Width <= width
                        && fit.Target.Height <= height
                        && fit.Target.Height <= (limit ?? int.MaxValue)
                        && (Math.Abs(fit.Target.Width - (fit.Target.Height * shape)) <= 2 + (2 * shape) || Math.Min(fit.Target.Width, fit.Target.Height) <= 4);
                }
            );

    [Fact]
    public void Says_whether_the_factor_is_whole()
    {
        CanvasFit.Under(new PictureSize(1280, 960), 480).WholeFactor.ShouldBeTrue();
        var soft = CanvasFit.Under(new PictureSize(1920, 1080), 720);
        soft.WholeFactor.ShouldBeFalse();
        soft.ScalePercent.ShouldBe(66.7, 0.05);
    }
}
