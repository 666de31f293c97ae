using System.Globalization;
using System.Text.RegularExpressions;
using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>What the lines of a caption say.</summary>
/// <param name="Text">Plain.</param>
/// <param name="Markup">With tags, or null.</param>
/// <param name="AtTop">Whether they ask for the top.</param>
internal readonly record struct CueText(string Text, string? Markup, bool AtTop = false);

/// <summary>What WebVTT and SubRip have in common: blocks parted by empty lines, each with a line of two times and an arrow.</summary>
internal static class TimedBlocks
{
    internal static CaptionReading Read(string[] lines, int start, Regex arrow, bool withIds, Func<string, CueText> read)
    {
        var cues = new List<Cue>();
        var problems = new CaptionProblems();
        var index = start;
        while (index < lines.Length)
        {
            if (cues.Count == CaptionFile.MostCues)
            {
                problems.Add(
                    new Problem("captions-too-many", $"Nothing from line {index + 1} on was read: a lesson has at most 50,000 captions.", $"line {index + 1}")
                );
                break;
            }

            while (index < lines.Length && string.IsNullOrWhiteSpace(lines[index]))
                index++;
            var first = index;
            while (index < lines.Length && !string.IsNullOrWhiteSpace(lines[index]))
                index++;
            ReadBlock(lines[first..index], first + 1, arrow, withIds, read, cues, problems);
        }

        return new CaptionReading([.. cues.OrderBy(c => c.Span.Start)], problems.All);
    }

    private static void ReadBlock(
        string[] block,
        int lineNumber,
        Regex arrow,
        bool withIds,
        Func<string, CueText> read,
        List<Cue> cues,
        CaptionProblems problems
    )
    {
        var at = Array.FindIndex(block, 0, Math.Min(2, block.Length), line => line.Contains("-->", StringComparison.Ordinal));
        if (at < 0)
            return;
        var number = lineNumber + at;
        var place = string.Create(CultureInfo.InvariantCulture, $"line {number}");
        var match = arrow.Match(block[at]);
        var from = match.Success ? Time(match.Groups["from"].Value) : null;
        var to = match.Success ? Time(match.Groups["to"].Value) : null;
        if (from is null || to is null)
            problems.Add(
                new Problem(
                    "captions-bad-time",
                    $"Line {number}: “{Problem.Shown(block[at].Trim())}” is not a pair of times; this caption was left out.",
                    place
                )
            );
        else if (to <= from)
            problems.Add(new Problem("captions-backward", $"Line {number}: the caption ends before it starts; it was left out.", place));
        else
        {
            var tagged = string.Join('\n', block[(at + 1)..].Select(line => line.Trim()));
            if (tagged.Length > CaptionFile.LongestCue)
            {
                problems.Add(new Problem("captions-too-long", $"Line {number}: the caption has more than 10,000 characters; it was left out.", place));
                return;
            }

            var (text, markup, atTop) = read(tagged);
            if (text.Length > 0)
                cues.Add(
                    new Cue(
                        new TimeRange(from.Value, to.Value),
                        text,
                        markup,
                        atTop || IsAtTop(match.Groups["settings"].Value),
                        withIds && at == 1 ? block[0].Trim() : ""
                    )
                );
        }
    }

    /// <summary>Whether settings place a caption in the upper half: lines count from the top, and from the bottom where they are negative (W3C WebVTT,
    /// section 4.4).</summary>
    private static bool IsAtTop(string settings)
    {
        var line = settings
            .Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
            .FirstOrDefault(s => s.StartsWith("line:", StringComparison.Ordinal))
            ?["line:".Length..].Split(',')[0];
        return line is not null
            && double.TryParse(line.TrimEnd('%'), CultureInfo.InvariantCulture, out var value)
            && value >= 0
            && value < (line.EndsWith('%') ? 50 : UpperLines);
    }

    /// <summary>A picture has room for about fifteen lines of captions (section 7.4: 5vh a line, with space between).</summary>
    private const int UpperLines = 7;

    private static TimeSpan? Time(string text)
    {
        var parts = text.Replace(',', '.').Split(':');
        var seconds = decimal.Parse(parts[^1], CultureInfo.InvariantCulture);
        var minutes = int.Parse(parts[^2], CultureInfo.InvariantCulture);
        var hours = parts.Length == 3 ? int.Parse(parts[0], CultureInfo.InvariantCulture) : 0;
        return minutes > 59 || seconds >= 60 || hours > 9999 ? null : TimeSpan.FromMilliseconds((double)(((((hours * 60L) + minutes) * 60) + seconds) * 1000));
    }
}
