namespace Wexel.Core.Feeds;

/// <summary>The names of a feed's files: the same below the server's address and in a folder.</summary>
public static class FeedFiles
{
    /// <summary>The feed itself.</summary>
    public const string Feed = "feed.xml";

    /// <summary>The feed of sound beside a feed of video.</summary>
    public const string SoundBeside = "sound.xml";

    /// <summary>The media type of RSS.</summary>
    public const string FeedType = "application/rss+xml";

    /// <summary>The media type of JSON chapters.</summary>
    public const string ChaptersType = "application/json+chapters";

    /// <summary>The media type of the transcript.</summary>
    public const string TranscriptType = "text/vtt";

    /// <summary>The episode's file.</summary>
    public static string Media(string name, FeedMedia media) => $"episodes/{name}{Ending(media)}";

    /// <summary>The episode's chapters.</summary>
    public static string ChaptersOf(string name) => $"episodes/{name}.json";

    /// <summary>The episode's picture, a JPEG.</summary>
    public static string Picture(string name) => $"episodes/{name}.jpg";

    /// <summary>A transcript of the episode.</summary>
    /// <param name="name">The episode's.</param>
    /// <param name="apart">What tells it from the episode's first one; null for that.</param>
    public static string Transcript(string name, string? apart) => apart is null ? $"episodes/{name}.vtt" : $"episodes/{name}.{apart}.vtt";

    /// <summary>The ending of an episode's file.</summary>
    public static string Ending(FeedMedia media) => media == FeedMedia.Video ? ".m4v" : ".m4a";

    /// <summary>The media type of an episode's file, as directories take it.</summary>
    public static string MediaType(FeedMedia media) => media == FeedMedia.Video ? "video/x-m4v" : "audio/x-m4a";
}
