using Wexel.Core.Lessons;
using Wexel.Core.Overlays;
using Wexel.Core.Overlays.Actions;
using Wexel.Core.Placing;
using Wexel.Core.Scoring;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Overlays;

/// <summary>Places to click: kept, led elsewhere by cuts, and not released as long as nobody could use them.</summary>
public class AreaTests
{
    private static readonly Shape Box = new(ShapeKind.Rectangle, [new(0.1, 0.1), new(0.3, 0.2)]);

    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static Area One(AreaAction action, Shape? shape = null, string text = "The drawer") => new("a1", Range(10, 20), shape ?? Box, text, action);

    private static LessonDocument Lesson(params Area[] areas) =>
        new("Ropes", "", "en", "a", [], [new("s1", TimeSpan.FromSeconds(30), "Knots")], []) { Areas = areas };

    private static TimeMap Map(params TimeRange[] cuts) => TimeMap.Of(new FrameRate(30, 1), TimeSpan.FromSeconds(60), cuts);

    [Fact]
    public void What_it_leads_to_moves_with_the_cuts()
    {
        var area = Area.Kind.Following([One(new GoToTime(TimeSpan.FromSeconds(40)))], Map(Range(0, 5), Range(25, 35))).ShouldHaveSingleItem();
        area.Span.ShouldBe(Range(5, 15));
        area.Action.Does(_ => null).To.ShouldBe(TimeSpan.FromSeconds(25));
        // What is cut there becomes the next that is kept.
        Area.Kind.Following([One(new GoToTime(TimeSpan.FromSeconds(30)))], Map(Range(25, 35)))[0].Action.Does(_ => null).To.ShouldBe(TimeSpan.FromSeconds(25));
        Area.Kind.Following([One(new GoToTime(default))], Map(Range(5, 25))).ShouldBeEmpty();
    }

    [Fact]
    public void It_goes_with_its_recording_and_so_does_where_it_leads()
    {
        var places = new ReelPlaces([new(null, Range(0, 10)), new(Range(0, 60), Range(10, 70))]);
        var area = Area.Kind.Carried(One(new GoToTime(TimeSpan.FromSeconds(40))), places)!;
        area.Span.ShouldBe(Range(20, 30));
        ((GoToTime)area.Action).To.ShouldBe(TimeSpan.FromSeconds(50));
    }

    [Fact]
    public void A_section_is_found_by_its_name_wherever_it_begins() =>
        new GoToSection("s1").Does(id => id == "s1" ? TimeSpan.FromSeconds(7) : null).ShouldBe(new AreaDoes("time", TimeSpan.FromSeconds(7)));

    [Fact]
    public void A_lesson_with_one_that_nobody_could_use_is_not_released()
    {
        void Refused(Area area, string why) => LessonRules.NotReady(Lesson(area))!.Sentence.ShouldContain(why);
        LessonRules.NotReady(Lesson(One(new GoToSection("s1")))).ShouldBeNull();
        Refused(One(new GoToSection("s9")), "The section that it leads to is not there any more. Choose another.");
        Refused(One(new GoToSection("")), "leads to no section");
        Refused(One(new OpenLink("")), "leads nowhere");
        Refused(One(new ShowText("")), "shows nothing");
        Refused(One(new ShowText("x"), text: ""), "Whoever sees no picture");
        Refused(One(new ShowText("x"), new Shape(ShapeKind.Rectangle, [new(0.1, 0.1), new(0.1, 0.4)])), "has no inside");
        Refused(One(new ShowText("x"), new Shape(ShapeKind.Polygon, [new(0.1, 0.1), new(0.3, 0.3), new(0.3, 0.1), new(0.1, 0.3)])), "crosses itself");
    }

    [Fact]
    public void What_leaves_the_picture_lies_on_its_edge()
    {
        var kept = Area.Kind.Tidy(
            [One(new ShowText(" x "), new Shape(ShapeKind.Polygon, [new(-1, 0.2), new(0.5, 2), new(double.NaN, 0.1)]))],
            TimeSpan.FromSeconds(15)
        );
        kept[0].Shape.Points.ShouldBe([new(0, 0.2), new(0.5, 1), new(0, 0.1)]);
        kept[0].Span.ShouldBe(Range(10, 15));
        ((ShowText)kept[0].Action).Says.ShouldBe("x");
        // Behind the end nothing is left of it.
        Area.Kind.Tidy([One(new ShowText("x"))], TimeSpan.FromSeconds(10)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("https://desk.brackwater.example/a?b=c#d", true)]
    [InlineData("http://10.0.0.7/", true)]
    [InlineData("mailto:desk@brackwater.example", true)]
    [InlineData("mailto:nobody", false)]
    [InlineData("javascript:alert(1)", false)]
    [InlineData("JAVASCRIPT:alert(1)", false)]
    [InlineData("java\nscript:alert(1)", false)]
    [InlineData("data:text/html,<script>alert(1)</script>", false)]
    [InlineData("vbscript:x", false)]
    [InlineData("file:///etc/passwd", false)]
    [InlineData("//desk.brackwater.example", false)]
    [InlineData("desk.brackwater.example", false)]
    [InlineData("https:", false)]
    public void Only_pages_and_mail_are_led_to(string address, bool may) =>
        (SafeLink.Fault(SafeLink.Tidied(address)) is null, new OpenLink(SafeLink.Tidied(address)).Does(_ => null).Address is not null).ShouldBe(
            (may, may),
            address
        );

    [Fact]
    public void A_note_says_something_and_leads_to_pages_alone()
    {
        Note In(string text, string address = "", string? picture = null) => new("n", Range(1, 2), text, Address: address, Picture: picture);
        Note.Kind.Faults(In("")).ShouldHaveSingleItem().ShouldContain("It says nothing");
        Note.Kind.Faults(In("", picture: "ab")).ShouldBeEmpty();
        Note.Kind.Faults(In("x", "javascript:alert(1)")).ShouldHaveSingleItem().ShouldContain("cannot be opened");
        Note.Kind.Tidy([In(new string('x', 900))], TimeSpan.FromSeconds(9))[0].Text.Length.ShouldBe(Note.LongestText);
    }

    [Fact]
    public void Two_who_change_different_parts_of_one_both_keep_their_work()
    {
        var before = One(new ShowText("x"));
        var merged = Area.Kind.Merged(before, before with { Text = "Theirs" }, before with { Action = new OpenLink("https://a.example") });
        merged.ShouldBe(before with { Text = "Theirs", Action = new OpenLink("https://a.example") });
    }
}
