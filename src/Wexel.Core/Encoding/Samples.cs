using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Encoding;

/// <summary>Some seconds of a lesson that are encoded to know what all of it will come to.</summary>
/// <param name="First">Its first frame, on the lesson's grid.</param>
/// <param name="Count">How many frames; 1 or more.</param>
/// <param name="Moving">The share of it in which the picture moves, 0 to 1.</param>
public readonly record struct SampleWindow(long First, long Count, double Moving);

/// <summary>What encoding a sample came to.</summary>
/// <param name="Window">The sample.</param>
/// <param name="Keys">How many of its frames had to be key frames; 1 or more, since the first is one.</param>
/// <param name="KeyBytes">What a key frame came to on average, in bytes.</param>
/// <param name="OtherBytes">What everything but those key frames came to, in bytes.</param>
/// <param name="Frames">How many frames were made.</param>
/// <param name="Decoded">How many frames of the recordings were decoded for it: those of the sample, and those before it since a key frame.</param>
/// <param name="Took">How long it took.</param>
public sealed record SampleMeasured(SampleWindow Window, int Keys, long KeyBytes, long OtherBytes, int Frames, long Decoded, TimeSpan Took);

/// <summary>What the samples of a lesson came to.</summary>
/// <param name="Pictures">For each picture what its samples came to; none for sound alone.</param>
/// <param name="SoundBytesPerSecond">For each sample of the sound what a second of it came to, in bytes; none without sound.</param>
public sealed record LessonSamples(IReadOnlyList<IReadOnlyList<SampleMeasured>> Pictures, IReadOnlyList<double> SoundBytesPerSecond);

/// <summary>An amount with the range in which it will most likely lie.</summary>
public readonly record struct Estimated(double Value, double Least, double Most)
{
    /// <summary>The same, so many times.</summary>
    public Estimated Times(double factor) => new(Value * factor, Least * factor, Most * factor);

    /// <summary>The same with something added that is known.</summary>
    public Estimated Plus(double known) => new(Value + known, Least + known, Most + known);
}

/// <summary>Chooses samples of a lesson, by how much its picture moves in them, and concludes from them on the whole.</summary>
public static class Samples
{
    /// <summary>How long a sample is.</summary>
    public static readonly TimeSpan Length = TimeSpan.FromSeconds(4);

    /// <summary>A window of which less moves counts as still.</summary>
    private const double LeastMoving = 0.2;

    private const int StillWindows = 2;
    private const int MovingWindows = 3;
    private const int SoundWindows = 12;
    private static readonly TimeSpan SoundLength = TimeSpan.FromSeconds(3);

    /// <summary>However alike samples are, a whole lesson is a little different.</summary>
    private const double LeastRange = 0.08;

    /// <summary>Chooses the samples; a short lesson is one sample.</summary>
    /// <param name="map">The lesson.</param>
    /// <param name="still">The stretches of the lesson in which its picture stands still; null where nobody looked.</param>
    public static IReadOnlyList<SampleWindow> Choose(TimeMap map, IReadOnlyList<TimeRange>? still)
    {
        var tiles = Tiles(map, still);
        var (moving, quiet) = (tiles.Where(Moves).ToList(), tiles.Where(t => !Moves(t)).ToList());
        return [.. Chosen(quiet, StillWindows, _ => 1).Concat(Chosen(moving, MovingWindows, t => t.Moving)).OrderBy(t => t.First)];
    }

    /// <summary>Chooses samples of the sound, evenly over the lesson.</summary>
    /// <param name="map">The lesson.</param>
    public static IReadOnlyList<SampleWindow> OfSound(TimeMap map)
    {
        var count = Math.Clamp(map.Grid.FrameAt(SoundLength), 1, map.Frames);
        var many = (int)Math.Clamp(map.Frames / count, 1, SoundWindows);
        return [.. Enumerable.Range(0, many).Select(i => new SampleWindow((map.Frames - count) * ((2 * i) + 1) / (2 * many), count, 1))];
    }

    /// <summary>Concludes what the sound of the whole lesson comes to, in bytes.</summary>
    /// <param name="length">How long the lesson is.</param>
    /// <param name="bytesPerSecond">What a second of each sample came to, in bytes; one or more.</param>
    public static Estimated SoundBytes(TimeSpan length, IReadOnlyList<double> bytesPerSecond) =>
        Conclude(bytesPerSecond, some => some.Average() * length.TotalSeconds);

