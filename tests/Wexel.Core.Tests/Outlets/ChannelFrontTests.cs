using Wexel.Core.Outlets.Channels;

namespace Wexel.Core.Tests.Outlets;

/// <summary>What stands on a channel's front page, and in which order.</summary>
public sealed class ChannelFrontTests
{
    private static readonly Guid Basics = Guid.NewGuid();
    private static readonly Guid Refunds = Guid.NewGuid();
    private static readonly DateTimeOffset Monday = new(2026, 11, 23, 6, 0, 0, TimeSpan.Zero);

    private static readonly ChannelLesson[] Lessons =
    [
        Lesson("a", Basics, "Opening the desk", 52, day: 0, learners: 3, Seen(52, 1, complete: true, day: 1), "opening"),
        Lesson("b", Basics, "Selling a crossing", 557, day: 2, learners: 9, Seen(192, 0.34, complete: false, day: 3), "vehicles", "Tickets"),
        Lesson("c", Basics, "closing the till", 33, day: 1, learners: 3, Seen(10, 0.3, complete: false, day: 2), "till"),
        Lesson("d", Refunds, "Refunds and changes", 47, day: 3, learners: 0, null, "tickets"),
    ];

    private static ChannelLesson Lesson(string token, Guid course, string title, int seconds, int day, int learners, LessonSeen? seen, params string[] tags) =>
        new(
            token,
            Guid.NewGuid(),
            course,
            course == Basics ? "Ticket desk basics" : "Refunds",
            1,
            title,
            "",
            "en-GB",
            tags,
            TimeSpan.FromSeconds(seconds),
            true,
            Monday.AddDays(day),
            learners,
            seen
        );

    private static LessonSeen Seen(int at, double share, bool complete, int day) => new(TimeSpan.FromSeconds(at), share, complete, Monday.AddDays(day));

    [Theory]
    [InlineData(ListOrder.Newest, "dbca")]
    [InlineData(ListOrder.Name, "cadb")]
    [InlineData(ListOrder.Length, "cdab")]
    [InlineData(ListOrder.Watched, "bacd")]
    public void Other_orders_are_the_learners_and_what_is_alike_stays_in_teaching_order(ListOrder order, string tokens)
    {
        var part = ChannelFront.Of(Lessons, order, null).Parts.ShouldHaveSingleItem();
        part.Title.ShouldBeNull();
        string.Concat(part.Lessons.Select(l => l.Token)).ShouldBe(tokens);
    }

    [Fact]
    public void Teaching_order_is_course_by_course_with_what_was_seen_of_each()
    {
        var front = ChannelFront.Of(Lessons, ListOrder.Teaching, null);
        front.Parts.Select(p => (p.Title, string.Concat(p.Lessons.Select(l => l.Token)))).ShouldBe([("Ticket desk basics", "abc"), ("Refunds", "d")]);
        front.Parts[0].Length.ShouldBe(TimeSpan.FromSeconds(642));
        front.Parts[0].SeenShare.ShouldBe((52 + (557 * 0.34) + (33 * 0.3)) / 642, 1e-9);
        front.Parts[1].SeenShare.ShouldBe(0);
        // What was left in the middle last, and the first that is not complete.
        front.GoOn!.Token.ShouldBe("b");
        front.Next!.Token.ShouldBe("b");
        front.Tags.ShouldBe(["opening", "Tickets", "till", "vehicles"]);
        ChannelFront
            .Of([], ListOrder.Teaching, null)
            .ShouldSatisfyAllConditions(f => f.Parts.ShouldBeEmpty(), f => f.GoOn.ShouldBeNull(), f => f.Next.ShouldBeNull());
    }

    [Fact]
    public void Lessons_are_filed_under_subjects_in_any_case()
    {
        ChannelFront.Of(Lessons, ListOrder.Teaching, "TICKETS").Parts.SelectMany(p => p.Lessons).Select(l => l.Token).ShouldBe(["b", "d"]);
        ChannelFront.Of(Lessons, ListOrder.Name, "nothing").Parts.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("Ticket desk", "ticket-desk")]
    [InlineData("  On  deck! ", "on-deck")]
    [InlineData("Fährbetrieb & Zürich", "f-hrbetrieb-z-rich")]
    [InlineData("Lección nº 2", "lecci-n-n-2")]
    [InlineData("甲板", "")]
    [InlineData("...", "")]
    public void A_short_address_is_made_of_the_name(string name, string address)
    {
        ChannelAddress.From(name).ShouldBe(address);
        if (address.Length > 0)
            ChannelAddress.Unusable(address).ShouldBeNull();
    }

    [Theory]
    [InlineData("")]
    [InlineData("Ticket-desk")]
    [InlineData("ticket desk")]
    [InlineData("-desk")]
    [InlineData("desk-")]
    [InlineData("a--b")]
    [InlineData("../desk")]
    public void What_cannot_stand_in_an_address_is_refused(string address) => ChannelAddress.Unusable(address)!.Code.ShouldBe("channel-address");

    [Fact]
    public void An_address_made_of_any_name_can_be_used() => CsCheck.Check.Sample(CsCheck.Gen.String, name =>
        {
            var address = ChannelAddress.From(name);
            (address.Length == 0 || ChannelAddress.Unusable(address) is null).ShouldBeTrue($"{name} became {address}");
        });

    [Fact]
    public void A_channel_says_what_of_its_settings_cannot_be_used()
    {
        var kind = new ChannelKind();
        string Refused(string name, string value) =>
            kind.Accept(new System.Text.Json.Nodes.JsonObject { [name] = value }).Is(out _, out var problem) ? "" : problem!.Code;
        (Refused("address", "Ticket desk"), Refused("colour", "red"), Refused("colour", "#12345G"), Refused("about", new string('a', 4001))).ShouldBe(
            ("channel-address", "channel-colour", "channel-colour", "channel-about-too-long")
        );
        (Refused("address", "ticket-desk"), Refused("colour", "#a1B2c3")).ShouldBe(("", ""));
        // One from before that was asked.
        kind.Read("""{"version":1,"about":"The desk"}""").ShouldBe(new ChannelSettings("The desk"));
    }

    [Fact]
    public void Lessons_are_picked_out_by_language_and_only_by_those_that_there_are()
    {
        var lessons = Lessons
            .Select(
                (l, i) =>
                    l with
                    {
                        Language =
                            i == 0 ? "es"
                            : i == 1 ? null
                            : "en-GB",
                    }
            )
            .ToList();
        var front = ChannelFront.Of(lessons, ListOrder.Teaching, language: "EN-gb");
        front.Languages.ShouldBe(["en-GB", "es"]);
        front.Parts.SelectMany(p => p.Lessons).ShouldBe(lessons.Skip(2));
        // What is next stays what is next, whatever is shown.
        front.Next.ShouldBe(ChannelFront.Of(lessons, ListOrder.Teaching).Next);
        ChannelFront.Of(lessons, ListOrder.Name, language: "fi").Parts.ShouldBeEmpty();
    }
}
