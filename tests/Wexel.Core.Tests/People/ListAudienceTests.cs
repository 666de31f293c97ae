using Wexel.Core.People;

namespace Wexel.Core.Tests.People;

/// <summary>What of a list is hidden from whom, by who may see the list and who may see each lesson.</summary>
public class ListAudienceTests
{
    private static readonly Guid Me = Guid.NewGuid();
    private static readonly Guid Desk = Guid.NewGuid();
    private static readonly NamedPeople Crew = new(["ada@brackwater.example"], [Desk]);

    public static TheoryData<Visibility, Visibility, string?> Table =>
        new()
        {
            { Visibility.OnlyMe, Visibility.OnlyMe, null },
            { Visibility.OnlyMe, Visibility.Named, null },
            { Visibility.OnlyMe, Visibility.WithLink, "everybody, as it is for whoever has the address" },
            { Visibility.OnlyMe, Visibility.SignedIn, null },
            { Visibility.OnlyMe, Visibility.Everybody, null },
            { Visibility.Named, Visibility.OnlyMe, "everybody but its owner" },
            { Visibility.Named, Visibility.Named, null },
            { Visibility.Named, Visibility.WithLink, "everybody, as it is for whoever has the address" },
            { Visibility.Named, Visibility.SignedIn, "those named who have no account" },
            { Visibility.Named, Visibility.Everybody, null },
            { Visibility.WithLink, Visibility.OnlyMe, "everybody but its owner" },
            { Visibility.WithLink, Visibility.Named, "whoever is not named at it" },
            { Visibility.WithLink, Visibility.SignedIn, "people outside the organisation" },
            { Visibility.WithLink, Visibility.Everybody, null },
            { Visibility.SignedIn, Visibility.OnlyMe, "everybody but its owner" },
            { Visibility.SignedIn, Visibility.Named, "whoever is not named at it" },
            { Visibility.SignedIn, Visibility.WithLink, "everybody, as it is for whoever has the address" },
            { Visibility.SignedIn, Visibility.SignedIn, null },
            { Visibility.SignedIn, Visibility.Everybody, null },
            { Visibility.Everybody, Visibility.OnlyMe, "everybody but its owner" },
            { Visibility.Everybody, Visibility.Named, "whoever is not named at it" },
            { Visibility.Everybody, Visibility.WithLink, "everybody, as it is for whoever has the address" },
            { Visibility.Everybody, Visibility.SignedIn, "people outside the organisation" },
            { Visibility.Everybody, Visibility.Everybody, null },
        };

    [Theory]
    [MemberData(nameof(Table))]
    public void A_lesson_is_hidden_from_those_who_see_the_list_and_may_not_see_it(Visibility list, Visibility lesson, string? from) =>
        ListAudience.HiddenFrom(Of(list), Of(lesson)).ShouldBe(from);

    /// <summary>Where nothing is said to be hidden, nobody who may see the list is left without the lesson: by the function that decides who may.</summary>
    [Theory]
    [MemberData(nameof(Table))]
    public void What_is_said_agrees_with_who_may_see(Visibility list, Visibility lesson, string? from)
    {
        Viewer[] all =
        [
            Viewer.Stranger,
            new(Me, "mara@brackwater.example", new HashSet<Guid>(), true),
            new(Guid.NewGuid(), "ada@brackwater.example", new HashSet<Guid>(), false),
            new(Guid.NewGuid(), "ada@brackwater.example", new HashSet<Guid>(), false, IsGuest: true),
            new(Guid.NewGuid(), "tam@brackwater.example", new HashSet<Guid> { Desk }, false),
            new(Guid.NewGuid(), "joss@brackwater.example", new HashSet<Guid>(), false),
        ];
        var now = DateTimeOffset.UnixEpoch;
        var left = all.Where(v => Seeing.May(Of(list), v, SeenIn.Address, now) && !Seeing.May(Of(lesson), v, SeenIn.List, now));
        left.Any().ShouldBe(from is not null);
    }

    [Fact]
    public void How_many_are_hidden_from_whom_is_one_sentence()
    {
        var lessons = new[] { Of(Visibility.Everybody), Of(Visibility.SignedIn), Of(Visibility.SignedIn), Of(Visibility.WithLink), null };
        ListAudience
            .Sentence(Of(Visibility.Everybody), lessons)
            .ShouldBe(
                "4 of 5 are hidden: 2 from people outside the organisation; 1 from everybody, as it is for whoever has the address; 1 from everybody, as it is "
                    + "in no channel."
            );
        ListAudience.Sentence(Of(Visibility.OnlyMe), [Of(Visibility.Everybody)]).ShouldBeNull();
    }

    [Fact]
    public void Groups_and_addresses_that_are_named_at_the_list_alone_do_not_find_the_lesson()
    {
        var list = Of(Visibility.Named) with { Named = new NamedPeople(["ADA@brackwater.example"], [Desk, Guid.NewGuid()]) };
        ListAudience.HiddenFrom(list, Of(Visibility.Named)).ShouldBe("whoever is not named at it");
        ListAudience.HiddenFrom(list with { Named = new NamedPeople(["ADA@brackwater.example"], []) }, Of(Visibility.Named)).ShouldBeNull();
        ListAudience.HiddenFrom(list with { Named = new NamedPeople([], [Desk]) }, Of(Visibility.SignedIn)).ShouldBeNull();
        ListAudience.HiddenFrom(Of(Visibility.OnlyMe), Of(Visibility.OnlyMe) with { Owner = Guid.NewGuid() }).ShouldBe("everybody but its owner");
    }

    private static Shown Of(Visibility visibility) => new(new Opening(visibility), Me, Crew);
}
