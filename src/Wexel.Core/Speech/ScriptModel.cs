using System.Globalization;
using System.Text;

namespace Wexel.Core.Speech;

/// <summary>
/// A script as a language model for speech engines: how likely each of its words follows the two before it. Trigrams with absolute discounting, interpolated
/// (H. Ney, U. Essen, R. Kneser, “On structuring probabilistic dependences in stochastic language modelling”, Computer Speech and Language 8, 1994), in the
/// format of ARPA as SRI's ngram-format(5) describes it.
/// </summary>
public static class ScriptModel
{
    /// <summary>What stands for the beginning of a sentence.</summary>
    public const string Begins = "<s>";

    /// <summary>What stands for its end.</summary>
    public const string Ends = "</s>";

    /// <summary>What is taken from each count and given to what was not seen.</summary>
    private const double Discount = 0.5;

    /// <summary>What ARPA's format writes for a probability of none, as a logarithm.</summary>
    private const double Never = -99;

    /// <summary>The sentences of a script, each as its plain words; a paragraph ends one too.</summary>
    /// <param name="script">The script.</param>
    public static IReadOnlyList<IReadOnlyList<string>> Sentences(ScriptText script)
    {
        var sentences = new List<IReadOnlyList<string>>();
        var open = new List<string>();
        foreach (var (index, word) in script.Words.Index())
        {
            open.Add(word.Plain);
            if (!word.EndsSentence && index + 1 < script.Words.Count && script.Words[index + 1].Paragraph == word.Paragraph)
                continue;
            sentences.Add(open);
            open = [];
        }

        return sentences;
    }

    /// <summary>Prints the model; logarithms to the base of 10.</summary>
    /// <param name="sentences">One or more, of one or more words each.</param>
    public static string Write(IReadOnlyList<IReadOnlyList<string>> sentences)
    {
        var (ones, twos, threes) = (new Counts(), new Counts(), new Counts());
        foreach (var sentence in sentences)
        {
            string[] words = [Begins, .. sentence, Ends];
            for (var i = 1; i < words.Length; i++)
            {
                ones.Add("", words[i]);
                twos.Add(words[i - 1], words[i]);
                if (i > 1)
                    threes.Add($"{words[i - 2]} {words[i - 1]}", words[i]);
            }
        }

        double One(string word) => ones.Share("", word, 0);
        double Two(string before, string word) => twos.Share(before, word, Discount) + (twos.Left(before, Discount) * One(word));
        double Three(string first, string before, string word) =>
            threes.Share($"{first} {before}", word, Discount) + (threes.Left($"{first} {before}", Discount) * Two(before, word));

        var text = new StringBuilder("\\data\\\n");
        text.Append(CultureInfo.InvariantCulture, $"ngram 1={ones.Count + 1}\nngram 2={twos.Count}\nngram 3={threes.Count}\n");
        text.Append("\n\\1-grams:\n");
        Line(text, Never, Begins, twos.Left(Begins, Discount));
        foreach (var (_, word) in ones.All)
            Line(text, Math.Log10(One(word)), word, word == Ends ? 1 : twos.Left(word, Discount));
        text.Append("\n\\2-grams:\n");
        foreach (var (before, word) in twos.All)
            Line(text, Math.Log10(Two(before, word)), $"{before} {word}", word == Ends ? 1 : threes.Left($"{before} {word}", Discount));
        text.Append("\n\\3-grams:\n");
        foreach (var (history, word) in threes.All)
            text.Append(CultureInfo.InvariantCulture, $"{Math.Log10(Three(history.Split(' ')[0], history.Split(' ')[1], word)):0.0000} {history} {word}\n");
        return text.Append("\n\\end\\\n").ToString();
    }

    private static void Line(StringBuilder text, double probability, string words, double left) =>
        text.Append(CultureInfo.InvariantCulture, $"{probability:0.0000} {words} {(left > 0 ? Math.Log10(left) : Never):0.0000}\n");

    /// <summary>How often words follow what stands before them.</summary>
    private sealed class Counts
    {
        private readonly Dictionary<string, Dictionary<string, int>> _counts = [];
        private readonly Dictionary<string, int> _sums = [];

        internal int Count => _counts.Values.Sum(c => c.Count);

        internal IEnumerable<(string History, string Word)> All => _counts.SelectMany(h => h.Value.Keys, (h, word) => (h.Key, word));

        internal void Add(string history, string word)
        {
            if (!_counts.TryGetValue(history, out var words))
                _counts[history] = words = [];
            words[word] = words.GetValueOrDefault(word) + 1;
            _sums[history] = _sums.GetValueOrDefault(history) + 1;
        }

        /// <summary>The share of a word among all that follow.</summary>
        internal double Share(string history, string word, double less) =>
            _counts.TryGetValue(history, out var words) && words.TryGetValue(word, out var count) ? (count - less) / _sums[history] : 0;

        /// <summary>The share that is left for what was not seen; all of it where nothing follows.</summary>
        internal double Left(string history, double less) => _counts.TryGetValue(history, out var words) ? less * words.Count / _sums[history] : 1;
    }
}
