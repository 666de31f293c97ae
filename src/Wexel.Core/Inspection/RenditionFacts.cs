using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Inspection;

/// <summary>What was measured on a finished file.</summary>
/// <param name="Bytes">Its size.</param>
/// <param name="Length">The container's length.</param>
/// <param name="Format">The container, as the prober names it.</param>
/// <param name="IndexAtFront">Whether the index stands before the media data.</param>
/// <param name="Picture">The picture track, or null where there is none.</param>
/// <param name="Sound">The sound track, or null where there is none.</param>
/// <param name="ChapterStarts">Where the chapters inside start.</param>
/// <param name="CaptionTracks">How many tracks of captions stand inside.</param>
/// <param name="CaptionsEnd">Where the last caption inside ends; null where there is none.</param>
/// <param name="Codecs">The codecs parameter of RFC 6381; empty where the file does not tell.</param>
/// <param name="Errors">What the decoder complained of while all of it was decoded; empty where it was whole.</param>
public sealed record RenditionFacts(
    long Bytes,
    TimeSpan Length,
    string Format,
    bool IndexAtFront,
    PictureMeasured? Picture,
    SoundMeasured? Sound,
    IReadOnlyList<TimeSpan> ChapterStarts,
    int CaptionTracks,
    TimeSpan? CaptionsEnd,
    string Codecs,
    IReadOnlyList<string> Errors
);

/// <summary>What was measured on the picture of a finished file.</summary>
/// <param name="Start">Where its first frame stands.</param>
/// <param name="Length">Where its last frame ends.</param>
/// <param name="Size">Its size.</param>
/// <param name="PixelAspect">Width of a pixel by its height.</param>
/// <param name="Codec">The codec.</param>
/// <param name="CodecProfile">The codec's profile.</param>
/// <param name="Level">The level's number, 31 for 3.1.</param>
/// <param name="PixelFormat">Sampling and depth.</param>
/// <param name="Colour">The colour tags.</param>
/// <param name="KeyFrames">The key frames' times, in order.</param>
/// <param name="MostBetweenKeyFrames">How many frames there are at most from one key frame up to the next.</param>
/// <param name="FrameCount">How many frames there are.</param>
/// <param name="LongestGap">The longest time between two frames.</param>
/// <param name="Borders">Black borders that stand all through, in shares of the sides, 0 to 1: left, top, right, bottom; null where there are none.</param>
/// <param name="Black">Stretches of half a second or more in which the picture is black.</param>
/// <param name="Still">Stretches of a second or more in which nothing changes.</param>
/// <param name="Moments">How like the source it is at moments that were looked at.</param>
/// <param name="Combed">How many of its frames show two fields; null where no recording is interlaced, and nobody looked.</param>
public sealed record PictureMeasured(
    TimeSpan Start,
    TimeSpan Length,
    PictureSize Size,
    double PixelAspect,
    string Codec,
    string CodecProfile,
    int Level,
    string PixelFormat,
    ColourFacts Colour,
    IReadOnlyList<TimeSpan> KeyFrames,
    int MostBetweenKeyFrames,
    int FrameCount,
    TimeSpan LongestGap,
    BorderShares? Borders,
    IReadOnlyList<TimeRange> Black,
    IReadOnlyList<TimeRange> Still,
    IReadOnlyList<MomentCompared> Moments,
    CombedFrames? Combed = null
);

/// <summary>Frames in which two moments stand, line by line.</summary>
/// <param name="Count">How many there are.</param>
/// <param name="Told">Of how many it can be told: on those nothing else would look so.</param>
public readonly record struct CombedFrames(int Count, int Told);

/// <summary>Black borders as shares of the picture's sides, 0 to 1.</summary>
/// <param name="Left">Of its width, at the left.</param>
/// <param name="Top">Of its height, at the top.</param>
/// <param name="Right">Of its width, at the right.</param>
/// <param name="Bottom">Of its height, at the bottom.</param>
public sealed record BorderShares(double Left, double Top, double Right, double Bottom)
{
    /// <summary>Borders in pixels as shares of a picture.</summary>
    public static BorderShares Of(PictureBorders borders, PictureSize size) =>
        new((double)borders.Left / size.Width, (double)borders.Top / size.Height, (double)borders.Right / size.Width, (double)borders.Bottom / size.Height);

    /// <summary>The widest of them.</summary>
    public double Widest => Math.Max(Math.Max(Left, Right), Math.Max(Top, Bottom));
}

/// <summary>A moment at which a file was compared with its source, as it would be without encoding.</summary>
/// <param name="At">The moment, in lesson time.</param>
/// <param name="Ssim">The structural similarity of brightness, 0 to 1 (Wang et al. 2004).</param>
/// <param name="Sharpness">What is left of the fine detail of text, in per cent; 100 where there is none.</param>
/// <param name="SourceIsBlack">Whether the source is black there.</param>
/// <param name="SourceBorders">What is black at the source's edges there; null where nothing is, or all of it.</param>
public sealed record MomentCompared(TimeSpan At, double Ssim, double Sharpness, bool SourceIsBlack, BorderShares? SourceBorders = null);

/// <summary>What was measured on the sound of a finished file.</summary>
/// <param name="Start">Where it starts.</param>
/// <param name="Length">How much of it decodes.</param>
/// <param name="Codec">The codec.</param>
/// <param name="Channels">How many channels.</param>
/// <param name="SampleRate">Samples a second.</param>
/// <param name="Loudness">How loud it is.</param>
/// <param name="Silent">Stretches of two seconds or more in which nothing is heard.</param>
public sealed record SoundMeasured(
    TimeSpan Start,
    TimeSpan Length,
    string Codec,
    int Channels,
    int SampleRate,
    Loudness Loudness,
    IReadOnlyList<TimeRange> Silent
);

/// <summary>What a file is compared with.</summary>
/// <param name="Still">Stretches of the lesson in which the source stands still; null where nobody looked.</param>
/// <param name="Silent">Stretches of two seconds or more in which the lesson's sound is silent before it is encoded.</param>
/// <param name="SoundLength">How long the lesson's sound is before it is encoded; null without sound.</param>
public sealed record ExpectedOfSource(IReadOnlyList<TimeRange>? Still, IReadOnlyList<TimeRange> Silent, TimeSpan? SoundLength);

/// <summary>What was measured on a folder of pieces (RFC 8216).</summary>
/// <param name="Bytes">The size of all its files, in bytes.</param>
/// <param name="Pictures">Each picture with the sound, as a player puts them together; the largest first.</param>
/// <param name="Breaches">What its playlists do not keep to, see <see cref="Streaming.HlsCheck"/>.</param>
/// <param name="CaptionGroups">How many captions can be switched on.</param>
public sealed record StreamFacts(long Bytes, IReadOnlyList<RenditionFacts> Pictures, IReadOnlyList<string> Breaches, int CaptionGroups);
