using System.Text.Json.Serialization;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;

namespace Wexel.Core.Encoding;

/// <summary>A saved set of encoding settings.</summary>
/// <param name="Id">A name for programs and for <c>--profile</c>: lower case, digits and hyphens.</param>
/// <param name="Title">Its name for people.</param>
/// <param name="Description">For what it is meant, in one sentence.</param>
/// <param name="Container">What the file is.</param>
/// <param name="Picture">The picture; null for sound alone.</param>
/// <param name="Sound">The sound; null for none.</param>
/// <param name="Captions">What becomes of the captions.</param>
/// <param name="Chapters">Whether the sections stand in the file as chapters.</param>
/// <param name="IndexAtFront">Whether the index stands at the front.</param>
/// <param name="CaptionLanguage">In which language captions are burnt in, as a BCP 47 tag; null for those that are shown first.</param>
public sealed record Profile(
    string Id,
    [property: Setting("Name", "", "it is chosen by that")] string Title,
    [property: Setting("For what", "", "one sentence for whoever chooses")] string Description,
    [property: Setting(
        "Container",
        "MP4, which every place takes",
        "WebM holds open codecs only; HLS is a folder of many small files; M4A, MP3 and Opus hold sound alone"
    )]
        Container Container,
    [property: Setting("Picture", "on", "it is most of the file")] PictureSettings? Picture,
    [property: Setting("Sound", "on", "it takes about 1 MB a minute in stereo, half of that in mono")] SoundSettings? Sound,
    [property: Setting(
        "Captions",
        "beside the file, where they can be corrected without encoding",
        "burnt in, they cannot be switched off, and a correction encodes the picture again"
    )]
        CaptionPlace Captions = CaptionPlace.Beside,
    [property: Setting("Chapters", "on", "it costs nothing; players that know them list the sections")] bool Chapters = true,
    [property: Setting("Index at the front", "on for the web", "off, a page has to load the whole file before it plays")] bool IndexAtFront = true,
    [property: Setting("Burnt in language", "none: those shown first", "a lesson that has no captions in it gets none")]
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
        string? CaptionLanguage = null
)
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<Profile> Format { get; } = new("profile");

    /// <summary>How many pictures are encoded for it at most.</summary>
    public int MostPictures() => Picture is null ? 0 : 1 + (Container == Container.Hls ? Picture.FurtherHeights?.Count ?? 0 : 0);

    /// <summary>Whether every frame is made, so that the rate is constant.</summary>
    internal bool MakesEveryFrame => Picture is { Timing.Rule: not TimingRule.AsDrawn };
}

/// <summary>What a file is.</summary>
public enum Container
{
    /// <summary>MPEG-4 (ISO/IEC 14496-14).</summary>
    Mp4,

    /// <summary>MPEG-4 with the name that podcast apps and directories want for video.</summary>
    M4v,

    /// <summary>QuickTime, for editing programs.</summary>
    Mov,

    /// <summary>WebM: open codecs.</summary>
    Webm,

    /// <summary>A folder of short pieces with playlists, from which a player takes the picture that its line can carry (RFC 8216).</summary>
    Hls,

    /// <summary>MPEG-4 with sound alone.</summary>
    M4a,

    /// <summary>MPEG-1 audio layer III (ISO/IEC 11172-3) with ID3.</summary>
    Mp3,

    /// <summary>Opus in Ogg (RFC 7845).</summary>
    Opus,
}

/// <summary>How a picture is coded.</summary>
public enum PictureCodec
{
    /// <summary>ITU-T H.264, which everything plays.</summary>
    H264,

    /// <summary>VP9.</summary>
    Vp9,

    /// <summary>AV1.</summary>
    Av1,
}

/// <summary>A profile of ITU-T H.264 (Annex A.2).</summary>
public enum H264Profile
{
    /// <summary>For old and small devices; no B frames, no arithmetic coding.</summary>
    ConstrainedBaseline,

