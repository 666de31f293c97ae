using System.Globalization;
using System.Text;
using SkiaSharp;
using Wexel.Core.Recordings;
using Wexel.Core.Screens;
using Wexel.Core.Timing;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;

namespace Wexel.Media.Screens;

/// <summary>Reads what stands on the screen in a recording, on the pictures that looking through it chose, and finds when it is another.</summary>
public static class ScreenLooker
{
    private const int SamplesPerSecond = 2;

    /// <summary>From this share of the screen on a picture is read again.</summary>
    private const double WorthReading = 0.01;

    /// <summary>Readers want letters of 20 pixels and more (tesseract's own advice): pictures of fewer rows are read twice as large.</summary>
    private const int SmallPicture = 900;

    /// <summary>The most pictures that are read of a recording.</summary>
    private const int MostPictures = 600;

    /// <summary>What reading one picture may use.</summary>
    private static readonly ChildLimits Limits = new(1L << 30, TimeSpan.FromSeconds(30), TimeSpan.FromMinutes(2));

    /// <summary>Goes over the recording once.</summary>
    /// <param name="reader">Who reads.</param>
    /// <param name="facts">What the probe found; the recording has a picture.</param>
    /// <param name="path">The recording.</param>
    /// <param name="analysis">What looking through it found.</param>
    /// <param name="language">In which it is read, as a BCP 47 tag.</param>
    /// <param name="progress">Told how far it is, 0 to 1; may be null.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The recording could not be read, or the reader failed.</exception>
    public static async Task<ScreenText> LookAsync(
        IScreenReader reader,
        RecordingFacts facts,
        string path,
        RecordingAnalysis analysis,
        string language,
        IProgress<double>? progress,
        CancellationToken cancel
    )
    {
        var size = facts.Picture!.ShownSize;
        var changes = new List<ScreenChange>();
        var pictures = new List<ScreenPicture>();
        var moments = SeenMoments.Find(analysis, SamplesPerSecond).ToHashSet();
        var folder = HalfMade.Folder();
        try
        {
            await MediaTool.StreamAsync(
                [.. MediaTool.SafeInput(path), "-an", "-filter_complex", Filters(facts.Picture), "-map", "[seen]", "-f", "rawvideo", "pipe:1"],
                async (stream, token) =>
                {
                    var (before, now) = (new byte[size.Width * size.Height], new byte[size.Width * size.Height]);
                    byte[]? read = null;
                    for (var n = 0; await stream.ReadAtLeastAsync(now, now.Length, throwOnEndOfStream: false, token) == now.Length; n++)
                    {
                        var at = TimeSpan.FromSeconds((double)n / SamplesPerSecond);
                        if (n > 0 && ScreenSquares.Changed(before, now, size) is var share and >= ScreenText.LeastChange)
                            changes.Add(new ScreenChange(at, Math.Round(share, 4)));
                        if (moments.Contains(at) && pictures.Count < MostPictures && (read is null || ScreenSquares.Changed(read, now, size) >= WorthReading))
                        {
                            await ReadAsync(at, now, token);
                            read = [.. now];
                        }

                        (before, now) = (now, before);
                        progress?.Report(Math.Min(1, at / facts.Length));
                    }
                },
                cancel
            );
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }

        return new ScreenText(
            reader.Name,
            [.. pictures.Select((p, i) => p with { Span = new TimeRange(p.Span.Start, i + 1 < pictures.Count ? pictures[i + 1].Span.Start : facts.Length) })],
            changes
        );

        async Task ReadAsync(TimeSpan at, byte[] grey, CancellationToken token)
        {
            var file = Path.Combine(folder, "picture.pgm");
            var larger = size.Height < SmallPicture ? 2 : 1;
            Write(file, grey, size, larger);
            pictures.Add(new ScreenPicture(new TimeRange(at, at), await reader.ReadAsync(file, larger, language, Limits, token)));
        }
    }

    /// <summary>As a graymap (PGM), which is written at once; compressing takes longer than reading.</summary>
    private static void Write(string file, byte[] grey, PictureSize size, int larger)
    {
        using var picture = new SKBitmap(new SKImageInfo(size.Width, size.Height, SKColorType.Gray8, SKAlphaType.Opaque));
        for (var y = 0; y < size.Height; y++)
            grey.AsSpan(y * size.Width, size.Width).CopyTo(picture.GetPixelSpan()[(y * picture.RowBytes)..]);
        using var enlarged =
            larger == 1 ? null : picture.Resize(new SKSizeI(size.Width * larger, size.Height * larger), new SKSamplingOptions(SKFilterMode.Linear));
        var written = enlarged ?? picture;
        using var bytes = File.Create(file);
        bytes.Write(Encoding.ASCII.GetBytes(string.Create(CultureInfo.InvariantCulture, $"P5\n{written.Width} {written.Height}\n255\n")));
        for (var y = 0; y < written.Height; y++)
            bytes.Write(written.GetPixelSpan().Slice(y * written.RowBytes, written.Width));
    }

    private static string Filters(PictureFacts picture) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"[0:V:0]{PreparingFilters.Print(picture.Preparation)}fps={SamplesPerSecond}:start_time=0,"
                + $"scale={picture.ShownSize.Width}:{picture.ShownSize.Height}:flags=accurate_rnd,format=gray[seen]"
        );
}
