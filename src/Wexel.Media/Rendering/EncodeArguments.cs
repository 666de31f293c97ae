using System.Globalization;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Prints what is encoded as ffmpeg's arguments: the pictures in one pass over the recordings, and the sounds in another over what was put
/// together.</summary>
internal static class EncodeArguments
{
    /// <summary>The arguments of the pictures' only pass, or of the second.</summary>
    /// <param name="work">What is encoded.</param>
    /// <param name="aids">The files beside.</param>
    /// <param name="paths">Where each picture goes.</param>
    /// <param name="rates">The rate that each picture is aimed at, in bits a second.</param>
    internal static IReadOnlyList<string> Print(EncodeWork work, EncodeAids aids, IReadOnlyList<string> paths, IReadOnlyList<long> rates)
    {
        List<string> arguments = [.. Inputs(work), "-filter_complex", Graph(work, aids)];
        for (var i = 0; i < work.Pictures.Count; i++)
        {
            var plan = work.Pictures[i].Plan;
            arguments.AddRange([
                .. Mapped(i),
                .. EncoderArguments.Print(plan, rates[i], work.ParameterSets),
                .. Threads(work),
                .. plan.Rate.Passes == 2 ? ["-pass", "2", "-passlogfile", aids.Log(i)] : Array.Empty<string>(),
                .. Bare,
                "-f",
                "mp4",
                "file:" + paths[i],
            ]);
        }

        return arguments;
    }

    /// <summary>The arguments of the sounds.</summary>
    /// <param name="sounds">What is encoded, and of what.</param>
    /// <param name="paths">Where each goes.</param>
    internal static IReadOnlyList<string> OfSounds(IReadOnlyList<(SoundPlan Plan, LessonSound Sound)> sounds, IEnumerable<string> paths)
    {
        List<string> inputs = [.. sounds.Select(s => s.Sound.Path).Distinct()];
        return
        [
            .. inputs.SelectMany(MediaTool.OwnInput),
            .. sounds
                .Zip(paths)
                .SelectMany(to =>
                    (IEnumerable<string>)
                        [
                            "-map",
                            $"{Text(inputs.IndexOf(to.First.Sound.Path))}:a:0",
                            .. to.First.Sound.Levelling is { } levelling ? ["-af", SoundFilters.Print(levelling)] : Array.Empty<string>(),
                            .. EncoderArguments.Print(to.First.Plan),
                            .. Bare,
                            "file:" + to.Second,
                        ]
                ),
        ];
    }

    /// <summary>The arguments of the first of two passes, which looks at the pictures and writes down what it saw.</summary>
    /// <param name="work">Pictures that are encoded in two passes, and no sound.</param>
    /// <param name="aids">The files beside.</param>
    internal static IReadOnlyList<string> FirstPass(EncodeWork work, EncodeAids aids) =>
        [
            .. Inputs(work),
            "-filter_complex",
            Graph(work, aids),
            .. work.Pictures.SelectMany(
                (picture, i) =>
                    (IEnumerable<string>)
                        [
                            .. Mapped(i),
                            .. EncoderArguments.Print(picture.Plan, picture.Plan.Rate.BitsPerSecond),
                            .. Threads(work),
                            "-pass",
                            "1",
                            "-passlogfile",
                            aids.Log(i),
                            .. Bare,
                            "-f",
                            "null",
                            "-",
                        ]
            ),
        ];

    /// <summary>The arguments for the inputs of pictures alone, their graph, and the number of the next input; nothing is encoded.</summary>
    /// <param name="work">One picture, and no sound.</param>
    /// <param name="aids">The files beside.</param>
    internal static (IReadOnlyList<string> Inputs, string Graph, int NextInput) Source(EncodeWork work, EncodeAids aids) =>
        (Inputs(work), Graph(work, aids), Parts(work).Count + Cameras(work).Count + Marks(work).Count);

    private static string[] Threads(EncodeWork work) => work.Threads > 0 ? ["-threads", Text(work.Threads)] : [];

    private static string[] Bare => ["-sn", "-dn", "-map_metadata", "-1", "-map_chapters", "-1"];

    private static string[] Mapped(int output) => ["-map", $"[picture{Text(output)}]", "-fps_mode", "vfr"];

