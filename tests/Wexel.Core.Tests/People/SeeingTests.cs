using Wexel.Core.People;

namespace Wexel.Core.Tests.People;

/// <summary>Who may see what, and where: one table of all of it.</summary>
public sealed class SeeingTests
{
    private static readonly Guid Owner = Guid.NewGuid();
    private static readonly Guid Crew = Guid.NewGuid();
    private static readonly NamedPeople Named = new(["ines@brackwater.example", "inge@harbour.example"], [Crew]);
    private static readonly DateTimeOffset Noon = new(2026, 12, 3, 12, 0, 0, TimeSpan.Zero);

    private static readonly Dictionary<string, Viewer> People = new()
    {
        ["stranger"] = Viewer.Stranger,
        ["embed elsewhere"] = Viewer.Stranger,
        ["learner"] = Learner("tom@brackwater.example"),
        ["named learner"] = Learner("Ines@Brackwater.example"),
        ["in a named group"] = Learner("bo@brackwater.example", Crew),
        ["owner"] = new(Owner, "mara@brackwater.example", new HashSet<Guid>(), true),
        ["other trainer"] = new(Guid.NewGuid(), "per@brackwater.example", new HashSet<Guid>(), true),
        ["guest"] = Learner("guest@harbour.example") with { IsGuest = true },
        ["named guest"] = Learner("inge@harbour.example") with { IsGuest = true },
        ["administrator"] = Learner("ada@brackwater.example"),
    };

    private static Viewer Learner(string mail, params Guid[] groups) => new(Guid.NewGuid(), mail, groups.ToHashSet(), false);

    private static Shown Open(Visibility visibility, DateTimeOffset? from = null, DateTimeOffset? until = null) =>
        new(new Opening(visibility, from, until), Owner, Named);

    /// <summary>By its address, and in lists; the rest is told to whoever asks, or to nobody.</summary>
    [Theory]
    [InlineData(Visibility.OnlyMe, "owner", "owner", "")]
    [InlineData(Visibility.Named, "owner, named learner, named guest, in a named group", "owner, named learner, named guest, in a named group", "")]
    [InlineData(Visibility.WithLink, "all", "", "preview")]
    [InlineData(
        Visibility.SignedIn,
        "owner, learner, named learner, in a named group, other trainer, administrator",
        "owner, learner, named learner, in a named group, other trainer, administrator",
        ""
    )]
    [InlineData(Visibility.Everybody, "all", "all", "preview, sitemap")]
    [InlineData((Visibility)99, "owner", "owner", "")]
    public void Each_level_means_exactly_this(Visibility level, string byAddress, string inLists, string told)
    {
        foreach (var (name, who) in People)
        {
            Seeing.May(Open(level), who, SeenIn.Address, Noon).ShouldBe(Has(byAddress, name), $"{name} by its address");
            Seeing.May(Open(level), who, SeenIn.List, Noon).ShouldBe(Has(inLists, name), $"{name} in lists");
            Seeing.May(Open(level), who, SeenIn.Preview, Noon).ShouldBe(Has(told, "preview"));
            Seeing.May(Open(level), who, SeenIn.Sitemap, Noon).ShouldBe(Has(told, "sitemap"));
            Seeing.May(Open(level), who, (SeenIn)99, Noon).ShouldBeFalse();
        }

        // A lesson that is nobody's is nobody's own.
        Seeing.May(Open(Visibility.OnlyMe) with { Owner = null }, Viewer.Stranger, SeenIn.Address, Noon).ShouldBeFalse();
        Seeing.IsOpenToStrangers(level).ShouldBe(byAddress == "all");

        static bool Has(string names, string name) => names == "all" || names.Split(", ").Contains(name);
    }

