using Wexel.Core.Captions;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;

namespace Wexel.Core.Outlets.PodcastFeeds;

/// <summary>A podcast feed, which Wexel serves.</summary>
public sealed class PodcastFeedKind : OutletKind<FeedSettings>
{
    /// <summary>Its code.</summary>
    public const string Feed = "podcastFeed";

    /// <inheritdoc/>
    public override string Code => Feed;

    /// <inheritdoc/>
    public override string Name => "podcast feed";

    /// <inheritdoc/>
    public override string About => "Episodes that podcast apps load, as video or as sound alone.";

    /// <inheritdoc/>
    public override int Rank => 40;

    /// <inheritdoc/>
    public override IReadOnlyList<OutletField> Fields =>
        [
            new("title", "Title", OutletInput.Line),
            new("description", "Description", OutletInput.Text),
            new("author", "Author, as apps show it", OutletInput.Line),
            new("media", "Episodes are", OutletInput.Choice, Choices: [new("video", "video, M4V"), new("sound", "sound only, M4A")]),
        ];

    /// <inheritdoc/>
    public override IReadOnlyList<DetailRule> Details { get; } =
    [
        new(DetailFields.Title, Required: true),
        new(DetailFields.Description),
        new(DetailFields.Tags),
        new(DetailFields.Language),
        new(DetailFields.Licence),
        new(DetailFields.ThirdParty),
        new(DetailFields.Author),
    ];

    /// <inheritdoc/>
    public override string SeenBy => "Whoever has the feed’s address";

    /// <inheritdoc/>
    public override bool IsOpen => true;

    /// <inheritdoc/>
    public override IReadOnlyList<Carried> Carries =>
        [
            new("Contents", "Chapters, and lines of time and title in the description for apps that know none."),
            new("Captions", "A transcript."),
            new("Description"),
            new("Picture", "In apps that show one of each episode; the feed’s artwork in all others."),
            new("Completion", Lost: true),
        ];

    /// <inheritdoc/>
    public override DocumentFormat<FeedSettings> Format { get; } = new("feed’s settings");

    /// <inheritdoc/>
    protected override FeedSettings Usual { get; } =
        new("", "", "", "", "Education", "How To", LanguageTag.Usual, false, null, FeedMedia.Video, FeedOrder.Serial, true);

    /// <inheritdoc/>
    public override string Loss(string outlet) => $"The episode leaves the feed “{outlet}”; apps that have it keep it.";

    /// <inheritdoc/>
    public override string RenditionPurpose(string outlet) => $"The episode in “{outlet}” is a copy of it, and stays when this goes.";

    /// <inheritdoc/>
    protected override Problem? Unusable(FeedSettings settings) => settings.Unusable();

    /// <inheritdoc/>
    protected override OutletTerms Terms(FeedSettings settings) => settings.Media == FeedMedia.Sound ? SoundTerms.All : VideoTerms.All;

    private sealed class VideoTerms : OutletTerms
    {
        internal static readonly VideoTerms All = new();

        public override Profile Usual => Profiles.Podcast720;

        public override FeedMedia? Copy => FeedMedia.Video;

        public override string Key => "video";

        public override Problem? Refusal(Profile profile) =>
            profile switch
            {
                { Container: Container.Hls } => Refusals.ForProfile(
                    "episode-wants-one-file",
                    $"An episode is one file, and “{profile.Title}” makes many. Take “{Profiles.Podcast720.Title}”."
                ),
                { Picture: null } => Refusals.ForProfile(
                    "episode-wants-picture",
                    $"The feed’s episodes are videos, and “{profile.Title}” makes sound alone. Take “{Profiles.Podcast720.Title}”."
                ),
                { MakesEveryFrame: false } => Refusals.ForProfile(
                    "episode-rate-varies",
                    $"Podcast apps want a constant frame rate, which “{profile.Title}” does not make. Render with “{Profiles.Podcast720.Title}”, then release."
                ),
                { Picture.Codec: not PictureCodec.H264 } or { Sound.Codec: not SoundCodec.Aac } => Refusals.ForProfile(
                    "episode-wants-h264",
                    $"Podcast apps take H.264 and AAC, which “{profile.Title}” does not make. Render with “{Profiles.Podcast720.Title}”, then release."
                ),
                _ => null,
            };
    }

    private sealed class SoundTerms : OutletTerms
    {
        internal static readonly SoundTerms All = new();

        public override Profile Usual => Profiles.PodcastSound;

        public override FeedMedia? Copy => FeedMedia.Sound;

        public override string Key => "sound";

        public override Problem? Refusal(Profile profile) =>
            profile switch
            {
                { Container: Container.Hls } => Refusals.ForProfile(
                    "episode-wants-one-file",
                    $"An episode is one file, and “{profile.Title}” makes many. Take “{Profiles.PodcastSound.Title}”."
                ),
                { Sound: null } => Refusals.ForProfile(
                    "episode-wants-sound",
                    $"The feed’s episodes are sound alone, and “{profile.Title}” leaves the sound away. Take “{Profiles.PodcastSound.Title}”."
                ),
                { Sound.Codec: not SoundCodec.Aac } => Refusals.ForProfile(
                    "episode-wants-aac",
                    $"The feed’s episodes are M4A with AAC, which “{profile.Title}” does not make. Take “{Profiles.PodcastSound.Title}”."
                ),
                _ => null,
            };

        public override Problem? Unfit(string title, RenderPlan plan) =>
            plan.Sound is not null
                ? null
                : new Problem("episode-without-sound", $"“{title}” has no sound, so a feed of sound alone cannot carry it. Release it to a feed of videos.");
    }
}
