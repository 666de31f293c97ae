using System.Diagnostics;
using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>What encoding a few seconds of a lesson came to.</summary>
/// <param name="Size">The picture's size.</param>
/// <param name="Grid">The rate of the frames that are counted.</param>
/// <param name="Window">The seconds.</param>
/// <param name="Bytes">What they came to, in bytes.</param>
/// <param name="Took">How long it took.</param>
/// <param name="MeanSsim">How like the source the frames are on average, 1 for the same.</param>
/// <param name="WorstSsim">How like it the worst is.</param>
/// <param name="WorstFrame">Which one that is, from 0 at the window's start.</param>
public sealed record TrialMeasured(
    PictureSize Size,
    FrameRate Grid,
    SampleWindow Window,
    long Bytes,
    TimeSpan Took,
    double MeanSsim,
    double WorstSsim,
    long WorstFrame
);

/// <summary>Tries a picture's settings on a few seconds of a lesson: encoded as all of it would be, and held against its source frame by frame.</summary>
public static partial class Trial
{
    /// <summary>Encodes, or copies where the plan does, and measures.</summary>
    /// <param name="plan">The picture's plan.</param>
    /// <param name="even">The recording's frames where the picture is copied; otherwise of no account.</param>
    /// <param name="inputs">What it is made from.</param>
    /// <param name="window">The seconds.</param>
    /// <param name="path">Where the MP4 goes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The encoder ended with an error.</exception>
    public static async Task<TrialMeasured> MakeAsync(
        PicturePlan plan,
        EvenFrames? even,
        EncodeInputs inputs,
        SampleWindow window,
        string path,
        CancellationToken cancel
    )
    {
        var took = TimeSpan.Zero;
        await WholeFile.MakeAsync(path, async temporary =>
        {
            var clock = Stopwatch.StartNew();
            await (
                plan.Copy is { } copy
                    ? PictureCopier.CopyAsync(Copied(plan, copy, window, even!), inputs, temporary, null, null, cancel)
                    : SampleEncoder.EncodeAsync(plan, inputs, window, temporary, cancel)
            );
            took = clock.Elapsed;
        });
        var ssim = await SsimAsync(plan, inputs, window, path, cancel);
        var worst = ssim.Count == 0 ? 0 : ssim.IndexOf(ssim.Min());
        var bytes = plan.Copy is null ? new FileInfo(path).Length : await ShownBytesAsync(path, cancel);
        return new TrialMeasured(plan.Size, plan.Timing.Grid, window, bytes, took, ssim.DefaultIfEmpty().Average(), ssim.DefaultIfEmpty().Min(), worst);
    }

    /// <summary>Takes a frame of what was encoded as a PNG.</summary>
    /// <param name="measured">What was measured.</param>
    /// <param name="path">The MP4.</param>
    /// <param name="frame">The frame, from 0 at the window's start.</param>
    /// <param name="outputPath">Where it goes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">There is no such frame.</exception>
    public static Task FrameAsync(TrialMeasured measured, string path, long frame, string outputPath, CancellationToken cancel) =>
        WholeFile.MakeAsync(outputPath, temporary =>
            MediaTool.RunAsync(
                [
                    .. MediaTool.OwnInput(path),
                    "-vf",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{AllFrames(measured.Grid, measured.Window.Count)},trim=start_frame={frame},"
                            + $"scale=in_color_matrix=bt709:in_range=tv:flags=accurate_rnd+full_chroma_int,format=rgb24"
                    ),
                    "-frames:v",
                    "1",
                    "-f",
                    "image2",
                    "-c:v",
                    "png",
                    "-update",
                    "1",
                    "file:" + temporary,
                ],
                null,
                null,
                cancel
            )
        );

    /// <summary>The seconds by themselves. What leads in is copied too, and not shown.</summary>
    private static PicturePlan Copied(PicturePlan plan, CopyPlan copy, SampleWindow window, EvenFrames even) =>
        plan with
        {
            Copy = copy.Within(window.First, window.Count, even),
            Timing = plan.Timing with { SectionFrames = [], LastFrame = window.Count - 1 },
        };

    private static async Task<long> ShownBytesAsync(string path, CancellationToken cancel)
    {
        var printed = await MediaTool.ProbeAsync(
            ["-select_streams", "v:0", "-show_entries", "packet=size,flags", "-of", "csv=p=0", .. MediaTool.OwnInput(path)],
            cancel
        );
        return printed
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(line => line.Split(','))
            .Where(f => !f[1].Contains('D', StringComparison.Ordinal))
            .Sum(f => long.Parse(f[0], CultureInfo.InvariantCulture));
    }

    private static async Task<List<double>> SsimAsync(PicturePlan plan, EncodeInputs inputs, SampleWindow window, string path, CancellationToken cancel)
    {
        var (source, from) = SampleEncoder.Cut(plan with { Timing = plan.Timing with { MostRepeatsLeftOut = 0, Constant = null } }, window);
        var work = new EncodeWork(inputs with { From = from }, [new PictureOutput(source, "")], []);
        using var aids = await EncodeAids.MakeAsync(work, cancel);
        var (arguments, graph, made) = EncodeArguments.Source(work, aids);
        var text = new StringBuilder();
        await MediaTool.StreamReportAsync(
            [
                .. arguments,
                .. MediaTool.OwnInput(path),
                "-filter_complex",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{graph};[picture0]setpts=N,settb=1/1000,trim=end_frame={window.Count}[source];"
                        + $"[{made}:V:0]{AllFrames(plan.Timing.Grid, window.Count)},setpts=N,settb=1/1000[made];[made][source]ssim=stats_file=-"
                ),
                "-f",
                "null",
                "-",
            ],
            async (stream, token) =>
            {
                using var reader = new StreamReader(stream);
                text.Append(await reader.ReadToEndAsync(token));
            },
            cancel
        );
        return [.. SsimLine().Matches(text.ToString()).Select(m => double.Parse(m.Groups[1].ValueSpan, CultureInfo.InvariantCulture))];
    }

    /// <summary>Frames that were left out since they repeat the one before are there again.</summary>
    private static string AllFrames(FrameRate grid, long count) =>
        string.Create(CultureInfo.InvariantCulture, $"fps={grid}:start_time=0,tpad=stop=-1:stop_mode=clone,trim=end_frame={count}");

    [GeneratedRegex(@"n:\d+ .*?All:([0-9.]+)")]
    private static partial Regex SsimLine();
}