    /// <summary>Outside its time nobody sees it but those who make lessons, and they as far as they might anyhow.</summary>
    [Theory]
    [InlineData(-1, true, false)]
    [InlineData(0, false, false)]
    [InlineData(59, false, false)]
    [InlineData(60, false, true)]
    public void A_release_is_seen_from_a_moment_on_and_until_another(int minute, bool ahead, bool over)
    {
        var now = Noon.AddMinutes(minute);
        foreach (var level in Enum.GetValues<Visibility>())
        {
            var always = Open(level);
            var there = Open(level, Noon, Noon.AddHours(1));
            there.Opening.IsAhead(now).ShouldBe(ahead);
            there.Opening.IsOver(now).ShouldBe(over);
            there.Opening.IsOpen(now).ShouldBe(!ahead && !over);
            foreach (var (name, who) in People)
            {
                var looksBefore = name is "owner" or "other trainer";
                Seeing
                    .May(there, who, SeenIn.Address, now)
                    .ShouldBe(Seeing.May(always, who, SeenIn.Address, now) && ((!ahead && !over) || looksBefore), $"{name}, {level}");
                foreach (var where in new[] { SeenIn.List, SeenIn.Preview, SeenIn.Sitemap })
                    Seeing.May(there, who, where, now).ShouldBe(Seeing.May(always, who, where, now) && !ahead && !over);
            }
        }
    }

    [Fact]
    public void A_moment_is_the_same_in_every_time_zone()
    {
        var opening = new Opening(Visibility.Everybody, new DateTimeOffset(2026, 3, 29, 2, 30, 0, TimeSpan.FromHours(1)));
        opening.IsOpen(new DateTimeOffset(2026, 3, 29, 1, 29, 59, TimeSpan.Zero)).ShouldBeFalse();
        opening.IsOpen(new DateTimeOffset(2026, 3, 29, 3, 30, 0, TimeSpan.FromHours(2))).ShouldBeTrue();
    }

    [Fact]
    public void What_cannot_be_meant_is_said()
    {
        new Opening(Visibility.SignedIn, Noon, Noon).Unusable!.Code.ShouldBe("opening-ends-first");
        new Opening(Visibility.SignedIn, Noon, Noon.AddTicks(1)).Unusable.ShouldBeNull();
        new Opening(Visibility.SignedIn, null, Noon).Unusable.ShouldBeNull();
        new Opening((Visibility)99).Unusable!.Code.ShouldBe("visibility-unknown");
    }

    [Fact]
    public void Named_people_are_kept_once_each_and_read_back()
    {
        new NamedPeople([" ines@brackwater.example ", "INES@brackwater.example", "", "bo+desk@brackwater.example", "käthe@brackwater.example"], [Crew, Crew])
            .Accepted()
            .Is(out var kept, out _)
            .ShouldBeTrue();
        kept!.Mails.ShouldBe(["ines@brackwater.example", "bo+desk@brackwater.example", "käthe@brackwater.example"]);
        kept.Groups.ShouldBe([Crew]);
        NamedPeople.Read(NamedPeople.Format.Write(kept)).Mails.ShouldBe(kept.Mails);
        NamedPeople.Read(null).Hold(People["named learner"]).ShouldBeFalse();
        kept.Hold(Viewer.Stranger).ShouldBeFalse();
        foreach (var odd in new[] { "ines", "ines@", "@brackwater.example", "Ines <ines@brackwater.example>", "a@b.example, c@d.example" })
        {
            new NamedPeople([odd], []).Accepted().Is(out _, out var problem).ShouldBeFalse(odd);
            problem!.Code.ShouldBe("named-no-mail");
        }

        new NamedPeople([.. Enumerable.Range(0, 1001).Select(i => $"p{i}@brackwater.example")], []).Accepted().Is(out _, out var many).ShouldBeFalse();
        many!.Code.ShouldBe("named-too-many");
    }

    [Fact]
    public void Every_level_has_its_words_from_the_fewest_people_to_the_most()
    {
        VisibilityWords.All.Select(w => w.Level).ShouldBe(Enum.GetValues<Visibility>());
        // Where somebody else's page shows it, strangers play it or are told beforehand that they cannot.
        foreach (var words in VisibilityWords.All)
            (words.EmbedWarning is null).ShouldBe(Seeing.May(Open(words.Level), Viewer.Stranger, SeenIn.Address, Noon), words.Name);
        VisibilityWords.For(Visibility.WithLink).Means.ShouldContain("also not by people who are signed in");
    }
}
