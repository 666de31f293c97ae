using System.Globalization;
using Wexel.Core.Inspection;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>Decodes all of a finished file once: what stands still, what is black or silent, how loud it is, and whether the decoder complains.</summary>
internal static class WholePass
{
    private const int SamplesPerSecond = 2;
    private const double BlackMean = 8;
    private static readonly PictureSize Small = new(320, 180);
    private static readonly TimeSpan ShortestSilence = TimeSpan.FromSeconds(2);

    internal sealed record PictureFound(BorderShares? Borders, IReadOnlyList<TimeRange> Black, IReadOnlyList<TimeRange> Still, IReadOnlyList<string> Errors);

    internal sealed record SoundFound(TimeSpan Length, Loudness Loudness, IReadOnlyList<TimeRange> Silent, IReadOnlyList<string> Errors);

    internal static async Task<PictureFound> PictureAsync(string path, TimeSpan length, CancellationToken cancel)
    {
        var borders = new BorderFinder(Small);
        var (changes, dark) = (new List<PictureChange>(), new List<bool>());
        var (before, now) = (new byte[Small.Width * Small.Height], new byte[Small.Width * Small.Height]);
        var said = await MediaTool.StreamReportAsync(
            [.. MediaTool.OwnInput(path), "-map", "0:V:0", "-vf", string.Create(CultureInfo.InvariantCulture, $"fps={SamplesPerSecond}:start_time=0,scale={Small.Width}:{Small.Height}:flags=area,format=gray"), "-f", "rawvideo", "pipe:1"],
            async (stream, token) =>
            {
                while (await stream.ReadAtLeastAsync(now, now.Length, throwOnEndOfStream: false, token) == now.Length)
                {
                    var black = SourcePicture.Mean(now) <= BlackMean;
                    if (!black)
                        borders.Show(now);
                    changes.Add(new PictureChange(TimeSpan.FromSeconds((double)changes.Count / SamplesPerSecond), changes.Count == 0 ? 1 : PictureAnalyser.Difference(before, now)));
                    dark.Add(black);
                    (before, now) = (now, before);
                }
            },
            cancel);
        var found = borders.Found();
        return new PictureFound(
            found is null ? null : BorderShares.Of(found, Small),
            Runs(dark, SamplesPerSecond), StillStretches.Find(changes, length), Errors(said));
    }

    internal static async Task<SoundFound> SoundAsync(string path, int channels, CancellationToken cancel)
    {
        var found = await SoundAnalyser.AnalyseAsync(MediaTool.OwnInput(path), channels, LoudnessMeter.Meter + ",", cancel);
        return new SoundFound(found.Length, LoudnessMeter.Read(string.Join('\n', found.Said)), Silent(found.Levels), Errors(found.Said));
    }

    /// <summary>Where the lesson's sound is silent before it is encoded, and how long it is.</summary>
    internal static async Task<(IReadOnlyList<TimeRange> Silent, TimeSpan Length)> ComposedAsync(string path, int channels, CancellationToken cancel)
    {
        var found = await SoundAnalyser.AnalyseAsync(MediaTool.OwnInput(path), channels, "", cancel);
        return (Silent(found.Levels), found.Length);
    }

    private static List<TimeRange> Silent(SoundLevels levels) => Runs([.. levels.Dbfs.Select(l => l < SoundLevels.NothingBelow)], levels.PerSecond).FindAll(s => s.Length >= ShortestSilence);

    private static List<TimeRange> Runs(List<bool> samples, int perSecond)
    {
        var runs = new List<TimeRange>();
        for (var i = 0; i < samples.Count; i++)
        {
            if (!samples[i])
                continue;
            var from = i;
            while (i + 1 < samples.Count && samples[i + 1])
                i++;
            runs.Add(new TimeRange(TimeSpan.FromSeconds((double)from / perSecond), TimeSpan.FromSeconds((i + 1.0) / perSecond)));
        }

        return runs;
    }

    private static List<string> Errors(IReadOnlyList<string> said) =>
        [.. said.Where(line => line.Contains("[error]", StringComparison.Ordinal) || line.Contains("[fatal]", StringComparison.Ordinal)).Select(line => line[(line.LastIndexOf("] ", StringComparison.Ordinal) + 2)..]).Distinct().Take(5)];
}
