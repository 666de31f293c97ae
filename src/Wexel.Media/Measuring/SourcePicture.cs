using System.Globalization;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Legibility;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>Which of two pictures of the same moment.</summary>
public enum Side
{
    /// <summary>As it is before it is encoded.</summary>
    Source,

    /// <summary>As it stands in the file.</summary>
    Made,
}

/// <summary>Sets a frame of a finished file beside what it was made from: the source's own frame, cut out, scaled and marked by the same plan, but not
/// encoded.</summary>
public static class SourcePicture
{
    /// <summary>No more is read before the frame that is wanted than its key frame asks for.</summary>
    internal static readonly TimeSpan Exactly = TimeSpan.Zero;

    /// <summary>
    /// How much is read before the frame that is wanted, until there is one: where the sound goes on after the picture, the recording's last
    /// frame stands, which may lie far back.
    /// </summary>
    private static readonly IReadOnlyList<TimeSpan> ReadBefore = [Exactly, TimeSpan.FromSeconds(1.5), TimeSpan.FromDays(1)];

    private const double BlackMean = 8;

    /// <summary>Compares a frame.</summary>
    /// <param name="plan">The picture's plan.</param>
    /// <param name="inputs">What it was made from.</param>
    /// <param name="filePath">The finished file.</param>
    /// <param name="frame">The lesson's frame, on the grid.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">One of the two cannot be read there.</exception>
    public static async Task<MomentCompared> CompareAsync(PicturePlan plan, EncodeInputs inputs, string filePath, long frame, CancellationToken cancel)
    {
        foreach (var before in ReadBefore)
        {
            if (await CompareAsync(plan, inputs, filePath, frame, before, cancel) is { } compared)
                return compared;
        }

        // Where the file has no frame, it is like nothing.
        return new MomentCompared(plan.Timing.Grid.TimeOf(frame), 0, 0, false);
    }

    private static async Task<MomentCompared?> CompareAsync(
        PicturePlan plan,
        EncodeInputs inputs,
        string filePath,
        long frame,
        TimeSpan before,
        CancellationToken cancel
    )
    {
        var (source, made) = (new byte[plan.Size.Width * plan.Size.Height], new byte[plan.Size.Width * plan.Size.Height]);
        var both = false;
        await WithSourceAndMadeAsync(
            plan,
            inputs,
            filePath,
            frame,
            before,
            async (input, graph) =>
            {
                await MediaTool.StreamAsync(
                    [
                        .. input,
                        "-filter_complex",
                        $"{graph};[picture0]format=gray[source];[made]format=gray[made_grey];[source][made_grey]vstack[both]",
                        "-map",
                        "[both]",
                        "-frames:v",
                        "1",
                        "-f",
                        "rawvideo",
                        "pipe:1",
                    ],
                    async (stream, token) =>
                    {
                        both =
                            await stream.ReadAtLeastAsync(source, source.Length, throwOnEndOfStream: false, token) == source.Length
                            && await stream.ReadAtLeastAsync(made, made.Length, throwOnEndOfStream: false, token) == made.Length;
                    },
                    cancel
                );
                return true;
            },
            cancel
        );
        return both ? Compared(plan, frame, source, made) : null;
    }

    /// <summary>What two grey pictures of the same moment come to.</summary>
    internal static MomentCompared Compared(PicturePlan plan, long frame, byte[] source, byte[] made) =>
        new(
            plan.Timing.Grid.TimeOf(frame),
            StructuralSimilarity.Compare(source, made, plan.Size),
            DetailKept.Of(source, made, plan.Size, plan.Size).Mean,
            Mean(source) <= BlackMean,
            Borders(source, plan.Size)
        );

    /// <summary>Takes one of the two as a PNG at full size.</summary>
    /// <param name="plan">The picture's plan.</param>
    /// <param name="inputs">What it was made from.</param>
    /// <param name="filePath">The finished file.</param>
    /// <param name="frame">The lesson's frame, on the grid.</param>
    /// <param name="side">Which one.</param>
    /// <param name="outputPath">Where it goes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">There is no such frame, or it cannot be read.</exception>
    public static Task TakeAsync(PicturePlan plan, EncodeInputs inputs, string filePath, long frame, Side side, string outputPath, CancellationToken cancel) =>
        WholeFile.MakeAsync(outputPath, async temporary =>
        {
            foreach (var before in ReadBefore)
            {
                if (new FileInfo(temporary) is not { Exists: true, Length: > 0 })
                    await TakeAsync(plan, inputs, filePath, frame, before, side, temporary, cancel);
            }
        });

