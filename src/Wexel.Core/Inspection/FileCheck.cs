using System.Globalization;
using Wexel.Core.Encoding;
using Wexel.Core.Timing;

namespace Wexel.Core.Inspection;

/// <summary>A verdict over one measured fact.</summary>
public enum Verdict
{
    /// <summary>As it should be.</summary>
    Right,

    /// <summary>Wrong: the file is not what was planned.</summary>
    Wrong,
}

/// <summary>One measured fact with what was expected.</summary>
/// <param name="Code">A stable name for programs.</param>
/// <param name="Fact">What was looked at, for people.</param>
/// <param name="Measured">What was found, with its unit.</param>
/// <param name="Expected">What it should be, with its unit.</param>
/// <param name="Verdict">The verdict.</param>
public sealed record CheckedFact(string Code, string Fact, string Measured, string Expected, Verdict Verdict);

/// <summary>Compares a finished file with the plan that it was made by.</summary>
public static class FileCheck
{
    /// <summary>Sound and picture may end this far from the lesson's end: one frame at 20 a second, or two AAC frames.</summary>
    private static readonly TimeSpan LengthTolerance = TimeSpan.FromMilliseconds(50);

    /// <summary>All facts with their verdicts, in the order in which they are shown.</summary>
    /// <param name="facts">What was measured.</param>
    /// <param name="plan">What was planned.</param>
    /// <param name="sections">How many chapters there should be.</param>
    public static IReadOnlyList<CheckedFact> Of(RenditionFacts facts, RenderPlan plan, int sections)
    {
        var picture = plan.Picture;
        var level = H264Level.All.First(l => l.Number == picture.Level);
        var keyFrames = MissingKeyFrames(facts, picture.Timing);
        var starts = picture.Timing.SectionFrames.Count;
        var gap = LongestKeyFrameGap(facts);
        return
        [
            Fact("length", "Length", Seconds(facts.Length), Seconds(plan.Length), Near(facts.Length, plan.Length) && Near(facts.PictureLength, plan.Length)),
            Fact("size", "Picture size", facts.Size.ToString(), picture.Size.ToString(), facts.Size == picture.Size && Math.Abs(facts.PixelAspect - 1) < 0.001),
            Fact("codec", "Codec and level", $"{CodecName(facts.Codec)} {facts.CodecProfile}, level {LevelName(facts.Level)}, {facts.PixelFormat}", $"H.264 High, level {level.Name}, yuv420p",
                facts is { Codec: "h264", CodecProfile: "High", PixelFormat: "yuv420p" } && facts.Level == picture.Level),
            Fact("colour", "Colour", ColourName(facts), "BT.709, limited range", facts.Colour is { Matrix: "bt709", Primaries: "bt709", Transfer: "bt709", FullRange: false }),
            Fact("index", "Index at the front", facts.IndexAtFront ? "yes" : "no", "yes", facts.IndexAtFront),
            Fact("sound", "Sound", SoundName(facts.Sound?.Codec, facts.Sound?.Channels), SoundName(plan.Sound is null ? null : "aac", plan.Sound?.Channels),
                plan.Sound is null ? facts.Sound is null : facts.Sound is { Codec: "aac" } && facts.Sound.Channels == plan.Sound.Channels),
            Fact("section-key-frames", "Key frame at each section", $"{starts - keyFrames} of {starts}", $"{starts} of {starts}", keyFrames == 0),
            Fact("key-frame-distance", "Key frames at most", Seconds(gap) + " apart", Seconds(RenderPlanner.KeyFrameDistance) + " apart", gap <= RenderPlanner.KeyFrameDistance + LengthTolerance),
            Fact("chapters", "Chapters inside", facts.ChapterStarts.Count.ToString(CultureInfo.InvariantCulture), sections.ToString(CultureInfo.InvariantCulture), facts.ChapterStarts.Count == sections),
        ];
    }

    private static CheckedFact Fact(string code, string fact, string measured, string expected, bool right) =>
        new(code, fact, measured, expected, right ? Verdict.Right : Verdict.Wrong);

    private static bool Near(TimeSpan a, TimeSpan b) => (a - b).Duration() <= LengthTolerance;

    private static int MissingKeyFrames(RenditionFacts facts, FrameTiming timing)
    {
        var half = timing.Grid.TimeOf(1) / 2;
        return timing.SectionFrames.Count(frame => !facts.KeyFrames.Any(k => (k - timing.Grid.TimeOf(frame)).Duration() < half));
    }

    private static TimeSpan LongestKeyFrameGap(RenditionFacts facts)
    {
        var points = facts.KeyFrames.Append(facts.PictureLength).ToList();
        return points.Zip(points.Skip(1), (a, b) => b - a).DefaultIfEmpty(facts.PictureLength).Max();
    }

    private static string Seconds(TimeSpan time) => time >= TimeSpan.FromMinutes(1)
        ? string.Create(CultureInfo.InvariantCulture, $"{TimeCode.Brief(time)}.{time.Milliseconds / 100}")
        : string.Create(CultureInfo.InvariantCulture, $"{time.TotalSeconds:0.0} s");

    private static string CodecName(string codec) => codec == "h264" ? "H.264" : codec;

    private static string LevelName(int level) => H264Level.All.FirstOrDefault(l => l.Number == level)?.Name ?? level.ToString(CultureInfo.InvariantCulture);

    private static string ColourName(RenditionFacts facts) => facts.Colour.Matrix is null
        ? "not tagged"
        : $"{(facts.Colour.Matrix == "bt709" ? "BT.709" : facts.Colour.Matrix)}, {(facts.Colour.FullRange == true ? "full" : "limited")} range";

    private static string SoundName(string? codec, int? channels) => codec is null
        ? "none"
        : $"{codec.ToUpperInvariant()}, {(channels == 1 ? "mono" : channels == 2 ? "stereo" : $"{channels} channels")}";
}
