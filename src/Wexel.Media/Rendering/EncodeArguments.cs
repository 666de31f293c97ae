using System.Globalization;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Prints a render plan as ffmpeg's arguments.</summary>
public static class EncodeArguments
{
    /// <summary>A block of 8 × 8 must differ by this in sum before a frame counts as drawn: a code value a pixel, coding noise.</summary>
    private const int BlockDifference = 64;

    /// <summary>All arguments, for what an encode is made from and one MP4 that is made.</summary>
    public static IReadOnlyList<string> Of(RenderPlan plan, EncodeInputs inputs, string outputPath)
    {
        var picture = plan.Picture;
        List<string> arguments = [.. plan.Parts.SelectMany(part => MediaTool.SafeInput(inputs.Recordings[part.Recording]))];
        var next = plan.Parts.Count;
        int? soundInput = null, markInput = null;
        if (inputs.Sound is not null)
        {
            arguments.AddRange(MediaTool.OwnInput(inputs.Sound.Path));
            soundInput = next++;
        }

        if (picture.Mark is not null)
        {
            arguments.AddRange(MediaTool.OwnInput(inputs.Mark ?? throw new ArgumentException("The plan has a mark, and none is given.", nameof(inputs))));
            markInput = next;
        }

        arguments.AddRange(
        [
            "-filter_complex", Graph(plan, inputs, markInput), "-map", "[picture]", "-fps_mode", "vfr",
            "-c:v", "libx264", "-profile:v", "high", "-level:v", H264Level.All.First(l => l.Number == picture.Level).Name,
            "-preset", picture.Effort, "-crf", Text(picture.Quality), "-refs", Text(picture.ReferenceFrames),
            "-maxrate", Text(picture.MaxBitsPerSecond), "-bufsize", Text(picture.BufferBits),
            // Otherwise the encoder spends far more on a frame that stands long than the quality factor asks for.
            "-x264-params", "force-cfr=1",
            "-g", Text(picture.Timing.KeyFrameEvery), "-force_key_frames", KeyFrameTimes(picture.Timing),
            "-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709", "-color_range", "tv",
        ]);
        if (plan.Sound is { } sound)
            arguments.AddRange(["-map", $"{soundInput}:a:0", .. inputs.Sound?.Levelling is { } levelling ? ["-af", SoundFilters.Of(levelling)] : Array.Empty<string>(), "-c:a", "aac", "-b:a", Text(sound.BitsPerSecond), "-ar", Text(sound.SampleRate)]);

        arguments.AddRange(["-sn", "-dn", "-map_metadata", "-1", "-map_chapters", "-1", "-f", "mp4", "file:" + outputPath]);
        return arguments;
    }

    /// <summary>Each recording on the canvas, one after the other, and the mark over them.</summary>
    private static string Graph(RenderPlan plan, EncodeInputs inputs, int? markInput)
    {
        var page = markInput is null ? "[picture]" : "[page]";
        var chains = new List<string>();
        if (plan.Parts is [var only])
        {
            chains.Add($"[0:V:0]{PartFilters(plan.Picture, only, inputs.Moves)}{page}");
        }
        else
        {
            chains.AddRange(plan.Parts.Select((part, i) => $"[{Text(i)}:V:0]{PartFilters(plan.Picture, part, inputs.Moves)}[part{Text(i)}]"));
            // Their frames carry the lesson's times already; what puts them in order counts microseconds, which the grid takes back.
            var grid = plan.Picture.Timing.Grid;
            chains.Add($"{string.Concat(plan.Parts.Select((_, i) => $"[part{Text(i)}]"))}interleave=nb_inputs={Text(plan.Parts.Count)},settb={Text(grid.Denominator)}/{Text(grid.Numerator)}{page}");
        }

        if (plan.Picture.Mark is { } mark)
        {
            var opacity = mark.Opacity.ToString("0.###", CultureInfo.InvariantCulture);
            // The mark's one frame stands as long as the picture goes on; its colours are brought to the picture's before they are laid over it.
            chains.Add($"[{markInput}:v:0]format=rgba,scale={Text(mark.Box.Width)}:{Text(mark.Box.Height)}:flags=lanczos,colorchannelmixer=aa={opacity},scale=out_color_matrix=bt709:out_range=tv,format=yuva420p[mark]");
            chains.Add($"[page][mark]overlay={Text(mark.Box.X)}:{Text(mark.Box.Y)}:format=yuv420,setsar=1,format=yuv420p[picture]");
        }

        return string.Join(';', chains);
    }

