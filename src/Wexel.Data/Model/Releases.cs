using Wexel.Core.Kit;
using Wexel.Core.Outlets;

namespace Wexel.Data.Model;

/// <summary>A place where lessons are released.</summary>
public sealed class Outlet
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>The code of its <see cref="OutletKind"/>.</summary>
    public required string Kind { get; init; }

    public required string Name { get; set; }

    /// <summary>The settings of its kind as JSON, which say their version; null for those that a new one starts with.</summary>
    public string? Settings { get; set; }

    /// <summary>What is said about everything there, a <see cref="Core.Details.DetailSet"/> as JSON; null for nothing.</summary>
    public string? Details { get; set; }

    /// <summary>By which delivery things are put there, by its code.</summary>
    public string DeliverBy { get; set; } = "download";

    /// <summary>Where they are put; null where nothing is put anywhere.</summary>
    public string? DeliverTo { get; set; }

    /// <summary>The profile that is taken for it where nobody chooses another; null for what is usual for its kind.</summary>
    public string? ProfileId { get; set; }

    /// <summary>The largest file that it takes, in bytes; null where nobody said.</summary>
    public long? MostBytes { get; set; }

    /// <summary>The longest lesson that it takes; null where nobody said.</summary>
    public TimeSpan? MostLength { get; set; }

    /// <summary>The highest rate that it takes, in bits a second; null where nobody said.</summary>
    public long? MostBitsPerSecond { get; set; }

    /// <summary>The feed, where it is one.</summary>
    public PodcastFeed? Feed { get; set; }
}

/// <summary>The feed of a podcast outlet.</summary>
public sealed class PodcastFeed
{
    public Guid OutletId { get; init; }
    public Outlet? Outlet { get; init; }

    /// <summary>What stands in its address; it cannot be guessed, and a new one may be given.</summary>
    public required string Token { get; set; }

    /// <summary>The key of the artwork that is served.</summary>
    public required string ArtworkKey { get; set; }

    /// <summary>The <see cref="Core.Feeds.ImageFacts"/> as JSON.</summary>
    public required string Artwork { get; set; }

    /// <summary>Whether the artwork is the trainer's own picture.</summary>
    public bool ArtworkIsOwn { get; set; }

    /// <summary>When its settings, artwork or list of episodes changed last.</summary>
    public DateTimeOffset ChangedAt { get; set; }

    /// <summary>What it is known by wherever it moves, see <see cref="Core.Feeds.FeedGuid"/>; null while it never did.</summary>
    public Guid? Identity { get; set; }

    /// <summary>Who listens at an address of their own.</summary>
    public List<FeedListener> Listeners { get; } = [];

    /// <summary>The directories to which it was submitted.</summary>
    public List<FeedListing> Listings { get; } = [];
}

/// <summary>What is wanted at an outlet, or stands there, and has a package or may have one.</summary>
public abstract class PackagedRelease
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid OutletId { get; init; }
    public Outlet? Outlet { get; init; }

    /// <summary>How far it is on its way; what is behind is found by the keys.</summary>
    public ReleasePhase Phase { get; private set; }

    /// <summary>Since when.</summary>
    public DateTimeOffset PhaseAt { get; private set; }

    /// <summary>What stood in the way, a <see cref="Core.Problem"/> as JSON; null where nothing did.</summary>
    public string? Problem { get; set; }

    /// <summary>The profile with which it is wanted.</summary>
    public string WantedProfileId { get; set; } = "";

    /// <summary>Whether nothing is to stand there any more.</summary>
    public bool WantsDown { get; set; }

    /// <summary>
    /// Counts what people said of it: that it is wanted, who may see it, that it is taken down. Whoever read it before the last of that was said
    /// writes nothing (<see cref="Microsoft.EntityFrameworkCore.DbUpdateConcurrencyException"/>), and reads it again.
    /// </summary>
    public int SaidNumber { get; private set; }

    /// <summary>How much of it was put at the outlet so far, in bytes.</summary>
    public long SentBytes { get; set; }

    /// <summary>How much there is to put; null where nobody knows yet.</summary>
    public long? BytesToSend { get; set; }

    /// <summary>The key of the package, where the outlet takes one.</summary>
    public string? PackageKey { get; set; }

    /// <summary>The files of the package as JSON.</summary>
    public string? PackageFiles { get; set; }

    public long PackageBytes { get; set; }

    /// <summary>The key of all that stands at the outlet, see <see cref="ReleaseKeys"/>; where another is wanted now, it is behind.</summary>
    public required string MadeFrom { get; set; }

    /// <summary>The <see cref="Core.Encoding.Profile"/> that it was made with as JSON, as it was then: it may be gone since.</summary>
    public required string Profile { get; set; }

    /// <summary>The key of all of which the package was made; null where there is none.</summary>
    public string? PackedFrom { get; set; }

    /// <summary>What was put at the outlet: the key of what is in each file by its path, as JSON; null for nothing.</summary>
    public string? There { get; set; }

    /// <summary>The key of the package that the outlet was sent last, whole.</summary>
    public string? SentKey { get; set; }

    public DateTimeOffset? SentAt { get; set; }

    /// <summary>The page that the outlet named when it took the package.</summary>
    public string? SentTo { get; set; }

    /// <summary>Notes that somebody said something of it.</summary>
    public void SaidAnew() => SaidNumber++;

    /// <summary>Goes to a phase.</summary>
    /// <exception cref="InvalidOperationException">It may not go there.</exception>
    public void Go(ReleasePhase phase, DateTimeOffset now)
    {
        if (!ReleasePhases.May(Phase, phase))
            throw new InvalidOperationException($"A release may not go from {Phase} to {phase}.");
        (Phase, PhaseAt) = (phase, now);
    }

    /// <summary>Goes on with what is left, in a phase of its way. Where the lesson was changed meanwhile, that may lie behind it: then it begins
    /// anew.</summary>
    public void GoOn(ReleasePhase phase, DateTimeOffset now)
    {
        if (ReleasePhases.IsUnderWay(Phase) && !ReleasePhases.May(Phase, phase))
            Go(ReleasePhase.Planned, now);
        Go(phase, now);
    }
}

