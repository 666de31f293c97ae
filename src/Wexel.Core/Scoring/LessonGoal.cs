namespace Wexel.Core.Scoring;

/// <summary>By what a lesson is done.</summary>
public enum GoalRule
{
    /// <summary>Enough was watched.</summary>
    Watched,

    /// <summary>Enough points were reached.</summary>
    Score,

    /// <summary>Both.</summary>
    Both,

    /// <summary>Every question was answered, rightly or not.</summary>
    Answered,
}

/// <summary>What must be reached for a lesson to be done.</summary>
/// <param name="Rule">By what.</param>
/// <param name="PassPercent">The share of the points that passes, in per cent, 0 to 100.</param>
public sealed record LessonGoal(GoalRule Rule = GoalRule.Watched, int PassPercent = LessonGoal.UsualPassPercent)
{
    /// <summary>The share of points that passes where nobody chose (common practice, no source).</summary>
    public const int UsualPassPercent = 60;

    /// <summary>As it is saved.</summary>
    public LessonGoal Tidied() => new(Enum.IsDefined(Rule) ? Rule : GoalRule.Watched, Math.Clamp(PassPercent, 0, 100));

    /// <summary>What a learner's lesson stands at.</summary>
    /// <param name="watchedEnough">Whether as much was watched as must be.</param>
    /// <param name="score">What they reached.</param>
    /// <param name="answeredAll">Whether every question was answered.</param>
    /// <param name="done">Whether no question can be answered again: somebody who still can has not failed.</param>
    public LessonStanding Judge(bool watchedEnough, LessonScore score, bool answeredAll, bool done)
    {
        if (score.Max <= 0 && Rule != GoalRule.Answered)
            return new LessonStanding(watchedEnough, null);
        var reached = score.Raw * 100 >= (score.Max * PassPercent) - 1e-9;
        var watched = Rule == GoalRule.Score || watchedEnough;
        return Rule switch
        {
            GoalRule.Score or GoalRule.Both => new LessonStanding(
                watched && (reached || done),
                !reached && done ? false
                    : reached && watched ? true
                    : null
            ),
            GoalRule.Answered => new LessonStanding(answeredAll, null),
            _ => new LessonStanding(watchedEnough, null),
        };
    }
}

/// <summary>What a learner's lesson stands at.</summary>
/// <param name="Complete">Whether it is done.</param>
/// <param name="Passed">Whether it was passed or failed; null where that is not decided, or not asked.</param>
public sealed record LessonStanding(bool Complete, bool? Passed);

/// <summary>Points of a lesson, as IEEE 1484.11.1 has them (6.1.20, score: raw, min, max, scaled).</summary>
/// <param name="Raw">What was reached.</param>
/// <param name="Max">What can be reached; 0 for a lesson without points.</param>
public sealed record LessonScore(double Raw, double Max)
{
    /// <summary>The share that was reached, −1 to 1, with seven digits behind the point; 0 where there are no points.</summary>
    public double Scaled => Max <= 0 ? 0 : Math.Round(Math.Clamp(Raw / Max, -1, 1), 7);

    /// <summary>The points of questions.</summary>
    /// <param name="questions">What each counts, and the share of it that was reached.</param>
    public static LessonScore Of(IEnumerable<(double Points, double Share)> questions)
    {
        var (raw, max) = (0.0, 0.0);
        foreach (var (points, share) in questions)
            (raw, max) = (raw + (points * share), max + points);
        return new LessonScore(Math.Round(raw, 4), max);
    }
}
