namespace Wexel.Data.Model;

/// <summary>How far a rendition is.</summary>
public enum RenditionState
{
    Waiting,
    Working,
    Done,
    Failed,
    Cancelled,
}

/// <summary>One encoded file made from a lesson by a profile, or the wish for one.</summary>
public sealed class Rendition
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid LessonId { get; init; }
    public Lesson? Lesson { get; init; }
    public int Revision { get; init; }
    public required string ProfileId { get; init; }
    public required Guid RequestedBy { get; init; }
    public DateTimeOffset RequestedAt { get; init; }
    public RenditionState State { get; set; }

    /// <summary>How far the encode is, 0 to 1.</summary>
    public double Progress { get; set; }

    public DateTimeOffset? StartedAt { get; set; }
    public DateTimeOffset? EndedAt { get; set; }

    /// <summary>The last sign of life of whoever works on it.</summary>
    public DateTimeOffset? SignOfLifeAt { get; set; }

    /// <summary>The key of the encode, from which files with other titles and chapters are made.</summary>
    public required string EncodeKey { get; set; }

    /// <summary>The key of the finished file.</summary>
    public string? FileKey { get; set; }

    public long Bytes { get; set; }

    /// <summary>The checked facts as JSON.</summary>
    public string? Check { get; set; }

    public string? Codecs { get; set; }

    /// <summary>What the encoder said when it failed.</summary>
    public string? Said { get; set; }

    /// <summary>What to try then.</summary>
    public string? Advice { get; set; }

    public TimeSpan EstimatedTime { get; init; }
    public long EstimatedBytes { get; init; }
}
