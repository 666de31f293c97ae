namespace Wexel.Data.Model;

/// <summary>A file that comes in pieces; what has come lies in the store, and its length there is how far it is.</summary>
public sealed class Upload
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string FileName { get; init; }

    /// <summary>The title that was given while it was coming; null where none was.</summary>
    public string? Title { get; set; }

    /// <summary>How large the file is, as was announced.</summary>
    public long Bytes { get; init; }

    /// <summary>When the file was last changed where it comes from, as it was announced; tells files of one name apart.</summary>
    public string? Changed { get; init; }

    /// <summary>The lesson that it is to become a recording of; null where it is to be a lesson of its own.</summary>
    public Guid? ForLesson { get; init; }

    /// <summary>The hash of what has come; written down before the file is moved to where recordings lie, so that it is found there.</summary>
    public string? RecordingHash { get; set; }

    public Guid By { get; init; }
    public required string ByName { get; init; }
    public DateTimeOffset ExpiresAt { get; set; }

    /// <summary>The lesson that was made of it, or that it was already; null until then.</summary>
    public Guid? LessonId { get; set; }

    /// <summary>Whether these bytes had been brought in before.</summary>
    public bool KnownBefore { get; set; }

    /// <summary>Why it could not be used, as JSON; null where it could.</summary>
    public string? Problem { get; set; }

    /// <summary>Whether it is known what came of it.</summary>
    public bool Settled => LessonId is not null || Problem is not null;

    /// <summary>Says which lesson was made of it.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="knownBefore">Whether its bytes had been brought in before.</param>
    public void Became(Guid lesson, bool knownBefore) => (LessonId, KnownBefore) = (lesson, knownBefore);
}
