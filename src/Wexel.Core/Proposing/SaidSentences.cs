using Wexel.Core.Captions;
using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Proposing;

/// <summary>What is said, sentence by sentence.</summary>
public static class SaidSentences
{
    /// <summary>Of captions: a sentence may go over several, and begins with a caption.</summary>
    /// <param name="cues">In order of time.</param>
    public static IReadOnlyList<SaidSentence> FromCues(IReadOnlyList<Cue> cues) =>
        Joined(
            cues.Select(c => (c.Span, Text: c.Text.Replace('\n', ' '))),
            c => c.Text.TrimEnd('"', '”', '’', ')') is [.., '.' or '?' or '!' or '…'],
            c => c.Span,
            c => c.Text
        );

    /// <summary>Of words as they were heard and written.</summary>
    /// <param name="words">In order.</param>
    public static IReadOnlyList<SaidSentence> FromWords(IReadOnlyList<WrittenWord> words) => Joined(words, w => w.EndsSentence, w => w.Span, w => w.Text);

    private static List<SaidSentence> Joined<T>(IEnumerable<T> parts, Func<T, bool> ends, Func<T, TimeRange> span, Func<T, string> text)
    {
        var (said, isOpen) = (new List<SaidSentence>(), false);
        foreach (var part in parts)
        {
            if (isOpen)
                said[^1] = new SaidSentence(new TimeRange(said[^1].Span.Start, span(part).End), $"{said[^1].Text} {text(part)}");
            else
                said.Add(new SaidSentence(span(part), text(part)));
            isOpen = !ends(part);
        }

        return said;
    }
}