    /// <summary>Concludes what the picture of the whole lesson comes to, in bytes.</summary>
    /// <param name="map">The lesson.</param>
    /// <param name="still">The stretches in which it stands still, as they were for the choice.</param>
    /// <param name="timing">When frames are made.</param>
    /// <param name="samples">What the samples came to; one or more.</param>
    public static Estimated Bytes(TimeMap map, IReadOnlyList<TimeRange>? still, FrameTiming timing, IReadOnlyList<SampleMeasured> samples)
    {
        var whole = samples.Sum(s => s.Window.Count) > timing.LastFrame;
        double Keys(IReadOnlyList<SampleMeasured> some) =>
            whole ? timing.KeyFrames().Count() : timing.ExpectedKeyFrames(Extended(map, still, some, s => s.Frames - s.Keys));
        return Conclude(samples, some =>
            (Keys(some) * some.Sum(s => (double)s.KeyBytes * s.Keys) / some.Sum(s => s.Keys)) + Extended(map, still, some, s => s.OtherBytes)
        );
    }

    /// <summary>Concludes how many frames are made of the whole lesson.</summary>
    /// <inheritdoc cref="Bytes"/>
    public static double Frames(TimeMap map, IReadOnlyList<TimeRange>? still, FrameTiming timing, IReadOnlyList<SampleMeasured> samples) =>
        timing.KeyFrames().Count() + Extended(map, still, samples, s => s.Frames - s.Keys);

    /// <summary>The range comes from leaving out one sample after the other.</summary>
    private static Estimated Conclude<T>(IReadOnlyList<T> samples, Func<IReadOnlyList<T>, double> of)
    {
        var whole = of(samples);
        var without = samples.Count < 3 ? [] : samples.Select((_, i) => of([.. samples.Where((_, j) => j != i)])).ToList();
        var spread = without.Count == 0 ? 0 : Math.Sqrt(without.Sum(w => Math.Pow(w - whole, 2)) * (without.Count - 1) / without.Count);
        var range = Math.Max(whole * LeastRange, 1.5 * spread);
        return new Estimated(whole, Math.Max(whole / 4, whole - range), whole + range);
    }

    /// <summary>What a sample says of stretches as still as itself goes by their length; of those that move, by how much they move.</summary>
    private static double Extended(TimeMap map, IReadOnlyList<TimeRange>? still, IReadOnlyList<SampleMeasured> samples, Func<SampleMeasured, double> amount)
    {
        var tiles = Tiles(map, still);
        double Weighed(Func<SampleWindow, bool> those, Func<SampleWindow, double> weight)
        {
            var (seen, all) = (samples.Where(s => those(s.Window)).ToList(), tiles.Where(those).Sum(weight));
            // Where no sample is of this kind, the others say the most.
            if (seen.Count == 0)
                seen = [.. samples];
            var weighed = seen.Sum(s => those(s.Window) ? weight(s.Window) : s.Window.Count);
            return weighed <= 0 ? 0 : all * seen.Sum(amount) / weighed;
        }

        return Weighed(t => !Moves(t), t => t.Count) + Weighed(Moves, t => t.Count * t.Moving);
    }

    private static bool Moves(SampleWindow window) => window.Moving >= LeastMoving;

    /// <summary>The lesson in windows one after the other; the last may be nearly twice as long. A lesson of few windows is one.</summary>
    private static List<SampleWindow> Tiles(TimeMap map, IReadOnlyList<TimeRange>? still)
    {
        var count = Math.Max(1, map.Grid.FrameAt(Length));
        var windows = Math.Max(1, map.Frames / count);
        if (windows <= StillWindows + MovingWindows)
            return [new SampleWindow(0, map.Frames, 1)];
        return
        [
            .. Enumerable
                .Range(0, (int)windows)
                .Select(i =>
                {
                    var (first, end) = (i * count, i == windows - 1 ? map.Frames : (i + 1) * count);
                    return new SampleWindow(first, end - first, Moving(map.Grid, first, end, still));
                }),
        ];
    }

    private static double Moving(FrameRate grid, long first, long end, IReadOnlyList<TimeRange>? still)
    {
        if (still is null)
            return 1;
        var (from, to) = (grid.TimeOf(first), grid.TimeOf(end));
        var covered = still.Sum(s => Math.Max(0, (Earlier(s.End, to) - Later(s.Start, from)).TotalSeconds));
        return Math.Clamp(1 - (covered / (to - from).TotalSeconds), 0, 1);
    }

    private static TimeSpan Earlier(TimeSpan a, TimeSpan b) => a < b ? a : b;

    private static TimeSpan Later(TimeSpan a, TimeSpan b) => a > b ? a : b;

    /// <summary>So many of the windows, evenly over their summed weight.</summary>
    private static IEnumerable<SampleWindow> Chosen(List<SampleWindow> windows, int many, Func<SampleWindow, double> weight)
    {
        if (windows.Count <= many)
            return windows;
        var total = windows.Sum(weight);
        return Enumerable
            .Range(0, many)
            .Select(i =>
            {
                var (wanted, sum) = ((i + 0.5) / many * total, 0.0);
                return windows.First(w => (sum += weight(w)) >= wanted - 1e-9);
            })
            .Distinct();
    }
}
