namespace Wexel.Core.Cameras;

/// <summary>When sounds begin in a recording, and how strongly: what two recordings of one room have in common, whatever their microphones.</summary>
public sealed class SoundOnsets
{
    /// <summary>Samples a second of the sound that is taken.</summary>
    public const int Rate = 8_000;

    /// <summary>Values a second of <see cref="Values"/>.</summary>
    public const int PerSecond = 100;

    private const int Bin = Rate / PerSecond;

    /// <summary>How far below the loudest sounds there is only noise, in dB (common practice, no source).</summary>
    private const double Floor = 45;

    private const double Loudest = 0.98;

    /// <summary>Sounds begin within some hundredths of a second.</summary>
    private const int Over = 2;

    private readonly List<float> _levels = [];
    private double _energy;
    private int _inBin;

    /// <summary>Takes the next samples of one channel.</summary>
    public void Take(ReadOnlySpan<float> samples)
    {
        foreach (var sample in samples)
        {
            _energy += (double)sample * sample;
            if (++_inBin < Bin)
                continue;
            _levels.Add((float)(10 * Math.Log10((_energy / Bin) + 1e-12)));
            (_energy, _inBin) = (0, 0);
        }
    }

    /// <summary>How long it is, as far as it was taken.</summary>
    public TimeSpan Length => TimeSpan.FromSeconds((double)_levels.Count / PerSecond);

    /// <summary>By how many dB the sound rises at each moment, 0 where it does not; noise does not count. All 0 for silence.</summary>
    public float[] Values()
    {
        var values = new float[_levels.Count];
        if (values.Length == 0)
            return values;
        var sorted = _levels.Order().ToList();
        var loudest = sorted[(int)((sorted.Count - 1) * Loudest)];
        // Digital silence with hardly anything in it.
        if (loudest < -90)
            return values;
        var least = (float)(loudest - Floor);
        for (var i = Over; i < values.Length; i++)
            values[i] = Math.Max(0, Math.Max(least, _levels[i]) - Math.Max(least, _levels[i - Over]));
        return values;
    }
}
