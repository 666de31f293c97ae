using Wexel.Core.Editing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Inspection;

/// <summary>What a lesson's own picture is like, for the check of a file that is made of it.</summary>
public static class ExpectedPicture
{
    /// <summary>At how many moments a file is compared with its source.</summary>
    public const int Moments = 6;

    private static readonly TimeSpan Settled = TimeSpan.FromSeconds(0.5);

    /// <summary>The stretches of the lesson in which its source stands still: what stands still before a cut and after it may not be the same picture.</summary>
    /// <param name="still">The stretches of the recording, see <see cref="StillStretches"/>.</param>
    /// <param name="map">What is kept.</param>
    public static IReadOnlyList<TimeRange> Still(IReadOnlyList<TimeRange> still, TimeMap map) =>
        [.. still.Select(map.ToLesson).OfType<TimeRange>().OrderBy(r => r.Start)];

    /// <summary>
    /// The frames of the lesson at which a file is compared: spread over what was seen to change, a little after it. Where its recording's
    /// key frames are known, the frame behind the key frame before is taken, since the source is decoded from there to each of them.
    /// </summary>
    /// <param name="changes">Moments of the recording whose pictures differ from the one before; empty where nobody looked.</param>
    /// <param name="map">What is kept.</param>
    /// <param name="reel">The recordings; null where the file's own frames stand at their key frames too, so that it would be looked at where it is best.</param>
    public static IReadOnlyList<long> Frames(IReadOnlyList<TimeSpan> changes, TimeMap map, Reel? reel)
    {
        var spread = Spread(changes, map);
        return reel is null ? spread : [.. spread.Select((frame, i) => BehindKeyFrame(frame, i == 0 ? -1 : spread[i - 1], map, reel)).Distinct()];
    }

    private static List<long> Spread(IReadOnlyList<TimeSpan> changes, TimeMap map)
    {
        var last = map.Frames - 1;
        var candidates = changes.Where(map.Keeps).Select(at => map.Grid.FrameAt(map.ToLesson(at) + Settled)).Where(f => f <= last).Distinct().Order().ToList();
        if (candidates.Count < Moments)
            candidates = [.. candidates.Concat(Enumerable.Range(0, Moments).Select(i => (long)((i + 0.5) / Moments * last))).Distinct().Order()];
        return [.. Enumerable.Range(0, Math.Min(Moments, candidates.Count)).Select(i => candidates[(int)((i + 0.5) / Math.Min(Moments, candidates.Count) * candidates.Count)]).Distinct()];
    }

    private static long BehindKeyFrame(long frame, long after, TimeMap map, Reel reel)
    {
        var recorded = map.ToRecording(frame);
        var part = reel.Parts.Last(p => p.First <= recorded);
        if (part.Picture.Even is not { } even || even.Rate != map.Grid)
            return frame;
        var behind = part.First + even.KeyFrames.LastOrDefault(key => part.First + key < recorded, recorded - part.First - 1) + 1;
        return map.ToLesson(behind) is { } found && found > after ? found : frame;
    }
}
