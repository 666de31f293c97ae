using System.Globalization;
using Wexel.Media.Tools;

namespace Wexel.Media.Mixing;

/// <summary>
/// Whether all of a FLAC file can be decoded. A frame whose checksum is wrong (RFC 9639, section 9.3) is passed over without a word, and what comes after
/// it is still there: only the times of the frames say that one lacks.
/// </summary>
internal static class FlacFrames
{
    /// <param name="input">The file, as an input of ffprobe.</param>
    /// <param name="samples">How many samples the file states; null where it does not.</param>
    /// <param name="cancel">Stops it.</param>
    internal static async Task<bool> LackAsync(IReadOnlyList<string> input, long? samples, CancellationToken cancel)
    {
        var printed = await MediaTool.ProbeAsync(["-select_streams", "a:0", "-show_entries", "packet=pts,duration", "-of", "csv=p=0", .. input], cancel);
        long next = 0;
        foreach (var line in printed.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (line.Split(',') is not [var at, var lasts, ..] || Number(at) != next || Number(lasts) is not { } length)
                return true;
            next += length;
        }

        return samples is { } stated && next != stated;
    }

    private static long? Number(string text) => long.TryParse(text, CultureInfo.InvariantCulture, out var number) ? number : null;
}
