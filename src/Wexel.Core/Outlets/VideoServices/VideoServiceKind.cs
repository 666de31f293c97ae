using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.People;

namespace Wexel.Core.Outlets.VideoServices;

/// <summary>What is said of a video service: nothing yet, for accounts are chosen at each release.</summary>
public sealed record VideoServiceSettings;

/// <summary>An outside video service: it encodes what it gets once more, and shows it on its own pages.</summary>
public sealed class VideoServiceKind : OutletKind<VideoServiceSettings>
{
    /// <summary>The most tags, and the longest title and description, as services commonly take them; each tells its own besides.</summary>
    private const int MostTags = 30,
        LongestTitle = 100;

    /// <summary>Its code.</summary>
    public const string VideoService = "videoService";

    /// <inheritdoc/>
    public override string Code => VideoService;

    /// <inheritdoc/>
    public override string Name => "video service";

    /// <inheritdoc/>
    public override string About => "An outside service that shows videos on its own pages, under an account that is connected once.";

    /// <inheritdoc/>
    public override int Rank => 15;

    /// <inheritdoc/>
    public override bool PublishesVideos => true;

    /// <inheritdoc/>
    public override IReadOnlyList<Visibility> WhoMaySee => [Visibility.OnlyMe, Visibility.Named, Visibility.WithLink, Visibility.Everybody];

    /// <inheritdoc/>
    public override string Means(Visibility visibility) =>
        visibility switch
        {
            Visibility.OnlyMe => "It is private there: whoever has the account sees it, and nobody besides.",
            Visibility.Named => "It is private there: those who are named see it once they have signed in at the service.",
            Visibility.WithLink => "It is unlisted there: it stands in no list, and whoever has the address sees it.",
            _ => "It is public there: it is listed, found, and shown beside others.",
        };

    /// <inheritdoc/>
    public override bool TakesBack => true;

    /// <inheritdoc/>
    public override IReadOnlyList<DetailRule> Details { get; } =
    [
        new(DetailFields.Title, Required: true, Longest: LongestTitle),
        new(DetailFields.Description, Required: true),
        new(DetailFields.Tags, Required: true, Longest: MostTags),
        new(DetailFields.Category, Required: true),
        new(DetailFields.Language),
        new(DetailFields.ForChildren, Required: true),
        new(DetailFields.Licence),
        new(DetailFields.ThirdParty),
        new(DetailFields.MayEmbed),
        new(DetailFields.TellFollowers),
    ];

    /// <inheritdoc/>
    public override IReadOnlyList<Carried> Carries =>
        [
            new("Contents", "Lines of time and title in the description; services make links of them."),
            new("Chapters in the file", Lost: true),
            new("Captions in each language"),
            new("Description"),
            new("Picture", "It can be chosen only once the service has made the video ready; Wexel does that then."),
            new("Completion", "Views and minutes watched, by day, of nobody in particular."),
            new(Carried.Questions, Lost: true),
            new(Carried.Score, Lost: true),
            new(Carried.Overlays, Lost: true),
            new(Carried.Survey, Lost: true),
        ];

    /// <inheritdoc/>
    public override DocumentFormat<VideoServiceSettings> Format { get; } = new("video service’s settings");

    /// <inheritdoc/>
    protected override VideoServiceSettings Usual { get; } = new();

    /// <inheritdoc/>
    public override string Loss(string outlet) => $"The video is removed from “{outlet}”, with its address, its figures and what was written there about it.";

    /// <inheritdoc/>
    public override string RenditionPurpose(string outlet) => $"What was uploaded to “{outlet}”, which made its own sizes of it.";

    /// <inheritdoc/>
    protected override OutletTerms Terms(VideoServiceSettings settings) => ServiceTerms.All;

    private sealed class ServiceTerms : OutletTerms
    {
        internal static readonly ServiceTerms All = new();

        public override Profile Usual => Profiles.VideoService;

        /// <summary>2 GB a video and 10 at a time (common practice, no source).</summary>
        public override Takes Takes { get; } =
            new(
                "Video services",
                [Container.Mp4, Container.M4v, Container.Mov],
                [PictureCodec.H264],
                [SoundCodec.Aac],
                WantsPicture: true,
                MostBytes: 2_000_000_000,
                FilesAtATime: 10
            );
    }
}
