using System.Globalization;
using System.Text.RegularExpressions;
using Wexel.Core.Speech;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Speech;

/// <summary>Reads what an engine prints: a line a word, with its start and end in seconds and how sure it is; lines of plain words between them say the same
/// once more.</summary>
internal static partial class WordLines
{
    /// <summary>The most bytes that seconds of speech may come to.</summary>
    internal const int MostBytes = 1024 * 1024;

    /// <summary>Reads all that was printed.</summary>
    /// <param name="tool">Who printed it, for sentences.</param>
    /// <param name="printed">What was printed.</param>
    /// <exception cref="ToolFailedException">A line is neither a word with its times nor plain words.</exception>
    internal static IReadOnlyList<HeardWord> Read(string tool, string printed)
    {
        var words = new List<HeardWord>();
        foreach (var line in printed.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            if (Timed().Match(line) is { Success: true } timed)
                Take(words, timed, tool);
            else if (!Plain().IsMatch(line))
                throw Rubbish(tool, line);
        }

        return words;
    }

    private static void Take(List<HeardWord> words, Match timed, string tool)
    {
        var (start, end) = (Number(timed, "start"), Number(timed, "end"));
        var text = Variant().Replace(timed.Groups["word"].Value, "");
        // Silence, breath and noise stand in brackets.
        if (text is ['<' or '[' or '+', ..])
            return;
        if (end < start)
            throw Rubbish(tool, timed.Value);
        // Two words may touch; they do not overlap.
        var from = words.Count > 0 ? words[^1].Span.End : TimeSpan.Zero;
        var (begins, ends) = (TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));
        if (begins < from)
            (begins, ends) = (from, ends > from ? ends : from);
        words.Add(new HeardWord(new TimeRange(begins, ends), text, Math.Clamp(Number(timed, "sure"), 0, 1)));
    }

    private static ToolFailedException Rubbish(string tool, string line) =>
        new(tool, $"It printed “{(line.Length <= 60 ? line : line[..59] + "…")}”, which is no word with its times.");

    private static double Number(Match match, string group) => double.Parse(match.Groups[group].Value, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^(?<word>\S+) (?<start>\d{1,6}\.\d{1,6}) (?<end>\d{1,6}\.\d{1,6}) (?<sure>\d{1,3}\.\d{1,9})$", RegexOptions.NonBacktracking)]
    private static partial Regex Timed();

    [GeneratedRegex(@"^[\p{L}\p{M}\p{Nd}'’ .,_()-]+$", RegexOptions.NonBacktracking)]
    private static partial Regex Plain();

    /// <summary>Which of several ways to say it was heard: <c>to(2)</c>.</summary>
    [GeneratedRegex(@"\(\d+\)$")]
    private static partial Regex Variant();
}
