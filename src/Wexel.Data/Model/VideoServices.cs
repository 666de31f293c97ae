namespace Wexel.Data.Model;

/// <summary>An account with a video service, for which somebody let Wexel act.</summary>
public sealed class VideoAccount
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>The code of the service.</summary>
    public required string Service { get; init; }

    /// <summary>The service's name for the account.</summary>
    public required string AccountId { get; init; }

    /// <summary>What people call it.</summary>
    public required string Name { get; set; }

    /// <summary>What the service said of it last, as JSON.</summary>
    public required string Facts { get; set; }

    /// <summary>When it was asked that last.</summary>
    public DateTimeOffset FactsAt { get; set; }

    /// <summary>The tokens, protected: without the keys of this house nobody can read them.</summary>
    public required string Tokens { get; set; }

    public DateTimeOffset ConnectedAt { get; set; }

    /// <summary>Since when Wexel may not act for it any more; null while it may.</summary>
    public DateTimeOffset? WithdrawnAt { get; set; }
}

/// <summary>How often a video was watched at a service on one day.</summary>
public sealed class VideoDay
{
    public Guid ReleaseId { get; init; }
    public Release? Release { get; init; }

    /// <summary>The day, in UTC.</summary>
    public DateOnly Day { get; init; }

    public int Views { get; set; }

    /// <summary>For how long it was watched, by all together.</summary>
    public TimeSpan Watched { get; set; }
}
