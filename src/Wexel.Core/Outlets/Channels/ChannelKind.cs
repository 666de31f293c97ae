using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;

namespace Wexel.Core.Outlets.Channels;

/// <summary>What is said of a channel.</summary>
/// <param name="About">What it is about, in a sentence or two; may be empty.</param>
/// <param name="Address">Its short address, see <see cref="ChannelAddress"/>; empty for one made of its name.</param>
/// <param name="Colour">Its colour, as <c>#RRGGBB</c>.</param>
/// <param name="Picture">The key of a picture that was given for it; null for none.</param>
/// <param name="Owners">Who looks after it, and alone changes it besides administrators; nobody, where every trainer does.</param>
public sealed record ChannelSettings(
    string About = "",
    string Address = "",
    string Colour = ChannelSettings.UsualColour,
    string? Picture = null,
    IReadOnlyList<Guid>? Owners = null
)
{
    internal const string UsualColour = "#0B6570";
}

/// <summary>Wexel's own learner pages.</summary>
public sealed class ChannelKind : OutletKind<ChannelSettings>
{
    /// <summary>Its code.</summary>
    public const string Channel = "channel";

    /// <inheritdoc/>
    public override string Code => Channel;

    /// <inheritdoc/>
    public override string Name => "channel";

    /// <inheritdoc/>
    public override string About => "Pages on this server: lessons have a link and an embed code, and Wexel sees who finished.";

    /// <inheritdoc/>
    public override int Rank => 10;

    /// <inheritdoc/>
    public override IReadOnlyList<OutletField> Fields =>
        [
            new("about", "What it is about", OutletInput.Text),
            new("address", "Short address", OutletInput.Line, "It is found under /c/ and this, as in /c/ticket-desk. Empty, it is made of the name."),
            new("colour", "Colour", OutletInput.Colour),
            new("picture", "Picture", OutletInput.Picture, "Beside its name, where learners choose a channel."),
            new(
                "owners",
                "Owners",
                OutletInput.People,
                "They are named on its page. They and administrators change it; where there are none, every trainer does."
            ),
        ];

    /// <inheritdoc/>
    public override IReadOnlyList<string> GeneralNames { get; } =
    ["channel", "courses", "e-learning", "general", "internal", "knowledge", "learning", "lessons", "main", "training", "trainings", "tutorials", "videos"];

    /// <inheritdoc/>
    public override bool HasPages => true;

    /// <inheritdoc/>
    public override IReadOnlyList<DetailRule> Details { get; } =
    [
        .. DetailsThere.OnPage,
        new(DetailFields.ShortTitle),
        new(DetailFields.DownloadAs),
        new(DetailFields.MayEmbed),
        new(DetailFields.MayNote),
        new(DetailFields.TellFollowers),
    ];

    /// <inheritdoc/>
    public override IReadOnlyList<Carried> Carries => [.. Parts.Select(part => new Carried(part))];

    // The second version brought picture and owners, which a document of the first has not.
    /// <inheritdoc/>
    public override DocumentFormat<ChannelSettings> Format { get; } = new("channel’s settings", _ => { });

    /// <inheritdoc/>
    public override IReadOnlyList<Guid> Keepers(string? settings) => Read(settings).Owners ?? [];

    /// <inheritdoc/>
    protected override ChannelSettings Usual { get; } = new();

    /// <inheritdoc/>
    public override string Loss(string outlet) => $"The release to “{outlet}” is taken down: whoever follows its link finds nothing there.";

    /// <inheritdoc/>
    public override string RenditionPurpose(string outlet) =>
        $"What learners watch on “{outlet}”. Link its page and not the file: the page stays when the file is made again.";

    /// <inheritdoc/>
    protected override Problem? Unusable(ChannelSettings settings) =>
        settings.About.Length > 4000 ? new Problem("channel-about-too-long", "What it is about has more than 4,000 characters; shorten it.", "about")
        : settings.Address.Length > 0 && ChannelAddress.Unusable(settings.Address) is { } address ? address
        : settings.Colour is ['#', .. { Length: 6 } digits] && digits.All(char.IsAsciiHexDigit) ? null
        : new Problem("channel-colour", "A colour is # and six digits from 0 to 9 and A to F, as in #0B6570.", "colour");

    /// <inheritdoc/>
    protected override OutletTerms Terms(ChannelSettings settings) => ChannelTerms.All;

    private sealed class ChannelTerms : OutletTerms
    {
        internal static readonly ChannelTerms All = new();

        public override Profile Usual => Profiles.Web;

        public override Takes Takes => Takes.OnPages;
    }
}
