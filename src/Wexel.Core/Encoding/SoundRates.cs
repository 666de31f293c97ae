namespace Wexel.Core.Encoding;

/// <summary>Rates at which sound is coded.</summary>
public static class SoundRates
{
    /// <summary>The bit rates of MPEG-1 layer III in bits a second (ISO/IEC 11172-3, 2.4.2.3, the column of layer III; from memory).</summary>
    public static IReadOnlyList<int> Mp3 { get; } =
    [32_000, 40_000, 48_000, 56_000, 64_000, 80_000, 96_000, 112_000, 128_000, 160_000, 192_000, 224_000, 256_000, 320_000];

    /// <summary>The sample rates that a codec is offered at, in Hz, the usual first. Opus knows 48,000 alone of these (RFC 6716, section 2).</summary>
    public static IReadOnlyList<int> SampleRates(SoundCodec codec) => codec == SoundCodec.Opus ? [48_000] : [48_000, 44_100];

    /// <summary>The bit rate of a voice that nobody can tell from the recording, in bits a second (common practice, no source).</summary>
    public static int Usual(SoundCodec codec, int channels) =>
        (codec, channels) switch
        {
            (SoundCodec.Opus, 1) => 48_000,
            (SoundCodec.Opus, _) => 96_000,
            (SoundCodec.Mp3, 1) => 64_000,
            (SoundCodec.Aac, 1) => 72_000,
            _ => 128_000,
        };

    /// <summary>The least and the most that a codec takes, in bits a second for all channels.</summary>
    public static (int Least, int Most) Range(SoundCodec codec) =>
        codec switch
        {
            SoundCodec.Opus => (16_000, 256_000),
            SoundCodec.Mp3 => (Mp3[0], Mp3[^1]),
            _ => (32_000, 320_000),
        };
}
