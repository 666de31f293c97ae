using Wexel.Core.Documents;
using Wexel.Core.Scoring;

namespace Wexel.Core.Tests.Scoring;

public class LessonGoalTests
{
    /// <summary>IEEE 1484.11.1, score.scaled: real(10,7) from −1 to 1.</summary>
    [Fact]
    public void Scales_points()
    {
        LessonScore.Of([(1, 1), (2, 0.5), (3, 0)]).ShouldBe(new LessonScore(2, 6));
        new LessonScore(2, 6).Scaled.ShouldBe(0.3333333);
        new LessonScore(-9, 6).Scaled.ShouldBe(-1);
        LessonScore.Of([]).Scaled.ShouldBe(0);
    }

    [Theory]
    // rule, watched enough, points of 10, answered all: complete, passed
    [InlineData(GoalRule.Watched, true, 0, false, true, null)]
    [InlineData(GoalRule.Watched, false, 10, true, false, null)]
    [InlineData(GoalRule.Score, false, 6, false, true, true)]
    [InlineData(GoalRule.Score, true, 5.9, false, false, null)]
    [InlineData(GoalRule.Score, true, 5.9, true, true, false)]
    [InlineData(GoalRule.Both, false, 10, true, false, null)]
    [InlineData(GoalRule.Both, true, 6, false, true, true)]
    [InlineData(GoalRule.Both, true, 1, true, true, false)]
    [InlineData(GoalRule.Answered, false, 0, true, true, null)]
    [InlineData(GoalRule.Answered, true, 10, false, false, null)]
    public void Judges_by_the_rule(GoalRule rule, bool watched, double raw, bool answered, bool complete, bool? passed) =>
        new LessonGoal(rule).Judge(watched, new LessonScore(raw, 10), answered, answered).ShouldBe(new LessonStanding(complete, passed));

    public sealed record Vector(GoalRule Rule, bool Watched, double Raw, double Max, bool Answered, bool Done, bool Complete, bool? Passed);

    /// <summary>The same file is read by the player's tests: one rule, two languages.</summary>
    [Fact]
    public void Judges_as_the_player_does()
    {
        foreach (var v in WexelJson.Read<Vector[]>(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "vectors", "goal.json"))))
            new LessonGoal(v.Rule, 60)
                .Judge(v.Watched, new LessonScore(v.Raw, v.Max), v.Answered, v.Done)
                .ShouldBe(new LessonStanding(v.Complete, v.Passed), v.ToString());
    }

    [Fact]
    public void A_lesson_without_points_is_done_by_watching() =>
        new LessonGoal(GoalRule.Score).Judge(true, new LessonScore(0, 0), true, true).ShouldBe(new LessonStanding(true, null));

    [Fact]
    public void Takes_what_cannot_be_as_what_is_usual() => new LessonGoal((GoalRule)9, 400).Tidied().ShouldBe(new LessonGoal(GoalRule.Watched, 100));
}
