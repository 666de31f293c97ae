using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Core.Speech;

/// <summary>Makes captions of written words, by the guidelines. Of all ways to part them the best as a whole is taken, by dynamic programming.</summary>
public static class CueMaker
{
    /// <summary>A pause over which no caption goes.</summary>
    private static readonly TimeSpan ParagraphPause = TimeSpan.FromSeconds(1.5);

    /// <summary>How long a caption stays after its last word, where there is time: the eye is slower than the ear.</summary>
    private static readonly TimeSpan Lingers = TimeSpan.FromSeconds(0.4);

    /// <summary>What one more caption costs, so that there are few.</summary>
    private const double EachCue = 10;

    /// <summary>What each character a second over the guideline costs.</summary>
    private const double EachTooFast = 6;

    /// <summary>What a caption of a whole second too little costs.</summary>
    private const double TooShort = 30;

    /// <summary>What the end of a sentence inside a caption costs.</summary>
    private const double SentenceInside = 14;

    private const double EachSecondOfPause = 30;

    /// <summary>The captions.</summary>
    /// <param name="words">In order.</param>
    /// <param name="guidelines">What they keep to as far as can be.</param>
    /// <param name="grid">The lesson's frames, of which two lie between captions.</param>
    /// <param name="edges">Moments over which no caption goes, in order: where recordings or cuts meet.</param>
    /// <param name="length">The length of what is spoken over; no caption ends later.</param>
    public static IReadOnlyList<Cue> Make(
        IReadOnlyList<WrittenWord> words,
        CaptionGuidelines guidelines,
        FrameRate grid,
        IReadOnlyList<TimeSpan> edges,
        TimeSpan length
    )
    {
        var gap = CaptionGuidelines.Gap(grid);
        var cues = new List<Cue>();
        for (var from = 0; from < words.Count; )
        {
            var to = from + 1;
            while (to < words.Count && words[to].Span.Start - words[to - 1].Span.End < ParagraphPause && EdgeBetween(words, to, edges) is null)
                to++;
            var limit = to < words.Count ? EdgeBetween(words, to, edges) ?? words[to].Span.Start - gap : length;
            cues.AddRange(Paragraph([.. words.Skip(from).Take(to - from)], guidelines, gap, limit));
            from = to;
        }

        return Cue.Kind.WithNames(cues);
    }

    private static TimeSpan? EdgeBetween(IReadOnlyList<WrittenWord> words, int at, IReadOnlyList<TimeSpan> edges)
    {
        foreach (var edge in edges)
        {
            if (edge > words[at - 1].Span.Start && edge <= words[at].Span.Start)
                return edge > words[at - 1].Span.End ? edge : words[at - 1].Span.End;
        }

        return null;
    }

    /// <summary>The captions of words that are spoken without a long pause.</summary>
    private static IEnumerable<Cue> Paragraph(IReadOnlyList<WrittenWord> words, CaptionGuidelines guidelines, TimeSpan gap, TimeSpan limit)
    {
        var (best, from) = (new double[words.Count + 1], new int[words.Count + 1]);
        Array.Fill(best, double.PositiveInfinity, 1, words.Count);
        for (var end = 1; end <= words.Count; end++)
        {
            for (var start = end - 1; start >= 0; start--)
            {
                var cost = Cost(words, start, end, guidelines, gap, limit);
                // More words only make it longer; a single one is taken however long it is.
                if (double.IsPositiveInfinity(cost) && end - start > 1)
                    break;
                if (best[start] + cost < best[end])
                    (best[end], from[end]) = (best[start] + cost, start);
            }
        }

        var ends = new Stack<int>();
        for (var end = words.Count; end > 0; end = from[end])
            ends.Push(end);
        foreach (var end in ends)
        {
            var span = Shown(words, from[end], end, guidelines, gap, limit);
            if (span.Length > TimeSpan.Zero)
                yield return new Cue(span, LineBreaks.Lines([.. Range(words, from[end], end).Select(w => w.Text)]));
        }
    }

    private static double Cost(IReadOnlyList<WrittenWord> words, int start, int end, CaptionGuidelines guidelines, TimeSpan gap, TimeSpan limit)
    {
        var text = LineBreaks.Lines([.. Range(words, start, end).Select(w => w.Text)]);
        var shown = Shown(words, start, end, guidelines, gap, limit);
        if (end - start > 1 && (text.Count(c => c == '\n') >= CaptionGuidelines.MostLines || shown.Length > CaptionGuidelines.Longest))
            return double.PositiveInfinity;
        var last = words[end - 1];
        var cost = EachCue + (Math.Max(0, CaptionGuidelines.PerSecond(text, shown.Length) - guidelines.MostPerSecond) * EachTooFast);
        cost += Math.Max(0, (CaptionGuidelines.Shortest - shown.Length).TotalSeconds) * TooShort;
        cost += Range(words, start, end - 1).Count(w => w.EndsSentence) * SentenceInside;
        if (end == words.Count)
            return cost;
        var pause = (words[end].Span.Start - last.Span.End).TotalSeconds;
        return cost + Math.Max(0, LineBreaks.Badness(last.Text) - (pause * EachSecondOfPause));
    }

    /// <summary>From the first word's start to the last one's end, and longer where that can be read only so.</summary>
    private static TimeRange Shown(IReadOnlyList<WrittenWord> words, int start, int end, CaptionGuidelines guidelines, TimeSpan gap, TimeSpan limit)
    {
        var (begins, spoken) = (words[start].Span.Start, words[end - 1].Span.End);
        var latest = end < words.Count ? words[end].Span.Start - gap : limit;
        var toRead = guidelines.ToRead(string.Join(' ', Range(words, start, end).Select(w => w.Text)));
        var wanted = Later(spoken + Lingers, begins + Later(CaptionGuidelines.Shortest, toRead));
        // A caption that lingers is not to be too long by that.
        var longest = Later(spoken, begins + CaptionGuidelines.Longest);
        return new TimeRange(begins, Later(begins, Earlier(Earlier(wanted, longest), latest)));
    }

    private static IEnumerable<WrittenWord> Range(IReadOnlyList<WrittenWord> words, int start, int end)
    {
        for (var i = start; i < end; i++)
            yield return words[i];
    }

    private static TimeSpan Later(TimeSpan a, TimeSpan b) => a > b ? a : b;

    private static TimeSpan Earlier(TimeSpan a, TimeSpan b) => a < b ? a : b;
}
