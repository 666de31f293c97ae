using System.Text.RegularExpressions;
using Wexel.Core.Timing;

namespace Wexel.Core.Editing;

/// <summary>Cuts as a text: two times on each line.</summary>
public static partial class CutsText
{
    /// <summary>Reads lines such as <c>0:00 - 0:03.2</c> or <c>4:10 - end</c>; empty lines are passed over.</summary>
    /// <param name="text">The text.</param>
    /// <param name="length">The recording's length, which "end" stands for.</param>
    /// <returns>What could be read, and a problem for each line that could not.</returns>
    public static (IReadOnlyList<TimeRange> Cuts, IReadOnlyList<Problem> Problems) Read(string text, TimeSpan length)
    {
        var cuts = new List<TimeRange>();
        var problems = new List<Problem>();
        foreach (var (line, number) in text.ReplaceLineEndings("\n").Split('\n').Select((line, i) => (line.Trim(), i + 1)).Where(l => l.Item1.Length > 0))
        {
            var edges = Line().Match(line);
            var start = TimeCode.Parse(edges.Groups["start"].Value);
            var end = edges.Groups["end"].Value.Equals("end", StringComparison.OrdinalIgnoreCase) ? length : TimeCode.Parse(edges.Groups["end"].Value);
            if (start is not { } from || end is not { } to)
                problems.Add(
                    new Problem("cuts-line", $"Line {number} is not two times: “{Problem.Shown(line)}”. Write it as 1:05 - 1:12.5.", $"line {number}")
                );
            else if (to <= from)
                problems.Add(new Problem("cuts-backward", $"Line {number} ends before it starts: “{Problem.Shown(line)}”.", $"line {number}"));
            else if (from >= length)
                problems.Add(
                    new Problem(
                        "cuts-late",
                        $"Line {number} starts after the recording’s end at {TimeCode.Brief(length)}: “{Problem.Shown(line)}”.",
                        $"line {number}"
                    )
                );
            else
                cuts.Add(new TimeRange(from, to));
        }

        return (cuts, problems);
    }

    [GeneratedRegex(@"^(?<start>[\d:.,]+)(?:\s*(?:-|–|—|to|-->)\s*|\s+)(?<end>[\d:.,]+|end)$", RegexOptions.IgnoreCase | RegexOptions.NonBacktracking)]
    private static partial Regex Line();
}
