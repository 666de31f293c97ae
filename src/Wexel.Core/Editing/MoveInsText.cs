using System.Globalization;
using System.Text.RegularExpressions;

namespace Wexel.Core.Editing;

/// <summary>Move-ins as a text: two times and a part on each line.</summary>
public static partial class MoveInsText
{
    /// <summary>
    /// Reads lines such as <c>1:05 - 1:12.5 at 20,30 50x40</c>: the part's left, top, width and height in per cent of the recording's
    /// picture. Empty lines are passed over.
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="length">The recording's length, which "end" stands for.</param>
    /// <returns>What could be read, and a problem for each line that could not.</returns>
    public static (IReadOnlyList<MoveIn> MoveIns, IReadOnlyList<Problem> Problems) Read(string text, TimeSpan length)
    {
        var moveIns = new List<MoveIn>();
        var problems = new List<Problem>();
        foreach (var (line, number) in text.ReplaceLineEndings("\n").Split('\n').Select((line, i) => (line.Trim(), i + 1)).Where(l => l.Item1.Length > 0))
        {
            var parts = Line().Match(line);
            double? Share(string group) =>
                double.TryParse(parts.Groups[group].Value, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var share) ? share / 100 : null;
            if ((Share("x"), Share("y"), Share("w"), Share("h")) is not ({ } x, { } y, { } width, { } height))
            {
                problems.Add(
                    new Problem(
                        "move-ins-line",
                        $"Line {number} is not a stretch and a part: “{Problem.Shown(line)}”. Write it as 1:05 - 1:12.5 at 20,30 50x40.",
                        $"line {number}"
                    )
                );
                continue;
            }

            var (spans, wrong) = CutsText.Read(parts.Groups["span"].Value, length);
            var part = new PicturePart(x, y, width, height);
            if (part.X + part.Width > 1.0001 || part.Y + part.Height > 1.0001)
            {
                problems.Add(
                    new Problem(
                        "move-ins-beyond",
                        $"Line {number} goes beyond the picture: “{Problem.Shown(line)}”. From the left and across together, and from the top and "
                            + $"down, are at most 100 per cent.",
                        $"line {number}"
                    )
                );
                continue;
            }

            problems.AddRange(
                wrong.Select(p => p with { Sentence = p.Sentence.Replace("Line 1", $"Line {number}", StringComparison.Ordinal), Field = $"line {number}" })
            );
            moveIns.AddRange(spans.Select(span => new MoveIn($"m{number}", span, part, MoveIn.UsualEase)));
        }

        return (moveIns, problems);
    }

    [GeneratedRegex(
        @"^(?<span>.+?)\s+at\s+(?<x>[\d.]+),\s*(?<y>[\d.]+)\s+(?<w>[\d.]+)\s*[x×]\s*(?<h>[\d.]+)$",
        RegexOptions.IgnoreCase | RegexOptions.NonBacktracking
    )]
    private static partial Regex Line();
}
