using System.Text.Json;
using Wexel.Core.Documents;
using Wexel.Core.Keys;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Scoring;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Questions;

public class QuestionTests
{
    private static readonly FrameRate Grid = new(30, 1);

    /// <summary>One of each kind, whole.</summary>
    public static IReadOnlyList<Interaction> Each { get; } =
    [
        new ChooseOne([new Option("a", "Lane A, up to 6 m", Reply: "It is longer."), new Option("b", "Lane B, up to 8 m", true)], true),
        new ChooseSeveral([new Option("a", "Cars", true), new Option("b", "Lorries"), new Option("c", "Caravans", true, 60)], true, true),
        new TrueOrFalse(true, "Well seen.", "It is so."),
        new ShortText([new Accepted("gangway"), new Accepted("ramp", 50, "Close.")], new TextRule(true, true, false)),
        new NumberTyped(7.4, new NumberRule(0.05, true, "m")),
        new PutInOrder([new Item("a", "Greet"), new Item("b", "Measure"), new Item("c", "Sell")], true),
        new MatchPairs([new MatchPair("a", "Car", "x", "Lane A"), new MatchPair("b", "Lorry", "y", "Lane C")], [new Item("z", "Lane D")], true),
        new FillGaps("Up to [[8|eight]] m goes to lane [[B]].", new TextRule(true, true, false), ["C"], false),
        new ClickPlace([
            new PlaceArea(new Shape(ShapeKind.Rectangle, [new(0.1, 0.1), new(0.3, 0.2)]), "The search field", true, "Yes."),
            new PlaceArea(new Shape(ShapeKind.Polygon, [new(0.5, 0.5), new(0.9, 0.5), new(0.9, 0.9)]), "The price list"),
        ]),
    ];

    public static IEnumerable<TheoryDataRow<Interaction>> EachOne() => Each.Select(i => new TheoryDataRow<Interaction>(i) { TestDisplayName = i.Kind });

    private static Question One(Interaction? asks = null, int at = 1000, string id = "q1") =>
        new(id, Ms.Of(at), "Which lane?", asks ?? Each[0], AskedWhen.Here, 2, true, 3, 25, "Right.", "Look again.", ["Count the tow bar."], Ms.Of(500));

    [Fact]
    public void There_is_one_of_each_kind() =>
        Each.Select(i => i.GetType()).ShouldBe(typeof(Interaction).Assembly.GetTypes().Where(t => t.IsSubclassOf(typeof(Interaction))), ignoreOrder: true);

    [Theory]
    [MemberData(nameof(EachOne))]
    public void Is_read_as_it_was_written(Interaction asks)
    {
        var question = One(asks);
        WexelJson.Read<Question>(WexelJson.Write(question)).ShouldBe(question);
        // The database puts names in an order of its own.
        var turned = System.Text.Json.Nodes.JsonNode.Parse(WexelJson.Write(question))!.AsObject();
        var inside = turned["asks"]!.AsObject();
        var kind = inside["kind"]!;
        inside.Remove("kind");
        inside["kind"] = kind;
        WexelJson.Read<Question>(turned.ToJsonString()).ShouldBe(question);
    }

    [Theory]
    [MemberData(nameof(EachOne))]
    public void Every_field_makes_a_difference_to_its_key(Interaction asks) =>
        EveryField.MakesADifference(One(asks), q => MadeKey.Hash("t", k => Question.Kind.Declare(k, q)), 12, ["$.asks.kind"]);

    [Theory]
    [MemberData(nameof(EachOne))]
    public void Is_whole_and_stays_so_when_it_is_saved(Interaction asks)
    {
        One(asks).Faults.ShouldBeEmpty();
        WexelJson.Write(asks.Tidied()).ShouldBe(WexelJson.Write(asks));
    }

    [Theory]
    [MemberData(nameof(EachOne))]
    public void The_right_answer_is_right(Interaction asks)
    {
        IReadOnlyList<string> right = asks.Key.Responses.Count == 1 ? asks.Key.Responses[0].Correct : [.. asks.Key.Responses.Select(r => r.Correct[0])];
        asks.Key.Judge(right).Share.ShouldBe(1);
        asks.Key.Judge([]).Share.ShouldBe(0);
        asks.RightInWords.ShouldNotBeEmpty();
    }

    /// <summary>What a page says about a question must not tell what is right: no key, no order, nothing that only right ones have.</summary>
    [Theory]
    [MemberData(nameof(EachOne))]
    public void What_learners_see_does_not_say_what_is_right(Interaction asks)
    {
        var form = JsonSerializer.SerializeToNode(asks.Form("q1"), WexelJson.Options)!.AsObject();
        form.Select(p => p.Key).ShouldBeSubsetOf(["kind", "options", "targets", "parts", "unit", "shuffle"]);
        if (asks is PutInOrder order)
            asks.Form("q1").Options!.Select(o => o.Id).ShouldNotBe(order.Items.Select(i => i.Id));
        if (asks is FillGaps)
            string.Concat(asks.Form("q1").Parts!).ShouldBe("Up to  m goes to lane .");
        WexelJson.Write(asks.Form("q1")).ShouldBe(WexelJson.Write(asks.Form("q1")));
    }

