using System.Numerics;
using System.Runtime.InteropServices;

namespace Wexel.Core.Recordings;

/// <summary>Finds the greatest peak of one channel, also between its samples, at four times their rate (ITU-R BS.1770-4, Annex 2).</summary>
internal sealed class TruePeakMeter
{
    private const int Times = 4;
    private const int Taps = 24;
    private const int Chunk = 512;
    private const double KaiserBeta = 6;

    /// <summary>The filters for the three moments between two samples; the fourth moment is the sample itself.</summary>
    private static readonly float[][] Between = [.. Enumerable.Range(1, Times - 1).Select(Filter)];

    /// <summary>What the filters can make of samples of 1 at most.</summary>
    private static readonly float MostGain = Between.Max(filter => filter.Sum(Math.Abs));

    private readonly float[] _samples = new float[Taps - 1 + Chunk];

    private float _peak;

    /// <summary>The greatest peak so far, 1 being full scale; what was taken last counts as followed by silence.</summary>
    internal double Peak
    {
        get
        {
            var after = new TruePeakMeter { _peak = _peak };
            _samples.CopyTo(after._samples.AsSpan());
            after.Take(new float[Taps]);
            return after._peak;
        }
    }

    internal void Take(ReadOnlySpan<float> samples)
    {
        for (; samples.Length > 0; samples = samples[Math.Min(Chunk, samples.Length)..])
        {
            var count = Math.Min(Chunk, samples.Length);
            var all = _samples.AsSpan(0, Taps - 1 + count);
            samples[..count].CopyTo(all[(Taps - 1)..]);
            var greatest = Greatest(all);
            _peak = Math.Max(_peak, greatest);
            // Where even the worst would not pass the peak that is known, nothing need be reckoned.
            if (greatest * MostGain > _peak)
            {
                foreach (var filter in Between)
                    _peak = Math.Max(_peak, Greatest(all, filter));
            }

            all[^(Taps - 1)..].CopyTo(_samples);
        }
    }

    private static float Greatest(ReadOnlySpan<float> samples)
    {
        var greatest = Vector<float>.Zero;
        var i = 0;
        for (; i + Vector<float>.Count <= samples.Length; i += Vector<float>.Count)
            greatest = Vector.Max(greatest, Vector.Abs(new Vector<float>(samples[i..])));
        var most = Greatest(greatest);
        for (; i < samples.Length; i++)
            most = Math.Max(most, Math.Abs(samples[i]));
        return most;
    }

    private static float Greatest(ReadOnlySpan<float> samples, float[] filter)
    {
        var greatest = Vector<float>.Zero;
        var i = 0;
        for (; i + Taps - 1 + Vector<float>.Count <= samples.Length; i += Vector<float>.Count)
        {
            ref var first = ref MemoryMarshal.GetReference(samples[i..]);
            // Two sums, so that one need not wait for the other.
            var (even, odd) = (Vector<float>.Zero, Vector<float>.Zero);
            for (var tap = 0; tap < Taps; tap += 2)
            {
                even = Vector.MultiplyAddEstimate(Vector.LoadUnsafe(ref first, (nuint)tap), new Vector<float>(filter[tap]), even);
                odd = Vector.MultiplyAddEstimate(Vector.LoadUnsafe(ref first, (nuint)tap + 1), new Vector<float>(filter[tap + 1]), odd);
            }

            greatest = Vector.Max(greatest, Vector.Abs(even + odd));
        }

        var most = Greatest(greatest);
        for (; i + Taps <= samples.Length; i++)
        {
            var sum = 0f;
            for (var tap = 0; tap < Taps; tap++)
                sum += samples[i + tap] * filter[tap];
            most = Math.Max(most, Math.Abs(sum));
        }

        return most;
    }

    private static float Greatest(Vector<float> of)
    {
        var most = 0f;
        for (var lane = 0; lane < Vector<float>.Count; lane++)
            most = Math.Max(most, of[lane]);
        return most;
    }

    /// <summary>A sinc, windowed by Kaiser's window, whose middle lies a part of a sample behind the middle of the taps.</summary>
    private static float[] Filter(int phase)
    {
        var weights = Enumerable
            .Range(0, Taps)
            .Select(tap =>
            {
                var from = tap - (Taps / 2) + 1 - ((double)phase / Times);
                var inWindow = from / (Taps / 2.0);
                return Sinc(from) * Bessel(KaiserBeta * Math.Sqrt(Math.Max(0, 1 - (inWindow * inWindow)))) / Bessel(KaiserBeta);
            })
            .ToList();
        return [.. weights.Select(w => (float)(w / weights.Sum()))];
    }

    private static double Sinc(double x) => x == 0 ? 1 : Math.Sin(Math.PI * x) / (Math.PI * x);

    /// <summary>The modified Bessel function of the first kind and order zero, by its series.</summary>
    private static double Bessel(double x)
    {
        var (sum, term) = (1.0, 1.0);
        for (var i = 1; term > 1e-12 * sum; i++)
            sum += term *= x * x / (4.0 * i * i);
        return sum;
    }
}
