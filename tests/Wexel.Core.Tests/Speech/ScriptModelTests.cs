using System.Globalization;
using CsCheck;
using Wexel.Core.Speech;

namespace Wexel.Core.Tests.Speech;

/// <summary>A script as a language model in ARPA's format.</summary>
public class ScriptModelTests
{
    /// <summary>Whatever was said before, the probabilities of all words that may follow come to one, by the rule of back-off (ngram-format(5)).</summary>
    [Fact]
    public void Behind_every_history_the_probabilities_of_all_words_come_to_one() =>
        Gen.Int[0, 6]
            .Select(w => $"w{w}")
            .List[1, 9]
            .List[1, 9]
            .Sample(sentences =>
            {
                var model = Read(ScriptModel.Write([.. sentences.Select(s => (IReadOnlyList<string>)s)]));
                var words = model.Keys.Where(k => !k.Contains(' ') && k != ScriptModel.Begins).ToList();
                foreach (var history in model.Keys.Where(k => k.Split(' ') is { Length: <= 2 } parts && parts[^1] != ScriptModel.Ends).Append(""))
                    words.Sum(w => Math.Pow(10, Of(model, history, w))).ShouldBe(1, 0.005, history);
            });

    /// <summary>Reckoned by hand: “a b” and “a c”, discount 0.5.</summary>
    [Fact]
    public void A_small_model_is_as_it_is_reckoned_by_hand()
    {
        var text = ScriptModel.Write([
            ["a", "b"],
            ["a", "c"],
        ]);
        text.ShouldContain("ngram 1=5\nngram 2=5\nngram 3=4\n");
        var model = Read(text);
        // Of six words and ends, a is two; behind a stand b and c, half of what is left goes to all.
        model["a"].Probability.ShouldBe(Math.Log10(2 / 6.0), 0.0001);
        model["a b"].Probability.ShouldBe(Math.Log10((0.5 / 2) + (0.5 * 2 / 2 * (1 / 6.0))), 0.0001);
        model["<s>"].Left.ShouldBe(Math.Log10(0.5 * 1 / 2), 0.0001);
    }

    [Fact]
    public void Sentences_end_with_marks_and_with_paragraphs() =>
        ScriptModel
            .Sentences(ScriptText.Parse("Open it. Now, the float\n\nGoes here"))
            .Select(s => string.Join(' ', s))
            .ShouldBe(["open it", "now the float", "goes here"]);

    /// <summary>Held against entries of CMU's pronouncing dictionary (from memory), for what espeak-ng prints of the same words.</summary>
    [Theory]
    [InlineData("skˈɛɹi", "S K EH R IY")]
    [InlineData("skˈɛdʒuːl", "S K EH JH UW L")]
    [InlineData("kˈiː", "K IY")]
    [InlineData("tʃˈeɪndʒ", "CH EY N JH")]
    [InlineData("ðˌɪs", "DH IH S")]
    [InlineData("fˈoːɹɾi", "F AO R T IY")]
    [InlineData("", "")]
    [InlineData("??", "")]
    public void Sounds_are_named_as_the_pronouncing_dictionary_names_them(string ipa, string arpabet) => Phonemes.FromIpa(ipa).ShouldBe(arpabet);

    private static Dictionary<string, (double Probability, double Left)> Read(string arpa)
    {
        var model = new Dictionary<string, (double, double)>();
        var order = 0;
        foreach (var line in arpa.Split('\n'))
        {
            if (line is ['\\', >= '1' and <= '3', '-', ..])
                order = line[1] - '0';
            else if (order > 0 && line.Split(' ') is { Length: > 1 } parts)
                model[string.Join(' ', parts[1..(order + 1)])] = (Number(parts[0]), parts.Length > order + 1 ? Number(parts[order + 1]) : 0);
        }

        return model;
    }

    private static double Of(Dictionary<string, (double Probability, double Left)> model, string history, string word)
    {
        if (model.TryGetValue(history.Length == 0 ? word : $"{history} {word}", out var known))
            return known.Probability;
        var shorter = history.Contains(' ', StringComparison.Ordinal) ? history.Split(' ')[1] : "";
        return (model.TryGetValue(history, out var before) ? before.Left : 0) + Of(model, shorter, word);
    }

    private static double Number(string text) => double.Parse(text, CultureInfo.InvariantCulture);
}
