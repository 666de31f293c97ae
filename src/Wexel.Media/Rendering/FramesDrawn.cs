using System.Globalization;
using Wexel.Core.Encoding;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>
/// Prints how the frames are left out that repeat the one before: those of the screen as soon as they are read, so that nothing is done to them;
/// where a camera is seen, when it lies over them.
/// </summary>
internal static class FramesDrawn
{
    /// <summary>A block of 8 × 8 must differ by this in sum before a frame counts as drawn: a code value a pixel, coding noise.</summary>
    private const int BlockDifference = 64;

    /// <summary>How often, in frames, the branch of frames that must be made says that it has got so far; what is drawn waits for it that long.</summary>
    private const int SaysEvery = 5;

    /// <summary>The number of a frame, on either way.</summary>
    private const string Number = "floor(pts/2)";

    /// <summary>
    /// Leaves out the frames that are not made. What is drawn goes one way, through the comparison, and what must be made another way past
    /// it; then they are put in order. On the second way a frame is half a tick later, so that the two can be told apart: where both have
    /// the same frame, the first is taken.
    /// </summary>
    /// <param name="timing">What is made.</param>
    /// <param name="made">What must be made; empty where everything is.</param>
    /// <param name="which">The branch, for the names of its ways.</param>
    /// <param name="to">What is written behind it.</param>
    internal static IEnumerable<string> Print(FrameTiming timing, string made, string which, string to)
    {
        if (made.Length == 0)
        {
            yield return $"[timed{which}]null{to}";
            yield break;
        }

        var (tick, half) = (
            $"settb={Text(timing.Grid.Denominator)}/{Text(timing.Grid.Numerator)}",
            $"settb={Text(timing.Grid.Denominator)}/{Text(2L * timing.Grid.Numerator)}"
        );
        yield return $"[timed{which}]{half},split[all{which}][past{which}]";
        yield return $"[all{which}]mpdecimate=max={Text(timing.MostRepeatsLeftOut)}:hi={Text(BlockDifference * 2)}:lo={Text(BlockDifference)}"
            + $":frac=0[changed{which}]";
        yield return $"[past{which}]select='not(mod({Number},{Text(SaysEvery)}))+{made}',setpts=PTS+1[must{which}]";
        yield return $"[changed{which}][must{which}]interleave,{half},select='not(mod(pts,2))+{made}*not(eq(prev_selected_pts,pts-1))',"
            + $"setpts='PTS-mod(PTS,2)',{tick}{to}";
    }

    /// <summary>Whether frames are left out of what is drawn on the screen: not where a camera is seen in all of them.</summary>
    internal static bool LeavesOut(PicturePlan plan) =>
        plan.Timing.MostRepeatsLeftOut > 0 && !(plan.CameraSeen is [var run] && run.Holds(plan.Parts[0].Kept[0].At) && run.Holds(plan.Timing.LastFrame));

    /// <summary>Whether a frame of the screen goes on though it does not differ from the one before: those of a camera are compared when it lies over
    /// them.</summary>
    internal static string OnScreen(PicturePlan plan) => FilterText.Sum([.. Made(plan.Timing), .. plan.CameraSeen.Select(During)]);

    /// <summary>Whether a frame with cameras over it is made though it does not differ from the one before: where no camera is, it is known to.</summary>
    internal static string UnderCameras(PicturePlan plan)
    {
        var filmed = FilterText.Sum([.. plan.CameraSeen.Select(During)]);
        return FilterText.Sum([.. Made(plan.Timing), $"not({filmed})"]);
    }

    /// <summary>What must be made, whether or not it differs from the frame before.</summary>
    private static IEnumerable<string> Made(FrameTiming timing) =>
        [
            .. timing.KeyFrameEvery is { } every ? [$"not(mod({Number},{Text(every)}))"] : Array.Empty<string>(),
            .. timing.SectionFrames.Concat(timing.Changing).Append(timing.LastFrame).Distinct().Select(frame => $"eq({Number},{Text(frame)})"),
            .. timing.Moving.Select(During),
        ];

    private static string During(FrameRun run) => $"between({Number},{Text(run.First)},{Text(run.End - 1)})";

    private static string Text(long number) => number.ToString(CultureInfo.InvariantCulture);
}
