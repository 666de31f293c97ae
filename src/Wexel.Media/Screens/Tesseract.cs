using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Screens;
using Wexel.Media.Tools;

namespace Wexel.Media.Screens;

/// <summary>Debian's tesseract-ocr, with the languages that are installed.</summary>
/// <param name="tool">The program.</param>
/// <param name="folder">Where its languages lie.</param>
public sealed class Tesseract(string tool = "tesseract", string folder = "/usr/share/tesseract-ocr/5/tessdata") : IScreenReader
{
    private const int MostBytes = 8 * 1024 * 1024;

    public string Name => "tesseract";

    public Problem? Missing(string language) =>
        !MediaTool.IsInstalled(tool)
            ? new Problem(
                "screens-no-tesseract",
                "This server has no tesseract, so nothing on the screen is read; whoever looks after it installs tesseract-ocr."
            )
        : File.Exists(Path.Combine(folder, $"{LanguageCodes.ThreeLetters(language)}.traineddata")) ? null
        : new Problem(
            "screens-no-language",
            $"Tesseract does not know the language “{language}” here, so nothing on the screen is read; whoever looks after this server installs "
                + $"tesseract-ocr-{LanguageCodes.ThreeLetters(language)}."
        );

    public async Task<IReadOnlyList<ScreenLine>> ReadAsync(string picture, int larger, string language, ChildLimits limits, CancellationToken cancel)
    {
        // 11: text wherever it stands, in no order; screens have no columns of text. One thread, since it only leaves others less.
        var printed = await MediaTool.OutputAsync(
            "env",
            ["OMP_THREAD_LIMIT=1", tool, picture, "stdout", "-l", LanguageCodes.ThreeLetters(language), "--psm", "11", "tsv"],
            MostBytes,
            limits,
            cancel
        );
        return TesseractTable.Read(tool, printed, larger);
    }
}
