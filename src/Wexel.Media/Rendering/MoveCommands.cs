using System.Globalization;
using System.Text;
using Wexel.Core.Encoding;

namespace Wexel.Media.Rendering;

/// <summary>Prints moving in and out as commands to the filters that cut out what is seen and bring it to the canvas: one line a frame.</summary>
internal static class MoveCommands
{
    internal const string View = "crop@view";
    internal const string Fit = "scale@fit";

    internal static string Of(PicturePlan picture)
    {
        var text = new StringBuilder();
        foreach (var move in picture.Moves)
        {
            for (var frame = move.First + 1; frame <= move.Last; frame++)
            {
                var seen = move.At(frame);
                // Half a frame early, so that no rounding makes it late. The last command has the scaling look at what comes in anew.
                var at = Math.Max(0, (frame - 0.5) * picture.Timing.Grid.Denominator / picture.Timing.Grid.Numerator);
                text.Append(CultureInfo.InvariantCulture, $"{at:0.#####} {View} w {seen.Width}, {View} h {seen.Height}, {View} x {seen.X}, {View} y {seen.Y}, {Fit} w {picture.Size.Width};\n");
            }
        }

        return text.ToString();
    }
}
