using Wexel.Core.Details;
using Wexel.Core.Outlets;
using Wexel.Core.People;

namespace Wexel.Core.Tests.Outlets;

/// <summary>Material of others is asked about before a lesson is public for the first time, and never otherwise (common practice, no source).</summary>
public class OpenToAllTests
{
    [Theory]
    [InlineData("channel", Visibility.WithLink, true)]
    [InlineData("channel", Visibility.SignedIn, false)]
    [InlineData("webServer", Visibility.SignedIn, true)]
    [InlineData("podcastFeed", Visibility.SignedIn, true)]
    [InlineData("learningSystem", Visibility.WithLink, false)]
    public void It_is_asked_where_people_outside_can_come(string kind, Visibility visibility, bool asked)
    {
        var found = OutletKinds.Shipped[kind];
        OpenToAll.Is(found, visibility).ShouldBe(asked);
        var problem = OpenToAll.Unanswered(found, visibility, DetailSet.None, isOpen: false, "Quay");
        (problem is not null).ShouldBe(asked);
        if (problem is not null)
            (problem.Field, problem.Sentence.Contains("“Quay”", StringComparison.Ordinal)).ShouldBe(("thirdParty", true));
        OpenToAll.Unanswered(found, visibility, DetailSet.None, isOpen: true, "Quay").ShouldBeNull();
        OpenToAll.Unanswered(found, visibility, new DetailSet(ThirdParty: new ThirdParty(false)), isOpen: false, "Quay").ShouldBeNull();
        OpenToAll.Unanswered(found, visibility, new DetailSet(ThirdParty: new ThirdParty(true, "By permission.")), isOpen: false, "Quay").ShouldBeNull();
    }
}
