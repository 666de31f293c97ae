using System.Globalization;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>
/// Compares a finished file with its source at several moments: the source's frames are taken in one go, and the file's while all of it
/// is decoded anyway.
/// </summary>
internal sealed class MomentComparison : IDisposable
{
    private readonly PicturePlan _plan;
    private readonly EncodeInputs _inputs;
    private readonly string _filePath;
    private readonly IReadOnlyList<long> _frames;
    private readonly IReadOnlyList<TimeSpan> _shown;
    private readonly List<TimeSpan> _taken;
    private readonly string _folder = HalfMade.Folder();

    /// <param name="plan">The picture's plan.</param>
    /// <param name="inputs">What it was made from.</param>
    /// <param name="filePath">The finished file.</param>
    /// <param name="frames">The lesson's frames, in order, at least one.</param>
    /// <param name="times">The times of the file's frames, in order.</param>
    internal MomentComparison(PicturePlan plan, EncodeInputs inputs, string filePath, IReadOnlyList<long> frames, IReadOnlyList<TimeSpan> times)
    {
        (_plan, _inputs, _filePath, _frames) = (plan, inputs, filePath, frames);
        // What is shown at a moment is the file's last frame up to there. One that stands through two moments is taken once.
        _shown = [.. frames.Select(frame => times.LastOrDefault(at => plan.Timing.Grid.FrameAt(at) <= frame))];
        _taken = [.. _shown.Distinct()];
    }

    /// <summary>
    /// A chain of filters that leaves the moments of the whole file, in grey. They are set far apart: a file whose frames stand long has so low
    /// a rate that two of them would count as one.
    /// </summary>
    internal string MadeFilters
    {
        get
        {
            var half = _plan.Timing.Grid.TimeOf(1).TotalSeconds / 2;
            var near = _taken.Select(at => string.Create(CultureInfo.InvariantCulture, $"lt(abs(t-{at.TotalSeconds:0.######}),{half:0.######})"));
            return $"select='{FilterText.Sum([.. near])}',setpts=N*10/TB,format=gray";
        }
    }

    /// <summary>What stands before the output that those moments go to.</summary>
    internal IReadOnlyList<string> MadeOutput => [.. Output, "file:" + MadePath];

    private static IReadOnlyList<string> Output => ["-fps_mode", "passthrough", "-f", "rawvideo"];

    private string MadePath => Path.Combine(_folder, "made");

    private string SourcePath => Path.Combine(_folder, "source");

    private int FrameBytes => _plan.Size.Width * _plan.Size.Height;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    /// <summary>Takes the source's frames.</summary>
    /// <exception cref="ToolFailedException">The source cannot be read there.</exception>
    internal Task TakeSourceAsync(CancellationToken cancel) =>
        SourcePicture.WithGraphAsync(
            _plan,
            _inputs,
            _frames,
            SourcePicture.Exactly,
            async (input, graph, _) =>
            {
                await MediaTool.RunAsync(
                    [
                        .. input,
                        "-filter_complex",
                        $"{graph};[picture0]format=gray[source]",
                        "-map",
                        "[source]",
                        "-frames:v",
                        _frames.Count.ToString(CultureInfo.InvariantCulture),
                        .. Output,
                        "file:" + SourcePath,
                    ],
                    null,
                    null,
                    cancel,
                    aside: true
                );
                return true;
            },
            cancel
        );

    /// <summary>Compares what was taken. Where a frame is missing on one side, each is looked for by itself.</summary>
    /// <exception cref="ToolFailedException">The frames cannot be read.</exception>
    internal async Task<IReadOnlyList<MomentCompared>> CompareAsync(CancellationToken cancel)
    {
        if (!IsWhole(SourcePath, _frames.Count) || !IsWhole(MadePath, _taken.Count))
            return await OneByOneAsync(_plan, _inputs, _filePath, _frames, cancel);
        if (_taken.Count < _frames.Count)
            await StandAsync(cancel);
        return await Task.WhenAll(
            _frames.Select((frame, i) => Task.Run(() => SourcePicture.Compared(_plan, frame, Read(SourcePath, i), Read(MadePath, i)), cancel))
        );
    }

    /// <summary>Compares frames that are taken one at a time.</summary>
    internal static async Task<IReadOnlyList<MomentCompared>> OneByOneAsync(
        PicturePlan plan,
        EncodeInputs inputs,
        string filePath,
        IReadOnlyList<long> frames,
        CancellationToken cancel
    )
    {
        var compared = new MomentCompared[frames.Count];
        await Parallel.ForEachAsync(
            Enumerable.Range(0, frames.Count),
            new ParallelOptions { MaxDegreeOfParallelism = 2, CancellationToken = cancel },
            async (i, token) => compared[i] = await SourcePicture.CompareAsync(plan, inputs, filePath, frames[i], token)
        );
        return compared;
    }

    /// <summary>Sets a frame that stands through several moments down for each of them.</summary>
    private async Task StandAsync(CancellationToken cancel)
    {
        var taken = _taken.Select((_, i) => Read(MadePath, i)).ToList();
        await using var made = File.Create(MadePath);
        foreach (var at in _shown)
            await made.WriteAsync(taken[_taken.IndexOf(at)], cancel);
    }

    private bool IsWhole(string path, int frames) => new FileInfo(path) is { Exists: true } file && file.Length == (long)FrameBytes * frames;

    private byte[] Read(string path, int index)
    {
        var frame = new byte[FrameBytes];
        using var file = File.OpenRead(path);
        file.Position = (long)FrameBytes * index;
        file.ReadExactly(frame);
        return frame;
    }
}
