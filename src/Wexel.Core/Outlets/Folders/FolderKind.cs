using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Packages;

namespace Wexel.Core.Outlets.Folders;

/// <summary>What is said of a folder: nothing besides where it is.</summary>
public sealed record FolderSettings;

/// <summary>A folder on this machine or on a mounted share, with one folder a lesson that is named after it.</summary>
public sealed class FolderKind : OutletKind<FolderSettings>
{
    /// <inheritdoc/>
    public override string Code => "folder";

    /// <inheritdoc/>
    public override string Name => "folder";

    /// <inheritdoc/>
    public override string About =>
        "A folder of this machine or of a share that it sees. Each lesson has one in it, whole, named after it, and opens by double click.";

    /// <inheritdoc/>
    public override int Rank => 25;

    /// <inheritdoc/>
    public override string PackageWord => "folder";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Deliveries => ["wholeFolder"];

    /// <inheritdoc/>
    public override bool DeliversFiles => true;

    /// <inheritdoc/>
    public override bool IsNamedAfterLesson => true;

    /// <inheritdoc/>
    public override bool TakesCourses => true;

    /// <inheritdoc/>
    public override bool TakesBack => true;

    /// <inheritdoc/>
    public override IReadOnlyList<DetailRule> Details => DetailsThere.OnPage;

    /// <inheritdoc/>
    public override string SeenBy => "Whoever sees that folder";

    /// <inheritdoc/>
    public override IReadOnlyList<Carried> Carries =>
        [
            new("Contents"),
            new("Chapters in the file"),
            new("Captions in each language"),
            new("Description"),
            new("Picture"),
            new("Completion", "It is kept in the learner’s browser alone."),
            new(Carried.Questions, "They are judged by the page, which holds what is right; answers stay in the learner’s browser."),
            new(Carried.Score, "It stays in the learner’s browser; they can save or print it."),
            new(Carried.Overlays),
            new(Carried.Survey, Lost: true),
        ];

    /// <inheritdoc/>
    public override DocumentFormat<FolderSettings> Format { get; } = new("folder’s settings");

    /// <inheritdoc/>
    protected override FolderSettings Usual { get; } = new();

    /// <inheritdoc/>
    public override string Loss(string outlet) => $"The release to “{outlet}” ends here: its folder there is removed.";

    /// <inheritdoc/>
    public override string RenditionPurpose(string outlet) => Packaged.RenditionPurpose(outlet);

    /// <inheritdoc/>
    protected override OutletTerms Terms(FolderSettings settings) => new FolderTerms();

    private sealed class FolderTerms : OutletTerms
    {
        public override Profile Usual => Profiles.Web;

        public override Takes Takes => Takes.OnPages;

        public override bool TakesPlayer => true;

        public override IReadOnlyList<PackageFile> Package(PackageSources sources) => sources.AsFolder();
    }
}
