using System.Globalization;
using Wexel.Core.Editing;
using Wexel.Core.Recordings;

namespace Wexel.Cli;

/// <summary>A canvas as it is written on a command line: <c>1280x720</c>, and <c>fill</c> behind it where the recording is to fill it.</summary>
internal static class CanvasText
{
    /// <exception cref="UnusableInputException">It is written otherwise, or no such canvas can be made.</exception>
    internal static Canvas? Read(string? text)
    {
        if (text is null)
            return null;
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (
            words is [var size, ..]
            && words.Length <= 2
            && size.Split('x') is [var width, var height]
            && (words.Length == 1 || words[1] is "whole" or "fill")
            && int.TryParse(width, NumberStyles.None, CultureInfo.InvariantCulture, out var across)
            && int.TryParse(height, NumberStyles.None, CultureInfo.InvariantCulture, out var down)
        )
        {
            var canvas = new Canvas(new PictureSize(across, down), words is [_, "fill"] ? FitMode.Fill : FitMode.Whole, PicturePart.All);
            if (canvas.Within() == canvas)
                return canvas;
            throw new UnusableInputException(
                $"A canvas of {across}x{down} cannot be made; its sides must be even, {Canvas.ShortestSide} to {CanvasFit.LongestSide} pixels. The "
                    + $"nearest is {canvas.Within().Size!.Value.Width}x{canvas.Within().Size!.Value.Height}."
            );
        }

        throw new UnusableInputException($"“{text}” is no canvas; write it such as 1280x720, or \"1280x720 fill\".");
    }
}
