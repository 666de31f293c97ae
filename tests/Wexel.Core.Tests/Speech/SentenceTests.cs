using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Speech;

/// <summary>Words that were heard one by one become written sentences.</summary>
public class SentenceTests
{
    private static readonly WordList House = new([
        new HouseWord("Brackwater", "brack water", ["back water", "black water"]),
        new HouseWord("BFL", "bee eff ell", ["b f l"]),
        new HouseWord("skipper", "", []),
    ]);

    [Theory]
    [InlineData("now i press open", "Now I press open.")]
    [InlineData("i'm sure i've counted", "I'm sure I've counted.")]
    [InlineData("the ferry to black water leaves on monday", "The ferry to Brackwater leaves on Monday.")]
    [InlineData("ask bee eff ell for it", "Ask BFL for it.")]
    [InlineData("ask b f l", "Ask BFL.")]
    [InlineData("a float of one hundred and fifty is counted", "A float of 150 is counted.")]
    [InlineData("two cars and twenty four bicycles", "Two cars and 24 bicycles.")]
    [InlineData("seven point four metres", "7.4 metres.")]
    [InlineData("twelve thousand three hundred and five tickets", "12,305 tickets.")]
    [InlineData("black and water", "Black and water.")]
    public void Words_become_a_sentence(string heard, string written) => Text(Words(heard)).ShouldBe(written);

    [Fact]
    public void A_pause_ends_a_sentence()
    {
        Text(Words("press open|wait for the line", pause: 0.6)).ShouldBe("Press open. Wait for the line.");
        Text(Words("press open|wait for the line", pause: 0.2)).ShouldBe("Press open wait for the line.");
    }

    [Fact]
    public void No_sentence_goes_over_a_joint_and_no_name_does()
    {
        var words = Words("to the back|water is high", pause: 0.05);
        var edge = words[2].Span.End + TimeSpan.FromSeconds(0.01);
        Text(words, [edge]).ShouldBe("To the back. Water is high.");
    }

    [Fact]
    public void What_an_engine_writes_itself_is_left_but_for_the_houses_words()
    {
        var words = Words("So, we ask b f l. Then we go on!").Select(w => w with { Text = w.Text }).ToList();
        string.Join(' ', Sentences.Write(words, writes: true, House, []).Select(w => w.Text)).ShouldBe("So, we ask BFL. Then we go on!");
    }

    [Fact]
    public void A_written_word_is_as_sure_as_the_least_sure_and_as_long_as_all_of_it()
    {
        var words = Words("ask b f l");
        words[2] = words[2] with { Confidence = 0.2 };
        var name = Sentences.Write(words, false, House, [])[1];
        (name.Text, name.Confidence, name.Span.Start, name.Span.End).ShouldBe(("BFL.", 0.2, words[1].Span.Start, words[3].Span.End));
    }

    [Theory]
    [InlineData("zero", null)]
    [InlineData("nine", null)]
    [InlineData("ten", "10")]
    [InlineData("ninety nine", "99")]
    [InlineData("one hundred", "100")]
    [InlineData("nine hundred and ninety nine", "999")]
    [InlineData("two thousand and six", "2006")]
    [InlineData("three million two hundred thousand", "3,200,000")]
    [InlineData("zero point five", "0.5")]
    [InlineData("one point", null)]
    [InlineData("hundred", null)]
    public void Numbers_from_ten_on_are_figures(string said, string? figures) => NumberWords.At(said.Split(' '), 0)?.Figures.ShouldBe(figures);

    [Fact]
    public void A_swear_word_that_an_engine_hears_is_unclear_and_marked()
    {
        var heard = new[] { "the", "Shitty", "shift", "shitake" }
            .Select((w, i) => new HeardWord(new TimeRange(Ms.Of(i * 300), Ms.Of((i * 300) + 200)), w, 0.9))
            .ToList();
        var without = CoarseWords.Without(heard);
        without.Select(w => w.Text).ShouldBe(["the", CoarseWords.Unclear, "shift", "shitake"]);
        without[1].IsUnsure.ShouldBeTrue();
        without[0].ShouldBe(heard[0]);
    }

    [Fact]
    public void A_list_says_once_how_a_word_is_heard()
    {
        var twice = new WordList([.. House.Words, new HouseWord("Blackwater", "", ["black water"])]).Tidy();
        twice.Refusal()!.Code.ShouldBe("words-clash");
        House.Tidy().Refusal().ShouldBeNull();
        new WordList([new HouseWord("…", "", [])]).Tidy().Refusal()!.Code.ShouldBe("words-no-letters");
        new WordList([new HouseWord("  ", "", []), new HouseWord(" a  b ", null!, null!)])
            .Tidy()
            .Words.ShouldBe([new HouseWord("a b", "", [])], new SameWord());
    }

    private sealed class SameWord : IEqualityComparer<HouseWord>
    {
        public bool Equals(HouseWord? x, HouseWord? y) => x!.Written == y!.Written && x.Said == y.Said && x.HeardAs.SequenceEqual(y.HeardAs);

        public int GetHashCode(HouseWord word) => word.Written.GetHashCode(StringComparison.Ordinal);
    }

    private static string Text(IReadOnlyList<HeardWord> words, IReadOnlyList<TimeSpan>? edges = null) =>
        string.Join(' ', Sentences.Write(words, false, House, edges ?? []).Select(w => w.Text));

    /// <summary>Words of 0.3 s each, one after the other; at a bar the voice pauses.</summary>
    internal static List<HeardWord> Words(string text, double pause = 0)
    {
        var (words, at) = (new List<HeardWord>(), 0.0);
        foreach (var part in text.Split('|'))
        {
            foreach (var word in part.Split(' '))
            {
                words.Add(new HeardWord(new TimeRange(TimeSpan.FromSeconds(at), TimeSpan.FromSeconds(at + 0.3)), word, 1));
                at += 0.3;
            }

            at += pause;
        }

        return words;
    }
}
