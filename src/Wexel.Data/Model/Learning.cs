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

    /// <summary>The <see cref="Core.Learning.LearnerState"/> as JSON.</summary>
    public required string State { get; set; }

    /// <summary>By which <see cref="Core.Learning.LearnerState.Version"/> it was reckoned.</summary>
    public int Version { get; set; }

    public double SeenShare { get; set; }
    public DateTimeOffset? CompletedAt { get; set; }
    public DateTimeOffset SeenLastAt { get; set; }
}
