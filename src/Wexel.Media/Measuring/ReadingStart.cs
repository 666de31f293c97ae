using System.Globalization;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>
/// Finds where a file must be read from so that the picture that stands at a frame is decoded. A reader goes to the key frame that is decoded
/// last before a moment; where frames refer to later ones that may be shown only behind it, and in the gap before it another picture stands.
/// </summary>
internal static class ReadingStart
{
    /// <summary>How much earlier it is tried until the first picture that comes is not behind the one that is wanted.</summary>
    private static readonly IReadOnlyList<TimeSpan> Earlier = [TimeSpan.Zero, TimeSpan.FromSeconds(1.5), TimeSpan.FromSeconds(10), TimeSpan.FromDays(1)];

    /// <summary>Where reading begins.</summary>
    /// <param name="Frame">The frame at whose time it does.</param>
    /// <param name="First">When the first picture is shown that comes; null where the file does not say.</param>
    internal readonly record struct StartPoint(long Frame, TimeSpan? First)
    {
        /// <summary>A picture stands until the next one comes; this much is read behind the one that is wanted, for filters that look ahead.</summary>
        private static readonly TimeSpan Behind = TimeSpan.FromSeconds(0.5);

        /// <summary>How much must be read for a picture, from the first that comes; null where that is not known.</summary>
        /// <param name="wanted">When it is shown; before the first that comes, where the picture begins behind the sound, that one stands.</param>
        internal TimeSpan? Needed(TimeSpan wanted) =>
            (
                wanted > First ? wanted - First
                : First is null ? null
                : TimeSpan.Zero
            ) + Behind;
    }

    /// <summary>For each frame where reading begins.</summary>
    /// <param name="input">The arguments for the file.</param>
    /// <param name="grid">The frames that are counted.</param>
    /// <param name="frames">The frames that are wanted.</param>
    /// <param name="before">How much is read before each in any case.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The file cannot be read.</exception>
    internal static async Task<IReadOnlyList<StartPoint>> FindAsync(
        IReadOnlyList<string> input,
        FrameRate grid,
        IReadOnlyList<long> frames,
        TimeSpan before,
        CancellationToken cancel
    )
    {
        long Start(long frame, TimeSpan earlier) => Math.Max(0, frame - grid.FrameAt(before > earlier ? before : earlier));
        var (starts, first) = (new long[frames.Count], new TimeSpan?[frames.Count]);
        List<int> late = [.. Enumerable.Range(0, frames.Count)];
        foreach (var earlier in Earlier)
        {
            late.ForEach(i => starts[i] = Start(frames[i], earlier));
            // From the beginning on everything comes.
            late.RemoveAll(i => starts[i] == 0);
            if (late.Count == 0)
                break;
            if (await FirstAsync(input, [.. late.Select(i => grid.TimeOf(starts[i]))], cancel) is not { } comes)
            {
                late.ForEach(i => (starts[i], first[i]) = (0, null));
                break;
            }

            foreach (var (n, i) in late.Index())
                first[i] = comes[n];
            late = [.. late.Where((i, n) => comes[n] > grid.TimeOf(frames[i]) + (grid.TimeOf(1) / 2))];
        }

        return [.. starts.Zip(first, (start, comes) => new StartPoint(start, comes is { } at && at < Never ? at : null))];
    }

    /// <summary>
    /// When the first picture is shown that comes from each moment on; null where the file does not say. Null for all where moments cannot be
    /// sought at all: some files cannot be read from the middle.
    /// </summary>
    private static async Task<IReadOnlyList<TimeSpan?>?> FirstAsync(IReadOnlyList<string> input, IReadOnlyList<TimeSpan> moments, CancellationToken cancel)
    {
        try
        {
            return await SoughtAsync(input, moments, cancel);
        }
        catch (ToolFailedException)
        {
            return null;
        }
    }

    private static async Task<IReadOnlyList<TimeSpan?>?> SoughtAsync(IReadOnlyList<string> input, IReadOnlyList<TimeSpan> moments, CancellationToken cancel)
    {
        var (start, together) = await PacketsAsync(input, At(moments), cancel);
        if (start == TimeSpan.Zero && together.Count == moments.Count)
            return together;
        // A recording's time counts from where the file starts.
        List<TimeSpan> own = [.. moments.Select(moment => moment + start)];
        if (own.TrueForAll(at => at >= TimeSpan.Zero) && (await PacketsAsync(input, At(own), cancel)).Shown is { } shifted && shifted.Count == moments.Count)
            return [.. shifted.Select(Recorded)];
        if (start < TimeSpan.Zero)
            return null;
        // Each by itself: whether or not there is one.
        var each = new List<TimeSpan?>();
        foreach (var moment in moments)
            each.Add(Recorded((await PacketsAsync(input, $"+{Seconds(moment)}%+#1", cancel)).Shown.FirstOrDefault()));
        return each;

        TimeSpan? Recorded(TimeSpan? shown) => shown is { } at && at < Never ? at - start : shown;
    }

    /// <summary>The packets that are read first from moments on.</summary>
    private static string At(IEnumerable<TimeSpan> moments) => string.Join(',', moments.Select(m => Seconds(m) + "%+#1"));

    private static async Task<(TimeSpan Start, List<TimeSpan?> Shown)> PacketsAsync(IReadOnlyList<string> input, string intervals, CancellationToken cancel)
    {
        var printed = await MediaTool.ProbeAsync(
            ["-select_streams", "V:0", "-read_intervals", intervals, "-show_entries", "packet=pts_time,flags:format=start_time", "-of", "csv", .. input],
            cancel
        );
        var lines = printed.Split('\n').Select(l => l.TrimEnd().Split(',')).ToList();
        return (
            Time(lines.FirstOrDefault(l => l[0] == "format")) ?? TimeSpan.Zero,
            [.. lines.Where(l => l[0] == "packet").Select(l => l.Length > 2 && l[2].StartsWith('K') ? Time(l) : Never)]
        );
    }

    /// <summary>Some containers are read from any frame on; but decoding begins only at the key frame behind it.</summary>
    private static readonly TimeSpan? Never = TimeSpan.MaxValue;

    private static TimeSpan? Time(string[]? line) =>
        line is [_, var value, ..] && double.TryParse(value, CultureInfo.InvariantCulture, out var seconds) ? TimeSpan.FromSeconds(seconds) : null;

    private static string Seconds(TimeSpan time) => time.TotalSeconds.ToString("0.######", CultureInfo.InvariantCulture);
}
