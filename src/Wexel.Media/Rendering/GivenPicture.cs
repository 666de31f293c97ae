using SkiaSharp;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Makes of a picture that somebody gives what a page shows: upright, in sRGB whatever profile it came with, cut to a shape, as JPEG.</summary>
public static class GivenPicture
{
    private const int Quality = 90;

    /// <summary>Makes it.</summary>
    /// <param name="path">What was given: a PNG, JPEG or WebP.</param>
    /// <param name="size">What it becomes, in pixels.</param>
    /// <param name="seen">Which part of it is seen, in its upright pixels, by its size.</param>
    /// <param name="outputPath">Where the JPEG goes.</param>
    /// <exception cref="InvalidDataException">It cannot be read as a picture.</exception>
    public static Task MakeAsync(string path, PictureSize size, Func<PictureSize, PictureSize, PictureRect> seen, string outputPath) =>
        MakeAsync(path, _ => size, seen, outputPath);

    /// <inheritdoc cref="MakeAsync(string, PictureSize, Func{PictureSize, PictureSize, PictureRect}, string)"/>
    /// <param name="path">What was given: a PNG, JPEG or WebP.</param>
    /// <param name="sizeOf">What it becomes, in pixels, by its upright size.</param>
    /// <param name="seen">Which part of it is seen, in its upright pixels, by its size.</param>
    /// <param name="outputPath">Where the JPEG goes.</param>
    public static Task MakeAsync(string path, Func<PictureSize, PictureSize> sizeOf, Func<PictureSize, PictureSize, PictureRect> seen, string outputPath) =>
        WholeFile.MakeAsync(outputPath, temporary => Task.Run(() => Make(path, sizeOf, seen, temporary)));

    private static void Make(string path, Func<PictureSize, PictureSize> sizeOf, Func<PictureSize, PictureSize, PictureRect> seen, string outputPath)
    {
        using var codec = SKCodec.Create(path) ?? throw new InvalidDataException("It cannot be read as a picture.");
        using var given = new SKBitmap(
            new SKImageInfo(codec.Info.Width, codec.Info.Height, SKColorType.Rgba8888, SKAlphaType.Premul, SKColorSpace.CreateSrgb())
        );
        if (codec.GetPixels(given.Info, given.GetPixels()) != SKCodecResult.Success)
            throw new InvalidDataException("It cannot be read as a picture.");
        var turned = codec.EncodedOrigin >= SKEncodedOrigin.LeftTop;
        var upright = turned ? new PictureSize(given.Height, given.Width) : new PictureSize(given.Width, given.Height);
        var size = sizeOf(upright);
        var part = seen(upright, size);
        using var made = new SKBitmap(new SKImageInfo(size.Width, size.Height, SKColorType.Rgba8888, SKAlphaType.Premul, SKColorSpace.CreateSrgb()));
        using (var canvas = new SKCanvas(made))
        using (var image = SKImage.FromBitmap(given))
        {
            // Where it is transparent, it lies on white paper.
            canvas.Clear(SKColors.White);
            canvas.Scale((float)size.Width / part.Width, (float)size.Height / part.Height);
            canvas.Translate(-part.X, -part.Y);
            canvas.Concat(Upright(codec.EncodedOrigin, upright));
            canvas.DrawImage(image, 0, 0, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        }

        using var file = File.Create(outputPath);
        made.Encode(file, SKEncodedImageFormat.Jpeg, Quality);
    }

    /// <summary>How a picture is turned and mirrored that says so of itself (Exif 2.32, tag Orientation).</summary>
    private static SKMatrix Upright(SKEncodedOrigin origin, PictureSize size) =>
        origin switch
        {
            SKEncodedOrigin.TopRight => new SKMatrix(-1, 0, size.Width, 0, 1, 0, 0, 0, 1),
            SKEncodedOrigin.BottomRight => new SKMatrix(-1, 0, size.Width, 0, -1, size.Height, 0, 0, 1),
            SKEncodedOrigin.BottomLeft => new SKMatrix(1, 0, 0, 0, -1, size.Height, 0, 0, 1),
            SKEncodedOrigin.LeftTop => new SKMatrix(0, 1, 0, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightTop => new SKMatrix(0, -1, size.Width, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightBottom => new SKMatrix(0, -1, size.Width, -1, 0, size.Height, 0, 0, 1),
            SKEncodedOrigin.LeftBottom => new SKMatrix(0, 1, 0, -1, 0, size.Height, 0, 0, 1),
            _ => SKMatrix.Identity,
        };
}
