namespace Wexel.Core.Recordings;

/// <summary>Which sides of a two-channel track carry sound.</summary>
public enum SoundSides
{
    /// <summary>The sides differ.</summary>
    Stereo,

    /// <summary>Both sides are the same.</summary>
    Same,

    /// <summary>Only the left side carries sound.</summary>
    LeftOnly,

    /// <summary>Only the right side carries sound.</summary>
    RightOnly,

    /// <summary>Neither side carries sound.</summary>
    Silent,
}

/// <summary>Sums over a two-channel track's samples (each −1 to 1), from which the sides are judged.</summary>
/// <param name="Samples">Sample pairs counted.</param>
/// <param name="LeftEnergy">Sum of the left samples' squares.</param>
/// <param name="RightEnergy">Sum of the right samples' squares.</param>
/// <param name="DifferenceEnergy">Sum of (left − right) squared.</param>
public readonly record struct SideSums(long Samples, double LeftEnergy, double RightEnergy, double DifferenceEnergy)
{
    /// <summary>Below this power (−70 dBFS) a side is called silent: under the noise of any microphone (common practice, no source).</summary>
    private const double SilentPower = 1e-7;

    /// <summary>A side this many times weaker than the other (−40 dB) is cross-talk, not a signal (common practice, no source).</summary>
    private const double CrossTalk = 1e-4;

    /// <summary>The verdict over the whole track.</summary>
    public SoundSides Judge()
    {
        if (Samples == 0)
            return SoundSides.Silent;
        var left = LeftEnergy / Samples;
        var right = RightEnergy / Samples;
        if (left < SilentPower && right < SilentPower)
            return SoundSides.Silent;
        if (right < left * CrossTalk)
            return SoundSides.LeftOnly;
        if (left < right * CrossTalk)
            return SoundSides.RightOnly;
        return DifferenceEnergy < (LeftEnergy + RightEnergy) * CrossTalk ? SoundSides.Same : SoundSides.Stereo;
    }
}