    /// <summary>The recordings, then the cameras, then the marks.</summary>
    private static List<string> Inputs(EncodeWork work)
    {
        var arguments = new List<string>();
        foreach (var part in Parts(work))
        {
            if (work.Inputs.From?.TryGetValue(part.Recording, out var from) == true)
                arguments.AddRange(From(from));
            if (work.Inputs.Needed?.TryGetValue(part.Recording, out var needed) == true)
                arguments.AddRange(["-t", needed.TotalSeconds.ToString("0.######", CultureInfo.InvariantCulture)]);
            arguments.AddRange(MediaTool.SafeInput(work.Inputs.Recordings[part.Recording]));
        }

        foreach (var camera in Cameras(work))
        {
            if (work.Inputs.Cameras?.TryGetValue(camera.Recording, out var path) != true)
                throw new ArgumentException("The plan has a camera, and none is given.", nameof(work));
            arguments.AddRange(CameraFilters.Input(camera, work.Pictures[0].Plan.Timing.Grid, path!));
        }

        foreach (var mark in Marks(work))
        {
            if (work.Inputs.Marks?.TryGetValue(mark, out var path) != true)
                throw new ArgumentException("The plan has a mark, and none is given.", nameof(work));
            arguments.AddRange(MediaTool.OwnInput(path!));
        }

        return arguments;
    }

    /// <summary>
    /// Where reading of a picture begins. What was decoded up to there is not thrown away, but goes to the filters with times below 0, where the
    /// last of it may be what still stands.
    /// </summary>
    internal static IReadOnlyList<string> From(TimeSpan at) => ["-noaccurate_seek", "-ss", at.TotalSeconds.ToString("0.######", CultureInfo.InvariantCulture)];

    private static IReadOnlyList<PartPlan> Parts(EncodeWork work) => work.Pictures[0].Plan.Parts;

    /// <summary>The keys of the marks that stand on pictures, each once.</summary>
    private static List<string> Marks(EncodeWork work) => [.. work.Pictures.Select(p => p.Plan.Mark?.Key).OfType<string>().Distinct()];

    /// <summary>All pictures are of one lesson: its cameras are read alike, and seen each in its own size.</summary>
    private static IReadOnlyList<CameraPlan> Cameras(EncodeWork work) => work.Pictures[0].Plan.Cameras ?? [];

    /// <summary>
    /// Every recording is decoded once. Its frames go to as many branches as there are ways to time them, and from each to the pictures
    /// that are made so; each picture has its recordings one after the other, and the mark and the captions over them.
    /// </summary>
    private static string Graph(EncodeWork work, EncodeAids aids)
    {
        var chains = new List<string>();
        var timings = work
            .Pictures.Select((picture, output) => (picture.Plan, Output: output))
            .GroupBy(t => FramesDrawn.LeavesOut(t.Plan) ? (t.Plan.Timing.MostRepeatsLeftOut, Made: FramesDrawn.OnScreen(t.Plan)) : (0, Made: ""))
            .ToList();
        for (var i = 0; i < Parts(work).Count; i++)
        {
            chains.Add(
                $"[{Text(i)}:V:0]{PreparingFilters.Print(Parts(work)[i].Prepared)}{KeptFilters(work.Pictures[0].Plan.Timing.Grid, Parts(work)[i].Kept)}"
                    + $"{Split(timings.Select((_, t) => $"[timed{Text(i)}x{Text(t)}]"))}"
            );
            chains.AddRange(
                timings.SelectMany(
                    (timing, t) =>
                        FramesDrawn.Print(
                            timing.First().Plan.Timing,
                            timing.Key.Made,
                            $"{Text(i)}x{Text(t)}",
                            Split(timing.Select(of => $"[drawn{Text(i)}x{Text(of.Output)}]"))
                        )
                )
            );
            chains.AddRange(
                work.Pictures.Select(
                    (picture, output) => $"[drawn{Text(i)}x{Text(output)}]{PlaceFilters(picture.Plan.Parts[i], output, aids)}[part{Text(i)}x{Text(output)}]"
                )
            );
        }

        chains.AddRange(CameraChains(work, aids));
        foreach (var (index, mark) in Marks(work).Index())
        {
            var on = work.Pictures.Index().Where(p => p.Item.Plan.Mark?.Key == mark).Select(p => $"[mark{Text(p.Index)}]");
            chains.Add($"[{Text(Parts(work).Count + Cameras(work).Count + index)}:v:0]format=rgba{Split(on)}");
        }

        chains.AddRange(work.Pictures.Select((picture, output) => PageFilters(picture.Plan, output, aids)).SelectMany(c => c));
        return string.Join(';', chains);
    }

