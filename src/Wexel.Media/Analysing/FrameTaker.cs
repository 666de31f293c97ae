using System.Globalization;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Takes single frames of a recording as small pictures, some in a row at once, since finding the place costs most.</summary>
public static class FrameTaker
{
    /// <summary>How many frames are taken at once.</summary>
    public const int InARow = 30;

    /// <summary>The name of a frame's picture in the folder of its bundle.</summary>
    /// <param name="frame">The frame's number on the grid, from 0.</param>
    public static string Name(long frame) => string.Create(CultureInfo.InvariantCulture, $"{frame % InARow + 1:00}.jpg");

    /// <summary>Whether a file is one of a bundle's.</summary>
    /// <param name="name">The file's name.</param>
    public static bool IsName(string name) =>
        name.Length == 6 && char.IsAsciiDigit(name[0]) && char.IsAsciiDigit(name[1]) && name.EndsWith(".jpg", StringComparison.Ordinal);

    /// <summary>Takes a bundle; the folder is whole or not there. A recording that ends within it has fewer pictures.</summary>
    /// <param name="facts">What the probe found; the recording has a picture, and its own grid is counted.</param>
    /// <param name="path">The recording.</param>
    /// <param name="bundle">The bundle's number: frame by <see cref="InARow"/>.</param>
    /// <param name="folder">Where the pictures go.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The recording could not be read.</exception>
    public static async Task TakeAsync(RecordingFacts facts, string path, long bundle, string folder, CancellationToken cancel)
    {
        var grid = Reel.Of(facts).Grid;
        // A little before the first frame, so that rounding cannot pass over it; the grid rounds it back into its place.
        var from = Math.Max(0, grid.TimeOf(bundle * InARow).TotalSeconds - grid.TimeOf(1).TotalSeconds / 4);
        await WholeFolder.MakeAsync(folder, making =>
            MediaTool.RunAsync(
                [
                    "-ss",
                    from.ToString("0.######", CultureInfo.InvariantCulture),
                    .. MediaTool.SafeInput(path),
                    "-an",
                    "-map",
                    "0:V:0",
                    "-vf",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{PreparingFilters.Print(facts.Picture!.Preparation)}fps={grid}:start_time=0,scale={RecordingAnalyser.PictureWidth}:-2,"
                            + $"setsar=1,format=yuvj420p"
                    ),
                    "-frames:v",
                    InARow.ToString(CultureInfo.InvariantCulture),
                    "-q:v",
                    "4",
                    "-f",
                    "image2",
                    "file:" + Path.Combine(making.Replace("%", "%%", StringComparison.Ordinal), "%02d.jpg"),
                ],
                null,
                null,
                cancel
            )
        );
    }
}