    private static string PartFilters(PicturePlan picture, PartPlan part, string? moves)
    {
        var timing = picture.Timing;
        var kept = part.Kept;
        var filters = new List<string>
        {
            $"fps={timing.Grid}:start_time=0",
            "tpad=stop=-1:stop_mode=clone",
            $"trim=end_frame={Text(kept[^1].End)}",
        };
        if (kept is not [{ First: 0, At: 0 }])
        {
            // What is kept closes up: its frames are numbered on without a gap, and a frame of the grid is a tick of the time base.
            filters.Add($"select='{FilterText.Sum([.. kept.Select(s => $"between(n,{Text(s.First)},{Text(s.End - 1)})")])}'");
            filters.Add($"setpts=N+{Text(kept[0].At)}");
        }

        if (timing.MostRepeatsLeftOut > 0)
        {
            // Frames that must be made differ from the one before by half the range of brightness, which no comparison can miss, and
            // are moved back behind it: the move is its own inverse, so nothing of the picture changes.
            var mark = $"lut=c0='mod(val+128,256)':enable='{Marked(timing)}'";
            filters.Add(mark);
            filters.Add($"mpdecimate=max={Text(timing.MostRepeatsLeftOut)}:hi={Text(BlockDifference * 2)}:lo={Text(BlockDifference)}:frac=0");
            filters.Add(mark);
        }

        filters.AddRange(Place(part, moves));
        filters.Add("setsar=1");
        filters.Add("format=yuv420p");
        return string.Join(',', filters);
    }

    /// <summary>Whether a frame is marked: it is as the one before is, unless it must be made. So it is how many were made, odd or even.</summary>
    private static string Marked(FrameTiming timing)
    {
        var number = $"round(t*{timing.Grid})";
        bool Regular(long frame) => frame % timing.KeyFrameEvery == 0;
        bool Moving(long frame) => timing.Moving.Any(run => run.Holds(frame));
        var single = timing.SectionFrames.Append(timing.LastFrame).Distinct().Where(frame => !Regular(frame) && !Moving(frame));
        // A frame that two of the sums count would be as the one before again: counted once more, it is not.
        var twice = timing.Moving.SelectMany(run => timing.KeyFrames().Where(frame => Regular(frame) && run.Holds(frame)));
        return $"mod({FilterText.Sum([
            $"floor({number}/{Text(timing.KeyFrameEvery)})+1",
            .. single.Concat(twice).Select(frame => $"gte({number},{Text(frame)})"),
            .. timing.Moving.Select(run => $"clip({number}-{Text(run.First - 1)},0,{Text(run.Count)})"),
        ])},2)";
    }

    /// <summary>The part that is seen is cut out, scaled once, and set on a black canvas.</summary>
    private static IEnumerable<string> Place(PartPlan part, string? moves)
    {
        var (from, to, canvas, recorded) = (part.Placement.From, part.Placement.To, part.Placement.Canvas, part.Placement.Recorded);
        var (crops, squareFirst) = (from.Width < recorded.Width || from.Height < recorded.Height, !part.SquarePixels && (part.Moves.Count > 0 || from != new PictureRect(0, 0, recorded.Width, recorded.Height)));
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
            yield return $"sendcmd=f={FilterText.Escape(moves ?? throw new ArgumentException("The plan moves in, and no list of moves is given.", nameof(moves)))}";
            yield return $"{MoveCommands.View(part)}={Text(page.Width)}:{Text(page.Height)}:0:0:exact=1";
            yield return $"{MoveCommands.Fit(part)}={Scale(canvas, part.Colour)["scale=".Length..]}";
            yield break;
        }

        if (from.Width != to.Width || from.Height != to.Height || part.Colour is not null || (!part.SquarePixels && !squareFirst))
            yield return Scale(new PictureSize(to.Width, to.Height), part.Colour);
        if (to.Width < canvas.Width || to.Height < canvas.Height)
            yield return $"format=yuv420p,pad={Text(canvas.Width)}:{Text(canvas.Height)}:{Text(to.X)}:{Text(to.Y)}:color=black";
    }

    private static string Scale(PictureSize size, ColourConversion? conversion)
    {
        var options = new List<string> { $"{Text(size.Width)}:{Text(size.Height)}" };
        if (conversion is { } colour)
        {
            if (colour.FromMatrix is { } matrix)
                options.Add($"in_color_matrix={ScaleMatrix(matrix)}:in_range={(colour.FromFullRange ? "pc" : "tv")}");
            options.Add("out_color_matrix=bt709:out_range=tv");
        }

        options.Add("flags=lanczos+accurate_rnd+full_chroma_int+full_chroma_inp");
        return "scale=" + string.Join(':', options);
    }

    private static string ScaleMatrix(string matrix) => matrix switch
    {
        "bt709" or "smpte170m" or "smpte240m" or "fcc" => matrix,
        "bt2020nc" or "bt2020c" => "bt2020",
        _ => "bt601",
    };

    private static string KeyFrameTimes(FrameTiming timing)
    {
        // The encoder takes the first frame at or after a time; a time a little before the frame cannot be rounded past it.
        var times = timing.KeyFrames().Select(frame => Math.Max(0, timing.Grid.TimeOf(frame).TotalSeconds - 0.002));
        return string.Join(',', times.Select(t => t.ToString("0.###", CultureInfo.InvariantCulture)));
    }

    private static string Text(long number) => number.ToString(CultureInfo.InvariantCulture);
}
