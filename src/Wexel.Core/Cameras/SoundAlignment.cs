using System.Numerics;
using MathNet.Numerics.IntegralTransforms;
using MathNet.Numerics.LinearRegression;
using Wexel.Core.Timing;

namespace Wexel.Core.Cameras;

/// <summary>At a moment, how much later than thought the camera's sound comes.</summary>
/// <param name="At">The moment of the screen's recording.</param>
/// <param name="Late">How much later, below 0 where it comes sooner.</param>
public readonly record struct SoundLag(TimeSpan At, TimeSpan Late);

/// <summary>What was found of how a camera lies over a screen.</summary>
/// <param name="Clock">How their times go along each other.</param>
/// <param name="Agreeing">At how many places of the screen's recording this was found.</param>
/// <param name="Places">At how many it could have been.</param>
public sealed record FoundClock(CameraClock Clock, int Agreeing, int Places);

/// <summary>
/// Finds by their sound how a camera's recording lies over a screen's: where pieces of the one stand in the other, which of these places lie
/// on a line, and then closely at some of them. Both are cross-correlation; closely it is that of the phases alone (C. Knapp, G. Carter,
/// The generalized correlation method, IEEE Transactions on ASSP 24, 1976), which different microphones hardly change.
/// </summary>
public static class SoundAlignment
{
    /// <summary>How much is listened to at a place, closely.</summary>
    public static readonly TimeSpan Closely = TimeSpan.FromSeconds(4);

    /// <summary>How far what is found closely may lie from what was found roughly.</summary>
    public static readonly TimeSpan Near = TimeSpan.FromMilliseconds(60);

    private const int Pieces = 24;
    private const int LongestPiece = 20 * SoundOnsets.PerSecond;
    private const int ShortestPiece = 2 * SoundOnsets.PerSecond;
    private const int PeaksOfPiece = 3;

    /// <summary>Less alike than this, a place says nothing (measured: other speech of the same voice comes to at most 0.3).</summary>
    private const double LeastAlike = 0.25;

    /// <summary>A single place must be clearer than several that agree.</summary>
    private const double SurelyAlike = 0.5;

    private const double AgreesWithin = 0.04;
    private const double LeastAgreeing = 0.4;
    private const int ClosePlaces = 12;
    private static readonly TimeSpan FitsWithin = TimeSpan.FromMilliseconds(4);

    /// <summary>Over less time, how clocks run apart cannot be told from how exactly places are found.</summary>
    private static readonly TimeSpan TellsDrift = TimeSpan.FromSeconds(20);

    /// <summary>Why nothing is found where it is so.</summary>
    public static Problem NoMatch { get; } =
        new(
            "camera-no-match",
            "The two recordings have no sound in common by which they could be laid over each other. Set by hand when the camera starts.",
            "camera"
        );

    /// <summary>Finds roughly how a camera lies over a screen; null where their sounds have nothing in common.</summary>
    /// <param name="screen">When sounds begin on the screen's recording.</param>
    /// <param name="camera">When they begin on the camera's.</param>
    public static FoundClock? Roughly(SoundOnsets screen, SoundOnsets camera)
    {
        var (values, along) = (screen.Values(), camera.Values());
        var length = Math.Min(LongestPiece, Math.Min(values.Length, along.Length));
        if (length < ShortestPiece)
            return null;
        var pieces = (int)Math.Clamp(values.Length / length, 1, Pieces);
        var correlation = new Correlation(along, length);
        var found = new List<(int Piece, double At, double Lag, double Alike)>();
        for (var i = 0; i < pieces; i++)
        {
            var start = pieces == 1 ? 0 : (int)((long)(values.Length - length) * i / (pieces - 1));
            var alike = correlation.With(values.AsSpan(start, length), length / 2);
            foreach (var (place, how) in Peaks(alike))
            {
                if (how >= LeastAlike)
                    found.Add((i, (start + (length / 2.0)) / SoundOnsets.PerSecond, (place + 1 - length - start) / (double)SoundOnsets.PerSecond, how));
            }
        }

        var best = Line(found);
        if (best is not { } line)
            return null;
        var agreeing = found.Where(f => Math.Abs(f.Lag - line.At(f.At)) <= AgreesWithin).GroupBy(f => f.Piece).Select(g => g.MaxBy(f => f.Alike)).ToList();
        // What lies outside the camera's recording cannot be found in it.
        var possible = Enumerable
            .Range(0, pieces)
            .Select(i => (pieces == 1 ? 0 : (double)(values.Length - length) * i / (pieces - 1)) / SoundOnsets.PerSecond)
            .Count(start =>
                start + line.At(start) >= 0 && start + ((double)length / SoundOnsets.PerSecond) + line.At(start) <= (double)along.Length / SoundOnsets.PerSecond
            );
        var places = Math.Max(possible, agreeing.Count);
        if (agreeing.Count < Math.Max(1, LeastAgreeing * places) || (agreeing.Count == 1 && agreeing[0].Alike < SurelyAlike))
            return null;
        return new FoundClock(line.Clock, agreeing.Count, places);
    }

