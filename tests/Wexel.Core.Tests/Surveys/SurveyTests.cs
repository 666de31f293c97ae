using Wexel.Core.Lessons;
using Wexel.Core.Surveys;
using Wexel.Core.Surveys.Kinds;

namespace Wexel.Core.Tests.Surveys;

/// <summary>What learners say of a lesson: what of it counts, and that nobody can tell who said it where that was promised.</summary>
public class SurveyTests
{
    private static readonly Survey Asked = new(
        "The lesson",
        false,
        [
            new Scale("i1", "It was", 5, "too slow", "too fast"),
            new Choice("i2", "I use it", [new("o1", "today"), new("o2", "later")]),
            new Choice("i3", "I liked", [new("o1", "the voice"), new("o2", "the picture")], Several: true),
            new Comment("i4", "What was missing?"),
        ]
    );

    private static Dictionary<string, IReadOnlyList<string>> Said(params (string Item, string[] Values)[] values) =>
        values.ToDictionary(v => v.Item, v => (IReadOnlyList<string>)v.Values);

    private static SurveyReply Reply(string at, string step, string comment = "") => new(at, Asked.Taken(Said(("i1", [step]), ("i4", [comment]))));

    [Fact]
    public void What_can_be_given_counts_and_nothing_else()
    {
        Asked
            .Taken(Said(("i1", ["3"]), ("i2", ["o2"]), ("i3", ["o2", "o1", "o1"]), ("i4", ["  The keys. "])))
            .Values.SelectMany(v => v)
            .ShouldBe(["3", "o2", "o1", "o2", "The keys."]);
        Asked.Taken(Said(("i1", ["6"]), ("i2", ["o1", "o2"]), ("i3", ["o9"]), ("i4", ["  "]), ("i9", ["x"]))).ShouldBeEmpty();
        Asked.Taken(Said(("i1", ["0"]))).ShouldBeEmpty();
        Asked.Taken(Said(("i1", ["+3"]))).ShouldBeEmpty();
        Asked.Taken(Said(("i4", [new string('x', 5000)])))["i4"][0].Length.ShouldBe(Comment.Longest);
    }

    [Fact]
    public void Few_anonymous_replies_are_only_counted()
    {
        var four = Enumerable.Range(1, 4).Select(i => Reply("Desk", "1")).ToList();
        var few = SurveyResults.Of(Asked, named: false, four);
        (few.Replies, few.Items.Count).ShouldBe((4, 0));
        few.Withheld.ShouldNotBeNull();
        SurveyResults.Of(Asked, named: true, four).Items.Count.ShouldBe(4);
        SurveyResults.Of(Asked, named: false, []).Withheld.ShouldBeNull();
        SurveyResults.Of(Asked, named: false, [.. four, Reply("Desk", "5")]).Items.Count.ShouldBe(4);
    }

    [Fact]
    public void A_small_place_cannot_be_found_by_taking_the_others_from_the_whole()
    {
        List<SurveyReply> replies = [.. Enumerable.Range(0, 6).Select(_ => Reply("Desk", "2")), Reply("Deck", "5")];
        SurveyResults
            .At(Asked, named: false, replies, "Desk")
            .ShouldBe(new SurveyResults(6, "Anonymous replies are broken down once every place has 5 or more.", []));
        SurveyResults.At(Asked, named: true, replies, "Deck").Items[0].Mean.ShouldBe(5);
        replies.AddRange(Enumerable.Range(0, 4).Select(_ => Reply("Deck", "4")));
        SurveyResults.At(Asked, named: false, replies, "Deck").Items[0].Mean.ShouldBe(4.2);
    }

    [Fact]
    public void Results_are_counted_and_comments_stand_in_no_order_of_time()
    {
        var replies = new[] { ("1", "zebra"), ("5", "Anchor"), ("5", "mooring"), ("4", ""), ("5", "anchor") }
            .Select(r => Reply("Desk", r.Item1, r.Item2))
            .ToList();
        var results = SurveyResults.Of(Asked, named: false, replies);
        results.Items[0].Counts.Select(c => (c.Words, c.Count)).ShouldBe([("1 too slow", 1), ("2", 0), ("3", 0), ("4", 1), ("5 too fast", 3)]);
        results.Items[0].Mean.ShouldBe(4);
        results.Items[3].Comments.Select(c => c.ToLowerInvariant()).ShouldBe(["anchor", "anchor", "mooring", "zebra"]);
    }

    [Fact]
    public void One_that_asks_nothing_keeps_a_lesson_back()
    {
        string? Why(params SurveyItem[] items) =>
            LessonRules.NotReady(new LessonDocument("T", "", "en", "a", [], [], []) { Survey = new Survey("", false, items) })?.Sentence;
        Why().ShouldBe("The survey asks nothing. Add something to it, or delete it.");
        Why(new Comment("i", "")).ShouldBe("In the survey, at 1: It asks nothing. Write what you want to know.");
        Why(new Scale("i", "x", 5, "", "high"))!.ShouldContain("lowest and the highest");
        Why(new Choice("i", "x", [new("a", "one")]))!.ShouldContain("two options or more");
        Why(new Choice("i", "x", [new("a", "one"), new("b", "one")]))!.ShouldContain("are the same");
        Why(new Comment("i", "x")).ShouldBeNull();
    }

    [Fact]
    public void It_is_kept_within_its_limits()
    {
        var kept = new Survey(
            new string('t', 999),
            true,
            [.. Enumerable.Range(0, 40).Select(i => new Comment($"i{i}", " x\ny ")), new Scale("i0", "", 99, "a", "b")]
        ).Tidied();
        (kept.Title.Length, kept.Items.Count, kept.Items[0].Text).ShouldBe((200, Survey.MostItems, "x y"));
        ((Scale)new Scale("i", "x", 99, "a", "b").Tidied()).Steps.ShouldBe(Scale.Most);
    }
}
