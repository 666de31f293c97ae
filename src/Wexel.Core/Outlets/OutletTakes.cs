using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Packages;

namespace Wexel.Core.Outlets;

/// <summary>What a kind of outlet takes, and why not the rest.</summary>
public static class OutletTakes
{
    /// <summary>Why an outlet would refuse what a profile makes, or null.</summary>
    /// <param name="kind">The kind of outlet.</param>
    /// <param name="feed">What the episodes are, where it is a feed.</param>
    /// <param name="profile">The profile.</param>
    public static Problem? Refusal(OutletKind kind, FeedMedia? feed, Profile profile) => (kind, feed) switch
    {
        (OutletKind.PodcastFeed, FeedMedia.Sound) => SoundEpisode(profile),
        (OutletKind.PodcastFeed, _) => VideoEpisode(profile),
        _ => Page(kind, profile),
    };

    /// <summary>The profile that is taken where nobody chose one.</summary>
    /// <param name="kind">The kind of outlet.</param>
    /// <param name="feed">What the episodes are, where it is a feed.</param>
    public static Profile Usual(OutletKind kind, FeedMedia? feed) => (kind, feed) switch
    {
        (OutletKind.PodcastFeed, FeedMedia.Sound) => Profiles.PodcastSound,
        (OutletKind.PodcastFeed, _) => Profiles.Podcast720,
        _ => Profiles.Web,
    };

    /// <summary>What becomes of a lesson's title at an outlet, in a sentence; null where it stays as it is.</summary>
    /// <param name="kind">The kind of outlet.</param>
    /// <param name="title">The lesson's title.</param>
    public static string? TitleThere(OutletKind kind, string title) => kind == OutletKind.LearningSystem && title.Length > Scorm12Manifest.LongestTitle
        ? $"Learning systems take titles of at most {Scorm12Manifest.LongestTitle} characters; in their lists it reads “{SectionRules.Shortened(title, Scorm12Manifest.LongestTitle)}”."
        : null;

    private static Problem? Page(OutletKind kind, Profile profile) => profile switch
    {
        { Picture: null } => Refuse("outlet-wants-picture", $"“{profile.Title}” makes sound alone, and the learner’s page shows a picture. Take a profile with a picture, or release the sound to a podcast feed."),
        { Container: Container.Mov } => Refuse("outlet-wants-web-file", $"“{profile.Title}” makes a MOV file, which not every browser plays. Take a profile that makes MP4, such as “{Profiles.Web.Title}”."),
        // H.264 in MP4 with AAC is what every place takes (common practice, no source).
        { Container: Container.Webm } or { Picture.Codec: not PictureCodec.H264 } or { Sound.Codec: not SoundCodec.Aac } when kind == OutletKind.LearningSystem =>
            Refuse("outlet-wants-h264", $"Learning systems are opened on old and new devices, and not all of them play what “{profile.Title}” makes. Take a profile with H.264 and AAC in MP4, such as “{Profiles.Web.Title}”."),
        { Container: Container.Hls } when kind == OutletKind.LearningSystem => Refuse("outlet-wants-one-file", $"“{profile.Title}” makes hundreds of small files, which many learning systems are slow to unpack or refuse. Take a profile that makes MP4, such as “{Profiles.Web.Title}”."),
        _ => null,
    };

    private static Problem? VideoEpisode(Profile profile) => profile switch
    {
        { Container: Container.Hls } => Refuse("episode-wants-one-file", $"An episode is one file, and “{profile.Title}” makes many. Take “{Profiles.Podcast720.Title}”."),
        { Picture: null } => Refuse("episode-wants-picture", $"The feed’s episodes are videos, and “{profile.Title}” makes sound alone. Take “{Profiles.Podcast720.Title}”."),
        { MakesEveryFrame: false } => Refuse("episode-rate-varies", $"Podcast apps want a constant frame rate, which “{profile.Title}” does not make. Render with “{Profiles.Podcast720.Title}”, then release."),
        { Picture.Codec: not PictureCodec.H264 } or { Sound.Codec: not SoundCodec.Aac } => Refuse("episode-wants-h264", $"Podcast apps take H.264 and AAC, which “{profile.Title}” does not make. Render with “{Profiles.Podcast720.Title}”, then release."),
        _ => null,
    };

    private static Problem? SoundEpisode(Profile profile) => profile switch
    {
        { Container: Container.Hls } => Refuse("episode-wants-one-file", $"An episode is one file, and “{profile.Title}” makes many. Take “{Profiles.PodcastSound.Title}”."),
        { Sound: null } => Refuse("episode-wants-sound", $"The feed’s episodes are sound alone, and “{profile.Title}” leaves the sound away. Take “{Profiles.PodcastSound.Title}”."),
        { Sound.Codec: not SoundCodec.Aac } => Refuse("episode-wants-aac", $"The feed’s episodes are M4A with AAC, which “{profile.Title}” does not make. Take “{Profiles.PodcastSound.Title}”."),
        _ => null,
    };

    private static Problem Refuse(string code, string sentence) => new(code, sentence, "profileId");
}
