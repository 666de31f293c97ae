using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Speech;

/// <summary>Captions by the figures of <see cref="CaptionGuidelines"/>, each with its source there.</summary>
public class CueMakerTests
{
    private static readonly FrameRate Thirty = new(30, 1);
    private static readonly TimeSpan Gap = TimeSpan.FromSeconds(2.0 / 30);
    private static readonly TimeSpan Hour = TimeSpan.FromHours(1);

    [Fact]
    public void Nothing_stands_over_the_opening_without_words_and_the_first_word_opens_the_first_caption()
    {
        var words = Written("welcome to the crossing desk", from: 4);
        Make(words)[0].Span.Start.ShouldBe(TimeSpan.FromSeconds(4));
    }

    [Fact]
    public void A_caption_is_parted_at_the_end_of_a_sentence_and_stays_for_a_second()
    {
        var cues = Make(
            Written("You need your name and the float that was counted last night.|Type your name.|It is printed on every ticket that you sell.", pause: 0.6)
        );
        cues.Select(c => c.Text.Replace('\n', ' '))
            .ShouldBe(["You need your name and the float that was counted last night.", "Type your name.", "It is printed on every ticket that you sell."]);
        cues.ShouldAllBe(c => c.Span.Length >= CaptionGuidelines.Shortest);
    }

    [Fact]
    public void No_line_ends_between_an_article_and_its_noun()
    {
        var text = LineBreaks.Lines("When the desk is closed for the day the tickets are counted by the mate".Split(' '));
        text.Split('\n').Length.ShouldBe(2);
        text.Split('\n')[0].ShouldNotEndWith(" the");
        LineBreaks.Badness("the").ShouldBeGreaterThan(LineBreaks.Badness("desk"));
        LineBreaks.Badness("desk").ShouldBeGreaterThan(LineBreaks.Badness("desk,"));
        LineBreaks.Badness("desk.").ShouldBe(0);
    }

    [Fact]
    public void No_caption_goes_over_a_cut_or_a_joint()
    {
        var words = Written("this is said before the cut and this is said after it");
        var edge = words[5].Span.End;
        var cues = CueMaker.Make(words, CaptionGuidelines.Adults, Thirty, [edge], Hour);
        cues.ShouldAllBe(c => c.Span.End <= edge || c.Span.Start >= edge);
        cues.Count.ShouldBeGreaterThan(1);
    }

    [Fact]
    public void Captions_for_children_stay_longer()
    {
        var words = Written("Fast.", speed: 0.1);
        var (adults, children) = (Of(CaptionGuidelines.Adults), Of(CaptionGuidelines.Children));
        (CaptionGuidelines.Children.ToRead("Fast words are read") > CaptionGuidelines.Adults.ToRead("Fast words are read")).ShouldBeTrue();
        children.ShouldBeGreaterThanOrEqualTo(adults);
        TimeSpan Of(CaptionGuidelines g) => CueMaker.Make(words, g, Thirty, [], Hour)[0].Span.Length;
    }

    /// <summary>Whatever is said and however: no word is lost, and the figures hold wherever single words leave room for it.</summary>
    [Fact]
    public void The_figures_hold_for_any_words()
    {
        string[] known = ["the", "a", "of", "ferry", "desk", "counted", "passengers", "reservation", "I", "to", "vehicle", "and"];
        var word = Gen.Int[0, known.Length - 1].Select(i => known[i]);
        var spoken = Gen.Select(
            word,
            Gen.Double[0.12, 0.7],
            Gen.Int[0, 5]
                .Select(i =>
                    i < 3
                        ? 0
                        : (
                            i == 3 ? 0.3
                            : i == 4 ? 0.7
                            : 2.5
                        )
                ),
            (w, length, pause) => (w, length, pause)
        );
        spoken
            .Array[1, 80]
            .Sample(said =>
            {
                var (words, at) = (new List<WrittenWord>(), 0.5);
                foreach (var (text, length, pause) in said)
                {
                    var ends = pause >= 0.7;
                    words.Add(new WrittenWord(new TimeRange(TimeSpan.FromSeconds(at), TimeSpan.FromSeconds(at + length)), ends ? text + "." : text, 1, ends));
                    at += length + pause;
                }

                var cues = Make(words);
                string.Join(' ', cues.Select(c => c.Text.Replace('\n', ' '))).ShouldBe(string.Join(' ', words.Select(w => w.Text)));
                cues.ShouldAllBe(c => c.Text.Split('\n').Length <= CaptionGuidelines.MostLines);
                cues.ShouldAllBe(c => c.Text.Split('\n').All(line => line.Length <= CaptionGuidelines.LineLength));
                cues.ShouldAllBe(c => c.Span.Length <= CaptionGuidelines.Longest);
                foreach (var (one, next) in cues.Zip(cues.Skip(1)))
                    (next.Span.Start - one.Span.End).ShouldBeGreaterThanOrEqualTo(Gap - TimeSpan.FromTicks(1));
                cues.Select(c => c.Id).Distinct().Count().ShouldBe(cues.Count);
            });
    }

    [Fact]
    public void An_hour_of_speech_is_parted()
    {
        var sentence = string.Join(' ', Enumerable.Repeat("now enter the float it must be the sum on the yellow sheet", 50));
        var words = Written(string.Join('|', Enumerable.Repeat(sentence, 15)), pause: 0.7);
        Make(words).Count.ShouldBeInRange(300, 3000);
    }

    private static IReadOnlyList<Cue> Make(IReadOnlyList<WrittenWord> words) => CueMaker.Make(words, CaptionGuidelines.Adults, Thirty, [], Hour);

    private static List<WrittenWord> Written(string text, double pause = 0, double from = 0, double speed = 0.3)
    {
        var (words, at) = (new List<WrittenWord>(), from);
        foreach (var part in text.Split('|'))
        {
            foreach (var word in part.Split(' '))
            {
                words.Add(new WrittenWord(new TimeRange(TimeSpan.FromSeconds(at), TimeSpan.FromSeconds(at + speed)), word, 1, word.EndsWith('.')));
                at += speed;
            }

            at += pause;
        }

        return words;
    }
}
