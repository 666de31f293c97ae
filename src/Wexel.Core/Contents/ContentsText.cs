using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Wexel.Core.Timing;

namespace Wexel.Core.Contents;

/// <summary>A line of pasted contents.</summary>
/// <param name="At">Where the section starts.</param>
/// <param name="Title">Its title.</param>
/// <param name="Nested">Whether the line was set in from the left.</param>
public sealed record ContentsLine(TimeSpan At, string Title, bool Nested);

/// <summary>What was read from a pasted text: lines, and a problem for each line that could not be read.</summary>
/// <param name="Lines">In the order of the text.</param>
/// <param name="Problems">Each names its line in <see cref="Problem.Field"/>, as <c>line 3</c>.</param>
public sealed record ContentsReading(IReadOnlyList<ContentsLine> Lines, IReadOnlyList<Problem> Problems);

/// <summary>A table of contents as lines of time and title, as people keep it in mails and notes.</summary>
public static partial class ContentsText
{
    /// <summary>The longest text that is read, in characters: contents of many hours are shorter.</summary>
    public const int LongestText = 1_000_000;

    /// <summary>The most sections that are read.</summary>
    public const int MostSections = 2_000;

    /// <summary>
    /// Reads one section a line: a time, then a title, or a title, then a time; the time may stand in brackets and a dash, a colon,
    /// a bar or tabs may stand between. Empty lines are passed over. A line set in by a tab or two spaces more than the first is nested.
    /// Of a text that is longer than <see cref="LongestText"/> nothing is read, and what stands behind <see cref="MostSections"/> or
    /// <see cref="Problem.Most"/> problems is not. Takes time in proportion to the text's length.
    /// </summary>
    public static ContentsReading Read(string text)
    {
        if (text.Length > LongestText)
            return new ContentsReading(
                [],
                [new Problem("contents-too-long", $"The text has more than a million characters, so it is no table of contents; paste the contents alone.")]
            );
        var lines = new List<ContentsLine>();
        var problems = new List<Problem>();
        var margin = -1;
        var number = 0;
        foreach (var raw in text.TrimStart('\uFEFF').ReplaceLineEndings("\n").Split('\n'))
        {
            number++;
            if (lines.Count == MostSections || problems.Count == Problem.Most)
            {
                problems.Add(
                    new Problem(
                        "contents-too-many",
                        $"Nothing from line {number} on was read: "
                            + $"{(lines.Count == MostSections ? $"a lesson has at most {MostSections} sections" : "too much before it cannot be read")}.",
                        $"line {number}"
                    )
                );
                break;
            }

            var line = raw.Replace("\t", "    ", StringComparison.Ordinal).TrimEnd();
            if (line.Trim().Length == 0)
                continue;
            var indent = line.Length - line.TrimStart().Length;
            var (time, title) = Split(line.Trim());
            var place = string.Create(CultureInfo.InvariantCulture, $"line {number}");
            if (time is null)
                problems.Add(
                    new Problem("contents-no-time", $"Line {number}, “{Problem.Shown(line.Trim())}”: there is no time such as 1:05 at its start or end.", place)
                );
            else if (TimeCode.Parse(time) is not { } at)
                problems.Add(
                    new Problem(
                        "contents-bad-time",
                        $"Line {number}: “{Problem.Shown(time)}” is not a time; write minutes:seconds or hours:minutes:seconds.",
                        place
                    )
                );
            else if (title.Length == 0)
                problems.Add(new Problem("contents-no-title", $"Line {number}: there is a time but no title after it.", place));
            else
            {
                if (margin < 0)
                    margin = indent;
                lines.Add(new ContentsLine(at, SectionRules.OneLine(title), indent >= margin + 2));
            }
        }

        return new ContentsReading(lines, problems);
    }

    /// <summary>Prints what <see cref="Read"/> reads: one line a section, nested ones set in by four spaces.</summary>
    public static string Write(IEnumerable<Section> sections)
    {
        var text = new StringBuilder();
        foreach (var section in sections)
        {
            var at =
                section.At.Milliseconds == 0
                    ? TimeCode.Brief(section.At)
                    : string.Create(CultureInfo.InvariantCulture, $"{TimeCode.Brief(section.At)}.{section.At.Milliseconds:000}");
            text.Append(section.Nested ? "    " : "").Append(at).Append(' ').Append(section.Title).Append('\n');
        }

        return text.ToString();
    }

    private static (string? Time, string Title) Split(string line)
    {
        var front = TimeInFront().Match(line);
        if (front.Success)
            return (front.Groups["t"].Value, front.Groups["title"].Value.Trim());
        var back = TimeBehind().Match(line);
        return back.Success ? (back.Groups["t"].Value, back.Groups["title"].Value.Trim()) : (null, line);
    }

    [GeneratedRegex(@"^(?:[-–—•*]\s*)?[\[(<]?\s*(?<t>\d+(?::\d+){1,3}(?:[.,]\d+)?)\s*[\])>]?\s*(?:[-–—:|]+\s*)?(?<title>.*)$", RegexOptions.NonBacktracking)]
    private static partial Regex TimeInFront();

    [GeneratedRegex(@"^(?<title>.+?)\s*(?:[-–—:|]+\s*)?[\[(<]?\s*(?<t>\d+(?::\d+){1,3}(?:[.,]\d+)?)\s*[\])>]?$", RegexOptions.NonBacktracking)]
    private static partial Regex TimeBehind();
}