    [Fact]
    public void An_order_is_never_shown_as_it_is_right()
    {
        var order = new PutInOrder([new Item("a", "1"), new Item("b", "2")]);
        for (var i = 0; i < 50; i++)
            order.Form($"seed {i}").Options!.Select(o => o.Id).ShouldBe(["b", "a"]);
    }

    [Theory]
    [MemberData(nameof(EachOne))]
    public void Says_answers_in_words(Interaction asks)
    {
        var said = asks switch
        {
            ChooseOne => asks.Said(["b"]),
            ChooseSeveral => asks.Said(["a", "c"]),
            TrueOrFalse => asks.Said(["true"]),
            ShortText => asks.Said(["ramp"]),
            NumberTyped => asks.Said(["7,4"]),
            PutInOrder => asks.Said(["b", "a", "c"]),
            MatchPairs => asks.Said(["a x", "b z"]),
            FillGaps => asks.Said(["8", ""]),
            _ => asks.Said(["2000 1500", "10 10"]),
        };
        said.ShouldBe(
            asks switch
            {
                ChooseOne => "Lane B, up to 8 m",
                ChooseSeveral => "Cars; Caravans",
                TrueOrFalse => "True",
                ShortText => "ramp",
                NumberTyped => "7,4 m",
                PutInOrder => "Measure → Greet → Sell",
                MatchPairs => "Car – Lane A; Lorry – Lane D",
                FillGaps => "8 · nothing",
                _ => "The search field, 0 % across, 0 % down",
            }
        );
    }

    [Theory]
    [MemberData(nameof(Faulty))]
    public void Says_why_it_cannot_be_asked(Interaction asks, string says) => asks.Tidied().Faults.ShouldContain(f => f.Contains(says), 1);

    public static IEnumerable<TheoryDataRow<Interaction, string>> Faulty() =>
        new (Interaction, string)[]
        {
            (new ChooseOne([new Option("a", "A"), new Option("b", "B")]), "No answer is right"),
            (new ChooseOne([new Option("a", "A", true)]), "two answers or more"),
            (new ChooseOne([new Option("a", "A", true), new Option("b", " a ")]), "Two answers say “A”"),
            (new ChooseOne([new Option("a", "A", true), new Option("b", ""), new Option("c", "C")]), "says nothing"),
            (new TrueOrFalse(null), "whether it is true"),
            (new ShortText([new Accepted("a", 50)]), "No answer is right"),
            (new ShortText([new Accepted("Gangway"), new Accepted("gangway ")]), "Two accepted answers"),
            (new NumberTyped(null), "no right number"),
            (new NumberTyped(double.NaN), "no right number"),
            (new PutInOrder([new Item("a", "A")]), "two lines or more"),
            (new PutInOrder([new Item("a", "A"), new Item("b", "A")]), "Two lines say"),
            (new MatchPairs([new MatchPair("a", "A", "x", "")]), "two pairs or more"),
            (new MatchPairs([new MatchPair("a", "A", "x", "X"), new MatchPair("b", "B", "y", "Y")], [new Item("z", "X")]), "belongs to nothing says the same"),
            (new FillGaps("No gap."), "no gap"),
            (new FillGaps("A [[ ]] gap."), "no right answer"),
            (new ClickPlace([]), "No place is right"),
            (new ClickPlace([new PlaceArea(new Shape(ShapeKind.Rectangle, [new(0.1, 0.1), new(0.1, 0.4)]), "A", true)]), "no inside"),
            (new ClickPlace([new PlaceArea(new Shape(ShapeKind.Polygon, [new(0, 0), new(1, 1), new(1, 0), new(0, 1)]), "A", true)]), "crosses itself"),
        }.Select(f => new TheoryDataRow<Interaction, string>(f.Item1, f.Item2));

    [Fact]
    public void Puts_right_what_it_is_given()
    {
        var tidy = new ChooseSeveral([
            new Option("a", " A\nb ", true, 900),
            new Option("a", "C"),
            new Option("1 bad", "D", Reply: " "),
            new Option("", new string('x', 900)),
        ]).Tidied();
        var options = ((ChooseSeveral)tidy).Options;
        options.Select(o => o.Id).ShouldBe(["a", "x1", "x2", "x3"]);
        (options[0].Text, options[0].PerCent, options[2].Reply).ShouldBe(("A b", 100, null));
        options[3].Text.Length.ShouldBeLessThanOrEqualTo(Interaction.MostOptions * 20);
        var area = (ClickPlace)new ClickPlace([new PlaceArea(new Shape(ShapeKind.Rectangle, [new(-1, double.NaN), new(2, 0.5)]), "A")]).Tidied();
        area.Areas[0].Shape.Points.ShouldBe([new Place(0, 0), new Place(1, 0.5)]);
    }

