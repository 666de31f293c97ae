using System.Globalization;
using System.Text.Json;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Recordings;
using Wexel.Media.Probing;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>Measures a finished MP4.</summary>
public static class RenditionMeasurer
{
    /// <summary>Measures a file that Wexel made.</summary>
    /// <exception cref="ToolFailedException">The file cannot be read.</exception>
    public static async Task<RenditionFacts> MeasureAsync(string path, CancellationToken cancel)
    {
        var found = JsonDocument.Parse(await MediaTool.ProbeAsync(["-show_format", "-show_streams", "-show_chapters", "-of", "json", .. MediaTool.OwnInput(path)], cancel)).RootElement;
        var frames = await FramesAsync(path, cancel);
        var streams = found.GetProperty("streams").EnumerateArray().ToList();
        var video = streams.First(s => s.GetProperty("codec_type").GetString() == "video");
        var sound = streams.Where(s => s.GetProperty("codec_type").GetString() == "audio")
            .Select(s => new SoundFacts(s.GetProperty("codec_name").GetString()!, s.GetProperty("channels").GetInt32(), null, int.Parse(s.GetProperty("sample_rate").GetString()!, CultureInfo.InvariantCulture)))
            .FirstOrDefault();
        using var file = File.OpenRead(path);
        var boxes = Mp4Boxes.Children(file, 0, file.Length);
        var ordered = frames.Select(f => f.At).Order().ToList();
        return new RenditionFacts(
            file.Length,
            Seconds(found.GetProperty("format").GetProperty("duration").GetString()),
            frames.Max(f => f.At + f.Duration),
            new PictureSize(video.GetProperty("width").GetInt32(), video.GetProperty("height").GetInt32()),
            Aspect(video),
            video.GetProperty("codec_name").GetString()!,
            video.TryGetProperty("profile", out var profile) ? profile.GetString()! : "",
            video.TryGetProperty("level", out var level) ? level.GetInt32() : 0,
            video.GetProperty("pix_fmt").GetString()!,
            Colours.Read(video),
            boxes.FindIndex(b => b.Type == "moov") is var moov and >= 0 && moov < boxes.FindIndex(b => b.Type == "mdat"),
            sound,
            [.. frames.Where(f => f.Key).Select(f => f.At).Order()],
            frames.Count,
            ordered.Zip(ordered.Skip(1), (a, b) => b - a).DefaultIfEmpty().Max(),
            [.. found.GetProperty("chapters").EnumerateArray().Select(c => Seconds(c.GetProperty("start_time").GetString()))],
            Codecs(file, boxes, sound is not null));
    }

    private readonly record struct Frame(TimeSpan At, TimeSpan Duration, bool Key);

    private static async Task<List<Frame>> FramesAsync(string path, CancellationToken cancel)
    {
        var printed = await MediaTool.ProbeAsync(["-select_streams", "v:0", "-show_entries", "packet=pts_time,duration_time,flags", "-of", "csv=p=0", .. MediaTool.OwnInput(path)], cancel);
        return [.. printed.Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(line => line.Split(','))
            .Select(f => new Frame(Seconds(f[0]), Seconds(f[1]), f[2].StartsWith('K')))];
    }

    private static string Codecs(FileStream file, List<Mp4Box> boxes, bool withSound)
    {
        var moov = boxes.FirstOrDefault(b => b.Type == "moov");
        if (moov.Type is null || Mp4Boxes.Find(file, moov, "trak/mdia/minf/stbl/stsd/avc1/avcC") is not { } configuration)
            return "";
        // AVCDecoderConfigurationRecord (ISO/IEC 14496-15): version, profile, constraint flags, level.
        Span<byte> record = stackalloc byte[4];
        file.Position = configuration.Start;
        file.ReadExactly(record);
        var avc = CodecsString.Avc(record[1], record[2], record[3]);
        return withSound ? $"{avc}, {CodecsString.AacLc}" : avc;
    }

    private static double Aspect(JsonElement video)
    {
        var text = video.TryGetProperty("sample_aspect_ratio", out var value) ? value.GetString() : "1:1";
        return text is "1:1" or "0:1" ? 1 : 0;
    }

    private static TimeSpan Seconds(string? text) =>
        double.TryParse(text, CultureInfo.InvariantCulture, out var seconds) ? TimeSpan.FromSeconds(seconds) : TimeSpan.Zero;
}
