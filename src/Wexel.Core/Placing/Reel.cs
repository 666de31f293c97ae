using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Placing;

/// <summary>A recording as it lies in a lesson's reel.</summary>
/// <param name="Facts">What a probe found; it has a picture.</param>
/// <param name="Sides">The verdict over its first sound track; null without sound, or where it was not judged.</param>
/// <param name="First">The number of the reel's frame that is its first.</param>
/// <param name="Frames">How many frames of the reel it takes.</param>
public sealed record ReelPart(RecordingFacts Facts, SoundSides? Sides, long First, long Frames)
{
    /// <summary>Its picture.</summary>
    public PictureFacts Picture => Facts.Picture!;
}

/// <summary>
/// The recordings that a lesson is made of, one after the other: what all its times count along. Each takes whole frames of one grid,
/// so that a joint is a place between two frames, and nothing adds up offsets but this.
/// </summary>
public sealed class Reel
{
    private const int FastestGrid = 60;
    private const int SlowestGrid = 10;

    private Reel(FrameRate grid, IReadOnlyList<ReelPart> parts)
    {
        (Grid, Parts, Frames) = (grid, parts, parts[^1].First + parts[^1].Frames);
        // One recording ends where it ends, be it within a frame; between two there is no such place.
        Length = parts.Count == 1 ? parts[0].Facts.Length : grid.TimeOf(Frames);
        Largest = parts.Select(p => p.Picture.ShownSize).MaxBy(s => (long)s.Width * s.Height);
    }

    /// <summary>The rate of the frames that are counted: that of the fastest recording, 10 to 60 a second.</summary>
    public FrameRate Grid { get; }

    /// <summary>The recordings in their order; one or more.</summary>
    public IReadOnlyList<ReelPart> Parts { get; }

    /// <summary>How many frames they have together.</summary>
    public long Frames { get; }

    /// <summary>How long they are together.</summary>
    public TimeSpan Length { get; }

    /// <summary>The size of the largest picture, as it is shown; the canvas of a lesson for which nobody chose one.</summary>
    public PictureSize Largest { get; }

    /// <summary>The reel of one recording.</summary>
    /// <exception cref="ArgumentException">It has no picture.</exception>
    public static Reel Of(RecordingFacts facts, SoundSides? sides = null) => Of([(facts, sides)]);

    /// <summary>The reel of recordings in their order.</summary>
    /// <param name="recordings">What a probe found of each, and the verdict over its sound.</param>
    /// <exception cref="ArgumentException">There is none, or one has no picture.</exception>
    public static Reel Of(IReadOnlyList<(RecordingFacts Facts, SoundSides? Sides)> recordings)
    {
        if (recordings.Count == 0 || recordings.Any(r => r.Facts.Picture is null))
            throw new ArgumentException("A recording without a picture cannot be rendered.", nameof(recordings));
        var grid = recordings.Select(r => GridOf(r.Facts.Picture!)).MaxBy(g => g.PerSecond);
        var parts = new List<ReelPart>();
        long first = 0;
        foreach (var (facts, sides) in recordings)
        {
            var frames = TimeMap.FramesIn(facts.Length, grid);
            parts.Add(new ReelPart(facts, sides, first, frames));
            first += frames;
        }

        return new Reel(grid, parts);
    }

    /// <summary>The times of a lesson that is made of it.</summary>
    /// <param name="cuts">What is cut, in the reel's time.</param>
    public TimeMap Map(IReadOnlyList<TimeRange> cuts) => TimeMap.Of(Grid, Length, cuts);

    /// <summary>The stretch of the reel that one of its recordings takes.</summary>
    /// <param name="part">Its number, from 0.</param>
    public TimeRange SpanOf(int part) =>
        Parts.Count == 1
            ? new TimeRange(TimeSpan.Zero, Length)
            : new TimeRange(Grid.TimeOf(Parts[part].First), Grid.TimeOf(Parts[part].First + Parts[part].Frames));

    private static FrameRate GridOf(PictureFacts source)
    {
        if (source.RateVaries)
            return source.Rate.PerSecond > 31 || source.Fields is not null ? new FrameRate(60, 1) : new FrameRate(30, 1);
        return source.PictureRate.PerSecond switch
        {
            > FastestGrid + 0.5 => new FrameRate(FastestGrid, 1),
            < SlowestGrid => new FrameRate(SlowestGrid, 1),
            _ => source.PictureRate,
        };
    }
}
