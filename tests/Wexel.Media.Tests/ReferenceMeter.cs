using System.Globalization;
using System.Text.RegularExpressions;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>ffmpeg's own meter for EBU R 128: a reference that is not Wexel's.</summary>
internal static class ReferenceMeter
{
    internal static async Task<Loudness> MeasureAsync(string path)
    {
        var said = await PlainFfmpeg.SaidAsync(
            [.. MediaTool.OwnInput(path), "-map", "0:a:0", "-af", "ebur128=peak=true:framelog=verbose:dualmono=true", "-f", "null", "-"],
            TestContext.Current.CancellationToken
        );
        var summary = said[said.LastIndexOf("Summary:", StringComparison.Ordinal)..];
        double Says(string what) =>
            double.Parse(
                Regex.Match(summary, $@"\b{what}:\s+(\S+) ").Groups[1].Value.Replace("-inf", "-1000", StringComparison.Ordinal),
                CultureInfo.InvariantCulture
            );
        return new Loudness(Says("I"), Says("LRA"), Says("Peak"));
    }
}
