using System.Text;
using System.Text.RegularExpressions;
using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>
/// Captions as plain text with times: a line that begins with one, what is said behind it or on the lines below, until the next. A long stretch is
/// parted into captions, each as long as its share of the words.
/// </summary>
public static partial class TimedText
{
    /// <summary>How fast is spoken where nothing follows, in characters a second (common practice, no source).</summary>
    private const int Usual = 15;

    /// <summary>Whether a text is one: it begins with a time, and has no arrow, by which formats of captions tell when a caption ends.</summary>
    /// <param name="text">A whole file.</param>
    public static bool Is(string text) =>
        !text.Contains("-->", StringComparison.Ordinal)
        && text.Split('\n').Select(l => l.Trim()).FirstOrDefault(l => l.Length > 0) is { } first
        && Line().IsMatch(first);

    /// <summary>Reads a text; a time that lies before the one above it becomes a problem, and its line stands where it says.</summary>
    /// <param name="text">A whole file.</param>
    public static CaptionReading Read(string text)
    {
        var (stretches, problems) = (new List<(TimeSpan At, StringBuilder Words)>(), new CaptionProblems());
        foreach (var (index, line) in text.Split('\n').Index())
        {
            var timed = Line().Match(line.Trim());
            if (timed.Success && TimeCode.Parse(timed.Groups["time"].Value) is { } at)
            {
                if (stretches.Count > 0 && at < stretches[^1].At)
                    problems.Add(
                        new Problem(
                            "captions-unordered",
                            $"Line {index + 1} is at {TimeCode.Brief(at)}, before the line above it; it stands where it says.",
                            $"line {index + 1}"
                        )
                    );
                stretches.Add((at, new StringBuilder(timed.Groups["words"].Value)));
            }
            else if (stretches.Count > 0 && line.Trim().Length > 0)
            {
                stretches[^1].Words.Append(' ').Append(line.Trim());
            }
        }

        var ordered = stretches.OrderBy(s => s.At).Select(s => (s.At, Pieces: Pieces(s.Words.ToString()))).ToList();
        var cues = new List<Cue>();
        foreach (var (index, (at, pieces)) in ordered.Index())
        {
            var length = TimeSpan.FromSeconds((double)pieces.Sum(p => p.Length) / Usual);
            var until = index + 1 < ordered.Count ? ordered[index + 1].At : TimeSpan.MaxValue;
            if (until - at < length)
                length = until - at;
            // Two lines at one moment: the first one has no time to be shown.
            if (length > TimeSpan.Zero)
                cues.AddRange(Spread(pieces, at, length));
            else if (pieces.Count > 0)
                problems.Add(new Problem("captions-no-length", $"Two lines are at {TimeCode.Brief(at)}; the first one is left out.", TimeCode.Brief(at)));
        }

        return new CaptionReading([.. cues.Take(CaptionFile.MostCues)], problems.All);
    }

    private static IEnumerable<Cue> Spread(IReadOnlyList<string> pieces, TimeSpan at, TimeSpan length)
    {
        var (whole, so) = (pieces.Sum(p => p.Length), 0);
        foreach (var piece in pieces)
        {
            var from = at + (length * so / whole);
            so += piece.Length;
            yield return new Cue(new TimeRange(Millisecond(from), Millisecond(at + (length * so / whole))), LineBreaks.Lines(piece.Split(' ')));
        }
    }

    private static TimeSpan Millisecond(TimeSpan time) => TimeSpan.FromMilliseconds(Math.Round(time.TotalMilliseconds));

    /// <summary>Words in pieces that fit into a caption; a sentence ends one that is half full.</summary>
    private static List<string> Pieces(string text)
    {
        const int Most = CaptionGuidelines.MostLines * CaptionGuidelines.LineLength;
        var pieces = new List<string>();
        var open = false;
        foreach (var word in text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries))
        {
            if (open && pieces[^1].Length + 1 + word.Length <= Most - 2)
                pieces[^1] += " " + word;
            else
                pieces.Add(word);
            open = pieces[^1].Length < Most / 2 || word is not [.., '.' or '?' or '!' or '…'];
        }

        return pieces;
    }

    [GeneratedRegex(@"^[\[(]?(?<time>\d{1,3}:\d{2}(:\d{2})?([.,]\d{1,3})?)[\])]?[\s:–—-]*\s(?<words>\S.*)$", RegexOptions.NonBacktracking)]
    private static partial Regex Line();
}
