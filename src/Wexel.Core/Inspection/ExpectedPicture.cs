using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Inspection;

/// <summary>What a lesson's own picture is like, for the check of a file that is made of it.</summary>
public static class ExpectedPicture
{
    /// <summary>At how many moments a file is compared with its source.</summary>
    public const int Moments = 6;

    private static readonly TimeSpan Settled = TimeSpan.FromSeconds(0.5);

    /// <summary>Who seeks a moment that is nearer behind a key frame may be taken to the key frame before it.</summary>
    private static readonly TimeSpan SafelyBehind = TimeSpan.FromSeconds(0.2);

    /// <summary>The stretches of the lesson in which its source stands still: what stands still before a cut and after it may not be the same
    /// picture.</summary>
    /// <param name="still">The stretches of the recording, see <see cref="StillStretches"/>.</param>
    /// <param name="map">What is kept.</param>
    public static IReadOnlyList<TimeRange> Still(IReadOnlyList<TimeRange> still, TimeMap map) =>
        [.. still.Select(map.ToLesson).OfType<TimeRange>().OrderBy(r => r.Start)];

    /// <summary>The frames of the lesson at which a file is compared: spread over what was seen to change, a little after it.</summary>
    /// <param name="changes">Moments of the recording whose pictures differ from the one before; empty where nobody looked.</param>
    /// <param name="map">What is kept.</param>
    public static IReadOnlyList<long> Frames(IReadOnlyList<TimeSpan> changes, TimeMap map)
    {
        var last = map.Frames - 1;
        var candidates = changes.Where(map.Keeps).Select(at => map.Grid.FrameAt(map.ToLesson(at) + Settled)).Where(f => f <= last).Distinct().Order().ToList();
        if (candidates.Count < Moments)
            candidates = [.. candidates.Concat(Enumerable.Range(0, Moments).Select(i => (long)((i + 0.5) / Moments * last))).Distinct().Order()];
        return
        [
            .. Enumerable
                .Range(0, Math.Min(Moments, candidates.Count))
                .Select(i => candidates[(int)((i + 0.5) / Math.Min(Moments, candidates.Count) * candidates.Count)])
                .Distinct(),
        ];
    }

    /// <summary>
    /// The same moments, each gone back to a little behind the key frame that its recording is decoded from, where that is kept and lies
    /// behind the moment before. Where the picture is copied they stay: the file's key frames are the recording's, and it would be looked at where it is best.
    /// </summary>
    /// <param name="plan">The picture's plan.</param>
    /// <param name="frames">The lesson's frames, in order.</param>
    /// <param name="keys">For each, the recording's frame at which that key frame stands; null where it is not known.</param>
    public static IReadOnlyList<long> BehindKeyFrames(PicturePlan plan, IReadOnlyList<long> frames, IReadOnlyList<long?> keys) =>
        plan.Copy is not null
            ? frames
            :
            [
                .. frames
                    .Select(
                        (frame, i) =>
                            keys[i] + plan.Timing.Grid.FrameAt(SafelyBehind) is { } behind
                            && plan.Recorded(frame) is var (part, recorded)
                            && behind < recorded
                            && part.Lesson(behind) is { } found
                            && (i == 0 || found > frames[i - 1])
                                ? found
                                : frame
                    )
                    .Distinct(),
            ];
}
