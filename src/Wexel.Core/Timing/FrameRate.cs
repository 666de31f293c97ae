using System.Globalization;

namespace Wexel.Core.Timing;

/// <summary>A frame rate as an exact fraction, in frames a second: 30000/1001 is not 29.97.</summary>
/// <param name="Numerator">Frames; more than 0.</param>
/// <param name="Denominator">Seconds; more than 0.</param>
public readonly record struct FrameRate(int Numerator, int Denominator)
{
    /// <summary>
    /// Times come in whole milliseconds, frames do not: a time less than a millisecond before a frame means that frame. In ticks of
    /// 100 ns, and a little under the millisecond, so that a whole one before it is never that frame, however the tick is rounded.
    /// </summary>
    private const long Tolerance = 9_990;

    /// <summary>Frames a second as a decimal number, for showing and for estimates.</summary>
    public double PerSecond => (double)Numerator / Denominator;

    /// <summary>Reads "30000/1001", "25/1" or "25"; null when it is not a positive rate ("0/0" is how a probe says "unknown").</summary>
    public static FrameRate? Parse(string? text)
    {
        var parts = (text ?? "").Split('/');
        if (parts.Length > 2 || !int.TryParse(parts[0], CultureInfo.InvariantCulture, out var numerator))
            return null;
        var denominator = 1;
        if (parts.Length == 2 && !int.TryParse(parts[1], CultureInfo.InvariantCulture, out denominator))
            return null;
        return numerator > 0 && denominator > 0 ? new FrameRate(numerator, denominator) : null;
    }

    /// <summary>The number, from 0, of the frame that is on screen at a time.</summary>
    public long FrameAt(TimeSpan time) => Math.Max(0, (long)((Int128)(time.Ticks + Tolerance) * Numerator / ((Int128)TimeSpan.TicksPerSecond * Denominator)));

    /// <summary>The time at which a frame (numbered from 0) comes on screen.</summary>
    public TimeSpan TimeOf(long frame) => TimeSpan.FromTicks((long)Math.Round((decimal)frame * Denominator * TimeSpan.TicksPerSecond / Numerator));

    /// <summary>Prints the exact fraction, "30000/1001".</summary>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Numerator}/{Denominator}");
}
