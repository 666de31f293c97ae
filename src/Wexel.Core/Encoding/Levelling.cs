using System.Globalization;
using Wexel.Core.Recordings;

namespace Wexel.Core.Encoding;

/// <summary>How a lesson's sound is brought to its loudness: one gain for all of it, and where that would pass the ceiling, peaks held under it.</summary>
/// <param name="GainDb">By how much it is made louder, in dB; negative for softer.</param>
/// <param name="HoldsPeaks">Whether peaks must be held under <see cref="HeldAt"/>; without, the gain is all that is done.</param>
public sealed record Levelling(double GainDb, bool HoldsPeaks)
{
    /// <summary>The loudness that lessons get where nobody chose another, in LUFS (common practice for the web, no source).</summary>
    public const double UsualTarget = -16;

    /// <summary>What true peaks of a finished file must not pass, in dBTP: EBU R 128, for lossy coding −1.</summary>
    public const double Ceiling = -1;

    /// <summary>Peaks are held under this before encoding, in dBTP: encoding raises the sharpest by up to a decibel.</summary>
    public const double HeldUnder = -2;

    /// <summary>What peaks are held under, in dBTP.</summary>
    public double HeldAt { get; init; } = HeldUnder;

    private const double Nothing = 0.1;
    private const double MostCorrection = 6;

    /// <summary>What is done; null where nothing is: it is as it should be already, there is hardly anything to hear, or nobody wants it.</summary>
    /// <param name="measured">The sound as it is, see <see cref="Loudness"/>.</param>
    /// <param name="target">The loudness wanted, in LUFS; null to leave it as it is.</param>
    public static Levelling? For(Loudness? measured, double? target)
    {
        if (target is not { } wanted || measured?.Integrated is not { } integrated || integrated < Loudness.HardlyAnything)
            return null;
        var gain = Math.Round(wanted - integrated, 1);
        var passes = (measured.TruePeak ?? double.NegativeInfinity) + gain > HeldUnder;
        return Math.Abs(gain) < Nothing && !passes ? null : new Levelling(gain, passes);
    }

    /// <summary>The gain corrected by what holding peaks took away; the same where it comes within half a loudness unit.</summary>
    /// <param name="result">The sound as this levelling leaves it.</param>
    /// <param name="target">The loudness wanted, in LUFS.</param>
    public Levelling Corrected(Loudness result, double target)
    {
        var lacking = target - (result.Integrated ?? target);
        // More than that would be another sound.
        return Math.Abs(lacking) <= 0.5 ? this : this with { GainDb = Math.Round(GainDb + Math.Clamp(lacking, -MostCorrection, MostCorrection), 1) };
    }

    /// <summary>The same with more room for what an encoder adds: it raised the sharpest peaks past the <see cref="Ceiling"/>.</summary>
    /// <param name="truePeak">The true peak of the encoded sound, in dBTP; over the ceiling.</param>
    public Levelling WithHeadroom(double truePeak) =>
        HoldsPeaks ? this with { HeldAt = Math.Round(HeldAt - (truePeak - Ceiling) - Spare, 2) } : this with { HoldsPeaks = true };

    private const double Spare = 0.2;

    /// <summary>What is done to a recording's sound, in a sentence; null without sound.</summary>
    public static string? InWords(Loudness? measured, double? target) =>
        (measured, For(measured, target)) switch
        {
            (null, _) => null,
            ({ Integrated: null or < Loudness.HardlyAnything }, _) =>
                "There is hardly anything to hear, so the sound is left as it is: louder, it would be noise.",
            ({ Integrated: { } was }, null) => $"Recorded at {Lufs(was)}; it stays as it is.",
            ({ Integrated: { } was }, { } step) => $"Recorded at {Lufs(was)}; it is brought to {Lufs(target!.Value)}, {Decibels(Math.Abs(step.GainDb))} "
                + $"{(step.GainDb < 0 ? "softer" : "louder")}{(step.HoldsPeaks ? $", with peaks held under {Number(Ceiling)} dBTP" : "")}.",
        };

    private static string Lufs(double value) => $"{Number(value)} LUFS";

    private static string Decibels(double value) => $"{Number(value)} dB";

    private static string Number(double value) => value.ToString("0.#", CultureInfo.InvariantCulture).Replace('-', '−');
}
