using System.Globalization;
using Wexel.Core.Kit;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Draws an SVG that was looked through (see <see cref="SvgCheck"/>) as a PNG.</summary>
public static class MarkMaker
{
    private const int Side = 1600;

    /// <summary>Makes a PNG with transparency, its longer side 1600 pixels.</summary>
    /// <exception cref="ToolFailedException">It could not be drawn.</exception>
    public static Task DrawAsync(string svgPath, string pngPath, CancellationToken cancel) => WholeFile.MakeAsync(pngPath, temporary =>
        {
            var side = Side.ToString(CultureInfo.InvariantCulture);
            return MediaTool.RunAsync(
                [
                    "-protocol_whitelist",
                    "file",
                    "-width",
                    side,
                    "-height",
                    side,
                    "-keep_ar",
                    "1",
                    "-f",
                    "svg_pipe",
                    "-i",
                    "file:" + svgPath,
                    "-frames:v",
                    "1",
                    "-c:v",
                    "png",
                    "-pix_fmt",
                    "rgba",
                    "-f",
                    "image2",
                    "-update",
                    "1",
                    "file:" + temporary,
                ],
                null,
                null,
                cancel,
                limits: ChildLimits.Picture
            );
        });
}
