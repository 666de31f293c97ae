using Wexel.Core.Timing;

namespace Wexel.Core.Recordings;

/// <summary>How loud a sound is from moment to moment.</summary>
/// <param name="PerSecond">How many levels stand for a second.</param>
/// <param name="Dbfs">Root mean square of each stretch in dBFS (a full-scale square wave is 0), <see cref="Lowest"/> to 0, in order.</param>
public sealed record SoundLevels(int PerSecond, IReadOnlyList<int> Dbfs)
{
    /// <summary>What stands for digital silence, in dBFS.</summary>
    public const int Lowest = -90;

    /// <summary>Below this, in dBFS, nothing in a recording is loud enough to be speech (common practice, no source).</summary>
    public const int NothingBelow = -55;

    private const int FloorMargin = 10;
    private const int BelowLoud = 12;

    /// <summary>A sound shorter than this is a click, not speech.</summary>
    private static readonly TimeSpan ShortestSound = TimeSpan.FromSeconds(0.15);

    /// <summary>Silence shorter than this belongs to speech: it lies between syllables.</summary>
    private static readonly TimeSpan ShortestSilence = TimeSpan.FromSeconds(0.25);

    /// <summary>The recording's own noise, in dBFS: the level under which its quietest tenth lies.</summary>
    public int NoiseFloor => Quantile(0.10);

    /// <summary>Whether anything in it can be heard.</summary>
    public bool CarriesSound => Quantile(0.98) > NothingBelow;

    /// <summary>
    /// The level from which something counts as heard, in dBFS: 10 dB over the noise floor, but never so near to the loud parts that
    /// a recording without a pause would fall apart, and never under <see cref="NothingBelow"/> (common practice, no source).
    /// </summary>
    public int Threshold => Math.Max(NothingBelow, Math.Min(NoiseFloor + FloorMargin, Quantile(0.95) - BelowLoud));

    /// <summary>The stretches in which something is heard, in order and apart.</summary>
    /// <param name="threshold">The level from which something counts as heard, in dBFS.</param>
    public IReadOnlyList<TimeRange> Heard(int threshold)
    {
        var heard = new List<(int Start, int End)>();
        var join = (int)Math.Round(ShortestSilence.TotalSeconds * PerSecond);
        for (var i = 0; i < Dbfs.Count; i++)
        {
            if (Dbfs[i] < threshold)
                continue;
            if (heard.Count > 0 && i - heard[^1].End < join)
                heard[^1] = (heard[^1].Start, i + 1);
            else
                heard.Add((i, i + 1));
        }

        return [.. heard.Select(h => new TimeRange(At(h.Start), At(h.End))).Where(h => h.Length >= ShortestSound)];
    }

    /// <summary>Where sounds begin and end, also between words of one sentence where they can be told apart; in order.</summary>
    public IReadOnlyList<TimeSpan> Edges()
    {
        var threshold = Threshold;
        return CarriesSound ? [.. Enumerable.Range(0, Dbfs.Count + 1).Where(i => HeardAt(i - 1) != HeardAt(i)).Select(At)] : [];

        bool HeardAt(int index) => index >= 0 && index < Dbfs.Count && Dbfs[index] >= threshold;
    }

    private TimeSpan At(int index) => TimeSpan.FromSeconds((double)index / PerSecond);

    private int Quantile(double share) => Dbfs.Count == 0 ? Lowest : Dbfs.Order().ElementAt((int)(share * (Dbfs.Count - 1)));
}