    /// <summary>Every camera is decoded once; its frames go to each way in which it is seen, on each picture.</summary>
    private static IEnumerable<string> CameraChains(EncodeWork work, EncodeAids aids)
    {
        foreach (var (index, camera) in Cameras(work).Index())
        {
            var grid = work.Pictures[0].Plan.Timing.Grid;
            var seen = work
                .Pictures.SelectMany((picture, output) => picture.Plan.Cameras![index].Views.Select((view, v) => (output, index, view: v, View: view)))
                .ToList();
            var squares = camera.SquarePixels ? "" : $",{Scale(camera.Recorded, null)}";
            var matrix = Matrix(camera.Colour) is { } filter ? $",{filter}" : "";
            yield return $"[{Text(Parts(work).Count + index)}:V:0]{PreparingFilters.Print(camera.Prepared)}{CameraFilters.Times(camera, grid)}{matrix}{squares}"
                + Split(seen.Select(s => $"[filmed{Text(s.output)}x{Text(index)}x{Text(s.view)}]"));
            foreach (var (output, _, view, how) in seen)
            {
                var label = $"{Text(output)}x{Text(index)}x{Text(view)}";
                var mask = how.Radius > 0 ? aids.Mask(output, index, view) : null;
                foreach (var chain in CameraFilters.View(how, Scale(how.Size, camera.Colour), mask, $"[filmed{label}]", label))
                    yield return chain;
            }
        }
    }

    private static string Split(IEnumerable<string> labels)
    {
        var named = labels.ToList();
        return named.Count == 1 ? named[0] : $",split={Text(named.Count)}{string.Concat(named)}";
    }

    /// <summary>One picture's parts one after the other, with what lies over them.</summary>
    private static IEnumerable<string> PageFilters(PicturePlan plan, int output, EncodeAids aids)
    {
        var timing = plan.Timing;
        // Frames of several recordings carry the lesson's times already; what puts them in order counts microseconds, which the grid takes back.
        var page =
            plan.Parts.Count == 1
                ? $"[part0x{Text(output)}]null"
                : $"{string.Concat(plan.Parts.Select((_, i) => $"[part{Text(i)}x{Text(output)}]"))}interleave=nb_inputs={Text(plan.Parts.Count)},"
                    + $"settb={Text(timing.Grid.Denominator)}/{Text(timing.Grid.Numerator)}";
        foreach (var (index, camera) in (plan.Cameras ?? []).Index())
        {
            foreach (var (number, view) in camera.Views.Index())
            {
                var label = $"{Text(output)}x{Text(index)}x{Text(number)}";
                yield return $"{page}[under{label}]";
                page = $"[under{label}][camera{label}]{CameraFilters.Over(view, timing.Grid)}";
            }
        }

        List<string> over = [];
        if (plan.Cameras is not null)
        {
            // Only here is it known whether a frame of a camera is another: it may come more seldom than the screen's, and somebody may sit still.
            page += ",format=yuv420p";
            if (timing.MostRepeatsLeftOut > 0)
            {
                var which = $"{Text(output)}xfilmed";
                yield return $"{page}[timed{which}]";
                foreach (var chain in FramesDrawn.Print(timing, FramesDrawn.UnderCameras(plan), which, $"[seen{Text(output)}]"))
                    yield return chain;
                page = $"[seen{Text(output)}]null";
            }
        }

        if (plan.Captions is not null)
            over.Add($"ass={FilterText.Escape(aids.Captions(output))}:fontsdir={FilterText.Escape(aids.Fonts)}");
        if (timing.Constant is { } constant)
            over.Add($"fps={constant}:start_time=0");
        if (plan.Mark is not { } mark)
        {
            yield return $"{string.Join(',', over.Prepend(page))}[picture{Text(output)}]";
            yield break;
        }

        var opacity = mark.Opacity.ToString("0.###", CultureInfo.InvariantCulture);
        yield return $"{page}[page{Text(output)}]";
        // The mark's one frame stands as long as the picture goes on; its colours are brought to the picture's before they are laid over it.
        yield return $"[mark{Text(output)}]scale={Text(mark.Box.Width)}:{Text(mark.Box.Height)}:flags=lanczos,colorchannelmixer=aa={opacity},"
            + $"scale=out_color_matrix=bt709:out_range=tv,format=yuva420p[over{Text(output)}]";
        var laid = over.Prepend($"overlay={Text(mark.Box.X)}:{Text(mark.Box.Y)}:format=yuv420,setsar=1,format=yuv420p");
        yield return $"[page{Text(output)}][over{Text(output)}]{string.Join(',', laid)}[picture{Text(output)}]";
    }

