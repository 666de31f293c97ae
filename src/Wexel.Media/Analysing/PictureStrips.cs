using System.Globalization;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Puts the pictures of a run sheet many to a file, one below the other: a page that scrolls asks seldom, and what comes next is there.</summary>
public static class PictureStrips
{
    /// <summary>How many pictures stand in a file; the last file is filled up with black.</summary>
    public const int Pictures = 20;

    /// <summary>The name of a file in the folder.</summary>
    /// <param name="number">Which one, from 0.</param>
    public static string Name(long number) => string.Create(CultureInfo.InvariantCulture, $"strip-{number:0000}.jpg");

    /// <summary>Makes all files of a recording; the folder is whole or not there.</summary>
    /// <param name="moments">The moments whose pictures were kept, in order; one or more.</param>
    /// <param name="pictureFolder">Where those lie, named by <see cref="RecordingAnalyser.PictureName"/>.</param>
    /// <param name="folder">Where the files go.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">A picture cannot be read.</exception>
    public static Task MakeAsync(IReadOnlyList<TimeSpan> moments, string pictureFolder, string folder, CancellationToken cancel) =>
        WholeFolder.MakeAsync(folder, async making =>
        {
            var list = Path.Combine(making, "pictures.txt");
            // In a list, a name stands between quotes; these names are numbers, and what leads to them may be anything.
            await File.WriteAllTextAsync(
                list,
                "ffconcat version 1.0\n"
                    + string.Concat(
                        moments.Select(m =>
                            $"file '{Path.Combine(pictureFolder, RecordingAnalyser.PictureName(m)).Replace("'", "'\\''", StringComparison.Ordinal)}'\n"
                        )
                    ),
                cancel
            );
            // Pictures have no times; the files are numbered 25 a second, since an encoder takes no two of the same time.
            await MediaTool.RunAsync(
                [
                    "-f",
                    "concat",
                    "-safe",
                    "0",
                    .. MediaTool.OwnInput(list),
                    "-vf",
                    string.Create(CultureInfo.InvariantCulture, $"tile=1x{Pictures},setpts=N/(25*TB)"),
                    "-r",
                    "25",
                    "-fps_mode",
                    "passthrough",
                    "-q:v",
                    "4",
                    "-start_number",
                    "0",
                    "-f",
                    "image2",
                    "file:" + Path.Combine(making.Replace("%", "%%", StringComparison.Ordinal), "strip-%04d.jpg"),
                ],
                null,
                null,
                cancel
            );
            File.Delete(list);
        });
}
