using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Core.Translating;

/// <summary>Captions in another language: sentences are translated whole, and laid over the captions in which they were said.</summary>
public static class TranslatedCues
{
    private static readonly char[] Closing = ['"', '”', '’', ')', '»'];

    /// <summary>What is said, sentence by sentence, whatever caption it begins in.</summary>
    /// <param name="cues">In order of time.</param>
    public static IReadOnlyList<string> Sentences(IReadOnlyList<Cue> cues) => [.. Said(cues).Select(s => s.Text)];

    /// <summary>The captions in another language, at the same times and with the same names; one for which no word is left is not there.</summary>
    /// <param name="cues">In order of time.</param>
    /// <param name="sentences">The translation of each of <see cref="Sentences"/>, in order.</param>
    /// <exception cref="ArgumentException">There are not as many.</exception>
    public static IReadOnlyList<Cue> Lay(IReadOnlyList<Cue> cues, IReadOnlyList<string> sentences)
    {
        var said = Said(cues);
        if (said.Count != sentences.Count)
            throw new ArgumentException($"There are {said.Count} sentences, and {sentences.Count} translations.", nameof(sentences));
        var words = cues.Select(_ => new List<string>()).ToList();
        foreach (var (sentence, translated) in said.Zip(sentences))
        {
            var all = Words(translated);
            var (whole, done, from) = (Math.Max(1, sentence.Parts.Sum(p => p.Length)), 0, 0);
            foreach (var (cue, length) in sentence.Parts)
            {
                done += length;
                // As much of the translation as of what was said, to the nearest end of a word.
                var until = done >= whole ? all.Length : Nearest(all, (double)done / whole);
                words[cue].AddRange(all[from..Math.Max(from, until)]);
                from = Math.Max(from, until);
            }
        }

        return [.. cues.Zip(words).Where(c => c.Second.Count > 0).Select(c => c.First with { Text = LineBreaks.Lines(c.Second), Markup = null })];
    }

    /// <summary>A caption with a text that somebody wrote for it, on lines.</summary>
    /// <param name="cue">The caption that is translated.</param>
    /// <param name="text">Its translation, on one line.</param>
    public static Cue With(Cue cue, string text) => cue with { Text = LineBreaks.Lines(Words(text)), Markup = null };

    /// <summary>A caption on one line.</summary>
    public static string Flat(string text) => text.Replace('\n', ' ');

    private sealed record Sentence(string Text, IReadOnlyList<(int Cue, int Length)> Parts);

    private static List<Sentence> Said(IReadOnlyList<Cue> cues)
    {
        var (said, words, parts) = (new List<Sentence>(), new List<string>(), new List<(int Cue, int Length)>());
        TimeSpan? silentSince = null;
        foreach (var (index, cue) in cues.Index())
        {
            // Behind a long silence nobody goes on with a sentence that has no mark at its end.
            if (cue.Span.Start - silentSince > LongSilence)
                Close();
            silentSince = cue.Span.End;
            var length = 0;
            foreach (var word in Words(cue.Text))
            {
                words.Add(word);
                length += word.Length + 1;
                if (word.TrimEnd(Closing) is not [.., '.' or '?' or '!' or '…'])
                    continue;
                parts.Add((index, length));
                length = 0;
                Close();
            }

            if (length > 0)
                parts.Add((index, length));
        }

        Close();
        return said;

        void Close()
        {
            if (words.Count > 0)
                said.Add(new Sentence(string.Join(' ', words), [.. parts]));
            words.Clear();
            parts.Clear();
        }
    }

    private static readonly TimeSpan LongSilence = TimeSpan.FromSeconds(2);

    private static int Nearest(string[] words, double share)
    {
        var (whole, so, best) = (words.Sum(w => w.Length + 1), 0, (Index: 0, Off: share));
        foreach (var (index, word) in words.Index())
        {
            so += word.Length + 1;
            if (Math.Abs(((double)so / whole) - share) is var off && off < best.Off)
                best = (index + 1, off);
        }

        return best.Index;
    }

    private static string[] Words(string text) => text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
}
