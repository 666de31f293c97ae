using System.Globalization;
using System.Runtime.InteropServices;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Looks through a recording once: pictures for the run sheet, peaks of the sound, and what its sides carry.</summary>
public static class RecordingAnalyser
{
    /// <summary>The maker's name and version for the result's key.</summary>
    public const string Maker = "analysis/1";

    /// <summary>The width of the pictures that are kept, in pixels.</summary>
    public const int PictureWidth = 320;

    private const int SamplesPerSecond = 2;
    private const int CompareWidth = 320;
    private const int CompareHeight = 180;
    private const int PeaksPerSecond = 10;
    private const int SoundRate = 16_000;

    /// <summary>Below this mean difference (of 1) two samples are the same picture; coding noise lies under it.</summary>
    private const double Unchanged = 0.00004;

    /// <summary>Analyses a recording; the pictures chosen lie in the folder afterwards, named by <see cref="PictureName"/>.</summary>
    /// <exception cref="ToolFailedException">The recording could not be read.</exception>
    public static async Task<RecordingAnalysis> AnalyseAsync(RecordingFacts facts, string path, string pictureFolder, CancellationToken cancel)
    {
        Directory.CreateDirectory(pictureFolder);
        var pictures = PicturesAsync(path, pictureFolder, cancel);
        var sound = facts.Sounds.Count == 0 ? null : await SoundAsync(path, Math.Min(2, facts.Sounds[0].Channels), cancel);
        var changes = await pictures;
        var moments = PictureMoments.Choose(changes);
        KeepOnly(pictureFolder, changes.Count, moments);
        var changed = changes.Count < 2 ? 0 : (double)changes.Skip(1).Count(c => c.Change > Unchanged) / (changes.Count - 1);
        return new RecordingAnalysis(moments, changed, Judge(facts, sound), PeaksPerSecond, sound?.Peaks ?? []);
    }

    /// <summary>Only the verdict over the sides of the first sound track; null without sound.</summary>
    /// <exception cref="ToolFailedException">The sound could not be read.</exception>
    public static async Task<SoundSides?> SidesAsync(RecordingFacts facts, string path, CancellationToken cancel) =>
        facts.Sounds is [{ Channels: 2 }, ..] ? Judge(facts, await SoundAsync(path, 2, cancel)) : Judge(facts, null);

    private static SoundSides? Judge(RecordingFacts facts, SoundFound? sound) => facts.Sounds switch
    {
        [] => null,
        [{ Channels: 2 }, ..] when sound is not null => sound.Sums.Judge(),
        _ => SoundSides.Stereo,
    };

    /// <summary>The name of the picture at a moment.</summary>
    public static string PictureName(TimeSpan moment) => string.Create(CultureInfo.InvariantCulture, $"{(long)moment.TotalMilliseconds:000000000}.jpg");

    private static async Task<List<PictureChange>> PicturesAsync(string path, string folder, CancellationToken cancel)
    {
        var changes = new List<PictureChange>();
        await MediaTool.StreamAsync(
            [
                .. MediaTool.SafeInput(path), "-an",
                "-filter_complex", string.Create(CultureInfo.InvariantCulture, $"[0:V:0]fps={SamplesPerSecond}:start_time=0,split[a][b];[a]scale={PictureWidth}:-2,setsar=1,format=yuvj420p[jpeg];[b]scale={CompareWidth}:{CompareHeight}:flags=area,format=gray[grey]"),
                "-map", "[jpeg]", "-q:v", "4", "-start_number", "0", "-f", "image2", "file:" + Path.Combine(folder.Replace("%", "%%", StringComparison.Ordinal), "sample-%08d.jpg"),
                "-map", "[grey]", "-f", "rawvideo", "pipe:1",
            ],
            async (stream, token) =>
            {
                var before = new byte[CompareWidth * CompareHeight];
                var now = new byte[CompareWidth * CompareHeight];
                while (await stream.ReadAtLeastAsync(now, now.Length, throwOnEndOfStream: false, token) == now.Length)
                {
                    var at = TimeSpan.FromSeconds((double)changes.Count / SamplesPerSecond);
                    changes.Add(new PictureChange(at, changes.Count == 0 ? 1 : Difference(before, now)));
                    (before, now) = (now, before);
                }
            },
            cancel);
        return changes;
    }

    private static double Difference(ReadOnlySpan<byte> a, ReadOnlySpan<byte> b)
    {
        long sum = 0;
        for (var i = 0; i < a.Length; i++)
            sum += Math.Abs(a[i] - b[i]);
        return sum / (255.0 * a.Length);
    }

    private static void KeepOnly(string folder, int samples, IReadOnlyList<TimeSpan> moments)
    {
        var kept = moments.ToDictionary(m => (int)Math.Round(m.TotalSeconds * SamplesPerSecond));
        for (var i = 0; i < samples; i++)
        {
            var sample = Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"sample-{i:00000000}.jpg"));
            if (kept.TryGetValue(i, out var moment))
                File.Move(sample, Path.Combine(folder, PictureName(moment)), overwrite: true);
            else
                File.Delete(sample);
        }
    }

    private sealed record SoundFound(SideSums Sums, List<int> Peaks);

    private static async Task<SoundFound> SoundAsync(string path, int channels, CancellationToken cancel)
    {
        var peaks = new List<int>();
        double left = 0, right = 0, difference = 0;
        long samples = 0;
        await MediaTool.StreamAsync(
            [
                .. MediaTool.SafeInput(path), "-map", "0:a:0", "-vn",
                "-af", string.Create(CultureInfo.InvariantCulture, $"aresample={SoundRate}:async=1:first_pts=0"), "-ac", channels.ToString(CultureInfo.InvariantCulture), "-f", "f32le", "pipe:1",
            ],
            async (stream, token) =>
            {
                var block = new byte[SoundRate / PeaksPerSecond * channels * sizeof(float)];
                int read;
                while ((read = await stream.ReadAtLeastAsync(block, block.Length, throwOnEndOfStream: false, token)) > 0)
                    peaks.Add(Take(MemoryMarshal.Cast<byte, float>(block.AsSpan(0, read / (channels * sizeof(float)) * channels * sizeof(float)))));
            },
            cancel);
        return new SoundFound(new SideSums(samples, left, right, difference), peaks);

        int Take(ReadOnlySpan<float> values)
        {
            var peak = 0f;
            for (var i = 0; i + channels <= values.Length; i += channels)
            {
                var l = values[i];
                var r = values[i + channels - 1];
                left += (double)l * l;
                right += (double)r * r;
                difference += (double)(l - r) * (l - r);
                samples++;
                peak = Math.Max(peak, Math.Max(Math.Abs(l), Math.Abs(r)));
            }

            return (int)Math.Clamp(Math.Round(peak * 100), 0, 100);
        }
    }
}
