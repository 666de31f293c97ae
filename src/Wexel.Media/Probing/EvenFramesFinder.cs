using System.Globalization;
using System.Text.Json;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Containers;
using Wexel.Media.Tools;

namespace Wexel.Media.Probing;

/// <summary>A coded frame as it lies in a file.</summary>
/// <param name="Frame">When it is shown: the number of its tick.</param>
/// <param name="Position">Where it starts in the file.</param>
/// <param name="Bytes">How long it is.</param>
/// <param name="IsKey">Whether the file says that decoding can begin at it.</param>
/// <param name="IsHidden">Whether an edit list passes over it.</param>
internal readonly record struct CodedFrame(long Frame, long Position, int Bytes, bool IsKey, bool IsHidden);

/// <summary>Finds out whether a recording's picture could be copied frame by frame.</summary>
public static class EvenFramesFinder
{
    /// <summary>A recording with more key frames is one for editing, whose rate is far above what is ready for the web.</summary>
    private const int MostKeyFrames = 20_000;

    /// <summary>The same facts with <see cref="PictureFacts.Even"/> where the picture is H.264 in MP4 and each frame has a tick to itself.</summary>
    /// <param name="facts">What the probe found.</param>
    /// <param name="path">The recording.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The recording could not be read.</exception>
    public static async Task<RecordingFacts> WithAsync(RecordingFacts facts, string path, CancellationToken cancel)
    {
        if (facts.Container is not ("mp4" or "mov") || facts.Picture is not { Codec: "h264", PixelFormat: "yuv420p" } picture)
            return facts;
        var rate = Reel.Of(facts).Grid;
        using (var file = File.OpenRead(path))
        {
            if (AvcConfiguration.Read(file) is not { LengthBytes: 4 })
                return facts;
        }

        var frames = await FramesAsync(path, rate, cancel);
        if (frames is null || Keys(frames) is not { } keys || keys.Count > MostKeyFrames || keys.Count == 0 || keys[0] != 0)
            return facts;
        var ticks = frames.Max(f => f.Frame) + 1;
        var stream = JsonDocument
            .Parse(
                await MediaTool.ProbeAsync(
                    ["-select_streams", "V:0", "-show_entries", "stream=profile,level", "-of", "json", .. MediaTool.SafeInput(path)],
                    cancel
                )
            )
            .RootElement.GetProperty("streams")[0];
        var even = new EvenFrames(
            rate,
            ticks,
            keys,
            frames.Sum(f => (long)f.Bytes),
            stream.GetProperty("profile").GetString() ?? "",
            stream.GetProperty("level").GetInt32(),
            Gaps: ticks > frames.Count,
            MostBetweenKeyFrames: MostBetween(keys, frames)
        );
        return facts with { Picture = picture with { Even = even } };
    }

    /// <summary>
    /// All frames in the order in which they are decoded; null where two have the same tick, or some are hidden: a copy would show them.
    /// Where the picture begins later than the recording, its first frame stands from the start.
    /// </summary>
    internal static async Task<IReadOnlyList<CodedFrame>?> FramesAsync(string path, FrameRate rate, CancellationToken cancel)
    {
        if (
            await CodedAsync(path, rate, fromStart: true, cancel) is not { Count: > 0 } frames
            || frames.Any(f => f.IsHidden)
            || frames.DistinctBy(f => f.Frame).Count() < frames.Count
        )
            return null;
        var first = frames.Min(f => f.Frame);
        return [.. frames.Select(f => f.Frame == first ? f with { Frame = 0 } : f)];
    }

    /// <summary>All frames in the order in which they are decoded, each with the tick that is nearest; null where one has no time.</summary>
    /// <param name="path">The file.</param>
    /// <param name="rate">The ticks.</param>
    /// <param name="fromStart">Whether ticks count from where the file's first stream starts; otherwise they are the file's own.</param>
    /// <param name="cancel">Stops it.</param>
    internal static async Task<IReadOnlyList<CodedFrame>?> CodedAsync(string path, FrameRate rate, bool fromStart, CancellationToken cancel)
    {
        var printed = await MediaTool.ProbeAsync(
            [
                "-select_streams",
                "V:0",
                "-show_entries",
                "packet=pts,size,pos,flags:stream=time_base:format=start_time",
                "-of",
                "csv=p=1",
                .. MediaTool.SafeInput(path),
            ],
            cancel
        );
        var lines = printed.Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(line => line.Split(',')).ToList();
        string? Said(string of) => lines.Find(l => l[0] == of) is { Length: > 1 } line ? line[1] : null;
        if (FrameRate.Parse(Said("stream")) is not { } unit)
            return null;
        var start =
            fromStart && double.TryParse(Said("format"), CultureInfo.InvariantCulture, out var seconds)
                ? (long)Math.Round(seconds * unit.Denominator / unit.Numerator)
                : 0;
        var frames = new List<CodedFrame>();
        foreach (var fields in lines.Where(l => l[0] == "packet"))
        {
            if (
                fields.Length < 5
                || !long.TryParse(fields[1], CultureInfo.InvariantCulture, out var at)
                || (at -= start) < 0
                || !int.TryParse(fields[2], CultureInfo.InvariantCulture, out var bytes)
                || !long.TryParse(fields[3], CultureInfo.InvariantCulture, out var position)
            )
                return null;
            // A time in the middle between two ticks goes to the later, as with the filter that puts an encode's frames on the grid.
            var (ticks, parts) = (at * unit.Numerator * rate.Numerator, (long)unit.Denominator * rate.Denominator);
            frames.Add(
                new CodedFrame(
                    ((2 * ticks) + parts) / (2 * parts),
                    position,
                    bytes,
                    fields[4].StartsWith('K'),
                    fields[4].Contains('D', StringComparison.Ordinal)
                )
            );
        }

        return frames;
    }

    /// <summary>The key frames before which all lies that is shown before, and behind which all that is shown behind: there the stream can be taken
    /// apart.</summary>
    private static List<long> Keys(IReadOnlyList<CodedFrame> frames)
    {
        var least = LeastFrom(frames);
        var keys = new List<long>();
        var most = -1L;
        for (var i = 0; i < frames.Count; i++)
        {
            if (frames[i].IsKey && most < frames[i].Frame && least[i] == frames[i].Frame)
                keys.Add(frames[i].Frame);
            most = Math.Max(most, frames[i].Frame);
        }

        return keys;
    }

    /// <summary>How many frames are decoded at most from one key frame up to the next.</summary>
    private static int MostBetween(List<long> keys, IReadOnlyList<CodedFrame> frames)
    {
        var counts = new int[keys.Count];
        foreach (var frame in frames)
        {
            var at = keys.BinarySearch(frame.Frame);
            counts[at >= 0 ? at : ~at - 1]++;
        }

        return counts.Max();
    }

    /// <summary>For each place in the order of decoding, the first frame that is shown of all from there on; one more for the end.</summary>
    internal static long[] LeastFrom(IReadOnlyList<CodedFrame> frames)
    {
        var least = new long[frames.Count + 1];
        least[^1] = long.MaxValue;
        for (var i = frames.Count - 1; i >= 0; i--)
            least[i] = Math.Min(least[i + 1], frames[i].Frame);
        return least;
    }
}
