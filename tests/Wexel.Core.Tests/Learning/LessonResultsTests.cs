using Wexel.Core.Learning;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Scoring;

namespace Wexel.Core.Tests.Learning;

public class LessonResultsTests
{
    private static readonly Question Lane = new("q1", default, "Which lane?", new ChooseOne([new("a", "Lane A"), new("b", "Lane B", true)]));
    private static readonly Question Word = new("q2", default, "What?", new ShortText([new Accepted("gangway")]));
    private static readonly Question Some = new("q3", default, "Which?", new ChooseSeveral([new("a", "Cars", true), new("b", "Dogs"), new("c", "Vans", true)]));

    private static AnswerState First(Question question, double later, params string[] answer)
    {
        var share = question.Asks.Key.Judge(answer).Share;
        return new AnswerState(question.Id, 2, Math.Max(share, later), false, ["?"], default, answer, share);
    }

    [Fact]
    public void Counts_what_was_taken_first()
    {
        // Six took lane A at first, whatever they took later; three were right.
        IReadOnlyList<AnswerState>[] learners =
        [
            .. Enumerable.Range(0, 6).Select(_ => (IReadOnlyList<AnswerState>)[First(Lane, 1, "a"), First(Word, 0, "Gangway ")]),
            .. Enumerable.Range(0, 3).Select(_ => (IReadOnlyList<AnswerState>)[First(Lane, 1, "b"), First(Word, 0, "bridge"), First(Some, 0, "a", "b")]),
        ];
        var results = LessonResults.Of([Lane, Word, Some], learners);
        results.Questions[0].Answers.ShouldBe([new("Lane A", 6, false), new("Lane B", 3, true)]);
        results.Questions[0].Statistics.Difficulty!.Value.ShouldBe(1 / 3.0, 1e-9);
        results.Questions[0].IsMissedByMost.ShouldBeTrue();
        // What counts as the accepted text is counted under it.
        results.Questions[1].Answers.ShouldBe([new("gangway", 6, true), new("bridge", 3, false)]);
        results.Questions[1].IsMissedByMost.ShouldBeFalse();
        results.Questions[2].Answers.ShouldBe([new("Cars", 3, true), new("Dogs", 3, false)]);
        // Of three learners nothing is concluded.
        results.Questions[2].IsMissedByMost.ShouldBeFalse();
        results.Whole.ShouldBe(3);
    }

    [Fact]
    public void Lists_the_most_frequent_of_many_and_counts_the_rest()
    {
        var learners = Enumerable.Range(0, 30).Select(i => (IReadOnlyList<AnswerState>)[First(Word, 0, $"word {i / 2}")]).ToList();
        var result = LessonResults.Of([Word], learners).Questions[0];
        (result.Answers.Count, result.Others).ShouldBe((12, 6));
    }

    [Fact]
    public void Says_nothing_of_questions_that_are_gone_or_were_never_answered()
    {
        LessonResults
            .Of(
                [],
                [
                    [First(Lane, 0, "a")],
                ]
            )
            .Questions.ShouldBeEmpty();
        var none = LessonResults.Of([Lane], []).Questions[0];
        (none.Answers.Count, none.Statistics.Answers, none.Statistics.Difficulty).ShouldBe((0, 0, null));
    }
}
