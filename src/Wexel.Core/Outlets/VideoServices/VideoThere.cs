using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Wexel.Core.Documents;

namespace Wexel.Core.Outlets.VideoServices;

/// <summary>How far a video is at a service.</summary>
public enum VideoStage
{
    /// <summary>Its file is not there whole.</summary>
    Uploading,

    /// <summary>It is there, and is encoded; it cannot be played.</summary>
    Processing,

    /// <summary>It plays in a small size, and is still encoded.</summary>
    SmallSize,

    /// <summary>It plays in all sizes.</summary>
    Ready,

    /// <summary>The service refused it.</summary>
    Refused,

    /// <summary>It was removed there.</summary>
    Gone,
}

/// <summary>Where in a service a lesson is to go.</summary>
/// <param name="Account">The account, by its number in Wexel.</param>
/// <param name="Channel">The channel, by the service's name for it.</param>
/// <param name="Lists">The playlists, by the service's names for them.</param>
public sealed record VideoPlace(Guid Account, string Channel, IReadOnlyList<string> Lists)
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<VideoPlace> Format { get; } = new("place at a video service");
}

/// <summary>What is to stand at a service.</summary>
/// <param name="Place">Where.</param>
/// <param name="Video">The key of the video, by what was encoded: another title in the file is no other video.</param>
/// <param name="Texts">What is said of it.</param>
/// <param name="Thumbnail">The key of its picture; null for the service's own.</param>
/// <param name="Captions">The keys of its captions by language.</param>
public sealed record VideoWanted(VideoPlace Place, string Video, VideoTexts Texts, string? Thumbnail, IReadOnlyDictionary<string, string> Captions);

/// <summary>What stands at a service, as far as Wexel put it there and was told of it.</summary>
/// <param name="Account">The account under which it stands.</param>
/// <param name="Channel">The channel in which it stands.</param>
/// <param name="Id">The service's name for it; null before it has one.</param>
/// <param name="Link">Where people watch it.</param>
/// <param name="Stage">How far it is.</param>
/// <param name="Reason">Why it was refused.</param>
/// <param name="ReadyAt">When it is ready at the earliest, by Wexel's clock; null where nobody said.</param>
/// <param name="Video">The key of the video that is there whole; null for none.</param>
/// <param name="Sending">The key of the video that is being sent; null for none.</param>
/// <param name="Upload">Where that is sent to.</param>
/// <param name="Said">What Wexel said of it last.</param>
/// <param name="Found">What is said of it there, where that is something else; null where nothing else is.</param>
/// <param name="Thumbnail">The key of the picture that was put there.</param>
/// <param name="Captions">The keys of the captions that were put there, by language.</param>
/// <param name="Lists">The playlists in which Wexel put it.</param>
/// <param name="Embed">A page there with its player alone, for frames of other pages; null where it may not be shown so.</param>
public sealed record VideoThere(
    Guid Account,
    string Channel,
    string? Id = null,
    string? Link = null,
    VideoStage Stage = VideoStage.Uploading,
    string? Reason = null,
    DateTimeOffset? ReadyAt = null,
    string? Video = null,
    string? Sending = null,
    string? Upload = null,
    VideoTexts? Said = null,
    VideoTexts? Found = null,
    string? Thumbnail = null,
    IReadOnlyDictionary<string, string>? Captions = null,
    IReadOnlyList<string>? Lists = null,
    string? Embed = null
)
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<VideoThere> Format { get; } = new("video at a service", NotEmbedded);

    /// <summary>Nobody had asked yet where its player stands alone.</summary>
    private static void NotEmbedded(JsonObject there) => there["embed"] = null;

    /// <summary>Whether it stands under an account, in its channel and in its playlists.</summary>
    public bool IsAt(VideoPlace place) => IsIn(place) && (Lists ?? []).ToHashSet().SetEquals(place.Lists);

    /// <summary>Whether it stands under an account and in its channel.</summary>
    public bool IsIn(VideoPlace place) => Account == place.Account && Channel == place.Channel;

    /// <summary>Whether the service has all of it and is not through with it.</summary>
    [JsonIgnore]
    public bool IsProcessed => Stage is VideoStage.Processing or VideoStage.SmallSize;
}