    private static Task<bool> TakeAsync(
        PicturePlan plan,
        EncodeInputs inputs,
        string filePath,
        long frame,
        TimeSpan before,
        Side side,
        string temporary,
        CancellationToken cancel
    ) =>
        WithSourceAndMadeAsync(
            plan,
            inputs,
            filePath,
            frame,
            before,
            async (input, graph) =>
            {
                var (wanted, other) = side == Side.Source ? ("picture0", "made") : ("made", "picture0");
                await MediaTool.RunAsync(
                    [
                        .. input,
                        "-filter_complex",
                        $"{graph};[{other}]nullsink;[{wanted}]scale=in_color_matrix=bt709:in_range=tv:flags=accurate_rnd+full_chroma_int,format=rgb24[seen]",
                        "-map",
                        "[seen]",
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
                );
                return true;
            },
            cancel
        );

    /// <summary>Takes a frame of the source as a JPEG: as it will be seen, and not encoded otherwise.</summary>
    /// <param name="plan">The picture's plan.</param>
    /// <param name="inputs">What it is made from.</param>
    /// <param name="frame">The lesson's frame, on the grid.</param>
    /// <param name="outputPath">Where it goes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">There is no such frame, or it cannot be read.</exception>
    public static Task TakeAsync(PicturePlan plan, EncodeInputs inputs, long frame, string outputPath, CancellationToken cancel) =>
        WholeFile.MakeAsync(outputPath, async temporary =>
        {
            foreach (var before in ReadBefore)
            {
                if (new FileInfo(temporary) is { Exists: true, Length: > 0 })
                    return;
                await WithGraphAsync(
                    plan,
                    inputs,
                    [frame],
                    before,
                    async (input, graph, _) =>
                    {
                        await MediaTool.RunAsync(
                            [
                                .. input,
                                "-filter_complex",
                                $"{graph};[picture0]{FullRange}[seen]",
                                "-map",
                                "[seen]",
                                "-frames:v",
                                "1",
                                "-q:v",
                                "3",
                                "-f",
                                "image2",
                                "-update",
                                "1",
                                "file:" + temporary,
                            ],
                            null,
                            null,
                            cancel
                        );
                        return true;
                    },
                    cancel
                );
            }
        });

    /// <summary>JPEG's own colours (ITU-T T.871): the matrix of BT.601, over the whole range.</summary>
    private const string FullRange =
        "scale=in_color_matrix=bt709:in_range=tv:out_color_matrix=bt601:out_range=pc:flags=accurate_rnd+full_chroma_int,format=yuvj420p";

    private static BorderShares? Borders(ReadOnlySpan<byte> grey, PictureSize size)
    {
        var finder = new BorderFinder(size);
        finder.Show(grey);
        return finder.Found() is { } found ? BorderShares.Of(found, size) : null;
    }

    internal static double Mean(ReadOnlySpan<byte> grey)
    {
        long sum = 0;
        foreach (var value in grey)
            sum += value;
        return (double)sum / Math.Max(1, grey.Length);
    }

    /// <summary>The inputs and a graph that ends in <c>[picture0]</c> and <c>[made]</c>, for one frame.</summary>
    private static async Task<T> WithSourceAndMadeAsync<T>(
        PicturePlan plan,
        EncodeInputs inputs,
        string filePath,
        long frame,
        TimeSpan before,
        Func<IReadOnlyList<string>, string, Task<T>> use,
        CancellationToken cancel
    )
    {
        var (grid, made) = (plan.Timing.Grid, MediaTool.OwnInput(filePath));
        var from = (await ReadingStart.FindAsync(made, grid, [frame], Exactly, cancel))[0].Frame;
        return await WithGraphAsync(
            plan,
            inputs,
            [frame],
            before,
            (input, graph, next) =>
                use(
                    [.. input, .. EncodeArguments.From(grid.TimeOf(from)), .. made],
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{graph};[{next}:V:0]fps={grid}:start_time=0,tpad=stop=-1:stop_mode=clone,"
                            + $"trim=start_frame={frame - from}:end_frame={frame - from + 1},setpts=0[made]"
                    )
                ),
            cancel
        );
    }

