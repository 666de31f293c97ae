using System.Globalization;
using System.Text.Json;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Probing;

/// <summary>Finds out what a recording is, with ffprobe.</summary>
public static class Prober
{
    /// <summary>How much of a recording is looked at to tell whether its rate varies.</summary>
    private const string RateSample = "%+180";

    /// <summary>Probes a file that somebody brought in.</summary>
    /// <param name="path">Where it lies.</param>
    /// <param name="fileName">Its name for people, for the sentences.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>The facts, or why the file cannot be used.</returns>
    public static async Task<Result<RecordingFacts>> ProbeAsync(string path, string fileName, CancellationToken cancel)
    {
        var bytes = new FileInfo(path).Length;
        if (bytes == 0)
            return Refused("recording-empty", $"“{fileName}” is empty; copy it again.");
        try
        {
            var (asked, sampled) = (
                MediaTool.ProbeAsync(["-show_format", "-show_streams", "-show_chapters", "-of", "json", .. MediaTool.SafeInput(path)], cancel),
                FrameTimesAsync(path, RateSample, cancel)
            );
            await Task.WhenAll(asked, sampled);
            var facts = await ReadAsync(JsonDocument.Parse(await asked).RootElement, await sampled, path, bytes, cancel);
            var refusal = RecordingCheck.Refusal(facts, fileName)
                ?? (RecordingCheck.FiltersNeeded(facts).Count == 0 ? null : RecordingCheck.Refusal(facts, fileName, await Filters.AllAsync()));
            return refusal is null ? facts : refusal;
        }
        catch (ToolFailedException failed) when (!failed.MayHelpToTryAgain)
        {
            return failed.Said.Contains("moov atom not found", StringComparison.Ordinal) && BeginsLikeMp4(path)
                ? Refused(
                    "recording-cut-off",
                    $"“{fileName}” is cut off: its index is missing, so recording or copying was not finished. Copy it again or repair it in the recorder."
                )
                : Refused(
                    "recording-unreadable",
                    $"“{fileName}” is not a video file that can be read; bring in MP4, M4V, MOV, MKV, WebM, AVI, WMV or MPEG-TS."
                );
        }
    }

    /// <summary>Whether the file begins with a box (ISO/IEC 14496-12, section 4.2), as a text file named .mp4 does not.</summary>
    private static bool BeginsLikeMp4(string path)
    {
        Span<byte> start = stackalloc byte[8];
        using var file = File.OpenRead(path);
        return file.ReadAtLeast(start, start.Length, throwOnEndOfStream: false) == start.Length
            && System.Text.Encoding.Latin1.GetString(start[4..]) is "ftyp" or "mdat" or "wide" or "free" or "skip";
    }

    private static Problem Refused(string code, string sentence) => new(code, sentence, "file");

    private static async Task<RecordingFacts> ReadAsync(JsonElement found, List<double> sampled, string path, long bytes, CancellationToken cancel)
    {
        var streams = found.TryGetProperty("streams", out var list) ? list.EnumerateArray().ToList() : [];
        var video = streams.FirstOrDefault(s => Text(s, "codec_type") == "video" && !IsCover(s));
        var format = found.GetProperty("format");
        var sounds = streams.Where(s => Text(s, "codec_type") == "audio" && Number(s, "channels") > 0).Select(s => ReadSound(s, format)).ToList();
        var container = ContainerOf(
            Text(format, "format_name") ?? "",
            Text(format.TryGetProperty("tags", out var tags) ? tags : default, "major_brand"),
            streams
        );
        var frames = video.ValueKind == JsonValueKind.Undefined ? [] : sampled;
        var length = Seconds(format, "duration");
        if (length <= TimeSpan.Zero && frames.Count > 0)
        {
            // A recorder that was stopped hard writes no length: the last frame tells it.
            var all = await FrameTimesAsync(path, null, cancel);
            length = TimeSpan.FromSeconds(all.Max() - Math.Min(0, all.Min()) + 0.04);
        }

        var picture = video.ValueKind == JsonValueKind.Undefined ? null : ReadPicture(video, frames);
        var (stated, fields) = picture is null ? (true, null) : InterlaceFinder.Read(Text(video, "field_order"));
        return new RecordingFacts(
            container,
            bytes,
            length,
            picture is null ? null : picture with { Fields = stated ? fields : await InterlaceFinder.MeasureAsync(picture.Height, length, path, cancel) },
            sounds,
            Subtitles: ReadSubtitles(streams),
            Chapters: ReadChapters(found)
        );
    }

    private static List<ChapterFacts>? ReadChapters(JsonElement found)
    {
        if (!found.TryGetProperty("chapters", out var list))
            return null;
        var chapters = list.EnumerateArray()
            .Take(ContentsText.MostSections)
            .Select(c => new ChapterFacts(
                Seconds(c, "start_time"),
                SectionRules.OneLine(Text(c.TryGetProperty("tags", out var tags) ? tags : default, "title") ?? "")
            ))
            .Where(c => c.At >= TimeSpan.Zero)
            .OrderBy(c => c.At)
            .ToList();
        return chapters.Count == 0 ? null : chapters;
    }

