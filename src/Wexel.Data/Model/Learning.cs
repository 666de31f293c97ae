using Wexel.Core.Learning;

namespace Wexel.Data.Model;

/// <summary>Something that a learner did; appended and never changed.</summary>
public sealed class LearningEntry
{
    /// <summary>The order in which it was appended.</summary>
    public long Number { get; init; }

    /// <summary>What names the event for good; whoever reports it may say it twice.</summary>
    public Guid EventId { get; init; }

    /// <summary>A signed-in person's id, or a key that an anonymous learner's browser made.</summary>
    public required string LearnerKey { get; init; }

    /// <summary>The person's name then, or null for an anonymous learner.</summary>
    public string? Name { get; init; }

    public Guid LessonId { get; init; }

    /// <summary>Where it was; the outlet and the release may be gone since.</summary>
    public Guid? OutletId { get; init; }

    public Guid? ReleaseId { get; init; }
    public int Revision { get; init; }
    public int Attempt { get; init; }

    /// <summary>The kind of what was done, see <see cref="Core.Learning.LearningActs"/>.</summary>
    public required string Kind { get; init; }

    /// <summary>What was done, as JSON.</summary>
    public required string Data { get; init; }

    public DateTimeOffset At { get; init; }
}

/// <summary>What the log comes to for one learner and one lesson; it can be taken away, and is reckoned again.</summary>
public sealed class LearnerRecord
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid LessonId { get; init; }

    /// <summary>As in the log.</summary>
    public required string LearnerKey { get; init; }

    /// <summary>The person's name, or null for an anonymous learner.</summary>
    public string? Name { get; set; }

    /// <summary>Where they took the lesson last; the outlet may be gone since. Null where nobody knows.</summary>
    public Guid? OutletId { get; set; }

    /// <summary>The <see cref="Core.Learning.LearnerState"/> as JSON.</summary>
    public required string State { get; set; }

    /// <summary>By which <see cref="Core.Learning.LearnerState.Version"/> it was reckoned.</summary>
    public int Version { get; set; }

    public double SeenShare { get; set; }
    public DateTimeOffset? CompletedAt { get; set; }
    public DateTimeOffset SeenLastAt { get; set; }
}

/// <summary>What a learner said of a moment of a lesson; it stands in its run sheet until it is answered.</summary>
public sealed class LearnerNote
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid LessonId { get; init; }

    /// <summary>As in the log.</summary>
    public required string LearnerKey { get; init; }

    /// <summary>Who it was, where they were signed in: they are told of the answer.</summary>
    public Guid? PersonId { get; init; }

    /// <summary>The person's name then; null for somebody who came by a link.</summary>
    public string? Name { get; set; }

    public NoteKind Kind { get; init; }

    /// <summary>In the learner's words; may be empty.</summary>
    public required string Text { get; init; }

    /// <summary>The hash of the recording that it is of.</summary>
    public required string Recording { get; init; }

    /// <summary>Which time that recording stands in the lesson, from 0.</summary>
    public int Nth { get; init; }

    /// <summary>The moment, in that recording's time.</summary>
    public TimeSpan Moment { get; init; }

    public DateTimeOffset At { get; init; }

    /// <summary>What the author says; null where nothing but that it was seen to.</summary>
    public string? Answer { get; set; }

    /// <summary>When it was answered; null while it waits.</summary>
    public DateTimeOffset? AnsweredAt { get; set; }
}
