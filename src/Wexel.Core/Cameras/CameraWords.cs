using System.Globalization;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Cameras;

/// <summary>What somebody should know of cameras, in sentences.</summary>
public static class CameraWords
{
    /// <summary>Less than this is told by no one, in millionths of the time.</summary>
    private const double HardlyDrift = 5;

    /// <summary>What was found by their sound.</summary>
    public static string Found(FoundClock found)
    {
        var (starts, drift) = (found.Clock.Starts, found.Clock.Drift);
        var begins =
            starts.Duration() < TimeSpan.FromMilliseconds(1) ? "The camera starts with the screen"
            : starts < TimeSpan.Zero ? $"The camera started {Seconds(-starts)} before the screen"
            : $"The camera starts {Seconds(starts)} after the screen";
        var apart =
            Math.Abs(drift) < HardlyDrift
                ? ""
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"; its clock runs {(drift > 0 ? "fast" : "slow")} by {Math.Abs(drift) * 3.6 / 1000:0.00} s an hour, which is corrected"
                );
        return $"{begins}{apart}. Their sounds agree at {found.Agreeing} of {found.Places} places.";
    }

    /// <summary>Where a camera does not reach all of its screen's recording, and where its picture is soft.</summary>
    /// <param name="camera">The camera.</param>
    /// <param name="reel">The recordings of the screen.</param>
    public static IReadOnlyList<string> Notes(LaidCamera camera, Reel reel)
    {
        var notes = new List<string>();
        var (span, clock) = (reel.SpanOf(camera.Part), camera.Take.Clock.Within());
        var (from, until) = (clock.Starts, clock.ToScreen(camera.Facts.Length));
        if (until <= TimeSpan.Zero || from >= span.Length)
            return ["The camera ran at another time than the screen: nothing of it is seen."];
        if (from > TimeSpan.FromSeconds(0.1))
            notes.Add($"The camera starts {Seconds(from)} after the screen; until then it is not seen.");
        if (span.Length - until > TimeSpan.FromSeconds(0.1))
            notes.Add($"The camera ends {Seconds(span.Length - until)} before the screen does; from there on it is not seen.");
        return notes;
    }

    private static string Seconds(TimeSpan time) =>
        time < TimeSpan.FromSeconds(100) ? time.TotalSeconds.ToString("0.00", CultureInfo.InvariantCulture) + " s" : TimeCode.Brief(time);
}
