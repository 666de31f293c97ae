using System.Globalization;
using Wexel.Core.Documents;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Questions.Lists;

namespace Wexel.Core.Tests.Questions;

public class QuestionListTests
{
    public sealed record Vector(string Text, string Kind, IReadOnlyList<string> Answers);

    private static string File(string name) => System.IO.File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "vectors", name));

    private static IReadOnlyList<string> Answers(Interaction asks)
    {
        string Counts(string text, bool right, int? perCent) =>
            $"{text}: {(perCent is { } p and not 100 ? p.ToString(CultureInfo.InvariantCulture) : right ? "right" : "wrong")}";
        return asks switch
        {
            ChooseOne one => [.. one.Options.Select(o => Counts(o.Text, o.Right, o.PerCent))],
            ChooseSeveral several => [.. several.Options.Select(o => Counts(o.Text, o.Right, o.PerCent))],
            TrueOrFalse truth => [truth.True == true ? "true" : "false"],
            ShortText text => [.. text.Accepted.Select(a => Counts(a.Text, true, a.PerCent))],
            NumberTyped number => [string.Create(CultureInfo.InvariantCulture, $"{number.Value} ± {number.Rule.Within}")],
            MatchPairs match => [.. match.Pairs.Select(p => $"{p.Text} - {p.WithText}"), .. match.Others.Select(o => $" - {o.Text}")],
            _ => [],
        };
    }

    /// <summary>The same file is read by gift-pegjs, an independent reader, in the player's tests; both are held to one list.</summary>
    [Fact]
    public void Reads_GIFT_as_an_independent_reader_does()
    {
        var list = QuestionList.Read(File("questions.gift"));
        list.Problems.ShouldBeEmpty();
        list.Format.ShouldBe("GIFT");
        list.Questions.Select(q => WexelJson.Write(new Vector(q.Text, q.Asks.Kind, Answers(q.Asks))))
            .ShouldBe(WexelJson.Read<Vector[]>(File("questions.gift.json")).Select(WexelJson.Write));
        ((ChooseOne)list.Questions[0].Asks).Options.Select(o => o.Reply).ShouldBe(["Right: up to 8 m.", "It is too long for A.", "Lorries go there."]);
        // Of true and false the first reply is to a wrong answer (from memory of the format's description; readers differ in what they call the two).
        (list.Questions[1].Wrong, list.Questions[1].Right).ShouldBe(("It is.", "So it is."));
    }

    [Theory]
    [InlineData("Say why. {}", "Line 1: “Say why.” is an essay")]
    [InlineData("Read this first.\n\nIs it so? {T}", "Line 1: “Read this first.” asks nothing")]
    [InlineData("Is it so? {T}\n\nBroken {=a ~b", "Line 3: “Broken” has a brace without the other")]
    [InlineData("Is it so? {T}\n\n\nNested {=a {b} ~c}", "has braces in its braces")]
    [InlineData("Is it so? {T}\n\nHow many? {#about ten}", "Line 3: The number of “How many?” cannot be read")]
    [InlineData("Is it so? {T}\n\nWhich? {a b c}", "begin with no = and no ~")]
    [InlineData("Is it so? {T}\n\nWhich? {~a ~b}", "Line 3: No answer is right")]
    [InlineData("Is it so? {T}\n\nWhich? {=a ~a}", "Line 3: Two answers say “a”")]
    public void Names_each_line_of_GIFT_that_cannot_be_read(string text, string says)
    {
        var list = QuestionList.Read(text);
        list.Problems.ShouldHaveSingleItem().Sentence.ShouldContain(says);
        list.Questions.Count.ShouldBeLessThanOrEqualTo(1);
    }

    [Fact]
    public void Takes_the_words_of_HTML_and_leaves_its_markup()
    {
        var list = QuestionList.Read("[html]<p>Is <b>5 &lt; 6</b>?</p>{=<i>yes</i> ~no<script>alert(1)</script>####Count.}");
        list.Questions[0].Text.ShouldBe("Is  5 < 6 ?");
        Answers(list.Questions[0].Asks).ShouldBe(["yes: right", "no alert(1): wrong"]);
        (list.Questions[0].Right, list.Questions[0].Wrong).ShouldBe(("Count.", "Count."));
    }

    [Fact]
    public void Reads_Aiken()
    {
        var list = QuestionList.Read(
            """
            Which lane is for 7.4 m?
            A. Lane A
            B. Lane B
            C) Lane C
            ANSWER: B

            A question
            of two lines?
            A. yes
            B. no
            answer: z
            ANSWER: A
            ANSWER: B
            Without an answer?
            A. yes
            B. no
            """
        );
        list.Format.ShouldBe("Aiken");
        list.Questions.Select(q => q.Text).ShouldBe(["Which lane is for 7.4 m?"]);
        Answers(list.Questions[0].Asks).ShouldBe(["Lane A: wrong", "Lane B: right", "Lane C: wrong"]);
        list.Problems.Select(p => p.Sentence.Split('.')[0])
            .ShouldBe([
                "Line 7: “A question” has no line that begins with ANSWER",
                "Line 12: Answer A is none of the options of “answer: z”",
                "Line 13: An answer stands here, and no question before it",
                "Line 14: “Without an answer?” has no line that begins with ANSWER",
            ]);
    }

    [Fact]
    public void Reads_a_table()
    {
        var list = QuestionList.Read(
            """
            Question;Right;Wrong;Said when right
            Which lane?;Lane B;Lane A|Lane C;So it is.
            Which need a booking?;Cars|Vans;Prams;
            Cars drive over the;gangway|ramp;;
            Minutes?;10,5;;
            It is so.;true;;
            ;x;y;
            Same?;a|a;b;
            """
        );
        list.Format.ShouldBe("CSV");
        list.Questions.Select(q => q.Asks.Kind).ShouldBe(["one", "several", "text", "number", "truth"]);
        list.Questions[0].Right.ShouldBe("So it is.");
        ((NumberTyped)list.Questions[3].Asks).Value.ShouldBe(10.5);
        list.Problems.Select(p => p.Field).ShouldBe(["7", "8"]);
    }

    [Fact]
    public void Takes_at_most_two_thousand_and_says_so()
    {
        var list = QuestionList.Read(string.Concat(Enumerable.Range(0, 2100).Select(i => $"Is {i} so? {{T}}\n\n")));
        list.Questions.Count.ShouldBe(QuestionList.Most);
        list.Problems.Count.ShouldBe(100);
        list.Problems[0].Sentence.ShouldContain("at most 2,000 questions");
    }

    [Fact]
    public void Says_that_nothing_can_be_read() => QuestionList.Read("\n").Problems.ShouldHaveSingleItem().Sentence.ShouldContain("No question can be read");
}