    /// <summary>For old televisions.</summary>
    Main,

    /// <summary>What everything of today plays.</summary>
    High,
}

/// <summary>How large a picture is made.</summary>
public enum SizeRule
{
    /// <summary>The canvas's own size.</summary>
    AsCanvas,

    /// <summary>The canvas's shape under a height.</summary>
    AtMostHeight,

    /// <summary>An exact size, with black where the shape differs.</summary>
    Exact,
}

/// <summary>When frames are made.</summary>
public enum TimingRule
{
    /// <summary>A frame that repeats the one before is not made.</summary>
    AsDrawn,

    /// <summary>Every frame of the recording's rate.</summary>
    AsRecorded,

    /// <summary>A constant rate.</summary>
    Constant,
}

/// <summary>What the encoder holds to.</summary>
public enum RateRule
{
    /// <summary>Constant quality; the size follows from the picture.</summary>
    Quality,

    /// <summary>A bit rate on average.</summary>
    Average,

    /// <summary>A bit rate all the time, filled up where less would do.</summary>
    Constant,

    /// <summary>A size of the whole file, from which the rate is computed.</summary>
    FileSize,
}

/// <summary>How much time the encoder takes to make a file smaller.</summary>
public enum Effort
{
    /// <summary>The least time.</summary>
    Fastest,

    /// <summary>Little time.</summary>
    Faster,

    /// <summary>In between.</summary>
    Balanced,

    /// <summary>More time.</summary>
    Smaller,

    /// <summary>The most time.</summary>
    Smallest,
}

/// <summary>How sound is coded.</summary>
public enum SoundCodec
{
    /// <summary>AAC-LC (ISO/IEC 14496-3).</summary>
    Aac,

    /// <summary>Opus (RFC 6716).</summary>
    Opus,

    /// <summary>MPEG-1 audio layer III.</summary>
    Mp3,
}

/// <summary>How many channels sound has.</summary>
public enum SoundChannels
{
    /// <summary>As many as carry something: one where both sides are alike, unless they are copied.</summary>
    AsRecorded,

    /// <summary>One.</summary>
    Mono,

    /// <summary>Two.</summary>
    Stereo,
}

/// <summary>What becomes of captions.</summary>
public enum CaptionPlace
{
    /// <summary>There are none.</summary>
    None,

    /// <summary>A WebVTT file beside.</summary>
    Beside,

    /// <summary>A track inside that can be switched on.</summary>
    Inside,

    /// <summary>Part of the picture.</summary>
    BurntIn,
}

