using System.Globalization;
using System.Runtime.InteropServices;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Goes over the first sound track once: peaks, levels, and what its sides carry.</summary>
internal static class SoundAnalyser
{
    internal const int PeaksPerSecond = 10;
    private const int LevelsPerSecond = 20;
    private const int SoundRate = 16_000;

    /// <param name="Length">How much of it decoded.</param>
    /// <param name="Said">All that the decoder and the filters reported.</param>
    internal sealed record Found(SideSums Sums, List<int> Peaks, SoundLevels Levels, TimeSpan Length, IReadOnlyList<string> Said);

    /// <param name="input">The file, as an input of ffmpeg.</param>
    /// <param name="channels">How many channels are looked at.</param>
    /// <param name="filters">What is done with the sound before, in ffmpeg's words with a comma at the end; may be empty.</param>
    /// <param name="cancel">Stops it.</param>
    internal static async Task<Found> AnalyseAsync(IEnumerable<string> input, int channels, string filters, CancellationToken cancel)
    {
        var levels = new List<int>();
        var peaks = new List<int>();
        double left = 0, right = 0, difference = 0;
        long samples = 0;
        var said = await MediaTool.StreamReportAsync(
            [
                .. input, "-map", "0:a:0", "-vn",
                "-af", string.Create(CultureInfo.InvariantCulture, $"{filters}aresample={SoundRate}:async=1:first_pts=0"), "-ac", channels.ToString(CultureInfo.InvariantCulture), "-f", "f32le", "pipe:1",
            ],
            async (stream, token) =>
            {
                var block = new byte[SoundRate / LevelsPerSecond * channels * sizeof(float)];
                int read;
                while ((read = await stream.ReadAtLeastAsync(block, block.Length, throwOnEndOfStream: false, token)) > 0)
                    Take(MemoryMarshal.Cast<byte, float>(block.AsSpan(0, read / (channels * sizeof(float)) * channels * sizeof(float))));
            },
            cancel);
        return new Found(new SideSums(samples, left, right, difference), peaks, new SoundLevels(LevelsPerSecond, levels), TimeSpan.FromSeconds((double)samples / SoundRate), said);

        void Take(ReadOnlySpan<float> values)
        {
            var peak = 0f;
            double loudest = 0, l2 = 0, r2 = 0;
            for (var i = 0; i + channels <= values.Length; i += channels)
            {
                var l = values[i];
                var r = values[i + channels - 1];
                l2 += (double)l * l;
                r2 += (double)r * r;
                difference += (double)(l - r) * (l - r);
                samples++;
                peak = Math.Max(peak, Math.Max(Math.Abs(l), Math.Abs(r)));
            }

            left += l2;
            right += r2;
            // The louder side counts: speech on one side alone is speech.
            loudest = Math.Sqrt(Math.Max(l2, r2) / Math.Max(1, values.Length / channels));
            levels.Add(loudest <= 0 ? SoundLevels.Lowest : (int)Math.Clamp(Math.Round(20 * Math.Log10(loudest)), SoundLevels.Lowest, 0));
            var percent = (int)Math.Clamp(Math.Round(peak * 100), 0, 100);
            if (levels.Count % (LevelsPerSecond / PeaksPerSecond) == 1)
                peaks.Add(percent);
            else
                peaks[^1] = Math.Max(peaks[^1], percent);
        }
    }
}
