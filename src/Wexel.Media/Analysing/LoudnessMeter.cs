using System.Globalization;
using System.Text.RegularExpressions;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Measures loudness with ffmpeg's meter, which follows EBU R 128.</summary>
public static partial class LoudnessMeter
{
    /// <summary>Measures a file that Wexel made.</summary>
    /// <param name="path">The file.</param>
    /// <param name="filters">What is done with the sound before it is measured, in ffmpeg's words; may be null.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The sound could not be read.</exception>
    public static Task<Loudness> MeasureAsync(string path, string? filters, CancellationToken cancel) => MeasureAsync(MediaTool.OwnInput(path), filters, cancel);

    /// <summary>Measures the first sound track of a recording.</summary>
    /// <exception cref="ToolFailedException">The sound could not be read.</exception>
    public static Task<Loudness> MeasureRecordingAsync(string path, CancellationToken cancel) => MeasureAsync(MediaTool.SafeInput(path), null, cancel);

    private static async Task<Loudness> MeasureAsync(IEnumerable<string> input, string? filters, CancellationToken cancel)
    {
        return Read(await MediaTool.ReportAsync([.. input, "-map", "0:a:0", "-vn", "-af", (filters is null ? "" : filters + ",") + Meter, "-f", "null", "-"], cancel));
    }

    /// <summary>The meter as a filter. One channel is heard from both sides; measured alone, it would come out 3 LU too low.</summary>
    internal const string Meter = "ebur128=peak=true:framelog=verbose:dualmono=true";

    /// <summary>What the meter reported at its end.</summary>
    internal static Loudness Read(string said)
    {
        var summary = said[said.LastIndexOf("Summary:", StringComparison.Ordinal)..];
        var integrated = Number(IntegratedLine().Match(summary));
        return new Loudness(integrated > -70 ? integrated : null, Number(RangeLine().Match(summary)) ?? 0, Number(PeakLine().Match(summary)));
    }

    private static double? Number(Match match) =>
        double.TryParse(match.Groups[1].Value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number) ? number : null;

    [GeneratedRegex(@"\bI:\s+(\S+) LUFS")]
    private static partial Regex IntegratedLine();

    [GeneratedRegex(@"\bLRA:\s+(\S+) LU\b")]
    private static partial Regex RangeLine();

    [GeneratedRegex(@"\bPeak:\s+(\S+) dBFS")]
    private static partial Regex PeakLine();
}
