using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Encoding;

/// <summary>Plans the making of a rendition: what is decided here is only done elsewhere.</summary>
public static class RenderPlanner
{
    /// <summary>Key frames are at most this far apart.</summary>
    public static readonly TimeSpan KeyFrameDistance = TimeSpan.FromSeconds(10);

    private const int FastestGrid = 60;
    private const int SlowestGrid = 10;
    private const int UsualReferenceFrames = 3;
    private const int SoundSampleRate = 48_000;
    private const int StereoBitsPerSecond = 128_000;
    private const int MonoBitsPerSecond = 72_000;

    /// <summary>Plans a rendition of a recording that was accepted (see <see cref="RecordingCheck"/>).</summary>
    /// <param name="facts">The recording; it has a picture.</param>
    /// <param name="sides">The verdict over its first sound track, or null where it was not judged.</param>
    /// <param name="map">What is kept of it, see <see cref="Map"/>.</param>
    /// <param name="sections">The contents, in lesson time.</param>
    /// <param name="profile">The settings.</param>
    /// <param name="mark">The house's mark that the lesson wants, or null; a profile may leave it away.</param>
    /// <param name="canvas">The lesson's canvas, or null for all of the recording in its own size.</param>
    /// <param name="moveIns">The move-ins, in recording time, in order and apart; null for none.</param>
    /// <exception cref="ArgumentException">The recording has no picture, or nothing of it is kept.</exception>
    public static RenderPlan Plan(RecordingFacts facts, SoundSides? sides, TimeMap map, IReadOnlyList<Section> sections, Profile profile, MarkOnPicture? mark = null, Canvas? canvas = null, IReadOnlyList<MoveIn>? moveIns = null)
    {
        var source = facts.Picture ?? throw new ArgumentException("A recording without a picture cannot be rendered.", nameof(facts));
        if (map.Frames == 0)
            throw new ArgumentException("A lesson of which everything is cut cannot be rendered.", nameof(map));
        var placement = CanvasPlacement.Of(source.ShownSize, canvas ?? Canvas.AsRecorded, profile.AtMostHeight);
        var size = placement.Canvas;
        var moves = ViewPath.Of(moveIns ?? [], map, placement).Moves;
        var timing = Timing(map, sections, moves, profile.ConstantRate);
        // The fit never passes 3840 pixels a side and the grid never 60 a second, which level 5.2 takes.
        var level = H264Level.LowestFor(size, timing.Grid)!;
        var picture = new PicturePlan(
            SquarePixels: source.PixelAspect is >= 0.999 and <= 1.001,
            placement,
            moves,
            mark is null || !profile.WithMark ? null : new MarkPlan(mark.Key, mark.Placement.On(size, mark.Size), mark.Placement.Within().OpacityPercent / 100),
            timing,
            Conversion(source),
            level.Number,
            Math.Clamp(level.MaxReferenceFrames(size), 1, UsualReferenceFrames),
            level.MaxBitsPerSecond,
            level.MaxBufferBits,
            profile.Quality,
            profile.Effort);
        return new RenderPlan(map.Length, map.Kept, picture, facts.Sounds.Count == 0 ? null : Sound(facts.Sounds[0], sides, profile.TargetLufs));
    }

    /// <summary>The times of a lesson that is made of a recording, in frames as a rendition has them.</summary>
    /// <param name="facts">The recording; it has a picture.</param>
    /// <param name="cuts">What is cut, in recording time.</param>
    /// <exception cref="ArgumentException">The recording has no picture.</exception>
    public static TimeMap Map(RecordingFacts facts, IReadOnlyList<TimeRange> cuts) =>
        TimeMap.Of(Grid(facts.Picture ?? throw new ArgumentException("A recording without a picture cannot be rendered.", nameof(facts))), facts.Length, cuts);

    private static FrameTiming Timing(TimeMap map, IReadOnlyList<Section> sections, IReadOnlyList<ViewMove> moves, bool constantRate)
    {
        var (grid, last) = (map.Grid, map.Frames - 1);
        var starts = sections.Select(s => grid.FrameAt(s.At)).Where(f => f > 0 && f <= last).Distinct().Order().ToList();
        return new FrameTiming(grid, constantRate ? 0 : (int)grid.PerSecond - 1, (int)(grid.PerSecond * KeyFrameDistance.TotalSeconds), starts, last, [.. moves.Select(m => new FrameRun(m.First + 1, m.Frames))]);
    }

    private static FrameRate Grid(PictureFacts source)
    {
        if (source.RateVaries)
            return source.Rate.PerSecond > 31 ? new FrameRate(60, 1) : new FrameRate(30, 1);
        return source.NominalRate.PerSecond switch
        {
            > FastestGrid + 0.5 => new FrameRate(FastestGrid, 1),
            < SlowestGrid => new FrameRate(SlowestGrid, 1),
            _ => source.NominalRate,
        };
    }

    private static ColourConversion? Conversion(PictureFacts source)
    {
        if (source.IsRgb)
            return new ColourConversion(null, true);
        // A file that does not say: 720 lines or more are BT.709, fewer BT.601 (common practice, no source).
        var matrix = source.Colour.Matrix ?? (Math.Min(source.Width, source.Height) >= 720 ? "bt709" : "smpte170m");
        var full = source.Colour.FullRange ?? source.PixelFormat.StartsWith("yuvj", StringComparison.Ordinal);
        return matrix == "bt709" && !full && source.PixelFormat == "yuv420p" ? null : new ColourConversion(matrix, full);
    }

    private static SoundPlan Sound(SoundFacts sound, SoundSides? sides, double? targetLufs)
    {
        var mix = sound.Channels switch
        {
            1 => SoundMix.Mono,
            > 2 => SoundMix.StereoFromSurround,
            _ => sides switch
            {
                SoundSides.Same or SoundSides.Silent => SoundMix.MonoFromBoth,
                SoundSides.LeftOnly => SoundMix.MonoFromLeft,
                SoundSides.RightOnly => SoundMix.MonoFromRight,
                _ => SoundMix.Stereo,
            },
        };
        var stereo = mix is SoundMix.Stereo or SoundMix.StereoFromSurround;
        return new SoundPlan(mix, SoundSampleRate, stereo ? StereoBitsPerSecond : MonoBitsPerSecond, targetLufs);
    }
}
