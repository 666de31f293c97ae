using Wexel.Core.Encoding;
using Wexel.Core.Library;
using Wexel.Core.Outlets;

namespace Wexel.Core.Tests.Library;

public sealed class MadeFileTests
{
    private static MadeFile Of(
        MadeKind kind = MadeKind.Rendition,
        Container? container = Container.Mp4,
        bool master = false,
        FileAge age = FileAge.UpToDate,
        bool kept = false,
        params string[] at
    ) => new(kind, container, master, [.. at.Select(k => new FileUse(OutletKinds.Shipped[k], k))], age, kept);

    /// <summary>Three files come out and only one matters; people link the wrong one (a complaint of the trade: common practice, no source).</summary>
    [Fact]
    public void The_one_to_hand_on_is_the_one_that_anybody_can_open()
    {
        MadeFile[] files =
        [
            Of(master: true),
            Of(MadeKind.Episode, null, at: "podcastFeed"),
            Of(at: "webServer"),
            Of(MadeKind.Package, null, at: "webServer"),
            Of(at: "channel"),
        ];
        MadeFiles.ToLink(files).ShouldBe(4);
        MadeFiles.ToLink(files[..4]).ShouldBe(3, "the package, and not the video inside it");
        MadeFiles.ToLink(files[..2]).ShouldBe(1);
        MadeFiles.ToLink(files[..1]).ShouldBeNull();
        MadeFiles.ToLink([]).ShouldBeNull();
    }

    [Fact]
    public void Each_says_what_it_is_for()
    {
        Of(at: "channel").Purpose.ShouldContain("Link its page and not the file");
        Of(at: ["webServer", "channel"]).Purpose.ShouldStartWith("What learners watch on “channel”");
        Of(at: "learningSystem").Purpose.ShouldBe("The video inside the package for “learningSystem”; by itself it is linked nowhere.");
        Of(MadeKind.Package, null, at: "learningSystem").Purpose.ShouldStartWith("The package for “learningSystem”");
        Of(MadeKind.Episode, null, at: "podcastFeed").Purpose.ShouldContain("feed’s address");
        Of(master: true).Purpose.ShouldStartWith("A master copy");
        Of(container: Container.M4a).Purpose.ShouldStartWith("The sound alone");
        Of(container: Container.Hls).Purpose.ShouldStartWith("Several sizes in pieces");
        (Of() with { CopiedTo = ["On the way"] }).Purpose.ShouldBe("The episode in “On the way” is a copy of it, and stays when this goes.");
        (Of(at: "channel") with { CopiedTo = ["On the way"] }).Purpose.ShouldStartWith("What learners watch");
        Of().Purpose.ShouldBe("Made, and at no outlet.");
    }

    [Fact]
    public void Each_says_what_is_lost_with_it()
    {
        new FileUse(OutletKinds.Shipped["channel"], "Staff").Loss.ShouldBe(
            "The release to “Staff” is taken down: whoever follows its link finds nothing there."
        );
        new FileUse(OutletKinds.Shipped["podcastFeed"], "Ticket desk").Loss.ShouldContain("apps that have it keep it");
        new FileUse(OutletKinds.Shipped["learningSystem"], "Harbour School").Loss.ShouldContain("What was handed in there stays");
    }

    [Fact]
    public void What_is_up_to_date_or_used_or_kept_is_never_freed()
    {
        Of(age: FileAge.Encoding).CanBeFreed.ShouldBeTrue();
        Of(age: FileAge.Finishing).CanBeFreed.ShouldBeTrue();
        Of().CanBeFreed.ShouldBeFalse();
        Of(age: FileAge.Encoding, kept: true).CanBeFreed.ShouldBeFalse();
        Of(age: FileAge.Encoding, at: "podcastFeed").CanBeFreed.ShouldBeFalse();
    }
}
