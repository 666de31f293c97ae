using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Packages;

namespace Wexel.Core.Outlets.WebServers;

/// <summary>What is said of a web server.</summary>
/// <param name="Page">Under which address its folders are found, with a slash at its end; null where nobody said.</param>
public sealed record WebServerSettings(string? Page = null);

/// <summary>The organisation's own web server: a folder for each lesson.</summary>
public sealed class WebServerKind : OutletKind<WebServerSettings>
{
    /// <inheritdoc/>
    public override string Code => "webServer";

    /// <inheritdoc/>
    public override string Name => "web server";

    /// <inheritdoc/>
    public override string About => "A folder for each lesson that works on any web server and also from disk.";

    /// <inheritdoc/>
    public override int Rank => 20;

    /// <inheritdoc/>
    public override IReadOnlyList<OutletField> Fields =>
        [
            new(
                "page",
                "Address under which its folders are found",
                OutletInput.Address,
                "The link of a lesson starts with it. Leave it empty where you do not know it."
            ),
        ];

    /// <inheritdoc/>
    public override string? PackageWord => "folder";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Deliveries => ["download", "folder", "put"];

    /// <inheritdoc/>
    public override bool DeliversFiles => true;

    /// <inheritdoc/>
    public override bool TakesCourses => true;

    /// <inheritdoc/>
    public override bool TakesBack => true;

    /// <inheritdoc/>
    public override IReadOnlyList<DetailRule> Details => DetailsThere.OnPage;

    /// <inheritdoc/>
    public override string SeenBy => "Whoever reaches that server";

    /// <inheritdoc/>
    public override bool IsOpen => true;

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
    public override DocumentFormat<WebServerSettings> Format { get; } = new("web server’s settings");

    /// <inheritdoc/>
    protected override WebServerSettings Usual { get; } = new();

    /// <inheritdoc/>
    public override IReadOnlyList<string> ByHand(string? page) => page is null ? [] : [$"Unpack it on the web server and link {page}."];

    /// <inheritdoc/>
    public override string Loss(string outlet) => Packaged.Loss(outlet);

    /// <inheritdoc/>
    public override string RenditionPurpose(string outlet) => Packaged.RenditionPurpose(outlet);

    /// <inheritdoc/>
    protected override Problem? Unusable(WebServerSettings settings) =>
        settings.Page is null || (Uri.TryCreate(settings.Page, UriKind.Absolute, out var page) && page.Scheme is "http" or "https")
            ? null
            : new Problem(
                "outlet-page-unusable",
                "Write the whole address under which the folders are found, such as https://intranet.example/lessons/.",
                "page"
            );

    /// <inheritdoc/>
    protected override OutletTerms Terms(WebServerSettings settings) => new WebServerTerms(settings);

    private sealed class WebServerTerms(WebServerSettings settings) : OutletTerms
    {
        public override Uri? PageAt(string identifier, string? page) =>
            settings.Page is { } under ? new Uri(new Uri(under.TrimEnd('/') + "/"), $"{identifier}/{page}") : null;

        public override Profile Usual => Profiles.Web;

        public override Takes Takes => Takes.OnPages;

        public override bool TakesPlayer => true;

        public override IReadOnlyList<PackageFile> Package(PackageSources sources) => sources.AsFolder();
    }
}