    /// <summary>The inputs, a graph that ends in <c>[picture0]</c> with the source's frames, and the number of the next input.</summary>
    /// <param name="plan">The picture's plan.</param>
    /// <param name="inputs">What it was made from.</param>
    /// <param name="frames">The lesson's frames, in order; each is sought by itself.</param>
    /// <param name="before">How much is read before each.</param>
    /// <param name="use">What is done with them.</param>
    /// <param name="cancel">Stops it.</param>
    internal static async Task<T> WithGraphAsync<T>(
        PicturePlan plan,
        EncodeInputs inputs,
        IReadOnlyList<long> frames,
        TimeSpan before,
        Func<IReadOnlyList<string>, string, int, Task<T>> use,
        CancellationToken cancel
    )
    {
        var grid = plan.Timing.Grid;
        var wanted = frames.Select(plan.Recorded).ToList();
        var from = await StartsAsync(plan, inputs, wanted, before, cancel);
        var sought = wanted
            .Select((w, i) => (Frame: frames[i], w.Part, From: from[i].Frame, First: w.Frame - from[i].Frame, Needed: from[i].Needed(grid.TimeOf(w.Frame))))
            .ToList();
        var still = plan with
        {
            Parts =
            [
                .. sought.Select((s, i) => s.Part with { Recording = i, Kept = [new KeptStretch(s.First, 1, s.Frame)], Moves = Standing(s.Part, s.Frame) }),
            ],
            Cameras = SampleEncoder.Filmed(plan, [.. frames.Select(frame => new FrameRun(frame, 1))]),
            Timing = plan.Timing with { MostRepeatsLeftOut = 0, SectionFrames = [], LastFrame = frames[^1], Moving = [], Changing = [], Constant = null },
        };
        var each = inputs with
        {
            Recordings = [.. sought.Select(s => inputs.Recordings[s.Part.Recording])],
            From = sought.Index().ToDictionary(of => of.Index, of => grid.TimeOf(of.Item.From)),
            Needed = sought.Index().Where(of => of.Item.Needed is not null).ToDictionary(of => of.Index, of => of.Item.Needed!.Value),
        };
        var work = new EncodeWork(each, [new PictureOutput(still, "")], []);
        using var aids = await EncodeAids.MakeAsync(work, cancel);
        var (arguments, graph, next) = EncodeArguments.Source(work, aids);
        return await use(arguments, graph, next);
    }

    /// <summary>Frames at which a file is compared, at which its source is read quickly: see <see cref="ExpectedPicture.BehindKeyFrames"/>.</summary>
    /// <param name="plan">The picture's plan.</param>
    /// <param name="inputs">What it is made from.</param>
    /// <param name="frames">The lesson's frames, in order.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">A recording cannot be read.</exception>
    internal static async Task<IReadOnlyList<long>> QuicklyReadAsync(
        PicturePlan plan,
        EncodeInputs inputs,
        IReadOnlyList<long> frames,
        CancellationToken cancel
    )
    {
        var grid = plan.Timing.Grid;
        var starts = await StartsAsync(plan, inputs, [.. frames.Select(plan.Recorded)], Exactly, cancel);
        return ExpectedPicture.BehindKeyFrames(plan, frames, [.. starts.Select(start => start.First is { } first ? grid.FrameAt(first) : (long?)null)]);
    }

    private static async Task<ReadingStart.StartPoint[]> StartsAsync(
        PicturePlan plan,
        EncodeInputs inputs,
        List<(PartPlan Part, long Frame)> wanted,
        TimeSpan before,
        CancellationToken cancel
    )
    {
        var from = new ReadingStart.StartPoint[wanted.Count];
        foreach (var recording in wanted.Index().GroupBy(w => w.Item.Part.Recording, w => (w.Index, w.Item.Frame)))
        {
            var starts = await ReadingStart.FindAsync(
                MediaTool.SafeInput(inputs.Recordings[recording.Key]),
                plan.Timing.Grid,
                [.. recording.Select(w => w.Frame)],
                before,
                cancel
            );
            foreach (var (of, start) in recording.Zip(starts))
                from[of.Index] = start;
        }

        return from;
    }

    /// <summary>Where a part moves in, what is seen at the frame, gone to at once.</summary>
    private static IReadOnlyList<ViewMove> Standing(PartPlan part, long frame)
    {
        if (part.Moves.Count == 0)
            return [];
        var seen = new ViewPath(part.Placement.Page, part.Moves).At(frame);
        return [new ViewMove(frame - 1, 1, seen, seen)];
    }
}
