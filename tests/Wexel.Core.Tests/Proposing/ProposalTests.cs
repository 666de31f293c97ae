using CsCheck;
using Wexel.Core.Proposing;
using Wexel.Core.Recordings;
using Wexel.Core.Screens;
using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Proposing;

/// <summary>What is proposed over whole lessons is measured by <c>./wexel bench marking</c>; here stands each sign by itself.</summary>
public class ProposalTests
{
    private static readonly ScreenText NoScreen = new("", [], []);

    [Fact]
    public void A_new_page_is_a_section_where_the_sentence_begins_that_goes_there_and_is_called_after_its_heading()
    {
        var found = Find(Said((0, "Welcome."), (20_000, "We go to the sailings of today."), (24_000, "They stand in a list.")), TwoPages(22_000));
        found.Select(p => (p.At, p.Title)).ShouldBe([(Ms.Of(0), "Start of the shift"), (Ms.Of(20_000), "Sailings")]);
        found[1].Signs[0].ShouldBe(SectionSign.PageChanged);
        found[1].Signs.ShouldContain(SectionSign.LargestText);
    }

    [Fact]
    public void A_page_that_changes_while_nobody_speaks_is_a_section_there()
    {
        var found = Find(Said((0, "Welcome."), (30_000, "They stand in a list.")), TwoPages(20_000));
        found.Select(p => p.At).ShouldBe([Ms.Of(0), Ms.Of(19_750)]);
    }

    [Fact]
    public void A_look_aside_is_no_section()
    {
        var screen = new ScreenText(
            "t",
            [Page(0, 20_000, "Sell a ticket"), Page(20_000, 22_000, "Sailings"), Page(22_000, 60_000, "Sell a ticket")],
            [new ScreenChange(Ms.Of(20_000), 0.6), new ScreenChange(Ms.Of(22_000), 0.6)]
        );
        Find(Said((0, "Welcome."), (19_500, "Here is the list."), (40_000, "Back here.")), screen).Count.ShouldBe(1);
    }

    [Fact]
    public void Something_that_opens_on_a_page_is_less_than_a_page()
    {
        var screen = new ScreenText("t", [Page(0, 20_000, "Sell a ticket"), Page(20_000, 60_000, "Sell a ticket")], [new ScreenChange(Ms.Of(20_000), 0.3)]);
        var said = Said((0, "Welcome."), (19_000, "The price comes, driver."), (40_000, "Pay it."));
        Find(said, screen, 0).Count.ShouldBe(1);
        Find(said, TwoPages(30_000), 0).Count.ShouldBe(2);
        var many = Find(said, screen, 1);
        many.Count.ShouldBe(2);
        many[1].Signs.ShouldContain(SectionSign.WindowChanged);
    }

    [Theory]
    [InlineData("Next, choose the kind of vehicle. It is a car.", "Choose the kind of vehicle")]
    [InlineData("Let us go over it again.", "Go over it again")]
    [InlineData("Now then, the float.", "The float")]
    [InlineData("And now we open the desk, and wait.", "Open the desk")]
    [InlineData("So this is one that goes on without a mark for long", "This is one that goes on without…")]
    [InlineData("Now.", "Now")]
    [InlineData("", "")]
    public void A_title_is_what_is_said_without_what_only_begins_it(string sentence, string title) => ContentsProposals.Title(sentence).ShouldBe(title);

    [Fact]
    public void A_beginning_and_a_long_pause_together_are_a_section()
    {
        var said = Said(
            (0, "Welcome."),
            (3000, "One thing."),
            (6000, "Two things."),
            (9000, "Three things."),
            (40_000, "Now count the money."),
            (44_000, "Again.")
        );
        var found = Find(said, NoScreen);
        found.Select(p => (p.At, p.Title)).ShouldBe([(Ms.Of(0), "Welcome"), (Ms.Of(40_000), "Count the money")]);
        found[1].Signs.ShouldContain(SectionSign.Phrase);
        found[1].Signs.ShouldContain(SectionSign.Pause);
        found[1].Pause.ShouldBe(Ms.Of(29_000));
    }