    /// <summary>The moments of the screen's recording at which is listened closely: spread over what both recorded, each where sounds begin.</summary>
    /// <param name="rough">What was found.</param>
    /// <param name="screen">When sounds begin on the screen's recording.</param>
    /// <param name="camera">When they begin on the camera's.</param>
    /// <returns>Where <see cref="Closely"/> is listened from.</returns>
    public static IReadOnlyList<TimeSpan> Places(FoundClock rough, SoundOnsets screen, SoundOnsets camera)
    {
        var values = screen.Values();
        var (first, last) = (Later(TimeSpan.Zero, rough.Clock.ToScreen(Near)), Earlier(screen.Length, rough.Clock.ToScreen(camera.Length - Near)) - Closely);
        if (last < first)
            return [];
        var share = (last - first) / ClosePlaces;
        var places = new List<TimeSpan>();
        for (var i = 0; i < ClosePlaces; i++)
        {
            var (from, to) = (first + (share * i), first + (share * (i + 1)));
            // Within its share it is where most happens.
            var best = (At: from, Sum: -1f);
            for (var at = from; at <= to; at += TimeSpan.FromSeconds(0.5))
            {
                var index = (int)(at.TotalSeconds * SoundOnsets.PerSecond);
                var sum = values.AsSpan(index, Math.Min(values.Length - index, (int)Closely.TotalSeconds * SoundOnsets.PerSecond)).ToArray().Sum();
                if (sum > best.Sum)
                    best = (at, sum);
            }

            if (best.Sum > 0)
                places.Add(best.At);
        }

        return [.. places.Distinct()];
    }

    /// <summary>How much later the camera's sound comes than the screen's, by their phases; null where they have nothing in common.</summary>
    /// <param name="screen">A piece of the screen's sound, <see cref="SoundOnsets.Rate"/> samples a second.</param>
    /// <param name="camera">The piece of the camera's that is thought to be the same, as long.</param>
    public static TimeSpan? Late(ReadOnlySpan<float> screen, ReadOnlySpan<float> camera)
    {
        var size = (int)BitOperations.RoundUpToPowerOf2((uint)(screen.Length + camera.Length));
        var (one, other) = (Padded(screen, size), Padded(camera, size));
        for (var i = 0; i < size; i++)
        {
            var cross = other[i] * Complex.Conjugate(one[i]);
            // Voices are heard between 100 and 3,400 Hz (ITU-T G.712 passes 300 to 3,400 Hz; fundamental tones lie lower).
            var hertz = (double)Math.Min(i, size - i) * SoundOnsets.Rate / size;
            var size2 = cross.Magnitude;
            one[i] = hertz is < 100 or > 3_400 || size2 < 1e-12 ? Complex.Zero : cross / size2;
        }

        Fourier.Inverse(one, FourierOptions.AsymmetricScaling);
        var most = (int)(Near.TotalSeconds * SoundOnsets.Rate);
        var (at, peak, sum) = (0, 0.0, 0.0);
        for (var lag = -most; lag <= most; lag++)
        {
            var value = one[(lag + size) % size].Real;
            sum += value * value;
            if (value > peak)
                (at, peak) = (lag, value);
        }

        // A peak stands well out of what is around it.
        var usual = Math.Sqrt(sum / ((2 * most) + 1));
        return usual > 0 && peak >= 6 * usual ? TimeSpan.FromSeconds((double)at / SoundOnsets.Rate) : null;
    }

    /// <summary>How the two lie along each other, by what was found closely; as it was found roughly where nothing was.</summary>
    /// <param name="rough">What was found roughly.</param>
    /// <param name="lags">What was found closely, against that.</param>
    public static FoundClock Exactly(FoundClock rough, IReadOnlyList<SoundLag> lags)
    {
        var fitting = lags;
        CameraClock clock;
        while (true)
        {
            if (fitting.Count < 2)
                return rough;
            clock = Fit(rough.Clock, fitting);
            var off = fitting.Select(l => (Lag: l, Off: Off(l).Duration())).ToList();
            var worst = off.MaxBy(o => o.Off);
            if (worst.Off <= FitsWithin)
                break;
            fitting = [.. fitting.Where(l => l != worst.Lag)];
        }

        // A minority that agrees by chance is no better than what was found roughly.
        return fitting.Count * 3 < lags.Count ? rough : new FoundClock(clock, fitting.Count, lags.Count);

        TimeSpan Off(SoundLag lag) => rough.Clock.ToCamera(lag.At) + lag.Late - clock.ToCamera(lag.At);
    }

