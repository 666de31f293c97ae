using Wexel.Core.Inspection;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Inspection;

public sealed class StructuralSimilarityTests
{
    private static readonly PictureSize Size = new(34, 27);

    private static byte[] Picture(Func<int, int, int> at) =>
        [.. Enumerable.Range(0, Size.Width * Size.Height).Select(i => (byte)at(i % Size.Width, i / Size.Width))];

    [Fact]
    public void A_picture_is_like_itself()
    {
        var picture = Picture((x, y) => (x * 37) + (y * 11));
        StructuralSimilarity.Compare(picture, picture, Size).ShouldBe(1, 1e-12);
    }

    /// <summary>
    /// Wang, Bovik, Sheikh, Simoncelli: Image quality assessment, IEEE Transactions on Image Processing 13 (2004), equation 6 (from memory): of
    /// flat pictures the luminance is left, (2·μx·μy + C1) / (μx² + μy² + C1) with C1 = (0.01 · 255)², of which encoders take a 64th (common practice,
    /// no source).
    /// </summary>
    [Theory]
    [InlineData(100, 110)]
    [InlineData(0, 255)]
    [InlineData(16, 17)]
    public void Of_flat_pictures_the_luminance_counts_alone(int one, int other)
    {
        var c1 = 0.01 * 255 * 0.01 * 255 / 64;
        StructuralSimilarity
            .Compare(Picture((_, _) => one), Picture((_, _) => other), Size)
            .ShouldBe(((2.0 * one * other) + c1) / ((one * one) + (other * other) + c1), 1e-9);
    }

    [Fact]
    public void A_picture_is_unlike_its_negative()
    {
        var picture = Picture((x, y) => (x + y) % 2 * 255);
        StructuralSimilarity.Compare(picture, Picture((x, y) => 255 - ((x + y) % 2 * 255)), Size).ShouldBeLessThan(-0.9);
    }

    [Fact]
    public void What_is_wrong_in_one_window_is_seen()
    {
        var picture = Picture((x, _) => x % 3 * 100);
        var spot = Picture((x, y) => x is 20 or 21 && y is 12 or 13 ? 0 : x % 3 * 100);
        StructuralSimilarity.Compare(picture, spot, Size).ShouldBeInRange(0.7, 0.99);
    }

    [Theory]
    [InlineData(2, 64)]
    [InlineData(7, 7)]
    public void A_picture_smaller_than_a_window_is_one(int width, int height)
    {
        byte[] picture = [.. Enumerable.Range(0, width * height).Select(i => (byte)(i * 5))];
        StructuralSimilarity.Compare(picture, picture, new PictureSize(width, height)).ShouldBe(1, 1e-12);
        StructuralSimilarity.Compare(picture, [.. picture.Reverse()], new PictureSize(width, height)).ShouldBeLessThan(0.5);
    }

    [Fact]
    public void Fewer_samples_than_the_size_says_are_refused() =>
        Should.Throw<ArgumentException>(() => StructuralSimilarity.Compare(new byte[64], new byte[63], new PictureSize(8, 8)));
}