    [Fact]
    public void Refuses_what_does_not_say_what_it_asks()
    {
        foreach (var json in new[] { """{"id":"q","at":1,"text":"?"}""", """{"id":"q","at":1,"text":"?","asks":{"kind":"guess"}}""" })
            Should.Throw<JsonException>(() => WexelJson.Read<Question>(json));
        // What its kind lacks is told where it is written, whatever there is instead.
        foreach (var kind in Each.Select(i => i.Kind))
        foreach (
            var inside in new[]
            {
                "",
                ",\"options\":[null],\"accepted\":[null],\"items\":[null],\"pairs\":[null],\"others\":[null],\"areas\":[null,{}],\"words\":[null]",
            }
        )
        {
            var read = WexelJson.Read<Question>("""{"id":"q","at":1,"text":"?","asks":{"kind":"KIND"}}""".Replace("KIND\"", kind + "\"" + inside));
            read.Faults.ShouldNotBeEmpty(kind);
            read.Asks.Form("q").ShouldNotBeNull();
            read.Asks.Key.Judge(["a"]).Share.ShouldBe(0);
        }
    }

    [Fact]
    public void Every_try_after_the_first_takes_its_share()
    {
        new[] { 1, 2, 3, 9 }.Select(attempt => Penalty.Taken(1, 25, attempt)).ShouldBe([1, 0.75, 0.5, 0]);
        Penalty.Taken(0.5, 25, 2).ShouldBe(0.375);
    }

    [Fact]
    public void Goes_with_what_is_cut()
    {
        var map = TimeMap.Of(Grid, Ms.Of(10_000), [new TimeRange(Ms.Of(2000), Ms.Of(4000))]);
        Question At(string id, int at, AskedWhen when = AskedWhen.Here) => One(at: at, id: id) with { When = when, Again = Ms.Of(3000) };
        var left = Question.Kind.Following(
            [At("before", 1000), At("joint", 2000), At("inside", 3000), At("end", 3000, AskedWhen.LessonEnd), At("after", 5000)],
            map
        );
        left.Select(q => (q.Id, q.At)).ShouldBe([("before", Ms.Of(1000)), ("joint", Ms.Of(2000)), ("end", Ms.Of(2000)), ("after", Ms.Of(3000))]);
        left.ShouldAllBe(q => q.Again == Ms.Of(2000));
        Question.Kind.Following([At("end", 1, AskedWhen.LessonEnd)], TimeMap.Of(Grid, Ms.Of(1000), [new TimeRange(default, Ms.Of(1000))])).ShouldBeEmpty();
    }

    [Fact]
    public void Takes_the_place_to_watch_again_along_to_another_take()
    {
        var places = new ReelPlaces([
            new ReelPlace(null, new TimeRange(Ms.Of(0), Ms.Of(5000))),
            new ReelPlace(new TimeRange(Ms.Of(0), Ms.Of(3000)), new TimeRange(Ms.Of(5000), Ms.Of(8000))),
        ]);
        var lost = new List<string>();
        var carried = Question.Kind.Carried([One(), One(at: 4000, id: "q2")], places, lost);
        (carried[0].At, carried[0].Again).ShouldBe((Ms.Of(6000), Ms.Of(5500)));
        lost.ShouldBe(["the question “Which lane?” at 0:04"]);
    }

    [Fact]
    public void Brings_two_peoples_changes_together()
    {
        var before = One();
        var theirs = before with { Text = "Which lane is right?", Points = 5 };
        var mine = before with { Asks = Each[2], Points = 3 };
        Question.Kind.Merged(before, theirs, mine).ShouldBe(before with { Text = "Which lane is right?", Asks = Each[2], Points = 3 });
    }

    [Fact]
    public void A_lesson_with_one_that_cannot_be_asked_is_not_released()
    {
        var lesson = new LessonDocument("Fares", "", "en-GB", "hash", [], [], []) { Questions = [One()] };
        LessonRules.NotReady(lesson).ShouldBeNull();
        var problem = LessonRules.NotReady(lesson with { Questions = [One(), One(new TrueOrFalse(null), 4000, "q2")] });
        problem!.Sentence.ShouldBe("At the question “Which lane?” at 0:04: Nobody said whether it is true. Choose.");
        problem.Code.ShouldBe("question-not-ready");
    }

    [Fact]
    public void A_change_is_said_in_words()
    {
        var lesson = new LessonDocument("Fares", "", "en-GB", "hash", [], [], []) { Questions = [One()] };
        LessonRules.Describe(lesson, lesson with { Questions = [One() with { Text = "?" }] }).ShouldBe("1 question changed");
        LessonRules.Describe(lesson, lesson with { Questions = [One(at: 2000)] }).ShouldBe("1 question moved");
        LessonRules
            .Describe(lesson, lesson with { Questions = [], Goal = new LessonGoal(GoalRule.Score) })
            .ShouldBe("what it takes to be done, 1 question removed");
    }
}
