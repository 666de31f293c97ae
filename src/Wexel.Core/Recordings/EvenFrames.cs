using Wexel.Core.Timing;

namespace Wexel.Core.Recordings;

/// <summary>
/// An H.264 picture in MP4 of which there is a frame at each tick of an even rate: it can be taken apart and put together frame by frame
/// without being decoded.
/// </summary>
/// <param name="Rate">The rate.</param>
/// <param name="Frames">How many frames there are.</param>
/// <param name="KeyFrames">The numbers of the frames at which decoding can begin with nothing before them, in order; 0 is the first.</param>
/// <param name="Bytes">How much all its frames take.</param>
/// <param name="Profile">The profile's name in ffmpeg's naming, such as "High".</param>
/// <param name="Level">The level's number, 31 for 3.1.</param>
public sealed record EvenFrames(FrameRate Rate, long Frames, IReadOnlyList<long> KeyFrames, long Bytes, string Profile, int Level)
{
    /// <summary>What a second of it takes on average, in bits.</summary>
    public double BitsPerSecond => Bytes * 8 * Rate.PerSecond / Frames;

    /// <summary>How many frames two neighbouring key frames are apart at most, the end counting as one.</summary>
    public long LongestDistance => KeyFrames.Append(Frames).Zip(KeyFrames.Skip(1).Append(Frames), (a, b) => b - a).Max();
}
