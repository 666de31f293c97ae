using Wexel.Core.Outlets;

namespace Wexel.Core.Tests.Outlets;

public class OutletTakesTests
{
    [Fact]
    public void A_title_that_is_too_long_for_learning_systems_is_said_in_whole_words()
    {
        // imscp_rootv1p1p2.xsd, titleType: 200 characters.
        var title = string.Join(' ', Enumerable.Repeat("crossing", 30));
        OutletTakes.TitleThere(OutletKind.LearningSystem, title).ShouldBe($"Learning systems take titles of at most 200 characters; in their lists it reads “{string.Join(' ', Enumerable.Repeat("crossing", 22))}…”.");
        OutletTakes.TitleThere(OutletKind.LearningSystem, title[..200]).ShouldBeNull();
        OutletTakes.TitleThere(OutletKind.Channel, title).ShouldBeNull();
    }
}
