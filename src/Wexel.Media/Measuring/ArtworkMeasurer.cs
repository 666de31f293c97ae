using System.Buffers.Binary;
using System.Text.Json;
using Wexel.Core.Kit;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>Measures a picture that is to be a feed's artwork.</summary>
public static class ArtworkMeasurer
{
    /// <summary>What the picture is, or null when the file is no picture.</summary>
    public static async Task<ImageFacts?> MeasureAsync(string path, CancellationToken cancel)
    {
        string printed;
        try
        {
            // Only these readers: a file that says it is a playlist or a film is not looked into.
            string[] input = ["-protocol_whitelist", "file", "-format_whitelist", "image2,jpeg_pipe,png_pipe,gif,bmp_pipe,webp_pipe,tiff_pipe"];
            printed = await MediaTool.ProbeAsync(
                [.. input, "-show_entries", "stream=codec_name,width,height,pix_fmt", "-of", "json", "file:" + path],
                cancel,
                ChildLimits.Picture
            );
            // What a picture says of itself is not yet a picture: all of it must be read, without a fault.
            await MediaTool.RunAsync(
                ["-xerror", "-err_detect", "explode", .. input, "-i", "file:" + path, "-frames:v", "1", "-f", "null", "-"],
                null,
                null,
                cancel,
                limits: ChildLimits.Picture
            );
        }
        catch (ToolFailedException)
        {
            return null;
        }

        var streams = JsonDocument.Parse(printed).RootElement.GetProperty("streams");
        if (streams.GetArrayLength() == 0 || !streams[0].TryGetProperty("width", out var width) || width.GetInt32() == 0)
            return null;
        var (codec, format) = (streams[0].GetProperty("codec_name").GetString()!, streams[0].TryGetProperty("pix_fmt", out var f) ? f.GetString()! : "");
        var components = codec == "mjpeg" ? JpegComponents(path) : 0;
        var colour =
            components == 4 ? ImageColour.Cmyk
            : components == 1 || format.StartsWith("gray", StringComparison.Ordinal) || format is "ya8" or "ya16be" or "monob" ? ImageColour.Grey
            : ImageColour.Rgb;
        var transparent =
            codec == "png" && (format.Contains('a', StringComparison.Ordinal) && !format.StartsWith("gray", StringComparison.Ordinal) && format != "pal8");
        return new ImageFacts(codec, width.GetInt32(), streams[0].GetProperty("height").GetInt32(), colour, transparent, new FileInfo(path).Length);
    }

    /// <summary>How many components a JPEG has: Nf in its frame header (ITU-T T.81, B.2.2). Decoders hide it behind a conversion.</summary>
    private static int JpegComponents(string path)
    {
        using var file = new BinaryReader(File.OpenRead(path));
        Span<byte> head = stackalloc byte[4];
        file.BaseStream.Position = 2;
        while (file.Read(head) == 4 && head[0] == 0xFF)
        {
            var length = BinaryPrimitives.ReadUInt16BigEndian(head[2..]);
            // SOF0 to SOF15 but DHT, JPG and DAC, which share the range (T.81, Table B.1).
            if (head[1] is >= 0xC0 and <= 0xCF and not (0xC4 or 0xC8 or 0xCC))
            {
                file.BaseStream.Position += 5;
                return file.ReadByte();
            }

            file.BaseStream.Position += length - 2;
        }

        return 0;
    }
}
