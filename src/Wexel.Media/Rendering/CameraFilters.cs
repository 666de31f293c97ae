using System.Globalization;
using Wexel.Core.Cameras;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Prints how cameras are read and laid over the picture.</summary>
internal static class CameraFilters
{
    /// <summary>So much is read before the first frame that is seen: a camera's own frames may come unevenly.</summary>
    private static readonly TimeSpan Before = TimeSpan.FromSeconds(2);

    /// <summary>The input of a camera: from a little before it is seen first to a little after it is seen last.</summary>
    internal static IEnumerable<string> Input(CameraPlan camera, FrameRate grid, string path)
    {
        var (from, last) = (From(camera, grid), camera.Clock.ToCamera(grid.TimeOf(camera.Kept.Max(k => k.End))));
        return [.. from > TimeSpan.Zero ? ["-ss", Seconds(from)] : Array.Empty<string>(), "-t", Seconds(last - from + Before), .. MediaTool.SafeInput(path)];
    }

    /// <summary>A camera's frames with the lesson's times: those in which it is seen.</summary>
    internal static string Times(CameraPlan camera, FrameRate grid)
    {
        var from = From(camera, grid);
        var begins = camera.Clock.ToScreen(from);
        // Frames are counted from the one at which reading begins, so that none before it is made up.
        var first = Math.Max(0, grid.FrameAt(begins));
        var shift = (begins - grid.TimeOf(first)).TotalSeconds;
        var rate = 1 + (camera.Clock.Drift / 1e6);
        List<KeptStretch> kept = [.. camera.Kept.Select(k => k with { First = k.First - first })];
        return string.Join(
            ',',
            [
                "settb=1/1000000",
                string.Create(CultureInfo.InvariantCulture, $"setpts='round(PTS/{rate:R}+{shift * 1e6:0})'"),
                $"fps={grid}:start_time=0",
                "tpad=stop=-1:stop_mode=clone",
                $"trim=end_frame={Text(kept.Max(k => k.End))}",
                $"select='{FilterText.Sum([.. kept.Select(k => $"between(n,{Text(k.First)},{Text(k.End - 1)})")])}'",
                $"setpts='PTS+{FilterText.Sum([.. kept.Select(k => $"between(PTS,{Text(k.First)},{Text(k.End - 1)})*{Text(k.At - k.First)}")])}'",
            ]
        );
    }

    /// <summary>One view of a camera as it lies on the picture.</summary>
    /// <param name="view">How it is seen.</param>
    /// <param name="scale">What scales it, in ffmpeg's words.</param>
    /// <param name="mask">Where the mask of its round corners lies; null for square ones.</param>
    /// <param name="from">The label of its frames.</param>
    /// <param name="label">What its own labels are told apart by.</param>
    internal static IEnumerable<string> View(CameraView view, string scale, string? mask, string from, string label)
    {
        var seen = $"select='{FilterText.Sum([.. view.Places.Select(p => $"between(pts,{Text(p.Run.First)},{Text(p.Run.End - 1)})")])}'";
        var crop = $"crop={Text(view.From.Width)}:{Text(view.From.Height)}:{Text(view.From.X)}:{Text(view.From.Y)}:exact=1";
        if (mask is null)
        {
            yield return $"{from}{seen},{crop},{scale},setsar=1,format=yuv420p[camera{label}]";
            yield break;
        }

        yield return $"movie={FilterText.Escape(mask)},format=gray[round{label}]";
        yield return $"{from}{seen},{crop},{scale},setsar=1,format=yuva420p[square{label}]";
        yield return $"[square{label}][round{label}]alphamerge[camera{label}]";
    }

    /// <summary>Lays a view over the picture while it is seen.</summary>
    internal static string Over(CameraView view, FrameRate grid)
    {
        // From half a frame before, so that no rounding makes it late.
        string At(long frame) => ((frame - 0.5) * grid.Denominator / grid.Numerator).ToString("0.######", CultureInfo.InvariantCulture);
        string During(CameraPlace place) => $"between(t,{At(place.Run.First)},{At(place.Run.End)})";
        string Where(Func<CameraPlace, int> side) =>
            view.Places.Select(side).Distinct().Count() == 1
                ? Text(side(view.Places[0]))
                : $"'{FilterText.Sum([.. view.Places.Select(p => $"{During(p)}*{Text(side(p))}")])}'";
        return $"overlay={Where(p => p.X)}:{Where(p => p.Y)}:format=yuv420:enable='{FilterText.Sum([.. view.Places.Select(During)])}'";
    }

    /// <summary>A mask of a view, white where it is seen, as a portable grey map.</summary>
    internal static async Task WriteMaskAsync(CameraView view, string path, CancellationToken cancel)
    {
        var header = System.Text.Encoding.ASCII.GetBytes(string.Create(CultureInfo.InvariantCulture, $"P5\n{view.Size.Width} {view.Size.Height}\n255\n"));
        await File.WriteAllBytesAsync(path, [.. header, .. RoundCorners.Mask(view.Size, view.Radius)], cancel);
    }

    private static TimeSpan From(CameraPlan camera, FrameRate grid)
    {
        var from = camera.Clock.ToCamera(grid.TimeOf(camera.Kept.Min(k => k.First))) - Before;
        return from > TimeSpan.Zero ? from : TimeSpan.Zero;
    }

    private static string Seconds(TimeSpan time) => time.TotalSeconds.ToString("0.######", CultureInfo.InvariantCulture);

    private static string Text(long number) => number.ToString(CultureInfo.InvariantCulture);
}
