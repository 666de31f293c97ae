namespace Wexel.Data.Model;

/// <summary>Somebody who listens to a private feed, at an address of their own.</summary>
public sealed class FeedListener
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid OutletId { get; init; }
    public PodcastFeed? Feed { get; init; }

    /// <summary>What they are called, for whoever gives addresses out.</summary>
    public required string Name { get; init; }

    /// <summary>What stands in their address; it cannot be guessed.</summary>
    public required string Token { get; init; }

    public DateTimeOffset AddedAt { get; init; }

    /// <summary>When somebody asked for the feed by it last; null for never.</summary>
    public DateTimeOffset? AskedAt { get; set; }

    /// <summary>Since when their address opens nothing any more; null while it does.</summary>
    public DateTimeOffset? WithdrawnAt { get; set; }
}

/// <summary>A feed, or the one of sound beside it, at a podcast directory.</summary>
public sealed class FeedListing
{
    public Guid OutletId { get; init; }
    public PodcastFeed? Feed { get; init; }

    /// <summary>The code of the directory.</summary>
    public required string Directory { get; init; }

    /// <summary>Whether it is the feed of sound beside the feed.</summary>
    public bool IsSound { get; init; }

    /// <summary>The directory's name for what was submitted.</summary>
    public required string Submission { get; set; }

    /// <summary>The address that was submitted.</summary>
    public required string Address { get; set; }

    public DateTimeOffset SubmittedAt { get; set; }

    /// <summary>When it answered; null while it has not.</summary>
    public DateTimeOffset? AnsweredAt { get; set; }

    /// <summary>Where the feed is listed; null where it is not.</summary>
    public string? Page { get; set; }

    /// <summary>Why it was refused, a JSON list of sentences; null where it was not.</summary>
    public string? Reasons { get; set; }
}
