using System.Diagnostics;
using System.Globalization;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Encodes some seconds of a lesson as all of it would be encoded.</summary>
public static class SampleEncoder
{
    /// <summary>Encodes samples one after the other and measures them; all pictures of a sample in one pass, as they will be.</summary>
    /// <param name="plans">The pictures' plans; one or more of the same lesson.</param>
    /// <param name="inputs">What they are made from.</param>
    /// <param name="windows">The samples.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>For each picture what its samples came to. The time of a sample is that of all its pictures.</returns>
    /// <exception cref="ToolFailedException">The encoder ended with an error.</exception>
    public static async Task<IReadOnlyList<IReadOnlyList<SampleMeasured>>> MeasureAsync(
        IReadOnlyList<PicturePlan> plans,
        EncodeInputs inputs,
        IReadOnlyList<SampleWindow> windows,
        CancellationToken cancel
    )
    {
        var folder = HalfMade.Folder();
        try
        {
            var measured = plans.Select(_ => new List<SampleMeasured>()).ToList();
            List<string> paths = [.. plans.Select((_, i) => Path.Combine(folder, $"{i}.mp4"))];
            foreach (var window in windows)
            {
                var clock = Stopwatch.StartNew();
                await EncodeAsync(plans, inputs, window, paths, cancel);
                var took = clock.Elapsed;
                var decoded = window.Count + await BeforeAsync(plans[0], inputs, window, cancel);
                for (var i = 0; i < plans.Count; i++)
                    measured[i].Add(await MeasureAsync(plans[i], window, paths[i], decoded, took, cancel));
            }

            return measured;
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>Where an encoder put in a key frame of its own, since the picture became another, it counts with the other frames.</summary>
    private static async Task<SampleMeasured> MeasureAsync(
        PicturePlan plan,
        SampleWindow window,
        string path,
        long decoded,
        TimeSpan took,
        CancellationToken cancel
    )
    {
        var printed = await MediaTool.ProbeAsync(
            ["-select_streams", "v:0", "-show_entries", "packet=size,flags", "-of", "csv=p=0", .. MediaTool.OwnInput(path)],
            cancel
        );
        var frames = printed
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(line => line.Split(','))
            .Select(f => (Bytes: long.Parse(f[0], CultureInfo.InvariantCulture), Key: f[1].StartsWith('K')))
            .ToList();
        var keys = 1 + plan.Timing.KeyFrames().Count(frame => frame > window.First && frame < window.First + window.Count);
        var key = (long)frames.Where(f => f.Key).Average(f => f.Bytes);
        return new SampleMeasured(window, keys, key, Math.Max(0, frames.Sum(f => f.Bytes) - (keys * key)), frames.Count, decoded, took);
    }

    /// <summary>Encodes samples of a lesson's sound, or looks at what is copied, and says what a second of each comes to, in bytes. Its loudness stays
    /// as it is.</summary>
    /// <param name="plan">The sound's plan.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="map">What is kept of them.</param>
    /// <param name="recordings">The recordings' paths.</param>
    /// <param name="windows">The samples.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The encoder ended with an error.</exception>
    public static async Task<IReadOnlyList<double>> MeasureSoundAsync(
        SoundPlan plan,
        Reel reel,
        TimeMap map,
        IReadOnlyList<string> recordings,
        IReadOnlyList<SampleWindow> windows,
        CancellationToken cancel
    )
    {
        var folder = HalfMade.Folder();
        var path = Path.Combine(folder, SoundOutput.FileName(plan));
        var measured = new List<double>();
        try
        {
            foreach (var window in windows)
            {
                var frame = map.ToRecording(window.First);
                var index = Enumerable.Range(0, reel.Parts.Count).Last(i => reel.Parts[i].First <= frame);
                if (plan.Mixes[index] is null)
                {
                    measured.Add(0);
                    continue;
                }

                var length = map.Grid.TimeOf(window.Count).TotalSeconds;
                var start = Seconds(map.Grid.TimeOf(frame - reel.Parts[index].First).TotalSeconds);
                if (plan.Copy is not null)
                {
                    var packets = await PacketsAsync(
                        "packet=duration_time,size",
                        ["-read_intervals", $"{start}%+{Seconds(length)}", .. MediaTool.SafeInput(recordings[index])],
                        cancel
                    );
                    measured.Add(packets.Sum(p => p[1]) / packets.Sum(p => p[0]));
                    continue;
                }

                await MediaTool.RunAsync(
                    [
                        "-ss",
                        start,
                        "-t",
                        Seconds(length),
                        .. MediaTool.SafeInput(recordings[index]),
                        .. SoundInput.Print(plan.TracksOf(index), ""),
                        .. EncoderArguments.Print(plan),
                        "file:" + path,
                    ],
                    null,
                    null,
                    cancel
                );
                measured.Add((await PacketsAsync("packet=size", MediaTool.OwnInput(path), cancel)).Sum(p => p[0]) / length);
            }

            return measured;
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }

        static string Seconds(double seconds) => seconds.ToString("0.######", CultureInfo.InvariantCulture);
    }

    /// <summary>Numbers of each packet of a file's sound.</summary>
    private static async Task<List<double[]>> PacketsAsync(string entries, IEnumerable<string> input, CancellationToken cancel) =>
        [
            .. (await MediaTool.ProbeAsync(["-select_streams", "a:0", "-show_entries", entries, "-of", "csv=p=0", .. input], cancel))
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(line => line.TrimEnd(',').Split(',').Select(n => double.Parse(n, CultureInfo.InvariantCulture)).ToArray()),
        ];

    /// <summary>Encodes one sample into a file of its own; its frames keep the lesson's times.</summary>
    /// <param name="plan">The picture's plan.</param>
    /// <param name="inputs">What it is made from.</param>
    /// <param name="window">The sample.</param>
    /// <param name="path">Where the MP4 goes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The encoder ended with an error.</exception>
    public static Task EncodeAsync(PicturePlan plan, EncodeInputs inputs, SampleWindow window, string path, CancellationToken cancel) =>
        EncodeAsync([plan], inputs, window, [path], cancel);

    private static async Task EncodeAsync(
        IReadOnlyList<PicturePlan> plans,
        EncodeInputs inputs,
        SampleWindow window,
        IReadOnlyList<string> paths,
        CancellationToken cancel
    )
    {
        List<PicturePlan> cut = [.. plans.Select(plan => Cut(plan, window).Plan)];
        var work = new EncodeWork(inputs with { From = Cut(plans[0], window).From }, [.. cut.Zip(paths, (plan, path) => new PictureOutput(plan, path))], []);
        using var aids = await EncodeAids.MakeAsync(work, cancel);
        await MediaTool.RunAsync(EncodeArguments.Print(work, aids, paths, [.. cut.Select(c => c.Rate.BitsPerSecond)]), null, null, cancel);
    }

    /// <summary>
    /// The same plan with nothing kept but the sample, and where reading begins in each recording. Its frames keep the lesson's times, so
    /// that what moves and what is written over them does.
    /// </summary>
    internal static (PicturePlan Plan, IReadOnlyDictionary<int, TimeSpan> From) Cut(PicturePlan plan, SampleWindow window)
    {
        var grid = plan.Timing.Grid;
        var from = new Dictionary<int, TimeSpan>();
        var parts = new List<PartPlan>();
        foreach (var part in plan.Parts)
        {
            var kept = part
                .Kept.Select(k => (Kept: k, At: Math.Max(k.At, window.First), End: Math.Min(k.At + k.Count, window.First + window.Count)))
                .Where(k => k.End > k.At)
                .Select(k => new KeptStretch(k.Kept.First + k.At - k.Kept.At, k.End - k.At, k.At))
                .ToList();
            if (kept.Count == 0)
                continue;
            var first = kept[0].First;
            if (first > 0)
                from[part.Recording] = grid.TimeOf(first);
            parts.Add(part with { Kept = [.. kept.Select(k => k with { First = k.First - first })] });
        }

        // A rate that is met in two passes is sampled in one.
        return (
            plan with
            {
                Parts = parts,
                Cameras = Filmed(plan, [new FrameRun(window.First, window.Count)]),
                Timing = plan.Timing with { LastFrame = window.First + window.Count - 1 },
                Rate = plan.Rate with { Passes = 1 },
            },
            from
        );
    }

    /// <summary>The cameras of a plan in some frames alone, each read by itself; null for none.</summary>
    internal static IReadOnlyList<CameraPlan>? Filmed(PicturePlan plan, IReadOnlyList<FrameRun> runs) =>
        (plan.Cameras ?? []).SelectMany(c => runs.Select(c.Within)).OfType<CameraPlan>().ToList() is { Count: > 0 } filmed ? filmed : null;

    /// <summary>How many frames must be decoded before a sample, since its recordings have a key frame only there.</summary>
    private static async Task<long> BeforeAsync(PicturePlan plan, EncodeInputs inputs, SampleWindow window, CancellationToken cancel)
    {
        var before = 0L;
        foreach (var (recording, at) in Cut(plan, window).From)
        {
            var printed = await MediaTool.ProbeAsync(
                [
                    "-select_streams",
                    "v:0",
                    "-show_entries",
                    "packet=pts_time",
                    "-read_intervals",
                    string.Create(CultureInfo.InvariantCulture, $"{at.TotalSeconds:0.######}%+#1"),
                    "-of",
                    "csv=p=0",
                    .. MediaTool.OwnInput(inputs.Recordings[recording]),
                ],
                cancel
            );
            if (double.TryParse(printed.Split('\n')[0].TrimEnd(','), CultureInfo.InvariantCulture, out var key) && key < at.TotalSeconds)
                before += plan.Timing.Grid.FrameAt(at - TimeSpan.FromSeconds(key));
        }

        return before;
    }
}
