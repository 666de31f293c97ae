using System.Globalization;
using System.Text.RegularExpressions;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>
/// Compares a finished file with its source at several moments: the source's frames are taken in one go, and the file's while all of it
/// is decoded anyway.
/// </summary>
internal sealed partial class MomentComparison : IDisposable
{
    private readonly PicturePlan _plan;
    private readonly EncodeInputs _inputs;
    private readonly string _filePath;
    private readonly IReadOnlyList<long> _frames;
    private readonly string _folder = Directory.CreateTempSubdirectory("wexel-moments-").FullName;

    /// <param name="plan">The picture's plan.</param>
    /// <param name="inputs">What it was made from.</param>
    /// <param name="filePath">The finished file.</param>
    /// <param name="frames">The lesson's frames, in order, at least one.</param>
    internal MomentComparison(PicturePlan plan, EncodeInputs inputs, string filePath, IReadOnlyList<long> frames) => (_plan, _inputs, _filePath, _frames) = (plan, inputs, filePath, frames);

    /// <summary>A chain of filters that leaves the moments of the whole file, in grey.</summary>
    internal string MadeFilters => string.Create(
        CultureInfo.InvariantCulture,
        $"fps={_plan.Timing.Grid}:start_time=0,tpad=stop=-1:stop_mode=clone,trim=end_frame={_frames[^1] + 1},select='{FilterText.Sum([.. _frames.Select(f => string.Create(CultureInfo.InvariantCulture, $"eq(n,{f})"))])}',format=gray");

    /// <summary>What stands before the output that those moments go to.</summary>
    internal IReadOnlyList<string> MadeOutput => [.. Output, "file:" + MadePath];

    private static IReadOnlyList<string> Output => ["-fps_mode", "passthrough", "-f", "rawvideo"];

    private string MadePath => Path.Combine(_folder, "made");

    private string SourcePath => Path.Combine(_folder, "source");

    private int FrameBytes => _plan.Size.Width * _plan.Size.Height;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    /// <summary>Takes the source's frames.</summary>
    /// <exception cref="ToolFailedException">The source cannot be read there.</exception>
    internal Task TakeSourceAsync(CancellationToken cancel) => SourcePicture.WithGraphAsync(_plan, _inputs, _frames, SourcePicture.Exactly, async (input, graph, _) =>
    {
        await MediaTool.RunAsync([.. input, "-filter_complex", $"{graph};[picture0]format=gray[source]", "-map", "[source]", "-frames:v", _frames.Count.ToString(CultureInfo.InvariantCulture), .. Output, "file:" + SourcePath], null, null, cancel);
        return true;
    }, cancel);

    /// <summary>Compares what was taken. Where a frame is missing on one side, each is looked for by itself.</summary>
    /// <exception cref="ToolFailedException">The frames cannot be read.</exception>
    internal async Task<IReadOnlyList<MomentCompared>> CompareAsync(CancellationToken cancel)
    {
        if (!IsWhole(SourcePath) || !IsWhole(MadePath))
            return await OneByOneAsync(_plan, _inputs, _filePath, _frames, cancel);
        var raw = string.Create(CultureInfo.InvariantCulture, $"{_plan.Size.Width}x{_plan.Size.Height}");
        var measuring = MediaTool.ReportAsync(
            [.. new[] { SourcePath, MadePath }.SelectMany(path => (IEnumerable<string>)["-f", "rawvideo", "-pix_fmt", "gray", "-s", raw, .. MediaTool.OwnInput(path)]), "-lavfi", "[0:v][1:v]ssim=stats_file=/dev/stderr", "-f", "null", "-"], cancel);
        var compared = await Task.WhenAll(_frames.Select((frame, i) => Task.Run(() => SourcePicture.Compared(_plan, frame, 0, Read(SourcePath, i), Read(MadePath, i)), cancel)));
        var like = SsimLine().Matches(await measuring).Select(m => double.Parse(m.Groups[1].ValueSpan, CultureInfo.InvariantCulture)).ToList();
        return [.. compared.Zip(like, (moment, ssim) => moment with { Ssim = ssim })];
    }

    /// <summary>Compares frames that are taken one at a time.</summary>
    internal static async Task<IReadOnlyList<MomentCompared>> OneByOneAsync(PicturePlan plan, EncodeInputs inputs, string filePath, IReadOnlyList<long> frames, CancellationToken cancel)
    {
        var compared = new MomentCompared[frames.Count];
        await Parallel.ForEachAsync(Enumerable.Range(0, frames.Count), new ParallelOptions { MaxDegreeOfParallelism = 2, CancellationToken = cancel }, async (i, token) =>
            compared[i] = await SourcePicture.CompareAsync(plan, inputs, filePath, frames[i], token));
        return compared;
    }

    private bool IsWhole(string path) => new FileInfo(path) is { Exists: true } file && file.Length == (long)FrameBytes * _frames.Count;

    private byte[] Read(string path, int index)
    {
        var frame = new byte[FrameBytes];
        using var file = File.OpenRead(path);
        file.Position = (long)FrameBytes * index;
        file.ReadExactly(frame);
        return frame;
    }

    [GeneratedRegex(@"n:\d+ Y:([0-9.]+)")]
    private static partial Regex SsimLine();
}
