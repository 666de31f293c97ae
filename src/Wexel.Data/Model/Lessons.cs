namespace Wexel.Data.Model;

/// <summary>Lessons in the trainer's order.</summary>
public sealed class Course
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string Title { get; set; }

    /// <summary>What it is about; may be empty.</summary>
    public string Description { get; set; } = "";

    /// <summary>Its place among the courses; those with the same stand in the order in which they were made.</summary>
    public int Position { get; set; }

    public List<Lesson> Lessons { get; } = [];
}

/// <summary>A lesson; what it says stands in its revisions.</summary>
public sealed class Lesson
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid CourseId { get; set; }
    public Course? Course { get; init; }
    public int Position { get; set; }

    /// <summary>Whose lesson it is; null where that was never noted.</summary>
    public Guid? OwnerId { get; set; }

    /// <summary>The current revision's number, from 1; also what two people saving at once are told apart by.</summary>
    public int Revision { get; set; }

    /// <summary>The current revision's title, for lists.</summary>
    public required string Title { get; set; }

    /// <summary>How long the current revision is, without what is cut; for lists.</summary>
    public TimeSpan Length { get; set; }

    /// <summary>The key of what the current revision says, see <see cref="Core.Lessons.LessonKeys"/>.</summary>
    public string ContentKey { get; set; } = "";

    /// <summary>Whether the current revision wants the house's mark.</summary>
    public bool WantsMark { get; set; }

    /// <summary>What the current revision says about the lesson, a <see cref="Core.Details.DetailSet"/> as JSON; for lists.</summary>
    public string Said { get; set; } = "{}";

    /// <summary>When it was put into the bin; null where it was not. What lies there is found nowhere else.</summary>
    public DateTimeOffset? BinnedAt { get; set; }

    /// <summary>Which revision is searched; another than the current one where nobody has searched since that was saved.</summary>
    public int SearchedRevision { get; set; }

    /// <summary>How cuts are suggested and which suggestions were left, as JSON; null where nobody chose.</summary>
    public string? Suggesting { get; set; }

    /// <summary>How contents are proposed and which proposals were left, as JSON; null where nobody chose.</summary>
    public string? Proposing { get; set; }

    /// <summary>The script that was laid along the voice, with its headings and where it differs, as JSON; null where there is none.</summary>
    public string? Script { get; set; }

    /// <summary>What in its captions somebody decided to leave as it is: a caption's name, a colon, and the word or the guideline.</summary>
    public List<string> LeftInText { get; set; } = [];

    public required string RecordingHash { get; set; }
    public Recording? Recording { get; init; }
    public List<LessonRevision> Revisions { get; } = [];
    public List<Rendition> Renditions { get; } = [];
    public List<Release> Releases { get; } = [];
    public List<SearchedText> Texts { get; } = [];
}

/// <summary>What a lesson says, as it is searched: a <see cref="Core.Searching.LessonText"/>.</summary>
public sealed class SearchedText
{
    public Guid LessonId { get; init; }
    public Core.Searching.TextKind Kind { get; init; }
    public required string Ref { get; init; }
    public required string Text { get; set; }
}

/// <summary>What a released lesson says in one language, as learners search it. It is taken away by the database when the release says something else, and made
/// again from it.</summary>
public sealed class ReleasedText
{
    public Guid ReleaseId { get; init; }

    /// <summary>The dictionary by which its words are brought to their stems, see <see cref="Core.Searching.Dictionaries"/>.</summary>
    public required string Dictionary { get; init; }

    /// <summary>The lines: on each its kind, its time in milliseconds or nothing, and what it says, parted by tabs.</summary>
    public required List<string> Lines { get; init; }

    /// <summary>The stems of the words of its titles, sections and subjects alone: few, so that all lessons that say something are ordered by them.</summary>
    public NpgsqlTypes.NpgsqlTsVector Headings { get; init; } = null!;

    /// <summary>The stems of its words, with what they stand in as their weight.</summary>
    public NpgsqlTypes.NpgsqlTsVector Stems { get; init; } = null!;
}

/// <summary>A word that some released lesson says, or said once: what a slip of the pen may have meant.</summary>
public sealed class ReleasedWord
{
    public required string Word { get; init; }
}

/// <summary>A lesson as it was saved once; never changed.</summary>
public sealed class LessonRevision
{
    public Guid LessonId { get; init; }
    public int Number { get; init; }

    /// <summary>The <see cref="Core.Lessons.LessonDocument"/> as JSON.</summary>
    public required string Document { get; init; }

    public required string Changes { get; init; }

    /// <summary>The number of the earlier revision that this one brings back; null where it changed something new.</summary>
    public int? RestoredFrom { get; init; }

    public required string SavedBy { get; init; }
    public DateTimeOffset SavedAt { get; init; }
}

/// <summary>A media file that was brought in; never changed.</summary>
public sealed class Recording
{
    /// <summary>SHA-256 in lower-case hexadecimal.</summary>
    public required string Hash { get; init; }

    public required string FileName { get; init; }

    /// <summary>The <see cref="Core.Recordings.RecordingFacts"/> as JSON.</summary>
    public required string Facts { get; set; }

    /// <summary>The <see cref="Core.Recordings.RecordingAnalysis"/> as JSON; null while it is being made.</summary>
    public string? Analysis { get; set; }

    /// <summary>What the look-through has found so far, as JSON; null when it is through.</summary>
    public string? AnalysisSoFar { get; set; }

    /// <summary>Why the analysis or the viewing copy failed; null where they did not.</summary>
    public string? AnalysisFailure { get; set; }

    /// <summary>How often it was begun to look through it since that was asked for; 0 once it is through.</summary>
    public int LookThroughs { get; set; }

    /// <summary>When a failure is gone by which may pass by itself; null where there is none, or where it will not.</summary>
    public DateTimeOffset? LookAgainAt { get; set; }

    /// <summary>Whether the browser plays it, as it is or as a viewing copy.</summary>
    public bool Viewable { get; set; }

    /// <summary>The language in which its screen was read, as a BCP 47 tag; null while it was not.</summary>
    public string? ScreenReadAs { get; set; }

    /// <summary>Why its screen could not be read; null where it could, or nobody tried.</summary>
    public string? ScreenFailure { get; set; }

    public DateTimeOffset BroughtInAt { get; init; }
}
