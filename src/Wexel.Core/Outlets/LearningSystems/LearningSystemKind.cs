using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Packages;

namespace Wexel.Core.Outlets.LearningSystems;

/// <summary>What is said of a learning system.</summary>
/// <param name="Standard">The code of the standard by which it takes packages, see <see cref="LearningStandard"/>.</param>
public sealed record LearningSystemSettings(string Standard = Scorm12Package.Runtime);

/// <summary>A learning system that takes packages.</summary>
public sealed class LearningSystemKind : OutletKind<LearningSystemSettings>
{
    /// <inheritdoc/>
    public override string Code => "learningSystem";

    /// <inheritdoc/>
    public override string Name => "learning system";

    /// <inheritdoc/>
    public override string About => "A package for a learning system, which records who completed it.";

    /// <inheritdoc/>
    public override int Rank => 30;

    /// <inheritdoc/>
    public override IReadOnlyList<OutletField> Fields =>
        [new("standard", "Standard", OutletInput.Choice, Choices: [.. LearningStandard.All.Select(s => new OutletChoice(s.Code, s.Name))])];

    /// <inheritdoc/>
    public override bool TakesCourses => true;

    /// <inheritdoc/>
    public override string? PackageWord => "package";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Deliveries => ["download", "put", "folder"];

    /// <inheritdoc/>
    public override IReadOnlyList<DetailRule> Details => DetailsThere.OnPage;

    /// <inheritdoc/>
    public override string SeenBy => "Whoever is enrolled there";

    /// <inheritdoc/>
    public override IReadOnlyList<Carried> Carries =>
        [
            new("Contents"),
            new("Chapters in the file"),
            new("Captions in each language"),
            new("Description"),
            new("Picture"),
            new("Completion", "The learning system records it."),
            new(Carried.Questions, "They are judged by the page, which holds what is right; the learning system records each answer."),
            new(Carried.Score, "The learning system records it."),
            new(Carried.Overlays),
            new(Carried.Survey, "A named one is recorded by the learning system. An anonymous one is not asked: the system knows who answers."),
        ];

    /// <inheritdoc/>
    public override DocumentFormat<LearningSystemSettings> Format { get; } = new("learning system’s settings");

    /// <inheritdoc/>
    protected override LearningSystemSettings Usual { get; } = new();

    /// <inheritdoc/>
    public override IReadOnlyList<string> ByHand(string? page) =>
        ["In a learning system it is added as a SCORM 1.2 package. The system then records who completed it."];

    /// <inheritdoc/>
    public override string? TitleThere(string title) =>
        title.Length > Scorm12Manifest.LongestTitle
            ? $"Learning systems take titles of at most {Scorm12Manifest.LongestTitle} characters; in their lists it reads "
                + $"“{SectionRules.Shortened(title, Scorm12Manifest.LongestTitle)}”."
            : null;

    /// <inheritdoc/>
    public override string Loss(string outlet) => Packaged.Loss(outlet);

    /// <inheritdoc/>
    public override string RenditionPurpose(string outlet) => Packaged.RenditionPurpose(outlet);

    /// <inheritdoc/>
    protected override Problem? Unusable(LearningSystemSettings settings) =>
        LearningStandard.All.Any(s => s.Code == settings.Standard)
            ? null
            : new Problem("outlet-standard-unknown", $"Choose one of: {string.Join(", ", LearningStandard.All.Select(s => s.Name))}.", "standard");

    /// <inheritdoc/>
    protected override OutletTerms Terms(LearningSystemSettings settings) =>
        new LearningSystemTerms(LearningStandard.All.First(s => s.Code == settings.Standard));

    private sealed class LearningSystemTerms(LearningStandard standard) : OutletTerms
    {
        public override Profile Usual => Profiles.Web;

        public override string Key => standard.Code;

        // H.264 in MP4 with AAC is what every place takes, old devices too; many are slow to unpack hundreds of small files, and to import several
        // packages at once (common practice, no source).
        public override Takes Takes { get; } =
            new("Learning systems", [Container.Mp4, Container.M4v], [PictureCodec.H264], [SoundCodec.Aac], WantsPicture: true, FilesAtATime: 2);

        public override bool TakesPlayer => true;

        public override IReadOnlyList<PackageFile> Package(PackageSources sources) => standard.Plan(sources);
    }
}