/// <summary>What somebody wanted at outlets in one step: one mail tells of all of it.</summary>
public sealed class ReleaseBatch
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid AskedBy { get; init; }
    public DateTimeOffset AskedAt { get; init; }

    /// <summary>When the mail was sent, or that none is; null while some of it is under way.</summary>
    public DateTimeOffset? ToldAt { get; set; }
}

/// <summary>A whole course at one outlet, as one package.</summary>
public sealed class CourseRelease : PackagedRelease
{
    public Guid CourseId { get; init; }
    public Course? Course { get; init; }
    public required string ProfileId { get; set; }

    public DateTimeOffset ReleasedAt { get; set; }

    /// <summary>Who wanted it last; null for one from before that was noted.</summary>
    public Guid? AskedBy { get; set; }

    /// <summary>When somebody wanted it last.</summary>
    public DateTimeOffset AskedAt { get; set; }
}

/// <summary>One lesson at one outlet: wanted there, standing there, or taken down.</summary>
public sealed class Release : PackagedRelease
{
    public Guid LessonId { get; init; }
    public Lesson? Lesson { get; init; }

    /// <summary>What stands in its address; it cannot be guessed and never changes.</summary>
    public required string Token { get; init; }

    /// <summary>Who is to see it.</summary>
    public Core.People.Visibility WantedVisibility { get; set; } = Core.People.Seeing.Usual;

    /// <summary>In which step it was wanted last; null where nobody wanted it yet.</summary>
    public Guid? BatchId { get; set; }

    /// <summary>What is said about the lesson there alone, a <see cref="Core.Details.DetailSet"/> as JSON; null for nothing.</summary>
    public string? Details { get; set; }

    public Core.People.Visibility Visibility { get; set; } = Core.People.Seeing.Usual;

    /// <summary>From when it may be seen; null for at once.</summary>
    public DateTimeOffset? OpensAt { get; set; }

    /// <summary>Until when it may be seen; null for ever.</summary>
    public DateTimeOffset? EndsAt { get; set; }

    /// <summary>Who is named as those who may see it, <see cref="Core.People.NamedPeople"/> as JSON; null for nobody.</summary>
    public string? Named { get; set; }

    /// <summary>The mail addresses that were told of it, as a JSON list; null for none.</summary>
    public string? Invited { get; set; }

    public int Revision { get; set; }
    public required string ProfileId { get; set; }

    /// <summary>The key of the video that learners get.</summary>
    public required string FileKey { get; set; }

    /// <summary>What the video is.</summary>
    public Core.Encoding.Container Container { get; set; }

    /// <summary>The key of another file beside it, that learners download; null where there is none.</summary>
    public string? DownloadKey { get; set; }

    /// <summary>What that file is.</summary>
    public Core.Encoding.Container? DownloadContainer { get; set; }

    /// <summary>How large its picture is, in pixels; null where it has none.</summary>
    public int? DownloadWidth { get; set; }
    public int? DownloadHeight { get; set; }

    /// <summary>The key under which the poster lies; null where there is none.</summary>
    public string? PosterKey { get; set; }

    /// <summary>The <see cref="Core.Packages.PlayerLesson"/> as JSON, as learners get it.</summary>
    public required string Player { get; set; }

    /// <summary>The <see cref="Core.Feeds.Episode"/> as JSON, in a podcast feed.</summary>
    public string? Episode { get; set; }

    /// <summary>The key of the same episode's file in the feed of sound beside it; null where it is not in one.</summary>
    public string? SoundKey { get; set; }

    /// <summary>The size of that file, in bytes.</summary>
    public long? SoundBytes { get; set; }

    /// <summary>Where in a video service it is to go, a <see cref="Core.Outlets.VideoServices.VideoPlace"/> as JSON; null where nobody said.</summary>
    public string? VideoPlace { get; set; }

    /// <summary>What stands at a video service, a <see cref="Core.Outlets.VideoServices.VideoThere"/> as JSON; null for nothing.</summary>
    public string? VideoThere { get; set; }

    /// <summary>When it was looked at there last.</summary>
    public DateTimeOffset? VideoSeenAt { get; set; }

    /// <summary>When what stands there was last found to be what is wanted.</summary>
    public DateTimeOffset? VideoSaidAt { get; set; }

    public DateTimeOffset ReleasedAt { get; set; }

    /// <summary>When it was seen to that those who follow are told, or that nobody is; null before anybody can see it in a list.</summary>
    public DateTimeOffset? FollowersToldAt { get; set; }

    /// <summary>When its owner was told that its time has come.</summary>
    public DateTimeOffset? OpeningToldAt { get; set; }

    /// <summary>When it was released first; releasing again does not change it.</summary>
    public DateTimeOffset FirstReleasedAt { get; set; }
}
