using Wexel.Core.Editing;
using Wexel.Core.Legibility;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Legibility;

/// <summary>Worked examples: the middle quarter of a recording of 1920 x 1080, delivered pixel for pixel in 960 x 540. What stands at 480, 270 of the recording
/// stands at the corner.</summary>
public class HardToReadNumbersTests
{
    private static readonly CanvasPlacement Middle = CanvasPlacement.Of(
        new PictureSize(1920, 1080),
        new Canvas(new PictureSize(960, 540), FitMode.Part, new PicturePart(0.25, 0.25, 0.5, 0.5)),
        540
    );

    private static TextLine Line(int x, int y, double height, int width = 100) => new(new PictureRect(x, y, width, 10), height);

    private static SeenPicture Seen(long from, long to, params TextLine[] lines) => new(new TimeRange(Ms.Of(from), Ms.Of(to)), lines, null, []);

    private static IReadOnlyList<HardStretch> In(SeenPicture picture, params MoveIn[] moveIns) => In([picture], moveIns);

    private static IReadOnlyList<HardStretch> In(IReadOnlyList<SeenPicture> pictures, params MoveIn[] moveIns) =>
        HardToRead.In(pictures, Middle, TimeMap.Of(new FrameRate(30, 1), Ms.Of(60_000), []), moveIns);

    private static void ShouldBe(PicturePart part, double left, double top, double width, double height)
    {
        const double near = 1e-6;
        (part.X * 1920).ShouldBe(left, near);
        (part.Y * 1080).ShouldBe(top, near);
        (part.Width * 1920).ShouldBe(width, near);
        (part.Height * 1080).ShouldBe(height, near);
    }

    [Fact]
    public void A_part_goes_no_further_than_the_canvas()
    {
        // Letters of 8 pixels want 1.125 times: 853 x 480 of it, at the corner next to them.
        var first = In(Seen(0, 10_000, Line(500, 300, 8))).Single();
        first.Smallest.ShouldBe(8);
        ShouldBe(first.Proposal!.Part, 480, 270, 960 / 1.125, 480);
        (first.Proposal.Factor, first.Proposal.WholeFactor, first.Proposal.Smallest).ShouldBe((1.12, false, 9));
        var last = In(Seen(0, 10_000, Line(1300, 700, 8))).Single();
        ShouldBe(last.Proposal!.Part, 1440 - (960 / 1.125), 810 - 480, 960 / 1.125, 480);
    }

    [Fact]
    public void What_is_to_be_read_stands_in_the_middle_of_it()
    {
        // Three times: 320 x 180 around 930, 475.
        var hard = In(Seen(0, 10_000, Line(880, 470, 3))).Single();
        ShouldBe(hard.Proposal!.Part, 930 - 160, 475 - 90, 320, 180);
        (hard.Proposal.Factor, hard.Proposal.WholeFactor, hard.Proposal.Smallest).ShouldBe((3, true, 9));
        // Two lines: around both.
        ShouldBe(In(Seen(0, 10_000, Line(800, 400, 3), Line(900, 500, 3))).Single().Proposal!.Part, 900 - 160, 455 - 90, 320, 180);
    }

    [Fact]
    public void Where_not_all_of_it_goes_in_the_part_with_most_of_it_is_taken()
    {
        var (left, right) = (Line(500, 300, 3), new[] { Line(1100, 300, 3, 150), Line(1100, 340, 3, 150) });
        var hard = In(Seen(0, 10_000, [left, .. right])).Single();
        ShouldBe(hard.Proposal!.Part, 1100 - 12, 300 - 12, 320, 180);
        hard.Proposal.Smallest.ShouldBe(9);
        // Two that stand alone at the left are less than one that is wider.
        ShouldBe(In(Seen(0, 10_000, Line(500, 300, 3, 70), Line(500, 340, 3, 70), Line(1100, 600, 3, 200))).Single().Proposal!.Part, 1088, 588, 320, 180);
    }

    [Theory]
    [InlineData(8.72, true)]
    [InlineData(8.74, false)]
    public void A_little_less_than_easy_is_easy(double height, bool hard) => In(Seen(0, 10_000, Line(500, 300, height))).Any().ShouldBe(hard);

    [Theory]
    [InlineData(8.6, false)]
    [InlineData(8.5, true)]
    public void A_part_that_is_hardly_larger_is_not_proposed(double height, bool proposed) =>
        (In(Seen(0, 10_000, Line(500, 300, height))).Single().Proposal is not null).ShouldBe(proposed);

    [Fact]
    public void Four_times_is_the_most() => In(Seen(0, 10_000, Line(880, 470, 2))).Single().Proposal!.Factor.ShouldBe(4);

    [Theory]
    [InlineData(2000, true)]
    [InlineData(1999, false)]
    public void Two_seconds_are_worth_a_move_in(long length, bool proposed) =>
        (In(Seen(0, length, Line(880, 470, 3))).Single().Proposal is not null).ShouldBe(proposed);

