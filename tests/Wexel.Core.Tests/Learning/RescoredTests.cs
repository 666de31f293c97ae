using Wexel.Core.Learning;
using Wexel.Core.Placing;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Recordings;
using Wexel.Core.Scoring;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Learning;

/// <summary>What was answered, reckoned again as the question is now; nothing changes before somebody wants it.</summary>
public class RescoredTests
{
    private static readonly AnswerKey Now = new ChooseOne([new("a", "A"), new("b", "B", Right: true)]).Key;

    private static LessonTaken Lesson()
    {
        var reel = Reel.Of([(Sample.Facts(), (SoundSides?)null)]);
        return new LessonTaken(new LessonTimes(["h"], reel, reel.Map([])), [new("q", 4, 3)], new(GoalRule.Score, 50));
    }

    private static LearningEvent Event(LearningAct act, int minute) => new(Guid.NewGuid(), 1, 1, DateTimeOffset.UnixEpoch.AddMinutes(minute), "Tam", act);

    [Fact]
    public void Every_try_is_judged_anew_with_what_its_turn_takes_away()
    {
        Rescored
            .Of(
                "q",
                Now,
                25,
                [
                    ["a"],
                    ["b"],
                ]
            )
            .ShouldBe(new Rescored("q", 0.75, true, 0));
        Rescored
            .Of(
                "q",
                Now,
                25,
                [
                    ["b"],
                ]
            )
            .ShouldBe(new Rescored("q", 1, true, 1));
        Rescored
            .Of(
                "q",
                Now,
                25,
                [
                    ["a"],
                ]
            )
            .ShouldBe(new Rescored("q", 0, false, 0));
    }

    [Fact]
    public void Points_and_whether_it_is_passed_follow_and_when_they_were_there_does_not()
    {
        var before = LearnerState.Of([Event(new Answered("q", ["b"], 0, false, 4, null), 1)], _ => Lesson());
        (before.Score.Raw, before.Passed).ShouldBe((0, null));
        var after = before.After(Event(new Rescored("q", 1, true, 1), 90), Lesson());
        (after.Score.Raw, after.Passed, after.SeenLastAt).ShouldBe((4, true, before.SeenLastAt));
        after.Answers[0].ShouldBe(before.Answers[0] with { Share = 1, Right = true, FirstShare = 1 });
        // And back, also for whoever had passed by it.
        after.After(Event(new Rescored("q", 0, false, 0), 91), Lesson()).Passed.ShouldNotBe(true);
    }

    [Fact]
    public void What_is_the_same_makes_no_difference() =>
        new Rescored("q", 0, false, 0)
            .Differs(LearnerState.Of([Event(new Answered("q", ["a"], 0, false, 4, null), 1)], _ => Lesson()).Answers[0])
            .ShouldBeFalse();
}