    /// <summary>What is kept of a recording, with the lesson's times.</summary>
    private static string KeptFilters(FrameRate grid, IReadOnlyList<KeptStretch> kept)
    {
        var filters = new List<string>
        {
            // Some files say of their last frame that it ends at once; it would be left out.
            "tpad=stop_duration=1:stop_mode=clone",
            $"fps={grid}:start_time=0",
            "tpad=stop=-1:stop_mode=clone",
            $"trim=end_frame={Text(kept[^1].End)}",
        };
        if (kept is not [{ First: 0, At: 0 }])
        {
            // What is kept closes up: its frames are numbered on without a gap, and a frame of the grid is a tick of the time base.
            filters.Add($"select='{FilterText.Sum([.. kept.Select(s => $"between(n,{Text(s.First)},{Text(s.End - 1)})")])}'");
            filters.Add($"setpts=N+{Text(kept[0].At)}");
        }

        return string.Join(',', filters);
    }

    private static string PlaceFilters(PartPlan part, int output, EncodeAids aids) =>
        string.Join(',', Place(part, output, aids).Concat(["setsar=1", "format=yuv420p"]));

    /// <summary>The part that is seen is cut out, scaled once, and set on a black canvas.</summary>
    private static IEnumerable<string> Place(PartPlan part, int output, EncodeAids aids)
    {
        var (from, to, canvas, recorded) = (part.Placement.From, part.Placement.To, part.Placement.Canvas, part.Placement.Recorded);
        var (crops, squareFirst) = (
            from.Width < recorded.Width || from.Height < recorded.Height,
            !part.SquarePixels && (part.Moves.Count > 0 || from != new PictureRect(0, 0, recorded.Width, recorded.Height))
        );
        if (Matrix(part.Colour) is { } matrix)
            yield return matrix;
        // Pixels that are not square are made so first; a part is measured in square ones.
        if (squareFirst)
            yield return Scale(recorded, null);
        if (crops)
            yield return $"crop={Text(from.Width)}:{Text(from.Height)}:{Text(from.X)}:{Text(from.Y)}:exact=1";
        if (part.Moves.Count > 0)
        {
            var (page, seen) = (part.Placement.Page, part.Placement.SeenOnPage);
            if (page.Width > seen.Width || page.Height > seen.Height)
                yield return $"pad={Text(page.Width)}:{Text(page.Height)}:{Text(seen.X)}:{Text(seen.Y)}:color=black";
            yield return $"sendcmd=f={FilterText.Escape(aids.Moves(output))}";
            yield return $"{MoveCommands.View(part, output)}={Text(page.Width)}:{Text(page.Height)}:0:0:exact=1";
            yield return $"{MoveCommands.Fit(part, output)}={Scale(canvas, part.Colour)["scale=".Length..]}";
            yield break;
        }

        if (from.Width != to.Width || from.Height != to.Height || part.Colour is not null || (!part.SquarePixels && !squareFirst))
            yield return Scale(new PictureSize(to.Width, to.Height), part.Colour);
        if (to.Width < canvas.Width || to.Height < canvas.Height)
            yield return $"format=yuv420p,pad={Text(canvas.Width)}:{Text(canvas.Height)}:{Text(to.X)}:{Text(to.Y)}:color=black";
    }

    private static string Scale(PictureSize size, ColourConversion? conversion) =>
        $"scale={Text(size.Width)}:{Text(size.Height)}"
        + (conversion is { FromMatrix: null } ? ":out_color_matrix=bt709:out_range=tv" : "")
        + ":flags=lanczos+accurate_rnd+full_chroma_int+full_chroma_inp";

    /// <summary>
    /// Brings luma and chroma of another matrix or range to BT.709 in limited range, before anything else is done to them; null where there is nothing to do.
    /// The scaler would do so by way of red, green and blue, many times as slow and less exact.
    /// </summary>
    private static string? Matrix(ColourConversion? conversion)
    {
        if (conversion is not { FromMatrix: { } matrix, FromFullRange: var full } || (matrix == "bt709" && !full))
            return null;
        var from = matrix switch
        {
            "bt709" or "smpte240m" or "fcc" => matrix,
            "bt2020nc" or "bt2020c" => "bt2020ncl",
            _ => "smpte170m",
        };
        return $"colorspace=ispace={from}:irange={(full ? "pc" : "tv")}:iprimaries=bt709:itrc=bt709:space=bt709:range=tv:primaries=bt709:trc=bt709";
    }

    private static string Text(long number) => number.ToString(CultureInfo.InvariantCulture);
}
