using System.Globalization;
using System.Text.Json;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Analysing;
using Wexel.Media.Containers;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>What a finished file is held against.</summary>
/// <param name="Plan">The plan that it was made by.</param>
/// <param name="Inputs">What its picture was made from.</param>
/// <param name="ComposedSound">The lesson's sound before it was encoded; null without sound.</param>
/// <param name="Frames">The lesson's frames at which it is compared with its source, see <see cref="ExpectedPicture.Frames"/>.</param>
/// <param name="Still">Stretches of the lesson in which its source stands still; null where nobody looked.</param>
public sealed record MadeFrom(RenderPlan Plan, EncodeInputs Inputs, string? ComposedSound, IReadOnlyList<long> Frames, IReadOnlyList<TimeRange>? Still);

/// <summary>Measures finished files.</summary>
public static class RenditionMeasurer
{
    private const int BlackLookedAt = 4;

    /// <summary>Measures a file that Wexel made, and its source where it is compared with it. Where a file was looked at before in which the same is
    /// coded, nothing is decoded again.</summary>
    /// <param name="path">Where it lies.</param>
    /// <param name="from">What it was made from.</param>
    /// <param name="before">What was seen and heard before; null for nothing.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The file cannot be read at all.</exception>
    public static async Task<(RenditionFacts Facts, ExpectedOfSource Expected, SeenAndHeard Seen)> MeasureAsync(
        string path,
        MadeFrom from,
        SeenAndHeard? before,
        CancellationToken cancel
    )
    {
        var (probing, coding) = (ProbeAsync(path, cancel), SeenAndHeard.CodedAsync(path, cancel));
        var (found, coded) = (await probing, await coding);
        var seen = before?.Coded == coded ? before : await LookAsync(path, found, coded, from, cancel);
        var name = found.GetProperty("format").GetProperty("format_name").GetString()!;
        var isWebM = name.Contains("webm", StringComparison.Ordinal);
        await using var file = File.OpenRead(path);
        var captions = Streams(found, "subtitle").Count;
        var facts = new RenditionFacts(
            file.Length,
            Seconds(found.GetProperty("format"), "duration"),
            name,
            isWebM ? WebMElements.IndexAtFront(file) : Mp4Boxes.IndexAtFront(file),
            seen.Picture,
            seen.Sound,
            [.. found.GetProperty("chapters").EnumerateArray().Select(c => Seconds(c, "start_time"))],
            captions,
            captions == 0 ? null : await CaptionsEndAsync(path, cancel),
            name.Contains("mp4", StringComparison.Ordinal) ? Mp4Codecs.Read(file) : "",
            seen.Errors
        );
        return (facts, new ExpectedOfSource(from.Still, seen.SourceSilent, seen.SourceLength), seen);
    }

    private static async Task<JsonElement> ProbeAsync(string path, CancellationToken cancel) =>
        JsonDocument
            .Parse(await MediaTool.ProbeAsync(["-show_format", "-show_streams", "-show_chapters", "-of", "json", .. MediaTool.OwnInput(path)], cancel))
            .RootElement;

    private static List<JsonElement> Streams(JsonElement found, string type) =>
        [.. found.GetProperty("streams").EnumerateArray().Where(s => s.GetProperty("codec_type").GetString() == type)];

    /// <summary>Decodes a file to its end, and looks at its source.</summary>
    private static async Task<SeenAndHeard> LookAsync(string path, JsonElement found, string coded, MadeFrom from, CancellationToken cancel)
    {
        var plan = from.Plan;
        var listing = FramesAsync(path, cancel);
        var choosing =
            plan.Picture is { } drawn && from.Frames.Count > 0
                ? SourcePicture.QuicklyReadAsync(drawn, from.Inputs, [.. from.Frames.Order()], cancel)
                : Task.FromResult<IReadOnlyList<long>>([]);
        var frames = await listing;
        var moments = await choosing;
        var format = found.GetProperty("format");
        var length = Seconds(format, "duration");
        var name = format.GetProperty("format_name").GetString()!;
        var composing = from.ComposedSound is { } composed ? SoundHeard.OfComposedAsync(composed, plan.Sound!.Channels, cancel) : null;
        // WebM does not say how long a frame stands; its last one stands to the end.
        var seeing = Streams(found, "video") is [var video, ..]
            ? PictureAsync(path, video, frames, moments, length, !name.Contains("webm", StringComparison.Ordinal), from, cancel)
            : null;
        var hearing = Streams(found, "audio") is [var audio, ..] ? SoundAsync(path, audio, cancel) : null;
        var picture = seeing is null ? default : await seeing;
        var sound = hearing is null ? default : await hearing;
        var source = composing is null ? null : await composing;
        return new SeenAndHeard(
            coded,
            picture.Picture,
            sound.Sound,
            [.. (picture.Errors ?? []).Concat(sound.Errors ?? []).Distinct()],
            source?.Silent() ?? [],
            source?.Length
        );
    }

