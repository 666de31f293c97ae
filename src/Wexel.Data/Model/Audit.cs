namespace Wexel.Data.Model;

/// <summary>Something that somebody did: who, when, what, from where. It is appended, and never changed.</summary>
public sealed class AuditEntry
{
    /// <summary>Its number, in the order in which things were done.</summary>
    public long Number { get; init; }

    public DateTimeOffset At { get; init; }

    /// <summary>Who did it; null where nobody is known.</summary>
    public Guid? PersonId { get; init; }

    /// <summary>Who did it, as they were called then.</summary>
    public required string Who { get; init; }

    /// <summary>What was done: the name of the address that was asked.</summary>
    public required string Action { get; init; }

    /// <summary>What it was done to, as it was called then; null where it is nothing by itself.</summary>
    public string? Subject { get; init; }

    /// <summary>The lesson that it was done to; null where it was none.</summary>
    public Guid? LessonId { get; init; }

    /// <summary>The address of the machine that it was asked from.</summary>
    public required string From { get; init; }

    /// <summary>With which browser or program.</summary>
    public required string With { get; init; }
}
