namespace Wexel.Demo.Sounds;

/// <summary>Instruments, each a few lines of arithmetic, played into a buffer that goes round: what rings on at its end is heard at its beginning, so
/// that it can be played again and again without a joint.</summary>
internal sealed class Synth
{
    internal const int Rate = 48_000;

    private readonly float[] _left;
    private readonly float[] _right;
    private readonly bool _round;
    private readonly Random _noise;

    internal Synth(double seconds, bool round, int seed)
    {
        var length = (int)Math.Round(seconds * Rate);
        (_left, _right, _round, _noise) = (new float[length], new float[length], round, new Random(seed));
    }

    internal int Length => _left.Length;

    /// <summary>The frequency of a note, in Hz: equal temperament, 69 is 440 Hz.</summary>
    internal static double Hz(double note) => 440 * Math.Pow(2, (note - 69) / 12);

    /// <summary>A string that is plucked (Karplus and Strong).</summary>
    internal void Pluck(double at, double note, double volume, double pan, double bright = 0.5, double seconds = 2.5)
    {
        var period = Rate / Hz(note);
        var line = new double[(int)period];
        var before = 0.0;
        for (var i = 0; i < line.Length; i++)
            line[i] = before += (((_noise.NextDouble() * 2) - 1) - before) * (0.2 + (0.8 * bright));
        // A string of a whole number of samples is out of tune; an all-pass takes the rest.
        var part = period - line.Length;
        var (coefficient, passedIn, passedOut, last) = ((1 - part) / (1 + part), 0.0, 0.0, 0.0);
        Play(at, seconds, volume, pan, i =>
        {
            var place = i % line.Length;
            var now = line[place];
            var softer = 0.996 * ((0.5 * now) + (0.5 * last));
            last = now;
            var tuned = (coefficient * (softer - passedOut)) + passedIn;
            (passedIn, passedOut) = (softer, tuned);
            line[place] = tuned;
            return now;
        });
    }

    /// <summary>A key that is struck: partials that fade, the higher ones sooner.</summary>
    internal void Key(double at, double note, double volume, double pan, double seconds = 3)
    {
        var hz = Hz(note);
        Play(at, seconds, volume * 0.5, pan, i =>
        {
            var (t, sum) = ((double)i / Rate, 0.0);
            for (var p = 1; p <= 7 && p * hz < 9000; p++)
                sum += Math.Sin(Math.Tau * hz * p * Math.Sqrt(1 + (0.0004 * p * p)) * t) * Math.Exp(-t * (0.9 + (0.75 * p))) / Math.Pow(p, 1.25);
            return sum * Math.Min(1, t * 400);
        });
    }

    /// <summary>A bar that is struck, by frequency modulation.</summary>
    internal void Bell(double at, double note, double volume, double pan, double ratio = 3.5, double depth = 1.2, double seconds = 3)
    {
        var hz = Hz(note);
        Play(at, seconds, volume, pan, i =>
        {
            var t = (double)i / Rate;
            return Math.Sin((Math.Tau * hz * t) + (depth * Math.Exp(-t * 4) * Math.Sin(Math.Tau * hz * ratio * t))) * Math.Exp(-t * 1.8) * Math.Min(1, t * 600);
        });
    }

    /// <summary>A soft chord's note that comes and goes slowly.</summary>
    internal void Pad(double at, double note, double volume, double seconds)
    {
        foreach (var (cents, pan) in new[] { (-5.0, -0.7), (0.0, 0.0), (6.0, 0.7) })
        {
            var hz = Hz(note + (cents / 100));
            Play(at, seconds + 1.5, volume / 3, pan, i =>
            {
                var t = (double)i / Rate;
                var shape = Math.Min(1, t / 0.9) * Math.Min(1, Math.Max(0, (seconds + 1.5 - t) / 1.5));
                var sum = 0.0;
                for (var p = 1; p <= 5; p++)
                    sum += Math.Sin(Math.Tau * hz * p * t) / (p * p);
                return sum * shape * (1 + (0.08 * Math.Sin(Math.Tau * 0.35 * t)));
            });
        }
    }

    /// <summary>A low note.</summary>
    internal void Bass(double at, double note, double volume, double seconds)
    {
        var hz = Hz(note);
        Play(at, seconds + 0.15, volume, 0, i =>
        {
            var t = (double)i / Rate;
            var shape = Math.Min(1, t * 120) * Math.Exp(-t * 1.2) * Math.Min(1, Math.Max(0, (seconds + 0.15 - t) / 0.15));
            return (Math.Sin(Math.Tau * hz * t) + (0.3 * Math.Sin(Math.Tau * 2 * hz * t)) + (0.1 * Math.Sin(Math.Tau * 3 * hz * t))) * shape;
        });
    }