    private static async Task<(PictureMeasured Picture, IReadOnlyList<string> Errors)> PictureAsync(
        string path,
        JsonElement video,
        IReadOnlyList<Frame> frames,
        IReadOnlyList<long> compared,
        TimeSpan length,
        bool saysDurations,
        MadeFrom from,
        CancellationToken cancel
    )
    {
        var size = new PictureSize(video.GetProperty("width").GetInt32(), video.GetProperty("height").GetInt32());
        var colours = Colours.Read(video);
        // A picture of another size than planned is wrong as it is, and not compared.
        var plan = from.Plan.Picture is { } planned && planned.Size == size ? planned : null;
        List<TimeSpan> ordered = [.. frames.Select(f => f.At).Order()];
        using var comparison = plan is null || compared.Count == 0 ? null : new MomentComparison(plan, from.Inputs, path, compared, ordered);
        var taking = comparison?.TakeSourceAsync(cancel) ?? Task.CompletedTask;
        var passing = WholePass.PictureAsync(path, colours.FullRange, length, comparison, cancel);
        await Task.WhenAll(taking, passing);
        var whole = await passing;
        var moments = comparison is null ? [] : await comparison.CompareAsync(cancel);
        if (plan is not null)
            moments = [.. moments, .. await BlackAsync(path, plan, whole.Black, from, cancel)];
        var picture = new PictureMeasured(
            ordered.FirstOrDefault(),
            saysDurations ? frames.Select(f => f.At + f.Duration).DefaultIfEmpty().Max() : length,
            size,
            Aspect(video),
            video.GetProperty("codec_name").GetString()!,
            video.TryGetProperty("profile", out var profile) ? profile.GetString()! : "",
            video.TryGetProperty("level", out var level) ? level.GetInt32() : 0,
            video.TryGetProperty("pix_fmt", out var pixels) ? pixels.GetString()! : "unknown",
            colours,
            [.. frames.Where(f => f.Key).Select(f => f.At).Order()],
            MostBetween(frames),
            frames.Count,
            ordered.Zip(ordered.Skip(1), (a, b) => b - a).DefaultIfEmpty().Max(),
            whole.Borders,
            whole.Black,
            whole.Still,
            moments,
            plan?.Parts.Any(p => p.Prepared?.Fields is not null) == true ? await CombedAsync(path, cancel) : null
        );
        return (picture, whole.Errors);
    }

    private static async Task<CombedFrames> CombedAsync(string path, CancellationToken cancel)
    {
        var (combed, told) = await InterlaceFinder.CombedAsync(path, cancel);
        return new CombedFrames(combed, told);
    }

    private static int MostBetween(IReadOnlyList<Frame> frames)
    {
        var (most, since) = (0, 0);
        foreach (var frame in frames)
            most = Math.Max(most, since = frame.Key ? 1 : since + 1);
        return most;
    }

    /// <summary>Where the file is black, whether its source is.</summary>
    private static Task<IReadOnlyList<MomentCompared>> BlackAsync(
        string path,
        PicturePlan plan,
        IReadOnlyList<TimeRange> black,
        MadeFrom from,
        CancellationToken cancel
    )
    {
        var grid = plan.Timing.Grid;
        var frames = black
            .Take(BlackLookedAt)
            .Select(b => Math.Min(plan.Timing.LastFrame, grid.FrameAt(b.Start + (b.Length / 2))))
            .Distinct()
            .Except(from.Frames)
            .ToList();
        return MomentComparison.OneByOneAsync(plan, from.Inputs, path, frames, cancel);
    }

    private static async Task<(SoundMeasured Sound, IReadOnlyList<string> Errors)> SoundAsync(string path, JsonElement audio, CancellationToken cancel)
    {
        var channels = audio.GetProperty("channels").GetInt32();
        var (heard, errors) = await WholePass.SoundAsync(path, Math.Min(2, channels), cancel);
        var sound = new SoundMeasured(
            Seconds(audio, "start_time"),
            heard.Length,
            audio.GetProperty("codec_name").GetString()!,
            channels,
            int.Parse(audio.GetProperty("sample_rate").GetString()!, CultureInfo.InvariantCulture),
            heard.Loudness,
            heard.Silent()
        );
        return (sound, errors);
    }

    private static async Task<TimeSpan> CaptionsEndAsync(string path, CancellationToken cancel)
    {
        var printed = await MediaTool.ProbeAsync(
            ["-select_streams", "s:0", "-show_entries", "packet=pts_time,duration_time,size", "-of", "csv=p=0", .. MediaTool.OwnInput(path)],
            cancel
        );
        // Between captions, a track of an MP4 has packets with two bytes: no text.
        return printed
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(line => line.Split(','))
            .Where(p => p[2] != "2")
            .Select(p => Seconds(p[0]) + Seconds(p[1]))
            .DefaultIfEmpty()
            .Max();
    }

    private readonly record struct Frame(TimeSpan At, TimeSpan Duration, bool Key);

    private static async Task<List<Frame>> FramesAsync(string path, CancellationToken cancel)
    {
        var printed = await MediaTool.ProbeAsync(
            ["-select_streams", "v:0", "-show_entries", "packet=pts_time,duration_time,flags", "-of", "csv=p=0", .. MediaTool.OwnInput(path)],
            cancel
        );
        return
        [
            .. printed
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(line => line.Split(','))
                // What an edit list passes over is decoded, and not shown.
                .Where(f => !f[2].Contains('D', StringComparison.Ordinal))
                .Select(f => new Frame(Seconds(f[0]), Seconds(f[1]), f[2].StartsWith('K'))),
        ];
    }

    private static double Aspect(JsonElement video)
    {
        var text = video.TryGetProperty("sample_aspect_ratio", out var value) ? value.GetString() : "1:1";
        return text is "1:1" or "0:1" ? 1 : 0;
    }

    private static TimeSpan Seconds(JsonElement element, string name) =>
        element.TryGetProperty(name, out var value) ? Seconds(value.GetString()) : TimeSpan.Zero;

    private static TimeSpan Seconds(string? text) =>
        double.TryParse(text, CultureInfo.InvariantCulture, out var seconds) ? TimeSpan.FromSeconds(seconds) : TimeSpan.Zero;
}