    /// <summary>Those that are text; discs and broadcasts have pictures, which are no captions.</summary>
    private static List<SubtitleFacts>? ReadSubtitles(List<JsonElement> streams)
    {
        var found = streams
            .Where(s => Text(s, "codec_type") == "subtitle")
            .Select((s, place) => (Stream: s, Place: place))
            .Where(s => Text(s.Stream, "codec_name") is "subrip" or "mov_text" or "webvtt" or "ass" or "ssa" or "text")
            .Select(s =>
            {
                var tags = s.Stream.TryGetProperty("tags", out var named) ? named : default;
                return new SubtitleFacts(s.Place, LanguageCodes.Tag(Text(tags, "language")), Text(tags, "title"));
            })
            .ToList();
        return found.Count == 0 ? null : found;
    }

    private static SoundFacts ReadSound(JsonElement sound, JsonElement format) =>
        new(
            Text(sound, "codec_name") ?? "unknown",
            (int)Number(sound, "channels"),
            Text(sound, "channel_layout"),
            (int)Number(sound, "sample_rate"),
            Text(sound, "start_time") is null ? null : Seconds(sound, "start_time") - Seconds(format, "start_time"),
            Number(sound, "bit_rate") is > 0 and var bits ? (long)bits : null
        );

    private static PictureFacts ReadPicture(JsonElement video, List<double> frames)
    {
        var average = FrameRate.Parse(Text(video, "avg_frame_rate"));
        var stated = FrameRate.Parse(Text(video, "r_frame_rate"));
        var pace = Pace.Of(frames);
        var rate = average ?? stated ?? new FrameRate(30, 1);
        var nominal = stated is { } s && pace.MedianSeconds > 0 && Math.Abs((s.PerSecond * pace.MedianSeconds) - 1) < 0.04 ? s : rate;
        return new PictureFacts(
            Text(video, "codec_name") ?? "unknown",
            (int)Number(video, "width"),
            (int)Number(video, "height"),
            Rotation(video),
            Aspect(Text(video, "sample_aspect_ratio")),
            rate,
            nominal,
            pace.Varies,
            frames.Count == 0 ? 0
                : long.TryParse(Text(video, "nb_frames"), CultureInfo.InvariantCulture, out var count) ? count
                : null,
            Text(video, "pix_fmt") ?? "unknown",
            Colours.Read(video)
        );
    }

    private static async Task<List<double>> FrameTimesAsync(string path, string? interval, CancellationToken cancel)
    {
        var printed = await MediaTool.ProbeAsync(
            [
                "-select_streams",
                "v:0",
                "-show_entries",
                "packet=pts_time",
                "-of",
                "csv=p=0",
                .. interval is null ? (string[])[] : ["-read_intervals", interval],
                .. MediaTool.SafeInput(path),
            ],
            cancel
        );
        return
        [
            .. printed
                .Split('\n')
                .Select(line => double.TryParse(line.Trim().TrimEnd(','), CultureInfo.InvariantCulture, out var time) ? time : double.NaN)
                .Where(time => !double.IsNaN(time))
                .Order(),
        ];
    }

    private static string ContainerOf(string format, string? brand, List<JsonElement> streams) =>
        format switch
        {
            _ when format.Contains("mp4", StringComparison.Ordinal) => brand?.Trim() == "qt" ? "mov" : "mp4",
            _ when format.Contains("webm", StringComparison.Ordinal) => streams.All(s => Text(s, "codec_name") is "vp8" or "vp9" or "av1" or "opus" or "vorbis")
                ? "webm"
                : "matroska",
            _ => format,
        };

    private static int Rotation(JsonElement video)
    {
        if (!video.TryGetProperty("side_data_list", out var sideData))
            return 0;
        var turn = sideData.EnumerateArray().Select(d => d.TryGetProperty("rotation", out var r) ? r.GetDouble() : 0).FirstOrDefault(r => r != 0);
        // The matrix says how the picture was turned, counter-clockwise; a player turns it back.
        return (((int)Math.Round(-turn / 90) * 90 % 360) + 360) % 360;
    }

    private static double Aspect(string? text)
    {
        var parts = (text ?? "").Split(':');
        return
            parts.Length == 2
            && double.TryParse(parts[0], CultureInfo.InvariantCulture, out var x)
            && double.TryParse(parts[1], CultureInfo.InvariantCulture, out var y)
            && x > 0
            && y > 0
            ? x / y
            : 1;
    }

    private static bool IsCover(JsonElement stream) => stream.TryGetProperty("disposition", out var disposition) && Number(disposition, "attached_pic") == 1;

    private static string? Text(JsonElement element, string name) =>
        element.ValueKind == JsonValueKind.Object && element.TryGetProperty(name, out var value) ? value.ToString() : null;

    private static double Number(JsonElement element, string name) =>
        double.TryParse(Text(element, name), CultureInfo.InvariantCulture, out var value) ? value : 0;

    private static TimeSpan Seconds(JsonElement element, string name) => TimeSpan.FromSeconds(Math.Round(Number(element, name), 3));
}
