using System.Text.Json;
using System.Text.Json.Nodes;
using Wexel.Core.Documents;
using Wexel.Core.Scoring;
using Wexel.Core.Timing;

namespace Wexel.Core.Learning;

/// <summary>Something that a learner did with a lesson. It is appended to the log and never changed.</summary>
/// <param name="Id">What names it for good; one that comes twice counts once.</param>
/// <param name="Revision">The lesson's revision that was taken.</param>
/// <param name="Attempt">Which attempt at the lesson it belongs to, from 1.</param>
/// <param name="At">When it was reported.</param>
/// <param name="Name">The learner's name then; null for somebody whom nobody knows.</param>
/// <param name="Act">What it was.</param>
public sealed record LearningEvent(Guid Id, int Revision, int Attempt, DateTimeOffset At, string? Name, LearningAct Act);

/// <summary>What a learner did.</summary>
public abstract record LearningAct;

/// <summary>Something was watched.</summary>
/// <param name="Stretches">What was, beyond what was known already.</param>
/// <param name="Position">Where the learner is; null where nobody knows.</param>
/// <param name="Again">What was watched once more, beyond what was known to have been; null for nothing.</param>
public sealed record Watched(IReadOnlyList<WatchedStretch> Stretches, RecordingMoment? Position, IReadOnlyList<WatchedStretch>? Again = null) : LearningAct
{
    /// <summary>What was watched once more, beyond what was known to have been.</summary>
    public IReadOnlyList<WatchedStretch> Again { get; init; } = Again ?? [];

    /// <summary>How it is kept.</summary>
    public static DocumentFormat<Watched> Format { get; } = new("event “watched”", NotAgain);

    /// <summary>Nobody asked what was watched again.</summary>
    private static void NotAgain(JsonObject watched) => watched["again"] = new JsonArray();
}

/// <summary>Something was watched before there was a log: all that was known of it then.</summary>
/// <param name="Ranges">What was, in lesson time.</param>
/// <param name="Position">Where the learner was, in lesson time.</param>
/// <param name="CompletedAt">When the lesson was complete; null where it was not.</param>
public sealed record WatchedBefore(IReadOnlyList<TimeRange> Ranges, TimeSpan Position, DateTimeOffset? CompletedAt) : LearningAct
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<WatchedBefore> Format { get; } = new("event “watched before”");
}

/// <summary>A question was answered.</summary>
/// <param name="Question">Its name inside the lesson.</param>
/// <param name="Answer">The values of the answer, as they were given.</param>
/// <param name="Share">The share of the points that it was given, 0 to 1, less what earlier tries took away.</param>
/// <param name="Right">Whether it was wholly right.</param>
/// <param name="Points">What the question counted then.</param>
/// <param name="Took">How long it took, as the player says; null where it does not say.</param>
public sealed record Answered(string Question, IReadOnlyList<string> Answer, double Share, bool Right, double Points, TimeSpan? Took) : LearningAct
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<Answered> Format { get; } = new("event “answered”");
}

/// <summary>What somebody had answered was reckoned again, as the question is now: somebody who teaches wanted it.</summary>
/// <param name="Question">Its name inside the lesson.</param>
/// <param name="Share">The best share of the points that the answers come to, 0 to 1.</param>
/// <param name="Right">Whether one of them is wholly right.</param>
/// <param name="FirstShare">What the first of them comes to, 0 to 1.</param>
public sealed record Rescored(string Question, double Share, bool Right, double FirstShare) : LearningAct
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<Rescored> Format { get; } = new("event “rescored”");

    /// <summary>What answers come to.</summary>
    /// <param name="question">The question’s name inside the lesson.</param>
    /// <param name="key">By what they are judged.</param>
    /// <param name="penalty">How much of the points every try after the first takes away, in per cent.</param>
    /// <param name="answers">They, in order; at least one.</param>
    public static Rescored Of(string question, AnswerKey key, int penalty, IReadOnlyList<IReadOnlyList<string>> answers)
    {
        var grades = answers.Select((values, i) => (Grade: key.Judge(values), Try: i + 1)).ToList();
        return new Rescored(
            question,
            grades.Max(g => Penalty.Taken(g.Grade.Share, penalty, g.Try)),
            grades.Any(g => g.Grade.Right),
            Penalty.Taken(grades[0].Grade.Share, penalty, 1)
        );
    }

    /// <summary>Whether it makes a difference to what is known.</summary>
    public bool Differs(AnswerState known) => (Share, Right, FirstShare) != (known.Share, known.Right, known.FirstShare);
}

/// <summary>The kinds of what learners do, each by its name in the log.</summary>
public static class LearningActs
{
    private static readonly Dictionary<string, (Type Type, Func<LearningAct, string> Write, Func<string, LearningAct> Read)> Kinds = new()
    {
        ["watched"] = Kept(Watched.Format),
        ["watched-before"] = Kept(WatchedBefore.Format),
        ["answered"] = Kept(Answered.Format),
        ["rescored"] = Kept(Rescored.Format),
    };

    /// <summary>An act as the log keeps it: the name of its kind, and what it says as JSON with a version.</summary>
    public static (string Kind, string Data) Write(LearningAct act)
    {
        var (kind, (_, write, _)) = Kinds.First(k => k.Value.Type == act.GetType());
        return (kind, write(act));
    }

    /// <summary>Reads an act as it was kept.</summary>
    /// <exception cref="JsonException">It is of a kind that is not known, or cannot be read.</exception>
    public static LearningAct Read(string kind, string data) =>
        Kinds.TryGetValue(kind, out var known)
            ? known.Read(data)
            : throw new JsonException($"Nobody knows events of the kind “{kind}”. They were written by a newer Wexel.");

    private static (Type, Func<LearningAct, string>, Func<string, LearningAct>) Kept<T>(DocumentFormat<T> format)
        where T : LearningAct => (typeof(T), act => format.Write((T)act), format.Read);
}
