using Wexel.Core.Timing;

namespace Wexel.Core.Placing;

/// <summary>A stretch of a recording that a lesson keeps, in whole frames of the lesson's grid.</summary>
/// <param name="First">The number, from 0, of its first frame in the recording.</param>
/// <param name="Count">How many frames it has; 1 or more.</param>
/// <param name="At">The number of the lesson's frame that its first frame becomes.</param>
public readonly record struct KeptStretch(long First, long Count, long At)
{
    /// <summary>The frame of the recording after its last.</summary>
    public long End => First + Count;
}

/// <summary>
/// The one place where recording time becomes lesson time and back. Cuts take whole frames away and what follows closes up, so
/// frames map one to one on what is kept, in order, and the lesson is as long as what is kept.
/// </summary>
public sealed class TimeMap
{
    private readonly IReadOnlyList<KeptStretch> _kept;

    private TimeMap(FrameRate grid, IReadOnlyList<KeptStretch> kept, TimeSpan recordingLength)
    {
        (Grid, _kept, RecordingLength) = (grid, kept, recordingLength);
        Frames = kept.Count == 0 ? 0 : kept[^1].At + kept[^1].Count;
        // Without a cut the lesson ends where the recording does, be it within a frame.
        Length = kept is [{ First: 0 } whole] && whole.Count == FramesIn(recordingLength, grid) ? recordingLength : grid.TimeOf(Frames);
    }

    /// <summary>The rate of the frames that are counted.</summary>
    public FrameRate Grid { get; }

    /// <summary>What is kept, in order; empty where everything is cut.</summary>
    public IReadOnlyList<KeptStretch> Kept => _kept;

    /// <summary>How many frames the lesson has.</summary>
    public long Frames { get; }

    /// <summary>How long the lesson is.</summary>
    public TimeSpan Length { get; }

    /// <summary>How long the recording is.</summary>
    public TimeSpan RecordingLength { get; }

    /// <summary>Makes the map of a recording with cuts.</summary>
    /// <param name="grid">The rate of the frames that the lesson is made of.</param>
    /// <param name="length">The recording's length.</param>
    /// <param name="cuts">What is cut, in recording time, in any order; each edge is moved to the nearest frame.</param>
    public static TimeMap Of(FrameRate grid, TimeSpan length, IReadOnlyList<TimeRange> cuts)
    {
        var frames = FramesIn(length, grid);
        var kept = new List<KeptStretch>();
        long from = 0,
            at = 0;
        foreach (var cut in TimeRange.Union(cuts))
        {
            var (start, end) = (Math.Clamp(Nearest(cut.Start, grid), 0, frames), Math.Clamp(cut.End >= length ? frames : Nearest(cut.End, grid), 0, frames));
            if (end <= start)
                continue;
            Keep(start);
            from = end;
        }

        Keep(frames);
        return new TimeMap(grid, kept, length);

        void Keep(long until)
        {
            if (until <= from)
                return;
            kept.Add(new KeptStretch(from, until - from, at));
            at += until - from;
        }
    }

    /// <summary>How many frames of a grid a length has: one that is begun counts, but for a twentieth of one.</summary>
    public static long FramesIn(TimeSpan length, FrameRate grid) =>
        Math.Max(1, (long)Math.Ceiling(length.TotalSeconds * grid.Numerator / grid.Denominator - 0.05));

    /// <summary>The lesson's frame that a frame of the recording becomes; null where it is cut.</summary>
    public long? ToLesson(long recordingFrame)
    {
        var index = StretchFrom(recordingFrame);
        return index >= 0 && recordingFrame < _kept[index].End ? _kept[index].At + recordingFrame - _kept[index].First : null;
    }

    /// <summary>The frame of the recording that a frame of the lesson is.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The lesson has no such frame.</exception>
    public long ToRecording(long lessonFrame)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(lessonFrame);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(lessonFrame, Frames);
        var stretch = _kept[LastAt(s => s.At, lessonFrame)];
        return stretch.First + lessonFrame - stretch.At;
    }

    /// <summary>What is kept of frames in a row of the recording.</summary>
    /// <param name="first">The number of the first.</param>
    /// <param name="count">How many.</param>
    public IReadOnlyList<KeptStretch> Within(long first, long count) =>
        [
            .. _kept
                .Select(k => (Kept: k, From: Math.Max(k.First, first), End: Math.Min(k.End, first + count)))
                .Where(k => k.End > k.From)
                .Select(k => new KeptStretch(k.From, k.End - k.From, k.Kept.At + k.From - k.Kept.First)),
        ];

    /// <summary>Whether a moment of the recording is kept.</summary>
    public bool Keeps(TimeSpan recordingTime) => recordingTime < RecordingLength && ToLesson(Grid.FrameAt(recordingTime)) is not null;

    /// <summary>The moment of the lesson that a moment of the recording becomes; where it is cut, that of the next moment that is kept, or the
    /// lesson's end.</summary>
    public TimeSpan ToLesson(TimeSpan recordingTime)
    {
        var frame = Grid.FrameAt(recordingTime);
        var index = StretchFrom(frame);
        if (index >= 0 && frame < _kept[index].End)
        {
            // The way from the stretch's start stays what it is, so that times between two frames stay there. A moment less than a
            // millisecond before its first frame counts as that frame, and must not fall behind what is cut before it.
            var start = Grid.TimeOf(_kept[index].At);
            var moved = recordingTime - Grid.TimeOf(_kept[index].First) + start;
            return moved < start ? start
                : moved > Length ? Length
                : moved;
        }

        return index + 1 < _kept.Count ? Grid.TimeOf(_kept[index + 1].At) : Length;
    }

    /// <summary>The moment of the recording that a moment of the lesson shows; the lesson's end is the end of what is kept.</summary>
    public TimeSpan ToRecording(TimeSpan lessonTime)
    {
        if (_kept.Count == 0)
            return TimeSpan.Zero;
        var stretch = _kept[LastAt(s => s.At, Math.Clamp(Grid.FrameAt(lessonTime), 0, Frames - 1))];
        var moved = lessonTime - Grid.TimeOf(stretch.At) + Grid.TimeOf(stretch.First);
        return moved < TimeSpan.Zero ? TimeSpan.Zero
            : moved > RecordingLength ? RecordingLength
            : moved;
    }

    /// <summary>What is left of a stretch of the recording, in lesson time; null where all of it is cut.</summary>
    public TimeRange? ToLesson(TimeRange recordingTime)
    {
        var moved = new TimeRange(ToLesson(recordingTime.Start), ToLesson(recordingTime.End));
        return moved.End - moved.Start >= Grid.TimeOf(1) / 2 || (moved.End > moved.Start && Keeps(recordingTime.Start)) ? moved : null;
    }

    private static long Nearest(TimeSpan time, FrameRate grid) =>
        (long)Math.Round(time.TotalSeconds * grid.Numerator / grid.Denominator, MidpointRounding.AwayFromZero);

    /// <summary>The last stretch that starts at or before a frame of the recording; −1 where there is none.</summary>
    private int StretchFrom(long recordingFrame) => LastAt(s => s.First, recordingFrame);

    private int LastAt(Func<KeptStretch, long> start, long frame)
    {
        int low = 0,
            high = _kept.Count;
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (start(_kept[middle]) <= frame)
                low = middle + 1;
            else
                high = middle;
        }

        return low - 1;
    }
}
