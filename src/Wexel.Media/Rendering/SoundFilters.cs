using System.Globalization;
using Wexel.Core.Encoding;

namespace Wexel.Media.Rendering;

/// <summary>Prints levelling as a chain of ffmpeg's filters.</summary>
internal static class SoundFilters
{
    private const int Rate = 48_000;

    /// <summary>Peaks between samples are seen at four times the rate, as in ITU-R BS.1770-4, Annex 2.</summary>
    internal static string Print(Levelling levelling)
    {
        var gain = string.Create(CultureInfo.InvariantCulture, $"volume={levelling.GainDb:0.#}dB");
        var limit = Math.Pow(10, levelling.HeldAt / 20);
        return levelling.HoldsPeaks
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{gain},aresample={4 * Rate},alimiter=limit={limit:0.####}:level=false:attack=5:release=50:latency=true,aresample={Rate}"
            )
            : gain;
    }
}
