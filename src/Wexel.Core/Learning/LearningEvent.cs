using System.Text.Json;
using Wexel.Core.Documents;
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
public sealed record Watched(IReadOnlyList<WatchedStretch> Stretches, RecordingMoment? Position) : LearningAct
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<Watched> Format { get; } = new("event “watched”");
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

/// <summary>The kinds of what learners do, each by its name in the log.</summary>
public static class LearningActs
{
    private static readonly Dictionary<string, (Type Type, Func<LearningAct, string> Write, Func<string, LearningAct> Read)> Kinds = new()
    {
        ["watched"] = Kept(Watched.Format),
        ["watched-before"] = Kept(WatchedBefore.Format),
        ["answered"] = Kept(Answered.Format),
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
