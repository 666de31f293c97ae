using SkiaSharp;
using Wexel.Core.Lessons;
using Wexel.Core.Recordings;
using Wexel.Media.Rendering;

namespace Wexel.Media.Tests;

/// <summary>Pictures that somebody gives, as pages show them.</summary>
public sealed class GivenPictureTests : IDisposable
{
    private static readonly PictureSize Size = new(1280, 720);

    private readonly string _folder = Directory.CreateTempSubdirectory("wexel-given-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private async Task<SKBitmap> MadeAsync(byte[] given)
    {
        var (path, made) = (Path.Combine(_folder, "given"), Path.Combine(_folder, "made.jpg"));
        await File.WriteAllBytesAsync(path, given, TestContext.Current.CancellationToken);
        await GivenPicture.MakeAsync(path, Size, LessonPicture.Seen, made);
        var bitmap = SKBitmap.Decode(made);
        (bitmap.Width, bitmap.Height).ShouldBe((Size.Width, Size.Height));
        return bitmap;
    }

    private static byte[] Drawn(int width, int height, Func<int, int, SKColor> at, SKEncodedImageFormat format, SKColorSpace? space = null)
    {
        using var bitmap = new SKBitmap(new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Unpremul, space ?? SKColorSpace.CreateSrgb()));
        var pixels = new byte[width * height * 4];
        for (var i = 0; i < width * height; i++)
        {
            var colour = at(i % width, i / width);
            (pixels[i * 4], pixels[(i * 4) + 1], pixels[(i * 4) + 2], pixels[(i * 4) + 3]) = (colour.Red, colour.Green, colour.Blue, colour.Alpha);
        }

        System.Runtime.InteropServices.Marshal.Copy(pixels, 0, bitmap.GetPixels(), pixels.Length);
        using var data = bitmap.Encode(format, 95);
        return data.ToArray();
    }

    private static void ShouldBe(SKColor is_, int red, int green, int blue)
    {
        foreach (var (one, other) in new[] { (is_.Red, red), (is_.Green, green), (is_.Blue, blue) })
            ((int)one).ShouldBeInRange(other - 3, other + 3, $"{is_} for {red}, {green}, {blue}");
    }

    /// <summary>Display P3 (150, 170, 120) is sRGB (145, 171, 114), by the matrices of CSS Color Module Level 4, section 10 (from memory).</summary>
    [Fact]
    public async Task Colours_of_another_profile_become_those_that_pages_mean()
    {
        var p3 = SKColorSpace.CreateRgb(SKColorSpaceTransferFn.Srgb, SKColorSpaceXyz.DisplayP3);
        var given = Drawn(1280, 720, (_, _) => new SKColor(150, 170, 120), SKEncodedImageFormat.Png, p3);
        System.Text.Encoding.Latin1.GetString(given).ShouldContain("iCCP");
        using var made = await MadeAsync(given);
        ShouldBe(made.GetPixel(640, 360), 145, 171, 114);
    }

    /// <summary>Exif 2.32, tag 0x0112: 6 is "the 0th row is the right side, the 0th column the top", so it is turned to the right to be upright.</summary>
    [Fact]
    public async Task A_picture_that_lies_on_its_side_is_set_upright()
    {
        var lying = Drawn(1280, 720, (x, _) => x < 640 ? SKColors.Red : SKColors.Blue, SKEncodedImageFormat.Jpeg);
        byte[] exif = [0xFF, 0xE1, 0, 34, .. "Exif\0\0"u8, .. "MM"u8, 0, 42, 0, 0, 0, 8, 0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, 6, 0, 0, 0, 0, 0, 0];
        using var made = await MadeAsync([.. lying[..2], .. exif, .. lying[2..]]);
        ShouldBe(made.GetPixel(640, 100), 254, 0, 0);
        ShouldBe(made.GetPixel(640, 620), 0, 0, 254);
    }

    [Fact]
    public async Task Where_it_is_transparent_it_lies_on_paper()
    {
        using var made = await MadeAsync(Drawn(1280, 720, (x, _) => x < 640 ? new SKColor(10, 20, 30, 0) : new SKColor(10, 20, 30), SKEncodedImageFormat.Png));
        ShouldBe(made.GetPixel(100, 360), 255, 255, 255);
        ShouldBe(made.GetPixel(1200, 360), 10, 20, 30);
    }

    [Fact]
    public async Task Of_one_of_another_shape_the_middle_is_seen()
    {
        // 1280 × 1280, of which the middle 720 lines are green.
        using var made = await MadeAsync(Drawn(1280, 1280, (_, y) => y is >= 280 and < 1000 ? SKColors.Lime : SKColors.Red, SKEncodedImageFormat.Webp));
        ShouldBe(made.GetPixel(640, 8), 0, 255, 1);
        ShouldBe(made.GetPixel(640, 711), 0, 255, 1);
    }

    [Fact]
    public async Task What_is_no_picture_says_so_and_leaves_nothing()
    {
        await Should.ThrowAsync<InvalidDataException>(() => MadeAsync("no picture"u8.ToArray()));
        var broken = Drawn(1280, 720, (x, y) => new SKColor((byte)(x * y), (byte)x, (byte)y), SKEncodedImageFormat.Png);
        await Should.ThrowAsync<InvalidDataException>(() => MadeAsync(broken[..(broken.Length / 2)]));
        Directory.EnumerateFiles(_folder).Select(Path.GetFileName).ShouldBe(["given"]);
    }
}
