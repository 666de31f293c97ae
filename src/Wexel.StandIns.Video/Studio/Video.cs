namespace Wexel.StandIns.Video.Studio;

/// <summary>How far a video is.</summary>
internal enum VideoState
{
    /// <summary>Its file is not here whole.</summary>
    Uploading,

    /// <summary>It is encoded, and cannot be played.</summary>
    Processing,

    /// <summary>It plays in a small size.</summary>
    Small,

    /// <summary>It plays in all sizes.</summary>
    Ready,

    /// <summary>It was refused.</summary>
    Refused,
}

/// <summary>What is said about a video.</summary>
/// <param name="MadeForChildren">There is no default.</param>
/// <param name="Visibility"><c>public</c>, <c>unlisted</c> or <c>private</c>.</param>
/// <param name="Named">Who may see a private one, by mail address.</param>
/// <param name="PublishAt">When it becomes public; until then it is private.</param>
internal sealed record VideoTexts(
    string? Title = null,
    string? Description = null,
    IReadOnlyList<string>? Tags = null,
    string? Category = null,
    bool? MadeForChildren = null,
    string? Licence = null,
    bool MayEmbed = true,
    bool TellFollowers = false,
    string Visibility = "private",
    IReadOnlyList<string>? Named = null,
    DateTimeOffset? PublishAt = null
);

/// <summary>A video, as it is kept.</summary>
internal sealed record Video(string Id, string Account, string Channel, string Key, VideoTexts Texts, DateTimeOffset CreatedAt)
{
    /// <summary>Counts its changes.</summary>
    public int Version { get; init; } = 1;

    /// <summary>How large the file is that is being uploaded, in bytes.</summary>
    public long Bytes { get; init; }

    /// <summary>Which file: each that replaces another has the next number.</summary>
    public int Source { get; init; } = 1;

    /// <summary>By which key that file was begun.</summary>
    public string SourceKey { get; init; } = Key;

    public DateTimeOffset? UploadedAt { get; init; }
    public double Seconds { get; init; }
    public int Width { get; init; }
    public int Height { get; init; }

    /// <summary>Why it was refused.</summary>
    public string? Reason { get; init; }

    /// <summary>When it plays in a small size, and when in all.</summary>
    public DateTimeOffset? SmallAt { get; init; }
    public DateTimeOffset? ReadyAt { get; init; }
    public bool Mailed { get; init; }

    /// <summary>The hash of the thumbnail that was chosen.</summary>
    public string? Thumbnail { get; init; }

    /// <summary>The hashes of captions by language.</summary>
    public IReadOnlyDictionary<string, string> Captions { get; init; } = new Dictionary<string, string>();

    internal VideoState State(DateTimeOffset now) =>
        Reason is not null ? VideoState.Refused
        : UploadedAt is null ? VideoState.Uploading
        : now >= ReadyAt ? VideoState.Ready
        : now >= SmallAt ? VideoState.Small
        : VideoState.Processing;

    /// <summary>Who sees it now.</summary>
    internal string SeenBy(DateTimeOffset now) => Texts.PublishAt is { } at && now < at ? "private" : Texts.Visibility;
}

/// <summary>A list of videos.</summary>
internal sealed record Playlist(string Id, string Channel, string Title, string Visibility, IReadOnlyList<string> Videos);
