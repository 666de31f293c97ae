using System.Globalization;
using System.Text.RegularExpressions;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Probing;

/// <summary>Tells whether a picture is interlaced: by what its file states, or by looking at it where that says nothing.</summary>
public static partial class InterlaceFinder
{
    /// <summary>The heights in which pictures were and are interlaced (ITU-R BT.601 and BT.709-6, part 1, with what coding adds; DV has 480).</summary>
    private static readonly HashSet<int> Heights = [480, 486, 576, 1080, 1088];

    /// <summary>As many frames must tell, and of those that do so many for one that tells otherwise (common practice, no source).</summary>
    private const int LeastFrames = 10,
        MostlySo = 4;

    private static readonly TimeSpan LookedAt = TimeSpan.FromSeconds(6);

    /// <summary>The order of fields as ffprobe prints it: coded first, then shown first.</summary>
    /// <param name="stated">ffprobe's field_order; null where it prints none.</param>
    /// <returns>Whether the file states it, and the order; null for whole pictures.</returns>
    internal static (bool Stated, FieldOrder? Order) Read(string? stated) =>
        stated switch
        {
            "progressive" => (true, null),
            "tt" or "bt" => (true, FieldOrder.TopFirst),
            "bb" or "tb" => (true, FieldOrder.BottomFirst),
            _ => (false, null),
        };

    /// <summary>Looks at a picture whose file does not state its fields, at its start and further in, until enough frames tell.</summary>
    /// <param name="height">Its stored height.</param>
    /// <param name="length">How long the recording is.</param>
    /// <param name="path">The recording.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">It cannot be read.</exception>
    internal static async Task<FieldOrder?> MeasureAsync(int height, TimeSpan length, string path, CancellationToken cancel)
    {
        if (!Heights.Contains(height))
            return null;
        foreach (var start in length < LookedAt * 3 ? [TimeSpan.Zero] : (TimeSpan[])[TimeSpan.Zero, length / 3, length * 2 / 3])
        {
            var seen = await LookAsync(["-ss", Seconds(start), "-t", Seconds(LookedAt), .. MediaTool.SafeInput(path)], cancel);
            if (seen.Told >= LeastFrames)
                return seen.Order;
        }

        return null;
    }

    /// <summary>How many frames of a picture that was made show two fields, and how many tell at all.</summary>
    /// <exception cref="ToolFailedException">It cannot be read.</exception>
    internal static async Task<(int Combed, int Told)> CombedAsync(string path, CancellationToken cancel)
    {
        var seen = await LookAsync(MediaTool.OwnInput(path), cancel);
        return (seen.Top + seen.Bottom, seen.Told);
    }

    private readonly record struct Seen(int Top, int Bottom, int Whole)
    {
        internal int Told => Top + Bottom + Whole;

        internal FieldOrder? Order =>
            Math.Max(Top, Bottom) < MostlySo * (Whole + Math.Min(Top, Bottom)) ? null
            : Top > Bottom ? FieldOrder.TopFirst
            : FieldOrder.BottomFirst;
    }

    private static async Task<Seen> LookAsync(IReadOnlyList<string> input, CancellationToken cancel)
    {
        var said = await MediaTool.StreamReportAsync(
            [.. input, "-an", "-sn", "-map", "0:V:0", "-vf", "idet", "-f", "null", "-"],
            (_, _) => Task.CompletedTask,
            cancel
        );
        var counts = said.Select(line => Multi().Match(line)).LastOrDefault(m => m.Success);
        return counts is null ? default : new Seen(Count(counts, 1), Count(counts, 2), Count(counts, 3));
    }

    private static int Count(Match match, int group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    private static string Seconds(TimeSpan time) => time.TotalSeconds.ToString("0.###", CultureInfo.InvariantCulture);

    [GeneratedRegex(@"Multi frame detection:\s*TFF:\s*(\d+)\s*BFF:\s*(\d+)\s*Progressive:\s*(\d+)")]
    private static partial Regex Multi();
}
