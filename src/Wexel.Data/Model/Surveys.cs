namespace Wexel.Data.Model;

/// <summary>What somebody said of a lesson. Of an anonymous reply nothing is kept that tells who it was: no person, no time, and no number that
/// counts on.</summary>
public sealed class SurveyReplyRow
{
    /// <summary>By chance, so that the order of replies says nothing.</summary>
    public Guid Id { get; init; } = Guid.NewGuid();
    public Guid LessonId { get; init; }

    /// <summary>Where it was given; the outlet may be gone since.</summary>
    public Guid OutletId { get; init; }

    /// <summary>Whether learners were told that their name is sent along.</summary>
    public bool Named { get; init; }

    /// <summary>As in the log; null for an anonymous reply.</summary>
    public string? LearnerKey { get; set; }

    /// <summary>The person's name then; null for an anonymous reply, and for somebody who came by a link.</summary>
    public string? Name { get; set; }

    /// <summary>When it was given; null for an anonymous reply.</summary>
    public DateTimeOffset? At { get; init; }

    /// <summary>What was given to each item, as JSON.</summary>
    public required string Values { get; init; }
}

/// <summary>That somebody replied, and nothing else: they are not asked twice.</summary>
public sealed class SurveyMark
{
    public Guid LessonId { get; init; }

    /// <summary>As in the log.</summary>
    public required string LearnerKey { get; init; }
}
