using System.Globalization;
using System.Text;
using Wexel.Core.Encoding;

namespace Wexel.Media.Rendering;

/// <summary>Prints moving in and out as commands to the filters that cut out what is seen and bring it to the canvas: one line a frame.</summary>
internal static class MoveCommands
{
    internal static string View(PartPlan part, int output) => string.Create(CultureInfo.InvariantCulture, $"crop@view{output}x{part.Recording}");

    internal static string Fit(PartPlan part, int output) => string.Create(CultureInfo.InvariantCulture, $"scale@fit{output}x{part.Recording}");

    /// <param name="plan">The picture.</param>
    /// <param name="output">Which of the pictures that are made at once it is.</param>
    internal static string Print(PicturePlan plan, int output)
    {
        var text = new StringBuilder();
        foreach (var (part, move) in plan.Parts.SelectMany(part => part.Moves.Select(move => (part, move))))
        {
            var (view, fit, grid) = (View(part, output), Fit(part, output), plan.Timing.Grid);
            for (var frame = move.First + 1; frame <= move.Last; frame++)
            {
                var seen = move.At(frame);
                // Half a frame early, so that no rounding makes it late. The last command has the scaling look at what comes in anew.
                var at = Math.Max(0, (frame - 0.5) * grid.Denominator / grid.Numerator);
                text.Append(
                    CultureInfo.InvariantCulture,
                    $"{at:0.#####} {view} w {seen.Width}, {view} h {seen.Height}, {view} x {seen.X}, {view} y {seen.Y}, {fit} w {plan.Size.Width};\n"
                );
            }
        }

        return text.ToString();
    }
}
