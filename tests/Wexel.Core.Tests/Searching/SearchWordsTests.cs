using Wexel.Core.Captions;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Packages;
using Wexel.Core.Searching;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Searching;

public class SearchWordsTests
{
    [Theory]
    [InlineData("till  float", "'till':* & 'float':*", "'till':* | 'float':*")]
    [InlineData("Till till", "'Till':*", "'Till':*")]
    [InlineData("it's: (a & b) | !c <-> d\\", "'it':* & 's':* & 'a':* & 'b':* & 'c':* & 'd':*", "'it':* | 's':* | 'a':* | 'b':* | 'c':* | 'd':*")]
    [InlineData("crème brûlée 7.4", "'crème':* & 'brûlée':* & '7':* & '4':*", "'crème':* | 'brûlée':* | '7':* | '4':*")]
    public void Nothing_that_is_typed_means_anything_but_itself(string typed, string all, string any)
    {
        var words = SearchWords.Parse(typed)!;
        (words.All, words.Any).ShouldBe((all, any));
    }

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData(" & | ! ")]
    public void Without_a_word_there_is_nothing_to_look_for(string? typed) => SearchWords.Parse(typed).ShouldBeNull();

    [Fact]
    public void A_few_words_are_looked_for_and_the_beginning_of_long_ones()
    {
        SearchWords.Parse(string.Join(' ', Enumerable.Range(0, 50)))!.Words.Count.ShouldBe(TextSearch.MostWords);
        SearchWords.Parse(new string('a', 500))!.Words[0].Length.ShouldBe(60);
        SearchWords.Parse("selling the flaot")!.With("flaot", "float").Words.ShouldBe(["selling", "the", "float"]);
    }

    [Theory]
    [InlineData("flaot", "float,flat", "float,flat")]
    [InlineData("refnud", "refund,refuse,fund", "refund")]
    [InlineData("tikcet", "ticket,tide", "ticket")]
    [InlineData("til", "till,tide,tin", "tin,till")]
    [InlineData("zeppelin", "float,ticket", "")]
    public void A_slip_of_the_pen_is_a_letter_or_two_away(string word, string said, string meant) =>
        string.Join(',', SlipsOfThePen.Meant(word, said.Split(','))).ShouldBe(meant);

    /// <summary>The languages of ISO 639-1 that PostgreSQL 15 has stemmers for (its documentation, section 12.6.6, as <c>\\dFd</c> lists them).</summary>
    [Theory]
    [InlineData("en-GB", "english")]
    [InlineData("es", "spanish")]
    [InlineData("NB-no", "norwegian")]
    [InlineData("cy-GB", "simple")]
    [InlineData("", "simple")]
    public void A_language_has_its_own_dictionary_or_none(string language, string dictionary) => Dictionaries.For(language).ShouldBe(dictionary);

    [Fact]
    public void What_is_said_in_another_language_is_kept_apart_from_what_the_lesson_says()
    {
        var cue = new Cue(new TimeRange(Ms.Of(1000), Ms.Of(2000)), "Good\nmorning.");
        var page = new PlayerLesson(
            "k",
            "Title",
            "First.\n\nSecond.",
            "en-GB",
            Ms.Of(5000),
            640,
            360,
            "v.mp4",
            null,
            [new("a", Ms.Of(500), "Start")],
            [new PlayerCaptions("en-GB", [cue]), new PlayerCaptions("es", [cue with { Text = "Buenos días." }]), new PlayerCaptions("de", [])]
        );
        var by = ReleasedLines.By(page, [new TextLine(Ms.Of(700), "Find a booking")]);
        by.Select(b => (b.Dictionary, string.Join(' ', b.Texts.SelectMany(t => t.Lines).Select(l => $"{l.At?.TotalMilliseconds}:{l.Text}"))))
            .ShouldBe([("english", ":Title 500:Start :First. :Second. 700:Find a booking 1000:Good morning."), ("spanish", "1000:Buenos días.")]);
    }
}
