using System.Globalization;
using Wexel.Core.Captions;
using Wexel.Core.Feeds;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Draws the artwork of a feed: a script for libass, which breaks lines and shapes any writing, on a plain ground.</summary>
public static class ArtworkMaker
{
    /// <summary>The maker's name and version for the artwork's key.</summary>
    public const string Maker = "artwork/2";

    /// <summary>Makes a JPEG of <see cref="ArtworkRules.Largest"/> pixels square.</summary>
    /// <param name="plan">What stands on it.</param>
    /// <param name="fontsFolder">The folder with the house's typeface.</param>
    /// <param name="markPath">The house's mark, a JPEG or PNG, or null.</param>
    /// <param name="outputPath">Where it goes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The picture could not be drawn.</exception>
    public static Task MakeAsync(ArtworkPlan plan, string fontsFolder, string? markPath, string outputPath, CancellationToken cancel) =>
        WholeFile.MakeAsync(outputPath, async temporary =>
        {
            // The filter's own argument gives many characters a meaning, so the script and the fonts lie where a plain name reaches them.
            var work = HalfMade.Folder();
            try
            {
                await File.WriteAllTextAsync(Path.Combine(work, "script.ass"), Script(plan), cancel);
                foreach (var font in Directory.EnumerateFiles(fontsFolder))
                    File.Copy(font, Path.Combine(work, Path.GetFileName(font)));
                var size = ArtworkRules.Largest.ToString(CultureInfo.InvariantCulture);
                var drawn = $"ass={work}/script.ass:fontsdir={work}";
                // The mark stands in the lower right corner, within a box of 900 × 600 pixels.
                string[] filters = markPath is null
                    ? ["-vf", drawn]
                    :
                    [
                        .. MediaTool.OwnInput(markPath),
                        "-filter_complex",
                        $"[0:v]{drawn}[page];[1:v]format=rgba,scale=900:600:force_original_aspect_ratio=decrease:flags=lanczos[mark];"
                            + $"[page][mark]overlay=main_w-overlay_w-260:main_h-overlay_h-280:format=rgb",
                    ];
                await MediaTool.RunAsync(
                    [
                        "-f",
                        "lavfi",
                        "-i",
                        $"color=c=0x{plan.Colour[1..]}:s={size}x{size}:r=1:d=1,format=rgb24",
                        .. filters,
                        "-frames:v",
                        "1",
                        "-q:v",
                        "2",
                        "-f",
                        "image2",
                        "-update",
                        "1",
                        "file:" + temporary,
                    ],
                    null,
                    null,
                    cancel
                );
            }
            finally
            {
                Directory.Delete(work, recursive: true);
            }
        });

    private static string Script(ArtworkPlan plan)
    {
        var (size, text) = (ArtworkRules.Largest, plan.TextColour);
        // Colours are written blue first.
        var colour = $"&H00{text[5..7]}{text[3..5]}{text[1..3]}";
        string Style(string name, int height, int alignment, int vertical) =>
            string.Create(
                CultureInfo.InvariantCulture,
                $"Style: {name},{BurntCaptions.Typeface},{height},{colour},{colour},{colour},{colour},0,0,0,0,100,100,0,0,1,0,0,{alignment},300,"
                    + $"260,{vertical},1"
            );
        string Line(string style, string words) => $"Dialogue: 0,0:00:00.00,0:00:10.00,{style},,0,0,0,,{words}";
        return string.Join(
            '\n',
            "[Script Info]",
            "ScriptType: v4.00+",
            $"PlayResX: {size}",
            $"PlayResY: {size}",
            "WrapStyle: 0",
            "",
            "[V4+ Styles]",
            AssText.StyleColumns,
            Style("Title", plan.TitleSize, 7, 420),
            Style("House", 190, 1, 280),
            "",
            "[Events]",
            AssText.EventColumns,
            Line("Title", AssText.Escape(plan.Title.ReplaceLineEndings(" "))),
            Line("House", AssText.Escape(plan.House.ReplaceLineEndings(" "))),
            Line("House", @"{\an7\pos(300,300)\p1}m 0 0 l 700 0 l 700 36 l 0 36"),
            ""
        );
    }
}
