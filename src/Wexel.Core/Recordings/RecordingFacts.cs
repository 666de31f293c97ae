using System.Text.Json.Serialization;
using Wexel.Core.Timing;

namespace Wexel.Core.Recordings;

/// <summary>What a probe found in a recording.</summary>
/// <param name="Container">The container's short name: mp4, mov, matroska, webm, avi, asf, mpegts.</param>
/// <param name="Bytes">The size of the file.</param>
/// <param name="Length">How long it plays.</param>
/// <param name="Picture">The picture, or null where there is none.</param>
/// <param name="Sounds">The sound tracks in their order; empty where there are none.</param>
/// <param name="UsedSounds">Which of them are used, from 0; null for the first, or where there are several and nobody listened yet.</param>
/// <param name="Subtitles">The subtitles inside that are text, in their order; null for none.</param>
/// <param name="Chapters">The chapters inside, in order of time; null for none.</param>
public sealed record RecordingFacts(
    string Container,
    long Bytes,
    TimeSpan Length,
    PictureFacts? Picture,
    IReadOnlyList<SoundFacts> Sounds,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<int>? UsedSounds = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<SubtitleFacts>? Subtitles = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<ChapterFacts>? Chapters = null
)
{
    /// <summary>The tracks that are used, from 0; empty without sound.</summary>
    [JsonIgnore]
    public IReadOnlyList<int> Used => Sounds.Count == 0 ? [] : UsedSounds ?? [0];

    /// <summary>The sound that is used: the one track, or what several come to together; null without sound.</summary>
    [JsonIgnore]
    public SoundFacts? Sound =>
        Used switch
        {
            [] => null,
            [var one] => Sounds[one],
            _ => new SoundFacts("mixed", 2, "stereo", 48_000),
        };
}

/// <summary>A chapter inside a recording.</summary>
/// <param name="At">When it begins.</param>
/// <param name="Title">Its title; empty where it has none.</param>
public sealed record ChapterFacts(TimeSpan At, string Title);

/// <summary>What a probe found about a recording's picture.</summary>
/// <param name="Codec">The codec's short name, such as h264.</param>
/// <param name="Width">Stored width in pixels.</param>
/// <param name="Height">Stored height in pixels.</param>
/// <param name="RotationDegrees">How far a player turns it clockwise: 0, 90, 180 or 270.</param>
/// <param name="PixelAspect">Width of a pixel by its height; 1 for square ones.</param>
/// <param name="Rate">The average rate.</param>
/// <param name="NominalRate">The rate that the container states, or the average where it states none.</param>
/// <param name="RateVaries">Whether the time between frames differs along the recording.</param>
/// <param name="FrameCount">How many frames there are, where it was counted; 0 for none; null for unknown.</param>
/// <param name="PixelFormat">Sampling and depth in ffmpeg's naming, such as yuv420p or gbrp.</param>
/// <param name="Colour">How the numbers stand for colours.</param>
/// <param name="Even">How its frames lie in the file, where they could be copied; null where not, or where nobody looked.</param>
/// <param name="Damaged">Whether something of it cannot be decoded.</param>
/// <param name="Fields">Which field comes first where it is interlaced; null where it is not.</param>
public sealed record PictureFacts(
    string Codec,
    int Width,
    int Height,
    int RotationDegrees,
    double PixelAspect,
    FrameRate Rate,
    FrameRate NominalRate,
    bool RateVaries,
    long? FrameCount,
    string PixelFormat,
    ColourFacts Colour,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] EvenFrames? Even = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Damaged = false,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] FieldOrder? Fields = null
)
{
    /// <summary>What is done to it before anything else looks at it; null for nothing.</summary>
    [JsonIgnore]
    public PicturePreparation? Preparation =>
        (Fields, WideColour.Of(this)) is var (fields, colour) && (fields is not null || colour is not null) ? new PicturePreparation(fields, colour) : null;

    /// <summary>The rate of whole pictures, where the container states one rate: two of each frame that is interlaced.</summary>
    [JsonIgnore]
    public FrameRate PictureRate => Fields is null ? NominalRate : new FrameRate(NominalRate.Numerator * 2, NominalRate.Denominator);

    /// <summary>The picture's size as it is shown: turned upright, with square pixels, in whole pixels.</summary>
    public PictureSize ShownSize
    {
        get
        {
            var width = Math.Max(1, (int)Math.Round(Width * PixelAspect));
            return RotationDegrees is 90 or 270 ? new PictureSize(Height, width) : new PictureSize(width, Height);
        }
    }

    /// <summary>Whether the samples are red, green and blue and not brightness and colour difference.</summary>
    public bool IsRgb =>
        PixelFormat.StartsWith("gbr", StringComparison.Ordinal)
        || PixelFormat.Contains("rgb", StringComparison.Ordinal)
        || PixelFormat.Contains("bgr", StringComparison.Ordinal)
        || PixelFormat.StartsWith("pal8", StringComparison.Ordinal);
}

/// <summary>A size in pixels.</summary>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
public readonly record struct PictureSize(int Width, int Height)
{
    /// <summary>Prints "1280 × 720".</summary>
    public override string ToString() => $"{Width} × {Height}";
}

/// <summary>How a picture's numbers stand for colours, in the code points' names of ITU-T H.273; null where the file does not say.</summary>
/// <param name="Matrix">bt709, smpte170m, bt470bg, gbr, bt2020nc …</param>
/// <param name="Primaries">bt709, smpte170m …</param>
/// <param name="Transfer">bt709, smpte170m …</param>
/// <param name="FullRange">True for 0–255, false for 16–235, null where the file does not say.</param>
public sealed record ColourFacts(string? Matrix, string? Primaries, string? Transfer, bool? FullRange);

/// <summary>What a probe found about one sound track.</summary>
/// <param name="Codec">The codec's short name, such as aac.</param>
/// <param name="Channels">How many channels.</param>
/// <param name="Layout">The channels' layout in ffmpeg's naming (mono, stereo, 5.1), or null.</param>
/// <param name="SampleRate">Samples a second.</param>
/// <param name="Start">When its first sample is heard, counted from the recording's start; null where that was not looked for.</param>
/// <param name="BitsPerSecond">Its rate, in bits a second; null where the file does not say.</param>
public sealed record SoundFacts(string Codec, int Channels, string? Layout, int SampleRate, TimeSpan? Start = null, long? BitsPerSecond = null);

/// <summary>What a probe found about subtitles inside a recording.</summary>
/// <param name="Place">Which of the recording's subtitle tracks it is, from 0; those that are pictures count too.</param>
/// <param name="Language">The language as the file writes it, as a BCP 47 tag; null where it does not say.</param>
/// <param name="Title">What the file calls it; null where it does not.</param>
public sealed record SubtitleFacts(int Place, string? Language, string? Title);
