namespace Wexel.Data.Model;

/// <summary>How far a rendition is.</summary>
public enum RenditionState
{
    Waiting,
    Working,
    Done,
    Failed,
    Cancelled,

    /// <summary>Stopped and kept for later.</summary>
    Held,
}

/// <summary>What somebody asked for in one step: one mail tells of all of it.</summary>
public sealed class RenderBatch
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid RequestedBy { get; init; }
    public DateTimeOffset RequestedAt { get; init; }

    /// <summary>When the mail was sent; null while some of it is not done.</summary>
    public DateTimeOffset? ToldAt { get; set; }

    public List<Rendition> Renditions { get; } = [];
}

/// <summary>One encoded file made from a lesson by a profile, or the wish for one.</summary>
public sealed class Rendition
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid LessonId { get; init; }
    public Lesson? Lesson { get; init; }
    public int Revision { get; init; }
    public required string ProfileId { get; init; }

    /// <summary>The <see cref="Core.Encoding.Profile"/> as JSON, as it was when this was asked for.</summary>
    public required string Profile { get; init; }

    public required Guid BatchId { get; init; }
    public RenderBatch? Batch { get; init; }
    public DateTimeOffset RequestedAt { get; init; }

    /// <summary>Its place in the queue: the lowest that waits is next.</summary>
    public double Place { get; set; }

    /// <summary>How often it was tried.</summary>
    public int Attempts { get; set; }

    /// <summary>Whether it is rendered by itself, since a pass together with others failed.</summary>
    public bool Alone { get; set; }
    public RenditionState State { get; set; }

    /// <summary>How far the encode is, 0 to 1.</summary>
    public double Progress { get; set; }

    public DateTimeOffset? StartedAt { get; set; }
    public DateTimeOffset? EndedAt { get; set; }

    /// <summary>The last sign of life of whoever works on it.</summary>
    public DateTimeOffset? SignOfLifeAt { get; set; }

    /// <summary>The key over everything that is encoded for it; files with other titles and chapters are made of the same.</summary>
    public required string EncodeKey { get; set; }

    /// <summary>The <see cref="Core.Encoding.MadeBy"/> as JSON; null until it is made.</summary>
    public string? MadeBy { get; set; }

    /// <summary>The key of the finished file.</summary>
    public string? FileKey { get; set; }

    public long Bytes { get; set; }

    /// <summary>Whether somebody said that its file is to be kept: it is neither deleted nor freed.</summary>
    public bool Kept { get; set; }

    /// <summary>How long the file is; zero where it was made before that was kept.</summary>
    public TimeSpan Length { get; set; }

    /// <summary>The checked facts as JSON.</summary>
    public string? Check { get; set; }

    public string? Codecs { get; set; }

    /// <summary>What the encoder said when it failed.</summary>
    public string? Said { get; set; }

    /// <summary>What to try then.</summary>
    public string? Advice { get; set; }

    public TimeSpan EstimatedTime { get; init; }
    public long EstimatedBytes { get; init; }

    /// <summary>Whether the estimates came from samples of the lesson.</summary>
    public bool EstimateSampled { get; init; }
}