    [Fact]
    public void Headings_of_a_script_and_joints_of_recordings_are_always_proposed_under_the_scripts_title()
    {
        var signs = new LessonSigns(
            Ms.Of(60_000),
            Said((0, "Welcome."), (20_000, "The float.")),
            NoScreen,
            [new PlacedHeading(Ms.Of(20_400), "Counting")],
            [Ms.Of(40_000)]
        );
        ContentsProposals
            .Find(signs, 0)
            .Select(p => (p.At, p.Title, p.Signs[0]))
            .ShouldBe([
                (Ms.Of(0), "Welcome", SectionSign.Beginning),
                (Ms.Of(20_000), "Counting", SectionSign.Script),
                (Ms.Of(40_000), "", SectionSign.Recording),
            ]);
    }

    [Fact]
    public void Nothing_is_proposed_at_the_very_end_and_without_speech_the_beginning_is() =>
        Find(Said((0, "Welcome."), (54_000, "Now farewell.")), TwoPages(55_000)).Count.ShouldBe(1);

    /// <summary>Whatever is known: in order, apart, within the lesson, the first at its beginning; more of them never fewer than few.</summary>
    [Fact]
    public void Proposals_are_in_order_and_more_are_never_fewer() =>
        Gen.Select(Gen.Select(Gen.Int[0, 60_000], Gen.Double[0, 1]).Array[0, 30], Gen.Int[500, 9000].Array[0, 20], Gen.Double[0, 1])
            .Sample(
                (changes, gaps, amount) =>
                {
                    var at = 0;
                    var said = Said([.. gaps.Select((g, i) => (at += g, i % 3 == 0 ? "Next, look." : "It is a list."))]);
                    var screen = new ScreenText(
                        "t",
                        [.. changes.Select((c, i) => Page(c.Item1, c.Item1 + 1, $"Page {(char)('a' + (i % 7))}{i}"))],
                        [.. changes.OrderBy(c => c.Item1).Select(c => new ScreenChange(Ms.Of(c.Item1), c.Item2))]
                    );
                    var found = Find(said, screen, amount, Math.Max(60_000, at + 5000));
                    found[0].At.ShouldBe(TimeSpan.Zero);
                    found.Zip(found.Skip(1)).ShouldAllBe(p => p.Second.At - p.First.At >= ContentsProposals.Same);
                    found.ShouldAllBe(p => p.Signs.Count > 0);
                    Find(said, screen, 1, Math.Max(60_000, at + 5000))
                        .Count.ShouldBeGreaterThanOrEqualTo(Find(said, screen, 0, Math.Max(60_000, at + 5000)).Count);
                }
            );

    [Fact]
    public void Sentences_go_over_captions_and_begin_with_one()
    {
        SaidSentences
            .FromCues([
                new(new TimeRange(Ms.Of(0), Ms.Of(1000)), "Open the\nlist"),
                new(new TimeRange(Ms.Of(1500), Ms.Of(2000)), "of sailings."),
                new(new TimeRange(Ms.Of(3000), Ms.Of(4000)), "Then?"),
            ])
            .ShouldBe([
                new SaidSentence(new TimeRange(Ms.Of(0), Ms.Of(2000)), "Open the list of sailings."),
                new SaidSentence(new TimeRange(Ms.Of(3000), Ms.Of(4000)), "Then?"),
            ]);
    }

    private static IReadOnlyList<SectionProposal> Find(IReadOnlyList<SaidSentence> said, ScreenText screen, double amount = 0.5, int length = 60_000) =>
        ContentsProposals.Find(new LessonSigns(Ms.Of(length), said, screen, [], []), amount);

    private static IReadOnlyList<SaidSentence> Said(params (int At, string Text)[] said) =>
        [.. said.Select(s => new SaidSentence(new TimeRange(Ms.Of(s.At), Ms.Of(s.At + 2000)), s.Text))];

    private static ScreenText TwoPages(int at) =>
        new("t", [Page(0, at, "Start of the shift"), Page(at, 60_000, "Sailings")], [new ScreenChange(Ms.Of(at), 0.5)]);

    private static ScreenPicture Page(int from, int until, string heading) =>
        new(
            new TimeRange(Ms.Of(from), Ms.Of(until)),
            [
                new ScreenLine(new PictureRect(10, 5, 90, 12), "Crossing desk", 12, 0.95),
                new ScreenLine(new PictureRect(200, 60, 14 * heading.Length, 20), heading, 20, 0.96),
                .. Enumerable.Range(0, 8).Select(i => new ScreenLine(new PictureRect(200, 120 + (20 * i), 80, 10), $"line number {i}", 10, 0.95)),
            ]
        );
}
