namespace Wexel.Data.Model;

/// <summary>Somebody who wants to be told of what is new in a channel or of a course.</summary>
public sealed class Follow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid PersonId { get; init; }

    /// <summary>The channel; null where it is a course.</summary>
    public Guid? OutletId { get; init; }

    /// <summary>The course; null where it is a channel.</summary>
    public Guid? CourseId { get; init; }

    public DateTimeOffset Since { get; init; }
}

/// <summary>A lesson of which somebody is told by mail, once.</summary>
public sealed class FollowerMail
{
    public Guid PersonId { get; init; }
    public Guid LessonId { get; init; }
    public Guid ReleaseId { get; init; }
    public Release? Release { get; init; }

    /// <summary>Because of what they are told.</summary>
    public Guid FollowId { get; init; }
    public Follow? Follow { get; init; }

    /// <summary>From when on the mail goes.</summary>
    public DateTimeOffset DueAt { get; init; }

    /// <summary>When it went; null while it waits.</summary>
    public DateTimeOffset? SentAt { get; set; }

    /// <summary>What the mail server said that would not have it; null where it did.</summary>
    public string? Refusal { get; set; }
}
