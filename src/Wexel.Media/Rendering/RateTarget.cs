using System.Globalization;
using Wexel.Core.Encoding;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>What an encoded picture must come to where its rate or size is fixed.</summary>
/// <param name="bytes">What it must come to.</param>
/// <param name="mustNotPass">Whether it may only fall short.</param>
/// <param name="wholeFile">Whether the container's own bytes count, and the sound's.</param>
/// <param name="soundPath">The sound that goes with it, or null.</param>
internal sealed class RateTarget(long bytes, bool mustNotPass, bool wholeFile, string? soundPath)
{
    private const double NearEnough = 0.01;

    /// <summary>What title and chapters may add, in bytes.</summary>
    private const long Titles = 4_000;

    /// <summary>The target, or null where the picture follows its quality, or its one pass.</summary>
    /// <param name="picture">The picture.</param>
    /// <param name="soundPath">Where the sound lies that goes with it, or null.</param>
    internal static RateTarget? Of(PictureOutput picture, string? soundPath)
    {
        var (rate, timing) = (picture.Plan.Rate, picture.Plan.Timing);
        return rate.Rule switch
        {
            RateRule.FileSize when picture.Limit is { } limit => new RateTarget(Math.Max(1, limit.Bytes - Titles), true, true, soundPath),
            RateRule.Average when rate.Passes == 2 => new RateTarget(
                (long)(rate.BitsPerSecond / 8.0 * timing.Grid.TimeOf(timing.LastFrame + 1).TotalSeconds),
                false,
                false,
                null
            ),
            _ => null,
        };
    }

    /// <summary>What was made, in bytes.</summary>
    internal async Task<long> MeasureAsync(string path, CancellationToken cancel)
    {
        if (wholeFile)
            return await MuxedAsync(path, cancel);
        var printed = await MediaTool.ProbeAsync(
            ["-select_streams", "v:0", "-show_entries", "packet=size", "-of", "csv=p=0", .. MediaTool.OwnInput(path)],
            cancel
        );
        return printed.Split('\n', StringSplitOptions.RemoveEmptyEntries).Sum(line => long.Parse(line.Split(',')[0], CultureInfo.InvariantCulture));
    }

    /// <summary>What muxing adds depends on how picture and sound lie side by side, so it is done.</summary>
    private async Task<long> MuxedAsync(string path, CancellationToken cancel)
    {
        var whole = path + ".whole.mp4";
        try
        {
            IEnumerable<string> sound = soundPath is null ? [] : [.. MediaTool.OwnInput(soundPath), "-map", "0:v", "-map", "1:a"];
            await MediaTool.RunAsync([.. MediaTool.OwnInput(path), .. sound, "-c", "copy", "-f", "mp4", "file:" + whole], null, null, cancel);
            return new FileInfo(whole).Length;
        }
        finally
        {
            File.Delete(whole);
        }
    }

    /// <summary>Whether it is near enough.</summary>
    internal bool Meets(long made) => mustNotPass ? made <= bytes && made >= bytes * (1 - (2 * NearEnough)) : Math.Abs(made - bytes) <= bytes * NearEnough;

    /// <summary>
    /// The rate to aim at next, in bits a second: only the picture can become larger or smaller. One that may not be passed is aimed a
    /// little below.
    /// </summary>
    internal long Corrected(long rate, long made)
    {
        var fixedPart = soundPath is null ? 0 : new FileInfo(soundPath).Length;
        var (picture, wanted) = (Math.Max(1, made - fixedPart), Math.Max(1, (bytes * (mustNotPass ? 1 - NearEnough : 1)) - fixedPart));
        return Math.Max(RenderPlanner.LeastBitsPerSecond, (long)(rate * Math.Clamp(wanted / picture, 0.25, 4)));
    }
}
