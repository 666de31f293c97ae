using System.Runtime.InteropServices;

namespace Wexel.Core.Recordings;

/// <summary>
/// Measures loudness and true peak of sound that streams through, by ITU-R BS.1770-4 with the gates of EBU R 128, and the loudness range by
/// EBU Tech 3342. A sound of one channel counts as played from both sides.
/// </summary>
public sealed class LoudnessMeter
{
    /// <summary>Samples a second of each channel that is taken.</summary>
    public const int Rate = 48_000;

    private const int StepsPerSecond = 10;
    private const int Step = Rate / StepsPerSecond;
    private const int StepsPerBlock = 4;
    private const int StepsPerShortTerm = 30;
    private const double Gate = -70;
    private const double BelowMean = 10;
    private const double RangeBelowMean = 20;
    private const double RangeFrom = 0.10;
    private const double RangeTo = 0.95;

    private readonly Weighting[] _channels;
    private readonly TruePeakMeter[] _peaks;
    private readonly float[] _one;
    private readonly List<double> _steps = [];
    private double _energy;
    private int _inStep;

    /// <param name="channels">1 or 2.</param>
    public LoudnessMeter(int channels)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(channels, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(channels, 2);
        _channels = [.. Enumerable.Range(0, channels).Select(_ => new Weighting())];
        _peaks = [.. Enumerable.Range(0, channels).Select(_ => new TruePeakMeter())];
        _one = new float[Step];
    }

    /// <summary>Takes what comes next.</summary>
    /// <param name="samples">Whole moments of <see cref="Rate"/> a second, the channels' samples in turn, full scale being 1.</param>
    /// <exception cref="ArgumentException">The last moment is not whole.</exception>
    public void Take(ReadOnlySpan<float> samples)
    {
        if (samples.Length % _channels.Length != 0)
            throw new ArgumentException("The last moment is not whole.", nameof(samples));
        while (samples.Length > 0)
        {
            var moments = Math.Min(samples.Length / _channels.Length, Step - _inStep);
            for (var channel = 0; channel < _channels.Length; channel++)
            {
                var one = One(samples[..(moments * _channels.Length)], channel);
                _peaks[channel].Take(one);
                _energy += _channels[channel].Energy(one);
            }

            samples = samples[(moments * _channels.Length)..];
            if ((_inStep += moments) < Step)
                continue;
            // Samples that are no numbers, which a damaged file may have, are not heard.
            _steps.Add(double.IsFinite(_energy) ? _energy * (_channels.Length == 1 ? 2 : 1) / Step : 0);
            (_energy, _inStep) = (0, 0);
        }
    }

    private ReadOnlySpan<float> One(ReadOnlySpan<float> samples, int channel)
    {
        if (_channels.Length == 1)
            return samples;
        for (var i = 0; i < samples.Length / 2; i++)
            _one[i] = samples[(2 * i) + channel];
        return _one.AsSpan(0, samples.Length / 2);
    }

    /// <summary>What was heard so far.</summary>
    public Loudness Heard() =>
        new(Integrated(), Range(), _peaks.Max(p => p.Peak) is > 0 and < double.PositiveInfinity and var peak ? 20 * Math.Log10(peak) : null);

    /// <summary>Blocks of 400 ms, each 100 ms after the one before: first those over −70 LUFS, then those no more than 10 LU under their mean.</summary>
    private double? Integrated()
    {
        var loud = Blocks(StepsPerBlock).FindAll(power => Lufs(power) > Gate);
        if (loud.Count == 0)
            return null;
        var gate = Lufs(loud.Average()) - BelowMean;
        return Lufs(loud.Where(power => Lufs(power) > gate).Average());
    }

    /// <summary>Stretches of 3 s, each 100 ms after the one before: from the quietest tenth to the loudest twentieth of those that are not 20 LU under
    /// their mean.</summary>
    private double Range()
    {
        var loud = Blocks(StepsPerShortTerm).FindAll(power => Lufs(power) >= Gate);
        if (loud.Count == 0)
            return 0;
        var gate = Lufs(loud.Average()) - RangeBelowMean;
        var heard = loud.Select(Lufs).Where(l => l >= gate).Order().ToList();
        double At(double share) => heard[(int)Math.Round(share * (heard.Count - 1))];
        return At(RangeTo) - At(RangeFrom);
    }

    private List<double> Blocks(int steps)
    {
        var blocks = new List<double>(Math.Max(0, _steps.Count - steps + 1));
        for (var i = 0; i + steps <= _steps.Count; i++)
        {
            double sum = 0;
            foreach (var energy in CollectionsMarshal.AsSpan(_steps).Slice(i, steps))
                sum += energy;
            blocks.Add(sum / steps);
        }

        return blocks;
    }

    private static double Lufs(double power) => -0.691 + (10 * Math.Log10(power));

    /// <summary>The filters of BS.1770-4, Annex 1, tables 1 and 2: what a head does to sound, and what is too low to count.</summary>
    private sealed class Weighting
    {
        private const double Nothing = 1e-30;
        private double _a1,
            _a2,
            _b1,
            _b2;

        internal double Energy(ReadOnlySpan<float> samples)
        {
            var (a1, a2, b1, b2, energy) = (_a1, _a2, _b1, _b2, 0.0);
            foreach (var sample in samples)
            {
                // Each sample waits for the one before; in one step each, multiplying and adding take half as long.
                var head = Math.FusedMultiplyAdd(1.53512485958697, sample, a1);
                a1 = Math.FusedMultiplyAdd(1.69065929318241, head, (-2.69169618940638 * sample) + a2);
                a2 = Math.FusedMultiplyAdd(-0.73248077421585, head, 1.19839281085285 * sample);
                var heard = head + b1;
                b1 = Math.FusedMultiplyAdd(1.99004745483398, heard, (-2 * head) + b2);
                b2 = Math.FusedMultiplyAdd(-0.99007225036621, heard, head);
                energy += heard * heard;
            }

            // In silence what is left in a filter gets smaller without end, and reckoning with the smallest numbers is slow.
            (_a1, _a2, _b1, _b2) = (Left(a1), Left(a2), Left(b1), Left(b2));
            return energy;
        }

        private static double Left(double value) => double.IsFinite(value) && Math.Abs(value) >= Nothing ? value : 0;
    }
}