    internal void Kick(double at, double volume) => Play(at, 0.4, volume, 0, i =>
        {
            var t = (double)i / Rate;
            return Math.Sin(Math.Tau * ((48 * t) + (9 * (1 - Math.Exp(-t * 30)) / 3))) * Math.Exp(-t * 11);
        });

    /// <summary>Noise that fades: a brush or a hat, by how high it is and how long it lasts.</summary>
    internal void Noise(double at, double volume, double pan, double cutoff, double decay, double seconds)
    {
        var (low, share) = (0.0, 1 - Math.Exp(-Math.Tau * cutoff / Rate));
        Play(at, seconds, volume, pan, i =>
        {
            var t = (double)i / Rate;
            var white = (_noise.NextDouble() * 2) - 1;
            low += (white - low) * share;
            return (white - low) * Math.Exp(-t * decay) * Math.Min(1, t * 900);
        });
    }

    /// <summary>Noise that swells and goes, as a wave on a shore.</summary>
    internal void Swell(double at, double volume, double seconds, double from, double to)
    {
        var low = 0.0;
        Play(at, seconds, volume, 0, i =>
        {
            var share = (double)i / Rate / seconds;
            var shape = Math.Pow(Math.Sin(Math.PI * Math.Pow(share, 0.6)), 2);
            low += (((_noise.NextDouble() * 2) - 1) - low) * (1 - Math.Exp(-Math.Tau * (from + ((to - from) * shape)) / Rate));
            return low * shape * 3;
        });
    }

    /// <summary>A tone with many partials that is held, as of a horn.</summary>
    internal void Horn(double at, double note, double volume, double seconds)
    {
        var hz = Hz(note);
        Play(at, seconds, volume, 0, i =>
        {
            var (t, sum) = ((double)i / Rate, 0.0);
            for (var p = 1; p <= 12; p++)
                sum += Math.Sin((Math.Tau * hz * p * t) + (0.3 * p)) / Math.Pow(p, 1.4);
            return sum * Math.Min(1, t * 6) * Math.Min(1, Math.Max(0, (seconds - t) * 3));
        });
    }

    /// <summary>A room around all of it: combs that go round with the buffer.</summary>
    internal void Room(double share, double seconds)
    {
        foreach (var (side, delays) in new[] { (_left, new[] { 1687, 1931, 2269, 2741 }), (_right, [1723, 1997, 2311, 2803]) })
        {
            var wet = new double[side.Length];
            foreach (var delay in delays)
            {
                var (line, damped, feedback) = (new double[delay], 0.0, Math.Pow(10, -3.0 * delay / Rate / seconds));
                // The first round fills the room with what will still ring when it begins again.
                for (var turn = _round ? 0 : 1; turn < 2; turn++)
                {
                    for (var i = 0; i < side.Length; i++)
                    {
                        var heard = line[i % delay];
                        damped += (heard - damped) * 0.45;
                        line[i % delay] = side[i] + (damped * feedback);
                        if (turn == 1)
                            wet[i] += heard / delays.Length;
                    }

                    // The line goes on where it was, wherever the next round begins in it.
                    var at = side.Length % delay;
                    line = [.. line[at..], .. line[..at]];
                }
            }

            for (var i = 0; i < side.Length; i++)
                side[i] = (float)((side[i] * (1 - (share * 0.5))) + (wet[i] * share));
        }
    }

    /// <summary>The samples, left and right in turn or one of both, as loud as they may be.</summary>
    internal float[] Samples(int channels, double peak = 0.7)
    {
        var most = Math.Max(_left.Max(Math.Abs), _right.Max(Math.Abs));
        var gain = most > 0 ? peak / most : 1;
        var samples = new float[Length * channels];
        for (var i = 0; i < Length; i++)
        {
            if (channels == 1)
                samples[i] = (float)((_left[i] + _right[i]) / 2 * gain);
            else
                (samples[2 * i], samples[(2 * i) + 1]) = ((float)(_left[i] * gain), (float)(_right[i] * gain));
        }

        return samples;
    }

    private void Play(double at, double seconds, double volume, double pan, Func<int, double> sample)
    {
        var (start, count) = ((int)Math.Round(at * Rate), (int)(seconds * Rate));
        var (left, right) = (Math.Cos((pan + 1) * Math.PI / 4) * volume, Math.Sin((pan + 1) * Math.PI / 4) * volume);
        for (var i = 0; i < count; i++)
        {
            var place = start + i;
            if (place >= Length && !_round)
                return;
            place %= Length;
            // What ends sharply clicks.
            var value = sample(i) * Math.Min(1, (count - i) / 480.0);
            _left[place] += (float)(value * left);
            _right[place] += (float)(value * right);
        }
    }
}