    private static MoveIn MoveIn(long from, long to, double x, double y, double side) =>
        new("m", new TimeRange(Ms.Of(from), Ms.Of(to)), new PicturePart(x / 1920, y / 1080, side, side), TimeSpan.Zero);

    [Theory]
    [InlineData(9500, false)]
    [InlineData(9501, true)]
    public void Half_a_second_of_a_move_in_is_time_to_read(long from, bool hard)
    {
        var moveIn = MoveIn(from, 20_000, 770, 385, 1 / 6.0);
        In(Seen(0, 10_000, Line(880, 470, 3)), moveIn).Any().ShouldBe(hard);
        In(Seen(15_000, 30_000, Line(880, 470, 3)), MoveIn(10_000, 15_500 - (from - 9500), 770, 385, 1 / 6.0)).Any().ShouldBe(hard);
    }

    [Theory]
    [InlineData(9000, true)]
    [InlineData(9001, false)]
    public void What_a_move_in_leaves_out_is_not_seen_and_not_hard_to_read(long to, bool hard) =>
        In(Seen(0, 10_000, Line(880, 470, 3)), MoveIn(0, to, 500, 300, 1 / 8.0)).Any().ShouldBe(hard);

    [Theory]
    [InlineData(879, 470, true)]
    [InlineData(878, 470, false)]
    [InlineData(1101, 470, true)]
    [InlineData(1102, 470, false)]
    [InlineData(900, 469, true)]
    [InlineData(900, 468, false)]
    [InlineData(900, 641, true)]
    [InlineData(900, 642, false)]
    public void A_line_is_read_where_all_of_it_is_seen_but_for_a_pixel(int x, int y, bool read) =>
        In(Seen(0, 10_000, Line(x, y, 3)), MoveIn(0, 5000, 880, 470, 1 / 6.0)).Any().ShouldBe(!read);

    [Theory]
    [InlineData(500, true)]
    [InlineData(501, false)]
    public void Stretches_that_follow_each_other_are_one(long gap, bool joined)
    {
        var hard = In([Seen(0, 5000, Line(880, 470, 3)), Seen(5000 + gap, 9000, Line(880, 470, 4))]);
        hard.Count.ShouldBe(joined ? 1 : 2);
        hard[0].Smallest.ShouldBe(3);
        if (joined)
            hard[0].Span.ShouldBe(new TimeRange(Ms.Of(0), Ms.Of(9000)));
    }

    [Theory]
    [InlineData(40, 1)]
    [InlineData(80, 2)]
    public void Stretches_that_ask_for_different_parts_are_two(int apart, int stretches) =>
        // 280 of 320 pixels in common is 0.78 of both; 240 is 0.6.
        In([Seen(0, 5000, Line(880, 470, 3)), Seen(5000, 9000, Line(880 + apart, 470, 3))]).Count.ShouldBe(stretches);

    [Fact]
    public void Of_those_that_are_as_small_the_one_with_more_lines_is_worse()
    {
        var hard = In([Seen(0, 5000, Line(880, 470, 3)), Seen(20_000, 25_000, Line(880, 470, 3), Line(880, 500, 3))]);
        hard.Select(h => h.Lines.Count).ShouldBe([2, 1]);
    }

    [Theory]
    [InlineData(849, 470, true)]
    [InlineData(848, 470, false)]
    [InlineData(991, 470, true)]
    [InlineData(992, 470, false)]
    [InlineData(900, 449, true)]
    [InlineData(900, 448, false)]
    [InlineData(900, 491, true)]
    [InlineData(900, 492, false)]
    public void What_changes_near_a_line_is_about_it(int x, int y, bool near)
    {
        // Another line stands far off: where the change is about none of them, both are to be seen.
        var picture = Seen(0, 10_000, Line(880, 470, 3), Line(1300, 770, 3)) with { Changed = new PictureRect(x, y, 20, 10) };
        (Math.Abs((In(picture).Single().Proposal!.Part.X * 1920) - 770) < 1e-6).ShouldBe(near);
    }

    [Theory]
    [InlineData(269, true)]
    [InlineData(270, false)]
    public void A_change_of_half_the_picture_is_a_new_page(int height, bool about)
    {
        var picture = Seen(0, 10_000, Line(880, 470, 3), Line(1300, 770, 3)) with { Changed = new PictureRect(480, 270, 960, height) };
        (Math.Abs((In(picture).Single().Proposal!.Part.X * 1920) - 770) < 1e-6).ShouldBe(about);
    }

    [Fact]
    public void One_scrap_among_twenty_lines_does_not_rule()
    {
        TextLine[] twenty = [.. Enumerable.Range(0, 19).Select(i => Line(880, 400 + (i * 4), 4.5)), Line(880, 480, 2.5)];
        In(Seen(0, 10_000, twenty)).Single().Proposal!.Factor.ShouldBe(2);
        In(Seen(0, 10_000, twenty[1..])).Single().Proposal!.Factor.ShouldBe(3.6, 0.41);
    }
}
