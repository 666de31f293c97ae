using Wexel.Core.Recordings;

namespace Wexel.Core.Inspection;

/// <summary>What was measured on a finished file.</summary>
/// <param name="Bytes">Its size.</param>
/// <param name="Length">The container's length.</param>
/// <param name="PictureLength">From the first frame's start to the last one's end.</param>
/// <param name="Size">The picture's size.</param>
/// <param name="PixelAspect">Width of a pixel by its height.</param>
/// <param name="Codec">The picture's codec.</param>
/// <param name="CodecProfile">The codec's profile.</param>
/// <param name="Level">The level's number, 31 for 3.1.</param>
/// <param name="PixelFormat">Sampling and depth.</param>
/// <param name="Colour">The colour tags.</param>
/// <param name="IndexAtFront">Whether the index (moov) stands before the media data (mdat).</param>
/// <param name="Sound">The sound track, or null where there is none.</param>
/// <param name="KeyFrames">The key frames' times, in order.</param>
/// <param name="FrameCount">How many frames there are.</param>
/// <param name="LongestGap">The longest time between two frames.</param>
/// <param name="ChapterStarts">Where the chapters inside start.</param>
/// <param name="Codecs">The codecs parameter of RFC 6381.</param>
public sealed record RenditionFacts(
    long Bytes,
    TimeSpan Length,
    TimeSpan PictureLength,
    PictureSize Size,
    double PixelAspect,
    string Codec,
    string CodecProfile,
    int Level,
    string PixelFormat,
    ColourFacts Colour,
    bool IndexAtFront,
    SoundFacts? Sound,
    IReadOnlyList<TimeSpan> KeyFrames,
    int FrameCount,
    TimeSpan LongestGap,
    IReadOnlyList<TimeSpan> ChapterStarts,
    string Codecs);
