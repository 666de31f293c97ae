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

    [Fact]
    public void Where_bars_stand_above_a_part_is_still_one_of_the_recording()
    {
        // 1280 x 720 in 640 x 480: the page is 1280 x 960, the recording from 120 on. Letters of 6 are delivered at 3, and want four times.
        var bars = CanvasPlacement.Of(new(1280, 720), new Canvas(new(640, 480), FitMode.Whole, PicturePart.All), null);
        var part = HardToRead.In([Seen(0, 10_000, Line(600, 300, 6))], bars, Map, []).Single().Proposal!;
        (part.Factor, part.WholeFactor, part.Smallest).ShouldBe((4, true, 12));
        (part.Part.X * 1280).ShouldBe(650 - 160, 1e-6);
        (part.Part.Y * 720).ShouldBe(305 - 120, 1e-6);
        (part.Part.Width * 1280).ShouldBe(320, 1e-6);
        (part.Part.Height * 720).ShouldBe(240, 1e-6);
    }

    [Fact]
    public void Where_bars_stand_at_the_sides_a_part_is_still_one_of_the_recording()
    {
        // 800 x 600 in 1280 x 720: the page is 1066 x 600, the recording from 132 on. Pixels come over whole at 3 x 1066 / 1280.
        var bars = CanvasPlacement.Of(new(800, 600), new Canvas(new(1280, 720), FitMode.Whole, PicturePart.All), null);
        var proposal = HardToRead.In([Seen(0, 10_000, Line(300, 300, 3))], bars, Map, []).Single().Proposal!;
        var factor = 3 * 1066.0 / 1280;
        (proposal.Factor, proposal.WholeFactor).ShouldBe((Math.Round(factor, 2), true));
        (proposal.Part.X * 800).ShouldBe(350 - (1066 / factor / 2), 1e-6);
        (proposal.Part.Y * 600).ShouldBe(305 - (600 / factor / 2), 1e-6);
    }

    private static readonly TimeMap Map = TimeMap.Of(new FrameRate(30, 1), Ms.Of(60_000), []);

    /// <summary>960 x 540 are seen; with 12 around it, 456 x 246 go into half of each.</summary>
    [Theory]
    [InlineData(456, 246, 2, true)]
    [InlineData(457, 246, 1.5, false)]
    [InlineData(456, 247, 1.5, false)]
    public void A_whole_factor_is_taken_where_all_of_it_goes_in(int width, int height, double factor, bool whole)
    {
        var proposal = In(Seen(0, 10_000, Line(600, 400, 6, width), Line(600, 400 + height - 10, 6))).Single().Proposal!;
        (proposal.Factor, proposal.WholeFactor).ShouldBe((factor, whole));
        // It stands in the middle, also where nothing is left over at the sides.
        if (whole)
            ShouldBe(proposal.Part, 600 - 12, 400 - 12, 480, 270);
    }

    [Theory]
    [InlineData(7.2, 2, true)]
    [InlineData(7.3, 1.23, false)]
    [InlineData(2.25, 4, true)]
    public void A_whole_factor_is_worth_a_little_more_than_is_needed(double height, double factor, bool whole)
    {
        var proposal = In(Seen(0, 10_000, Line(880, 470, height))).Single().Proposal!;
        (proposal.Factor, proposal.WholeFactor).ShouldBe((factor, whole));
    }

    [Theory]
    [InlineData(616, 1.5, false)]
    [InlineData(617, 2, true)]
    public void Where_not_even_what_is_needed_goes_in_the_whole_factor_is_taken(int width, double factor, bool whole)
    {
        var proposal = In(Seen(0, 10_000, Line(500, 400, 6, 100), Line(500 + width - 100, 400, 6, 100))).Single().Proposal!;
        (proposal.Factor, proposal.WholeFactor).ShouldBe((factor, whole));
    }

    /// <summary>Three lines in the window of four times, 240 x 135, and one that reaches out of it at each side or stands beyond it.</summary>
    [Theory]
    [InlineData(500, 530, 100)]
    [InlineData(1300, 530, 100)]
    [InlineData(1000, 300, 100)]
    [InlineData(1000, 750, 100)]
    [InlineData(1010, 590, 300)]
    [InlineData(1010, 616, 100)]
    public void What_does_not_go_in_does_not_count(int x, int y, int width)
    {
        var hard = In(
            Seen(0, 10_000, Line(1000, 500, 2.2, 150), Line(1000, 530, 2.5, 150), Line(1000, 560, 3, 150), Line(x, y, 2, width), Line(500, 780, 4, 20))
        );
        var proposal = hard.Single().Proposal!;
        (proposal.Factor, proposal.Smallest).ShouldBe((4, 8.8));
        hard.Single().Smallest.ShouldBe(2);
        ShouldBe(proposal.Part, 988, 488, 240, 135);
    }

    [Fact]
    public void The_window_with_most_in_it_may_end_with_a_line()
    {
        // The lowest begins furthest to the left: only a window that begins with it and ends below it holds all three.
        var far = Line(500, 780, 2, 20);
        ShouldBe(In(Seen(0, 10_000, Line(1010, 500, 2), Line(1010, 540, 2), Line(990, 590, 2), far)).Single().Proposal!.Part, 978, 477, 240, 135);
        // Twelve to the left of another is still in that one's window, and so is what ends with it.
        ShouldBe(In(Seen(0, 10_000, Line(1010, 500, 2), Line(1010, 540, 2), Line(998, 590, 2), far)).Single().Proposal!.Part, 998, 488, 240, 135);
        ShouldBe(In(Seen(0, 10_000, Line(1010, 500, 2), Line(1100, 488, 2, 138), far)).Single().Proposal!.Part, 998, 488, 240, 135);
        ShouldBe(In(Seen(0, 10_000, Line(1010, 500, 2), Line(1100, 613, 2, 138), far)).Single().Proposal!.Part, 998, 488, 240, 135);
    }

    [Fact]
    public void Where_no_line_goes_in_nothing_is_proposed() =>
        In(Seen(0, 10_000, Line(600, 500, 2, 400), Line(600, 700, 2, 400))).Single().Proposal.ShouldBeNull();

    [Fact]
    public void What_is_lost_is_told_by_the_size_that_is_delivered()
    {
        DetailKept Kept(int width, int height, byte left) => new(new PictureSize(width, height), 2, [left, 90, 90, 90]);
        var picture = Seen(0, 10_000, Line(880, 470, 3), Line(880, 500, 4)) with { Kept = [Kept(640, 360, 0), Kept(1920, 1080, 30), Kept(960, 540, 90)] };
        Middle.WholeDelivered.ShouldBe(new PictureSize(1920, 1080));
        var hard = In(picture).Single();
        (hard.Smallest, hard.KeptPerCent).ShouldBe((3, 75));
        hard.Lost.ShouldBe([new PictureRect(0, 0, 32, 32)]);
        var none = In(picture with { Kept = [] }).Single();
        (none.KeptPerCent, none.Lost.Count).ShouldBe((100, 0));
    }

    [Fact]
    public void Of_two_that_are_one_the_worse_rules_and_a_proposal_of_either_stays()
    {
        HardStretch One(params SeenPicture[] pictures) => In(pictures).ShouldHaveSingleItem();
        var (small, large) = (Line(880, 470, 3), Line(880, 470, 4));
        // As bad: the first one's lines.
        One(Seen(0, 5000, small), Seen(5000, 9000, small, small)).Lines.Count.ShouldBe(1);
        One(Seen(0, 5000, large), Seen(5000, 9000, small)).Proposal!.Factor.ShouldBe(3);
        One(Seen(0, 5000, small), Seen(5000, 9000, large)).Proposal!.Factor.ShouldBe(3);
        // One that is too short asks for nothing itself.
        foreach (var one in new[] { One(Seen(0, 1000, small), Seen(1000, 9000, large)), One(Seen(0, 8000, large), Seen(8000, 9000, small)) })
        {
            (one.Smallest, one.Proposal!.Span).ShouldBe((3, new TimeRange(Ms.Of(0), Ms.Of(9000))));
            one.Proposal.Factor.ShouldBe(3, 0.75);
        }
    }

    [Theory]
    [InlineData(0, 30, 1)]
    [InlineData(0, 40, 2)]
    [InlineData(0, -30, 1)]
    [InlineData(0, -40, 2)]
    [InlineData(300, 200, 2)]
    [InlineData(-300, -190, 2)]
    public void Parts_are_alike_by_what_they_share_both_ways(int right, int down, int stretches) =>
        In([Seen(0, 5000, Line(880, 500, 3)), Seen(5000, 9000, Line(880 + right, 500 + down, 3))]).Count.ShouldBe(stretches);
}
