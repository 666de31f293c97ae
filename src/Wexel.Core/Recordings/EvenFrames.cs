using Wexel.Core.Timing;

namespace Wexel.Core.Recordings;

/// <summary>
/// An H.264 picture in MP4 of which each frame has a tick of an even rate to itself: it can be taken apart and put together frame by frame
/// without being decoded.
/// </summary>
/// <param name="Rate">The rate.</param>
/// <param name="Frames">How many ticks there are up to the last frame, that one's too.</param>
/// <param name="KeyFrames">The ticks of the frames at which decoding can begin with nothing before them, in order; 0 is the first.</param>
/// <param name="Bytes">How much all its frames take.</param>
/// <param name="Profile">The profile's name in ffmpeg's naming, such as "High".</param>
/// <param name="Level">The level's number, 31 for 3.1.</param>
/// <param name="Gaps">Whether there are ticks without a frame, at which the one before still stands: recorders leave out what repeats it.</param>
/// <param name="MostBetweenKeyFrames">How many frames there are at most from one key frame up to the next; 0 where nobody counted.</param>
public sealed record EvenFrames(
    FrameRate Rate,
    long Frames,
    IReadOnlyList<long> KeyFrames,
    long Bytes,
    string Profile,
    int Level,
    bool Gaps = false,
    int MostBetweenKeyFrames = 0
)
{
    /// <summary>What a second of it takes on average, in bits.</summary>
    public double BitsPerSecond => Bytes * 8 * Rate.PerSecond / Frames;

    /// <summary>How many ticks two neighbouring key frames are apart at most, the end counting as one.</summary>
    public long LongestDistance => KeyFrames.Append(Frames).Zip(KeyFrames.Skip(1).Append(Frames), (a, b) => b - a).Max();
}
