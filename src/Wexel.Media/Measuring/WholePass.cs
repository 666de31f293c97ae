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

    /// <summary>
    /// A frame that stands for several samples is scaled once: each time it comes from the same place in the file. Behind the scaling it is
    /// repeated.
    /// </summary>
    private static string Sampled =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"fps={SamplesPerSecond}:start_time=0,select='isnan(pos)+lt(pos,0)+not(eq(pos,ld(0)))+0*st(0,pos)',"
                + $"scale={Small.Width}:{Small.Height}:flags=area:in_range=pc:out_range=pc,format=gray,fps={SamplesPerSecond}:start_time=0"
        );

    /// <summary>The decoder takes what cores there are; to share pictures out that are scaled this small would take longer than to scale them.</summary>
    private static readonly string[] OneFilterThread = ["-filter_threads", "1", "-filter_complex_threads", "1"];

    /// <summary>What black to white comes to in full range (ITU-R BT.709: 16 to 235 of 8 bits).</summary>
    private static readonly byte[] FullRange = [.. Enumerable.Range(0, 256).Select(v => (byte)Math.Clamp(Math.Round((v - 16) * 255 / 219.0), 0, 255))];

    internal sealed record PictureFound(BorderShares? Borders, IReadOnlyList<TimeRange> Black, IReadOnlyList<TimeRange> Still, IReadOnlyList<string> Errors);

    /// <param name="path">The file.</param>
    /// <param name="fullRange">Whether its picture says that it is of full range.</param>
    /// <param name="length">How long it is.</param>
    /// <param name="comparison">Which of its moments are taken meanwhile; null for none.</param>
    /// <param name="cancel">Stops it.</param>
    internal static async Task<PictureFound> PictureAsync(string path, bool? fullRange, TimeSpan length, MomentComparison? comparison, CancellationToken cancel)
    {
        var borders = new BorderFinder(Small);
        var (changes, dark) = (new List<PictureChange>(), new List<bool>());
        var (before, now, read, last) = (
            new byte[Small.Width * Small.Height],
            new byte[Small.Width * Small.Height],
            new byte[Small.Width * Small.Height],
            new byte[Small.Width * Small.Height]
        );
        var said = await MediaTool.StreamReportAsync(
            comparison is null
                ? [.. OneFilterThread, .. MediaTool.OwnInput(path), "-map", "0:V:0", "-vf", Sampled, "-f", "rawvideo", "pipe:1"]
                :
                [
                    .. OneFilterThread,
                    .. MediaTool.OwnInput(path),
                    "-filter_complex",
                    $"[0:V:0]split[all][some];[all]{Sampled}[small];[some]{comparison.MadeFilters}[moments]",
                    "-map",
                    "[small]",
                    "-f",
                    "rawvideo",
                    "pipe:1",
                    "-map",
                    "[moments]",
                    .. comparison.MadeOutput,
                ],
            async (stream, token) =>
            {
                while (await stream.ReadAtLeastAsync(read, read.Length, throwOnEndOfStream: false, token) == read.Length)
                {
                    // Most of a screen lesson stands: the same bytes show nothing new.
                    if (changes.Count > 0 && read.AsSpan().SequenceEqual(last))
                    {
                        changes.Add(new PictureChange(TimeSpan.FromSeconds((double)changes.Count / SamplesPerSecond), 0));
                        dark.Add(dark[^1]);
                        continue;
                    }

                    read.CopyTo(now, 0);
                    (read, last) = (last, read);
                    // The scaler would do this on the large picture, in a time that is longer than what it takes to scale.
                    if (fullRange != true)
                        Stretch(now);
                    var black = SourcePicture.Mean(now) <= BlackMean;
                    if (!black)
                        borders.Show(now);
                    changes.Add(
                        new PictureChange(
                            TimeSpan.FromSeconds((double)changes.Count / SamplesPerSecond),
                            changes.Count == 0 ? 1 : PictureAnalyser.Difference(before, now)
                        )
                    );
                    dark.Add(black);
                    (before, now) = (now, before);
                }
            },
            cancel
        );
        var found = borders.Found();
        return new PictureFound(
            found is null ? null : BorderShares.Of(found, Small),
            Stretches.Find(dark, SamplesPerSecond),
            StillStretches.Find(changes, length),
            Errors(said)
        );
    }

    private static void Stretch(Span<byte> grey)
    {
        foreach (ref var value in grey)
            value = FullRange[value];
    }

    internal static async Task<(SoundHeard Heard, IReadOnlyList<string> Errors)> SoundAsync(string path, int channels, CancellationToken cancel)
    {
        var (heard, said) = await SoundAnalyser.AnalyseAsync(MediaTool.OwnInput(path), channels, null, cancel);
        return (heard, Errors(said));
    }

    private static List<string> Errors(IReadOnlyList<string> said) =>
        [
            .. said.Where(line => line.Contains("[error]", StringComparison.Ordinal) || line.Contains("[fatal]", StringComparison.Ordinal))
                .Select(line => line[(line.LastIndexOf("] ", StringComparison.Ordinal) + 2)..])
                .Distinct()
                .Take(5),
        ];
}