    private static CameraClock Fit(CameraClock rough, IReadOnlyList<SoundLag> lags)
    {
        var (at, there) = (lags.Select(l => l.At.TotalSeconds).ToArray(), lags.Select(l => (rough.ToCamera(l.At) + l.Late - l.At).TotalSeconds).ToArray());
        if (TimeSpan.FromSeconds(at.Max() - at.Min()) < TellsDrift)
        {
            var middle = there.Order().ElementAt(there.Length / 2);
            return new CameraClock(TimeSpan.FromSeconds(-middle), 0);
        }

        var (start, drift) = SimpleRegression.Fit(at, there);
        return new CameraClock(TimeSpan.FromSeconds(-start / (1 + drift)), drift * 1e6).Within();
    }

    private static Complex[] Padded(ReadOnlySpan<float> samples, int size)
    {
        var padded = new Complex[size];
        for (var i = 0; i < samples.Length; i++)
            padded[i] = samples[i];
        Fourier.Forward(padded, FourierOptions.AsymmetricScaling);
        return padded;
    }

    /// <summary>The highest places of a curve, apart.</summary>
    private static IEnumerable<(int Place, double Value)> Peaks(double[] values)
    {
        var apart = SoundOnsets.PerSecond / 2;
        var taken = new List<int>();
        foreach (var place in Enumerable.Range(0, values.Length).Where(i => IsPeak(values, i)).OrderByDescending(i => values[i]).Take(PeaksOfPiece * apart))
        {
            if (taken.TrueForAll(t => Math.Abs(t - place) > apart))
            {
                taken.Add(place);
                yield return (place, values[place]);
            }

            if (taken.Count == PeaksOfPiece)
                yield break;
        }
    }

    private static bool IsPeak(double[] values, int i) =>
        values[i] >= LeastAlike && (i == 0 || values[i] >= values[i - 1]) && (i == values.Length - 1 || values[i] > values[i + 1]);

    /// <summary>The line on which most places lie: how late the camera's time is, by the screen's.</summary>
    private static (CameraClock Clock, Func<double, double> At)? Line(List<(int Piece, double At, double Lag, double Alike)> found)
    {
        var best = (Score: 0.0, Lag: 0.0, Drift: 0.0);
        foreach (var one in found)
        {
            Try(one.Lag, 0, one.At);
            foreach (var other in found.Where(o => o.Piece > one.Piece))
            {
                var drift = (other.Lag - one.Lag) / (other.At - one.At);
                if (Math.Abs(drift) <= CameraClock.MostDrift / 1e6)
                    Try(one.Lag, drift, one.At);
            }
        }

        if (best.Score <= 0)
            return null;
        // Of those that lie on it, the line that is nearest to all.
        var on = found.Where(f => Math.Abs(f.Lag - (best.Lag + (best.Drift * f.At))) <= AgreesWithin).ToList();
        if (on.Count > 2 && on.Max(f => f.At) - on.Min(f => f.At) >= TellsDrift.TotalSeconds)
            (best.Lag, best.Drift) = SimpleRegression.Fit([.. on.Select(f => f.At)], [.. on.Select(f => f.Lag)]);
        var (lag, slope) = (best.Lag, best.Drift);
        return (new CameraClock(TimeSpan.FromSeconds(-lag / (1 + slope)), slope * 1e6), at => lag + (slope * at));

        void Try(double at0, double drift, double where)
        {
            var start = at0 - (drift * where);
            var score = found
                .Where(f => Math.Abs(f.Lag - (start + (drift * f.At))) <= AgreesWithin)
                .GroupBy(f => f.Piece)
                .Sum(g => g.Max(f => f.Alike * (1 - (Math.Abs(f.Lag - (start + (drift * f.At))) / AgreesWithin / 2))));
            if (score > best.Score + 1e-9)
                best = (score, start, drift);
        }
    }

    private static TimeSpan Earlier(TimeSpan a, TimeSpan b) => a < b ? a : b;

    private static TimeSpan Later(TimeSpan a, TimeSpan b) => a > b ? a : b;
}
