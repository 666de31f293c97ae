using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Timing;
using Wexel.Media.Containers;
using Wexel.Media.Probing;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Makes a picture by copying the recording's coded frames; only where copying cannot begin or end they are encoded (<see
/// cref="CopyPlan"/>).</summary>
internal static class PictureCopier
{
    private static readonly TimeSpan WellBefore = TimeSpan.FromSeconds(1);

    /// <summary>Copies.</summary>
    /// <param name="plan">The picture's plan; it has a <see cref="PicturePlan.Copy"/>.</param>
    /// <param name="inputs">What it is made from.</param>
    /// <param name="path">Where the MP4 goes.</param>
    /// <param name="progress">Told the time in the picture that was reached.</param>
    /// <param name="started">Told the number of the encoder's process.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The encoder ended with an error, or the recording is not what it was.</exception>
    internal static async Task CopyAsync(
        PicturePlan plan,
        EncodeInputs inputs,
        string path,
        IProgress<TimeSpan>? progress,
        Action<int>? started,
        CancellationToken cancel
    )
    {
        var (recording, grid) = (inputs.Recordings[plan.Parts[0].Recording], plan.Timing.Grid);
        var source = await EvenFramesFinder.FramesAsync(recording, grid, cancel)
            ?? throw new ToolFailedException("copying", "The recording’s frames are not what they were.");
        var configuration = Configuration(recording);
        var pieces = new List<CopyRun>();
        var copied = new Dictionary<long, List<CopiedFrame>>();
        var least = EvenFramesFinder.LeastFrom(source);
        foreach (var run in plan.Copy!.Runs)
        {
            var until = run.First;
            if (!run.Encoded)
            {
                var frames = Whole(source, least, run);
                copied[run.At] = [.. frames.Select(f => new CopiedFrame(recording, f.Position, f.Bytes, f.Frame - run.First + run.At, f.IsKey))];
                until = After(source, frames.Max(f => f.Frame), run.First + run.Count);
            }

            // Where frames are decoded in another order than shown, the last ones before a cut may need what lies behind it.
            if (until < run.First + run.Count)
                pieces.Add(new CopyRun(until, run.First + run.Count - until, run.At + until - run.First, Encoded: true, 0));
        }

        if (pieces.Count == 0)
        {
            await WriteAsync(copied.OrderBy(c => c.Key).SelectMany(c => c.Value), configuration);
            return;
        }

        var encoded = HalfMade.Beside(path);
        try
        {
            var number = configuration.FreeNumber();
            await EncodeAsync(plan, inputs, source, pieces, number, encoded, started, cancel);
            var between = await ReadFramesAsync(encoded, pieces, grid, cancel);
            await WriteAsync(copied.Concat(between).OrderBy(c => c.Key).SelectMany(c => c.Value), configuration.With(Configuration(encoded)));
        }
        finally
        {
            File.Delete(encoded);
        }

        Task WriteAsync(IEnumerable<CopiedFrame> frames, AvcConfiguration sets) =>
            new Mp4Picture([.. frames], grid, plan.Copy.Runs[^1].At + plan.Copy.Runs[^1].Count, plan.Size, sets).WriteAsync(path, progress, cancel);
    }

    /// <summary>The frames of a run that can be decoded without any behind it, from its key frame on.</summary>
    private static List<CodedFrame> Whole(IReadOnlyList<CodedFrame> source, long[] least, CopyRun run)
    {
        var first = run.First - run.LeadIn;
        var start = source.Index().First(f => f.Item.Frame == first).Index;
        var (most, whole) = (-1L, start);
        for (var i = start; i < source.Count; i++)
        {
            most = Math.Max(most, source[i].Frame);
            if (most >= run.First + run.Count)
                break;
            if (most < least[i + 1])
                whole = i + 1;
        }

        return [.. source.Skip(start).Take(whole - start)];
    }

    /// <summary>Up to where a frame stands: the next one's tick, or the end.</summary>
    private static long After(IReadOnlyList<CodedFrame> source, long frame, long end) =>
        source.Where(f => f.Frame > frame && f.Frame < end).Select(f => f.Frame).DefaultIfEmpty(end).Min();

    /// <summary>All pieces in one file, each from a key frame on; their frames keep the lesson's times.</summary>
    private static async Task EncodeAsync(
        PicturePlan plan,
        EncodeInputs inputs,
        IReadOnlyList<CodedFrame> source,
        IReadOnlyList<CopyRun> pieces,
        int number,
        string path,
        Action<int>? started,
        CancellationToken cancel
    )
    {
        var (part, grid) = (plan.Parts[0], plan.Timing.Grid);
        var timing = plan.Timing with
        {
            MostRepeatsLeftOut = 0,
            SectionFrames = [.. pieces.Select(p => p.At)],
            LastFrame = pieces[^1].At + pieces[^1].Count - 1,
            Moving = [],
            Changing = [],
        };
        List<long> from = [.. pieces.Select(p => ReadFrom(source, p.First, grid))];
        var encoded = plan with
        {
            Copy = null,
            Parts = [.. pieces.Select((p, i) => part with { Recording = i, Kept = [new KeptStretch(p.First - from[i], p.Count, p.At)] })],
            Timing = timing,
        };
        var work = new EncodeWork(
            inputs with
            {
                Recordings = [.. pieces.Select(_ => inputs.Recordings[part.Recording])],
                From = from.Index().Where(f => f.Item > 0).ToDictionary(f => f.Index, f => grid.TimeOf(f.Item)),
            },
            [new PictureOutput(encoded, path)],
            [],
            ParameterSets: number
        );
        using var aids = await EncodeAids.MakeAsync(work, cancel);
        await MediaTool.RunAsync(EncodeArguments.Print(work, aids, [path], [plan.Rate.BitsPerSecond]), null, started, cancel);
    }

    /// <summary>
    /// Where reading begins for a frame. Where it may be an earlier one that stands, that is well before the key frame before: seeking goes by
    /// when frames are decoded, which behind a gap is long before they are shown.
    /// </summary>
    private static long ReadFrom(IReadOnlyList<CodedFrame> source, long frame, FrameRate grid) =>
        source.Max(f => f.Frame) is var last && last < source.Count
            ? Math.Min(frame, last)
            : Math.Max(0, source.Where(f => f.IsKey && f.Frame <= frame).Max(f => f.Frame) - grid.FrameAt(WellBefore));

    private static async Task<Dictionary<long, List<CopiedFrame>>> ReadFramesAsync(
        string path,
        IReadOnlyList<CopyRun> pieces,
        FrameRate grid,
        CancellationToken cancel
    )
    {
        var frames = await EvenFramesFinder.CodedAsync(path, grid, fromStart: false, cancel)
            ?? throw new ToolFailedException("copying", "What was encoded at the cuts does not lie on the lesson’s frames.");
        var between = pieces.ToDictionary(
            p => p.At,
            p =>
                frames
                    .Where(f => f.Frame >= p.At && f.Frame < p.At + p.Count)
                    .Select(f => new CopiedFrame(path, f.Position, f.Bytes, f.Frame, f.IsKey))
                    .ToList()
        );
        return pieces.All(p => between[p.At].Count == p.Count && between[p.At][0].IsKey)
            ? between
            : throw new ToolFailedException("copying", "Frames are missing from what was encoded at the cuts.");
    }

    private static AvcConfiguration Configuration(string path)
    {
        using var file = File.OpenRead(path);
        return AvcConfiguration.Read(file) ?? throw new ToolFailedException("copying", "There is no description of H.264 in the file.");
    }
}
