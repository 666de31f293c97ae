using System.Numerics;
using Wexel.Core.Recordings;

namespace Wexel.Media.Analysing;

/// <summary>Listens to sound that streams through: peaks, levels, loudness, and what its sides carry.</summary>
/// <param name="channels">1 or 2.</param>
internal sealed class SoundListener(int channels)
{
    internal const int PeaksPerSecond = 10;

    private const int LevelsPerSecond = 20;
    private const int Moments = LoudnessMeter.Rate / LevelsPerSecond;

    private readonly LoudnessMeter _meter = new(channels);
    private readonly List<int> _levels = [];
    private readonly List<int> _peaks = [];
    private long _samples;
    private int _inLevel;
    private float _peak;
    private double _left;
    private double _right;
    private double _leftBefore;
    private double _rightBefore;
    private double _difference;

    /// <summary>What was heard, up to the end of what was taken.</summary>
    internal SoundHeard Heard()
    {
        var (levels, peaks) = (_levels.ToList(), _peaks.ToList());
        if (_inLevel > 0)
            Level(levels, peaks);
        return new SoundHeard(
            TimeSpan.FromSeconds((double)_samples / LoudnessMeter.Rate),
            new SideSums(_samples, _leftBefore + _left, _rightBefore + _right, _difference),
            peaks,
            new SoundLevels(LevelsPerSecond, levels),
            _meter.Heard()
        );
    }

    /// <summary>Takes whole moments of <see cref="LoudnessMeter.Rate"/> a second.</summary>
    internal void Take(ReadOnlySpan<float> samples)
    {
        _meter.Take(samples);
        while (samples.Length > 0)
        {
            var moments = Math.Min(samples.Length / channels, Moments - _inLevel);
            Add(samples[..(moments * channels)]);
            samples = samples[(moments * channels)..];
            if ((_inLevel += moments) < Moments)
                continue;
            Level(_levels, _peaks);
            (_leftBefore, _rightBefore) = (_leftBefore + _left, _rightBefore + _right);
            (_inLevel, _peak, _left, _right) = (0, 0, 0, 0);
        }
    }

    private void Add(ReadOnlySpan<float> samples)
    {
        var (squares, apart, most) = (Vector<float>.Zero, Vector<float>.Zero, Vector<float>.Zero);
        var i = 0;
        for (; i + Vector<float>.Count < samples.Length; i += Vector<float>.Count)
        {
            var some = new Vector<float>(samples[i..]);
            // Each sample less the next: of two channels every other one is the left side less the right.
            var less = some - new Vector<float>(samples[(i + 1)..]);
            squares += some * some;
            apart += less * less;
            most = Vector.Max(most, Vector.Abs(some));
        }

        var (left, right, difference, peak) = (0.0, 0.0, 0.0, _peak);
        for (var lane = 0; lane < Vector<float>.Count; lane++)
        {
            var isLeft = lane % channels == 0;
            left += isLeft ? squares[lane] : 0;
            right += isLeft && channels > 1 ? 0 : squares[lane];
            difference += isLeft && channels > 1 ? apart[lane] : 0;
            peak = Math.Max(peak, most[lane]);
        }

        for (; i + channels <= samples.Length; i += channels)
        {
            var (l, r) = (samples[i], samples[i + channels - 1]);
            left += (double)l * l;
            right += (double)r * r;
            difference += (double)(l - r) * (l - r);
            peak = Math.Max(peak, Math.Max(Math.Abs(l), Math.Abs(r)));
        }

        (_left, _right, _difference, _peak) = (_left + left, _right + right, _difference + difference, peak);
        _samples += samples.Length / channels;
    }

    private void Level(List<int> levels, List<int> peaks)
    {
        // The louder side counts: speech on one side alone is speech.
        var loudest = Math.Sqrt(Math.Max(_left, _right) / Math.Max(1, _inLevel));
        levels.Add(loudest <= 0 ? SoundLevels.Lowest : (int)Math.Clamp(Math.Round(20 * Math.Log10(loudest)), SoundLevels.Lowest, 0));
        var percent = (int)Math.Clamp(Math.Round(_peak * 100), 0, 100);
        if (levels.Count % (LevelsPerSecond / PeaksPerSecond) == 1)
            peaks.Add(percent);
        else
            peaks[^1] = Math.Max(peaks[^1], percent);
    }
}
