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

    private const int UsualReferenceFrames = 3;
    private const int SoundSampleRate = 48_000;
    private const int StereoBitsPerSecond = 128_000;
    private const int MonoBitsPerSecond = 72_000;

    /// <summary>Plans a rendition of recordings that were accepted (see <see cref="RecordingCheck"/>).</summary>
    /// <param name="reel">The recordings.</param>
    /// <param name="map">What is kept of them, see <see cref="Reel.Map"/>.</param>
    /// <param name="sections">The contents, in lesson time.</param>
    /// <param name="profile">The settings.</param>
    /// <param name="mark">The house's mark that the lesson wants, or null; a profile may leave it away.</param>
    /// <param name="canvas">The lesson's canvas, or null for all of the recording in its own size.</param>
    /// <param name="moveIns">The move-ins, in the reel's time, in order and apart; null for none.</param>
    /// <param name="frames">For each recording how it is brought onto the canvas, null for as the canvas says; null for none.</param>
    /// <exception cref="ArgumentException">Nothing is kept.</exception>
    public static RenderPlan Plan(Reel reel, TimeMap map, IReadOnlyList<Section> sections, Profile profile, MarkOnPicture? mark = null, Canvas? canvas = null, IReadOnlyList<MoveIn>? moveIns = null, IReadOnlyList<RecordingFrame?>? frames = null)
    {
        if (map.Frames == 0)
            throw new ArgumentException("A lesson of which everything is cut cannot be rendered.", nameof(map));
        var parts = Enumerable.Range(0, reel.Parts.Count).Select(i => Part(reel, i, map, profile, reel.CanvasOf(canvas, frames?[i]), moveIns ?? [])).OfType<PartPlan>().ToList();
        var size = parts[0].Placement.Canvas;
        var timing = Timing(map, sections, parts, profile.ConstantRate);
        // The fit never passes 3840 pixels a side and the grid never 60 a second, which level 5.2 takes.
        var level = H264Level.LowestFor(size, timing.Grid)!;
        var picture = new PicturePlan(
            size,
            mark is null || !profile.WithMark ? null : new MarkPlan(mark.Key, mark.Placement.On(size, mark.Size), mark.Placement.Within().OpacityPercent / 100),
            timing,
            level.Number,
            Math.Clamp(level.MaxReferenceFrames(size), 1, UsualReferenceFrames),
            level.MaxBitsPerSecond,
            level.MaxBufferBits,
            profile.Quality,
            profile.Effort);
        return new RenderPlan(map.Length, parts, picture, Sound(reel, profile.TargetLufs));
    }

    /// <summary>What is made of one recording; null where nothing of it is kept.</summary>
    private static PartPlan? Part(Reel reel, int index, TimeMap map, Profile profile, Canvas canvas, IReadOnlyList<MoveIn> moveIns)
    {
        var part = reel.Parts[index];
        var kept = map.Within(part.First, part.Frames);
        if (kept.Count == 0)
            return null;
        var placement = CanvasPlacement.Of(part.Picture.ShownSize, canvas, profile.AtMostHeight);
        return new PartPlan(
            index, [.. kept.Select(k => k with { First = k.First - part.First })], part.Picture.PixelAspect is >= 0.999 and <= 1.001, placement,
            ViewPath.Of(moveIns, map, placement, reel.SpanOf(index)).Moves, Conversion(part.Picture));
    }

    private static FrameTiming Timing(TimeMap map, IReadOnlyList<Section> sections, IReadOnlyList<PartPlan> parts, bool constantRate)
    {
        var (grid, last) = (map.Grid, map.Frames - 1);
        var starts = sections.Select(s => grid.FrameAt(s.At)).Where(f => f > 0 && f <= last).Distinct().Order().ToList();
        return new FrameTiming(grid, constantRate ? 0 : (int)grid.PerSecond - 1, (int)(grid.PerSecond * KeyFrameDistance.TotalSeconds), starts, last, [.. parts.SelectMany(p => p.Moves).Select(m => new FrameRun(m.First + 1, m.Frames))]);
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

    private static SoundPlan? Sound(Reel reel, double? targetLufs)
    {
        var mixes = reel.Parts.Select(p => p.Facts.Sounds.Count == 0 ? (SoundMix?)null : Mix(p.Facts.Sounds[0], p.Sides)).ToList();
        if (mixes.All(m => m is null))
            return null;
        var stereo = mixes.Any(m => m is SoundMix.Stereo or SoundMix.StereoFromSurround);
        return new SoundPlan(mixes, stereo ? 2 : 1, SoundSampleRate, stereo ? StereoBitsPerSecond : MonoBitsPerSecond, targetLufs);
    }

    private static SoundMix Mix(SoundFacts sound, SoundSides? sides) => sound.Channels switch
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
}
