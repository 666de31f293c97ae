using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;

namespace Wexel.Server.Tests.Outlets;

/// <summary>What is said of a screen in a waiting hall.</summary>
/// <param name="Hall">Where it hangs.</param>
public sealed record InfoScreenSettings(string Hall = "");

/// <summary>A kind of outlet that lives in the tests alone: a screen in a waiting hall, which plays the files of a folder. All that Wexel knows of it
/// stands here.</summary>
public sealed class InfoScreenKind : OutletKind<InfoScreenSettings>
{
    public override string Code => "infoScreen";

    public override string Name => "info screen";

    public override string About => "A screen in a hall that plays what lies in its folder.";

    public override int Rank => 50;

    public override IReadOnlyList<OutletField> Fields => [new("hall", "Hall", OutletInput.Line)];

    public override string? PackageWord => "folder";

    public override IReadOnlyList<string> Deliveries => ["folder"];

    public override bool DeliversFiles => true;

    public override bool TakesBack => true;

    public override IReadOnlyList<Carried> Carries => [new("Contents", Lost: true), new("Captions", Lost: true)];

    public override DocumentFormat<InfoScreenSettings> Format { get; } = new("screen’s settings");

    protected override InfoScreenSettings Usual { get; } = new();

    public override IReadOnlyList<string> ByHand(string? page) => ["The screen begins with it at the next full hour."];

    public override string Loss(string outlet) => $"The screen “{outlet}” plays it no more.";

    public override string RenditionPurpose(string outlet) => $"What “{outlet}” plays.";

    protected override Problem? Unusable(InfoScreenSettings settings) =>
        settings.Hall.Length > 0 ? null : new Problem("screen-without-hall", "Say in which hall the screen hangs.", "hall");

    protected override OutletTerms Terms(InfoScreenSettings settings) => new ScreenTerms(settings.Hall);

    private sealed class ScreenTerms(string hall) : OutletTerms
    {
        public override Profile Usual => Core.Encoding.Profiles.Web720;

        public override string Key => hall;

        public override bool TakesPlayer => true;

        public override Takes Takes { get; } =
            Takes.OnPages with
            {
                Who = "Screens",
                Containers = Enum.GetValues<Container>(),
                Largest = new PictureSize(1280, 720),
                MostLength = TimeSpan.FromMinutes(10),
            };

        public override IReadOnlyList<PackageFile> Package(PackageSources sources) =>
            [
                new("now.txt", "What the screen says before it plays.", new PackageContent.Text($"{hall}: {sources.Title}"), IsThePageToLink: true),
                new("play.mp4", "What it plays.", new PackageContent.Copy(sources.Lessons[0].Video, AlreadyCompressed: true)),
            ];
    }
}
