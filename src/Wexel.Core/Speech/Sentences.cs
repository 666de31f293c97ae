using System.Collections.Frozen;
using Wexel.Core.Timing;

namespace Wexel.Core.Speech;

/// <summary>One or more spoken words as they are written.</summary>
/// <param name="Span">When they are spoken.</param>
/// <param name="Text">As it is written, with its marks; without spaces but for those that the house writes inside a name.</param>
/// <param name="Confidence">How sure the engine is of the least sure of them, 0 to 1.</param>
/// <param name="EndsSentence">Whether a sentence ends with it.</param>
public sealed record WrittenWord(TimeRange Span, string Text, double Confidence, bool EndsSentence);

/// <summary>Makes written sentences of words that were heard one by one: the house's words, numbers, capitals, full stops where the voice pauses.</summary>
public static class Sentences
{
    /// <summary>A pause that ends a sentence (common practice, no source).</summary>
    private static readonly TimeSpan EndingPause = TimeSpan.FromSeconds(0.45);

    /// <summary>A pause that ends a sentence which is long already.</summary>
    private static readonly TimeSpan LongEndingPause = TimeSpan.FromSeconds(0.25);

    private const int LongSentence = 24;

    private static readonly FrozenSet<string> Capital =
        "monday tuesday wednesday thursday friday saturday sunday january february april june july august september october november december english"
            .Split(' ')
            .ToFrozenSet();

    /// <summary>The words as they are written.</summary>
    /// <param name="heard">What was heard, in order.</param>
    /// <param name="writes">Whether the engine wrote sentences itself: then only the house's words are set.</param>
    /// <param name="house">The house's words.</param>
    /// <param name="edges">Moments over which no sentence goes: where recordings or cuts meet.</param>
    public static IReadOnlyList<WrittenWord> Write(IReadOnlyList<HeardWord> heard, bool writes, WordList house, IReadOnlyList<TimeSpan> edges)
    {
        var finder = new WordFinder(house);
        var plain = heard.Select(w => WordList.Plain(w.Text)).ToList();
        var ends = heard.Select((w, i) => writes ? EndsWritten(w.Text) : Crosses(heard, i, edges)).ToList();
        if (!writes)
            EndAtPauses(heard, ends);
        var written = new List<WrittenWord>();
        for (var at = 0; at < heard.Count; )
        {
            var (text, count) =
                finder.At(plain, at) is { } own && !ends.Skip(at).Take(own.Count - 1).Contains(true)
                    ? (own.Word.Written + (writes ? Mark(heard[at + own.Count - 1].Text) : ""), own.Count)
                    : Usual(heard, plain, at, writes, ends);
            var taken = heard.Skip(at).Take(count).ToList();
            var isEnd = ends[at + count - 1];
            var begins = written.Count == 0 || written[^1].EndsSentence;
            written.Add(
                new WrittenWord(
                    new TimeRange(taken[0].Span.Start, taken[^1].Span.End),
                    (begins && !writes ? Capitalised(text) : text) + (isEnd && !writes ? "." : ""),
                    taken.Min(w => w.Confidence),
                    isEnd
                )
            );
            at += count;
        }

        return written;
    }

    private static (string Text, int Count) Usual(IReadOnlyList<HeardWord> heard, List<string> plain, int at, bool writes, List<bool> ends)
    {
        if (writes)
            return (heard[at].Text, 1);
        if (NumberWords.At(plain, at) is { } number && !ends.Skip(at).Take(number.Count - 1).Contains(true))
            return (number.Figures, number.Count);
        var word = heard[at].Text.ToLowerInvariant();
        return (word is "i" || word.StartsWith("i'", StringComparison.Ordinal) || Capital.Contains(word) ? Capitalised(word) : word, 1);
    }

    private static bool EndsWritten(string text) => text.TrimEnd('"', '”', '’', ')') is [.., '.' or '?' or '!' or '…'];

    /// <summary>The mark with which an engine ended a word.</summary>
    private static string Mark(string text) => string.Concat(text.Reverse().TakeWhile(c => char.IsPunctuation(c) && c is not ('\'' or '’')).Reverse());

    private static bool Crosses(IReadOnlyList<HeardWord> heard, int at, IReadOnlyList<TimeSpan> edges) =>
        at == heard.Count - 1 || edges.Any(edge => edge >= heard[at].Span.End && edge <= heard[at + 1].Span.Start);

    private static void EndAtPauses(IReadOnlyList<HeardWord> heard, List<bool> ends)
    {
        for (var (at, since) = (0, 1); at < heard.Count - 1; at++, since++)
        {
            var pause = heard[at + 1].Span.Start - heard[at].Span.End;
            if (!ends[at] && (pause >= EndingPause || (since >= LongSentence && pause >= LongEndingPause)))
                ends[at] = true;
            if (ends[at])
                since = 0;
        }
    }

    private static string Capitalised(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];
}