/// <summary>Settings of the picture.</summary>
/// <param name="Codec">How it is coded.</param>
/// <param name="H264Profile">The profile of H.264; of no account with other codecs.</param>
/// <param name="Level">The level of H.264 as a number, 31 for 3.1; null for the lowest that holds the picture.</param>
/// <param name="Size">How large it is made.</param>
/// <param name="Timing">When frames are made.</param>
/// <param name="Rate">What the encoder holds to.</param>
/// <param name="KeyFrameSeconds">Key frames at most this far apart, in seconds; null for automatic.</param>
/// <param name="Effort">How much time it takes.</param>
/// <param name="HouseMark">Whether the house's mark is put on where the lesson wants it.</param>
/// <param name="OwnMark">A mark that stands on what is made with it in the place of the house's, where the lesson wants one; null for none of its own.</param>
/// <param name="Copy">Whether picture and sound that stay as they were recorded are copied where they can be, and not encoded.</param>
/// <param name="FurtherHeights">Heights in pixels in which the picture is made besides, with <see cref="Container.Hls"/>; those that are not smaller
/// than the picture itself are left away. Null for none.</param>
public sealed record PictureSettings(
    [property: Setting("Codec", "H.264, which everything plays", "VP9 and AV1 make smaller files, take longer, and some learning systems refuse them")]
        PictureCodec Codec,
    SizeSettings Size,
    TimingSettings Timing,
    RateSettings Rate,
    [property: Setting("H.264 profile", "High", "Main and Constrained Baseline are for old devices and make larger files")]
        H264Profile H264Profile = H264Profile.High,
    [property: Setting(
        "H.264 level",
        "automatic: the lowest that holds the picture",
        "a lower one than needed, and devices refuse the file",
        Least = 10,
        Most = 62
    )]
        int? Level = null,
    [property: Setting(
        "Key frames",
        "automatic: at each section, and after 165 frames or 60 s, 6 s with HLS",
        "closer together, jumping is quicker and the file larger",
        Unit = "s",
        Least = 0.5,
        Most = 30
    )]
        double? KeyFrameSeconds = null,
    [property: Setting("Effort", "faster, for screens", "smaller takes up to ten times as long and saves some per cent")] Effort Effort = Effort.Faster,
    [property: Setting("House mark", "on", "another mark encodes the picture again")] bool HouseMark = true,
    [property: Setting("Further heights", "720, 480 and 360 with HLS: slow lines take the smaller ones", "each is encoded and stored besides", Unit = "pixels")]
        IReadOnlyList<int>? FurtherHeights = null,
    [property: Setting("Copy what stays as it is", "on: nothing is lost, and it takes seconds", "off, it is always encoded: often smaller, never sharper")]
        bool Copy = true,
    [property: Setting("Mark of its own", "none: the house's", "another mark encodes the picture again")] MarkOnPicture? OwnMark = null
);

/// <summary>How large a picture is made.</summary>
/// <param name="Rule">The rule.</param>
/// <param name="Width">Pixels across, with <see cref="SizeRule.Exact"/>.</param>
/// <param name="Height">Pixels down, with <see cref="SizeRule.Exact"/>; at most, with <see cref="SizeRule.AtMostHeight"/>.</param>
public sealed record SizeSettings(
    [property: Setting("Size", "as the canvas: scaling makes text softer", "half the height is about a third of the file")] SizeRule Rule,
    [property: Setting("Width", "1280", "more pixels, larger file", Unit = "pixels", Least = 64, Most = 3840)] int? Width = null,
    [property: Setting("Height", "720", "more pixels, larger file", Unit = "pixels", Least = 64, Most = 2160)] int? Height = null
)
{
    /// <summary>The canvas's own size.</summary>
    public static SizeSettings AsCanvas { get; } = new(SizeRule.AsCanvas);

    /// <summary>The canvas's shape under a height in pixels.</summary>
    public static SizeSettings AtMost(int height) => new(SizeRule.AtMostHeight, Height: height);

    /// <summary>Places a recording on a lesson's canvas at the size that is made.</summary>
    /// <param name="recorded">The recording's size as it is shown.</param>
    /// <param name="canvas">The lesson's canvas.</param>
    public CanvasPlacement Place(PictureSize recorded, Canvas canvas) =>
        this is { Rule: SizeRule.Exact, Width: { } width, Height: { } height }
            ? CanvasPlacement.Of(recorded, canvas with { Size = new PictureSize(width, height) }, null)
            : CanvasPlacement.Of(recorded, canvas, Rule == SizeRule.AtMostHeight ? Height : null);
}

/// <summary>When frames are made.</summary>
/// <param name="Rule">The rule.</param>
/// <param name="FramesPerSecond">Frames a second, with <see cref="TimingRule.Constant"/>.</param>
public sealed record TimingSettings(
    [property: Setting(
        "Frame timing",
        "as drawn: a screen mostly stands still",
        "as recorded and constant take three to four times as long; podcast apps and editing programs want them"
    )]
        TimingRule Rule,
    [property: Setting("Frames a second", "30", "fewer make movement jerky, more make the file larger", Unit = "a second", Least = 1, Most = 60)]
        int? FramesPerSecond = null
)
{
    /// <summary>A frame that repeats the one before is not made.</summary>
    public static TimingSettings AsDrawn { get; } = new(TimingRule.AsDrawn);

    /// <summary>Every frame of the recording's rate.</summary>
    public static TimingSettings AsRecorded { get; } = new(TimingRule.AsRecorded);
}

