using Wexel.Core.Questions;
using Wexel.Core.Scoring;

namespace Wexel.Core.Learning;

/// <summary>A revision of a lesson as learners take it: its times, what it asks, and by what it is done.</summary>
/// <param name="Times">Its times.</param>
/// <param name="Questions">What it asks.</param>
/// <param name="Goal">By what it is done.</param>
/// <param name="Draws">Of which questions each learner is asked only some.</param>
public sealed record LessonTaken(LessonTimes Times, IReadOnlyList<QuestionTaken> Questions, LessonGoal Goal, IReadOnlyList<DrawnFrom>? Draws = null)
{
    /// <summary>The same as one learner takes it: what they are not asked is not there.</summary>
    /// <param name="learner">What names the learner.</param>
    public LessonTaken For(string learner)
    {
        if (Draws is not { Count: > 0 })
            return this;
        var not = NotAsked(learner);
        return this with { Questions = [.. Questions.Where(q => !not.Contains(q.Id))] };
    }

    /// <summary>The questions that a learner is not asked, by their names.</summary>
    /// <param name="learner">What names the learner.</param>
    public IReadOnlySet<string> NotAsked(string learner) => DrawnFrom.NotAsked(Draws ?? [], learner);

    /// <summary>What a learner's lesson stands at.</summary>
    /// <param name="attendance">What they watched.</param>
    /// <param name="answers">What they answered.</param>
    public LessonStanding Judge(Attendance attendance, IReadOnlyList<AnswerState> answers)
    {
        var known = answers.ToDictionary(a => a.Question);
        return Goal.Judge(
            attendance.Complete,
            Score(answers),
            Questions.All(q => known.ContainsKey(q.Id)),
            Questions.All(q => known.TryGetValue(q.Id, out var answer) && answer.IsDone(q.Tries))
        );
    }

    /// <summary>The points that a learner reached.</summary>
    public LessonScore Score(IReadOnlyList<AnswerState> answers)
    {
        var known = answers.ToDictionary(a => a.Question, a => a.Share);
        return LessonScore.Of(Questions.Select(q => (q.Points, known.GetValueOrDefault(q.Id))));
    }
}

/// <summary>What a question counts.</summary>
/// <param name="Id">Its name inside the lesson.</param>
/// <param name="Points">Its points.</param>
/// <param name="Tries">How often it may be answered; 0 for as often as somebody wants.</param>
public sealed record QuestionTaken(string Id, double Points, int Tries);

/// <summary>What a learner's answers to one question come to.</summary>
/// <param name="Question">Its name inside the lesson.</param>
/// <param name="Tries">How often it was answered.</param>
/// <param name="Share">The best share of its points, 0 to 1.</param>
/// <param name="Right">Whether an answer was wholly right.</param>
/// <param name="Answer">The last answer.</param>
/// <param name="At">When that was given.</param>
/// <param name="First">The first answer: what is reckoned of a question goes by it.</param>
/// <param name="FirstShare">What that came to, 0 to 1.</param>
public sealed record AnswerState(
    string Question,
    int Tries,
    double Share,
    bool Right,
    IReadOnlyList<string> Answer,
    DateTimeOffset At,
    IReadOnlyList<string> First,
    double FirstShare
)
{
    /// <summary>Whether it cannot be answered again: it was right, or no try is left.</summary>
    /// <param name="tries">How often it may be answered; 0 for as often as somebody wants.</param>
    public bool IsDone(int tries) => Right || (tries > 0 && Tries >= tries);

    /// <summary>After one more answer.</summary>
    public static AnswerState After(AnswerState? before, Answered answered, DateTimeOffset at) =>
        new(
            answered.Question,
            (before?.Tries ?? 0) + 1,
            Math.Max(before?.Share ?? 0, answered.Share),
            before?.Right == true || answered.Right,
            answered.Answer,
            at,
            before?.First ?? answered.Answer,
            before?.FirstShare ?? answered.Share
        );
}
