using Wexel.Core.Recordings;

namespace Wexel.Core.Encoding;

/// <summary>A picture that is copied as it was recorded, and encoded only where copying cannot begin.</summary>
/// <param name="Runs">What it is put together from, in order and without a gap.</param>
public sealed record CopyPlan(IReadOnlyList<CopyRun> Runs)
{
    /// <summary>How many frames are encoded.</summary>
    public long EncodedFrames => Runs.Where(r => r.Encoded).Sum(r => r.Count);

    /// <summary>Some frames of it by themselves, counted from 0.</summary>
    /// <param name="first">The lesson's frame that is the first.</param>
    /// <param name="count">How many.</param>
    /// <param name="even">The recording's frames: copying that begins within a run must lead in from a key frame.</param>
    public CopyPlan Within(long first, long count, EvenFrames even)
    {
        var runs = new List<CopyRun>();
        foreach (var run in Runs)
        {
            var (from, to) = (Math.Max(run.At, first), Math.Min(run.At + run.Count, first + count));
            if (from >= to)
                continue;
            var start = run.First + from - run.At;
            runs.AddRange(
                run.Encoded || from > first ? [new CopyRun(start, to - from, from - first, run.Encoded, 0)] : Beginning(start, start + to - from, even)
            );
        }

        return new CopyPlan(runs);
    }

    /// <summary>
    /// What a lesson begins with: copied from the key frame before. Where the first tick may have no frame of its own, it is encoded up to
    /// the next key frame, since what passes over the lead-in passes over the frame that stands there.
    /// </summary>
    /// <param name="first">The recording's frame that is the lesson's first.</param>
    /// <param name="end">The frame behind the last.</param>
    /// <param name="even">The recording's frames.</param>
    internal static IEnumerable<CopyRun> Beginning(long first, long end, EvenFrames even)
    {
        var key = even.KeyFrames.Last(k => k <= first);
        if (!even.Gaps || key == first)
            return [new CopyRun(first, end - first, 0, Encoded: false, first - key)];
        var next = even.KeyFrames.FirstOrDefault(k => k > first && k < end, end);
        var encoded = new CopyRun(first, next - first, 0, Encoded: true, 0);
        return next == end ? [encoded] : [encoded, new CopyRun(next, end - next, next - first, Encoded: false, 0)];
    }
}

/// <summary>Frames in a row that are copied or encoded.</summary>
/// <param name="First">The recording's frame that is the first.</param>
/// <param name="Count">How many; 1 or more. Behind the recording's last frame, where its sound goes on, that one is repeated.</param>
/// <param name="At">The lesson's frame that the first becomes.</param>
/// <param name="Encoded">Whether they are encoded; otherwise they are copied.</param>
/// <param name="LeadIn">How many frames before the first are copied besides, since decoding must begin there, and are not shown: an edit list passes
/// over them. Only at the lesson's start.</param>
public readonly record struct CopyRun(long First, long Count, long At, bool Encoded, long LeadIn);
