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
            new("alsoSound", "A second feed beside it has the same episodes as sound alone", OutletInput.YesNo),
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
            new("Chapters in the file"),
            new("Captions in each language", "A transcript each."),
            new("Description"),
            new("Picture", "In apps that show one of each episode; the feed’s artwork in all others."),
            new("Completion", Lost: true),
            new(Carried.Questions, Lost: true),
            new(Carried.Score, Lost: true),
            new(Carried.Overlays, Lost: true),
            new(Carried.Survey, Lost: true),
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
    protected override OutletTerms Terms(FeedSettings settings) =>
        settings.Media == FeedMedia.Sound ? SoundTerms.All
        : settings.AlsoSound ? VideoTerms.AndSound
        : VideoTerms.Alone;

    private sealed class VideoTerms(string key, params FeedMedia[] copies) : OutletTerms
    {
        internal static readonly VideoTerms Alone = new("video", FeedMedia.Video);
        internal static readonly VideoTerms AndSound = new("video+sound", FeedMedia.Video, FeedMedia.Sound);

        public override Profile Usual => Profiles.Podcast720;

        public override IReadOnlyList<FeedMedia> Copies => copies;

        public override string Key => key;

        public override Takes Takes { get; } =
            new(
                "Podcast apps",
                [Container.Mp4, Container.M4v, Container.Mov],
                [PictureCodec.H264],
                [SoundCodec.Aac],
                WantsPicture: true,
                WantsEveryFrame: true
            );
    }

    private sealed class SoundTerms : OutletTerms
    {
        internal static readonly SoundTerms All = new();

        public override Profile Usual => Profiles.PodcastSound;

        public override IReadOnlyList<FeedMedia> Copies { get; } = [FeedMedia.Sound];

        public override string Key => "sound";

        public override Takes Takes { get; } =
            new("Feeds of sound", [Container.Mp4, Container.M4v, Container.Mov, Container.M4a], [], [SoundCodec.Aac], WantsSound: true);
    }
}