/// <summary>What the encoder holds to.</summary>
/// <param name="Rule">The rule.</param>
/// <param name="Quality">The constant quality, with <see cref="RateRule.Quality"/>: lower is better and larger, see <see cref="QualityScale"/>.</param>
/// <param name="CeilingBitsPerSecond">The rate that constant quality must not pass, in bits a second; null for the level's own.</param>
/// <param name="BitsPerSecond">The picture's rate in bits a second, with <see cref="RateRule.Average"/> and <see cref="RateRule.Constant"/>.</param>
/// <param name="Passes">With <see cref="RateRule.Average"/>, one pass or two.</param>
/// <param name="Bytes">The size of the whole file in bytes, with <see cref="RateRule.FileSize"/>.</param>
public sealed record RateSettings(
    [property: Setting(
        "Rate control",
        "constant quality: each lesson gets what its picture needs",
        "a fixed rate or size gives quiet lessons too much and busy ones too little"
    )]
        RateRule Rule,
    [property: Setting(
        "Quality",
        "20 with H.264, 32 with VP9 and AV1; lower is better",
        "six less with H.264, or ten less with the others, doubles the file",
        Least = 0,
        Most = 63
    )]
        int? Quality = null,
    [property: Setting("Ceiling", "none but the level’s", "too low, and busy moments get blurred", Unit = "bit/s", Least = 16_000, Most = 100_000_000)]
        long? CeilingBitsPerSecond = null,
    [property: Setting(
        "Bit rate of the picture",
        "300,000 for a quiet screen in HD",
        "too low, and text gets blurred",
        Unit = "bit/s",
        Least = 16_000,
        Most = 100_000_000
    )]
        long? BitsPerSecond = null,
    [property: Setting("Passes", "two where the size is fixed", "two take nearly twice as long, and keep to the rate", Least = 1, Most = 2)] int Passes = 2,
    [property: Setting("Size of the file", "what the place takes", "too small, and text gets blurred", Unit = "bytes", Least = 50_000, Most = 20_000_000_000)]
        long? Bytes = null
)
{
    /// <summary>Constant quality.</summary>
    public static RateSettings Of(int quality) => new(RateRule.Quality, quality);
}

/// <summary>Settings of the sound.</summary>
/// <param name="Codec">How it is coded.</param>
/// <param name="SampleRate">Samples a second.</param>
/// <param name="Channels">How many channels.</param>
/// <param name="BitsPerSecond">Bits a second for all channels; null for what is usual with the codec.</param>
/// <param name="TargetLufs">The loudness that it is brought to, in LUFS; null to leave it as it is.</param>
public sealed record SoundSettings(
    [property: Setting("Sound codec", "AAC in MP4, Opus in WebM", "Opus is better at low rates; MP3 is for old players")] SoundCodec Codec,
    [property: Setting("Sample rate", "48,000", "44,100 is what old players want; nobody hears a difference", Unit = "Hz", Least = 44_100, Most = 48_000)]
        int SampleRate = 48_000,
    [property: Setting("Channels", "as recorded: a voice on both sides alike becomes one channel", "stereo is about twice as large as mono")]
        SoundChannels Channels = SoundChannels.AsRecorded,
    [property: Setting(
        "Bit rate of the sound",
        "automatic: 72,000 for a voice in AAC",
        "under 48,000 a voice sounds thin",
        Unit = "bit/s",
        Least = 16_000,
        Most = 320_000
    )]
        int? BitsPerSecond = null,
    [property: Setting("Loudness", "−16 for the web", "softer, learners turn it up; louder, peaks must be held", Unit = "LUFS", Least = -31, Most = -9)]
        double? TargetLufs = Levelling.UsualTarget
);
