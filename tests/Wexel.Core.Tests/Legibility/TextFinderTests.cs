using Wexel.Core.Legibility;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Legibility;

/// <summary>Letters of known height, square by square: what is found is held against what was drawn. Letters as fonts draw them are Media's tests.</summary>
public class TextFinderTests
{
    private const string Words = "sand dunes red shore sun nor spread onshore";
    private static readonly PictureSize Size = new(1920, 480);

    private static IReadOnlyList<TextLine> Find(Page page) => TextFinder.Find(page.Grey, page.Size);

    /// <summary>A line stands where it was drawn: its band in whole rows, its ends within the width of a stroke.</summary>
    private static void ShouldBe(TextLine line, int x, int end, int y, int scale)
    {
        line.XHeight.ShouldBe(Page.XRows * scale, (0.05 * Page.XRows * scale) + 0.15);
        line.Box.Y.ShouldBe(y);
        line.Box.Height.ShouldBeInRange(Page.XRows * scale, (Page.XRows * scale) + 1);
        line.Box.X.ShouldBeInRange(x - 4, x + 1);
        (line.Box.X + line.Box.Width).ShouldBeInRange(end - scale - 4, end + 4);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    public void A_line_is_as_high_as_it_was_drawn_and_stands_there(int scale)
    {
        var page = new Page(Size, 255);
        var end = page.Write(Words, 40, 120, scale, 0);
        ShouldBe(Find(page).ShouldHaveSingleItem(), 40, end, 120, scale);
    }

    [Theory]
    [InlineData(255, 0)]
    [InlineData(0, 255)]
    [InlineData(200, 140)]
    [InlineData(30, 80)]
    [InlineData(255, 231)]
    [InlineData(0, 24)]
    public void Any_ink_on_any_ground_is_read_alike(byte ground, byte ink)
    {
        var page = new Page(Size, ground);
        var end = page.Write(Words, 40, 120, 3, ink);
        ShouldBe(Find(page).ShouldHaveSingleItem(), 40, end, 120, 3);
    }

    [Theory]
    [InlineData(255, 232)]
    [InlineData(0, 23)]
    public void Ink_that_is_nearly_its_ground_is_no_text(byte ground, byte ink)
    {
        var page = new Page(Size, ground);
        page.Write(Words, 40, 120, 3, ink);
        Find(page).ShouldBeEmpty();
    }

    [Fact]
    public void Lines_are_told_from_top_to_bottom_and_from_left_to_right()
    {
        var page = new Page(Size, 255);
        var last = page.Write("shore shore shore", 40, 300, 2, 0);
        var right = page.Write("sun nor sun nor", 1000, 100, 2, 0);
        var left = page.Write("dunes dunes", 40, 100, 2, 0);
        var lines = Find(page);
        lines.Count.ShouldBe(3);
        ShouldBe(lines[0], 40, left, 100, 2);
        ShouldBe(lines[1], 1000, right, 100, 2);
        ShouldBe(lines[2], 40, last, 300, 2);
    }

    [Fact]
    public void Small_print_under_a_heading_is_found_beside_it()
    {
        var page = new Page(Size, 255);
        var heading = page.Write("sand shore", 40, 60, 8, 0);
        var print = page.Write(Words, 40, 180, 2, 90);
        var lines = Find(page);
        lines.Count.ShouldBe(2);
        ShouldBe(lines[0], 40, heading, 60, 8);
        ShouldBe(lines[1], 40, print, 180, 2);
    }

    [Fact]
    public void Lines_that_are_set_close_are_told_apart()
    {
        var page = new Page(Size, 255);
        // A line of nine squares follows the other without a row between.
        var ends = Enumerable.Range(0, 4).Select(line => page.Write(Words, 40, 60 + (line * 18), 2, 0)).ToList();
        var lines = Find(page);
        lines.Count.ShouldBe(4);
        foreach (var (i, end) in ends.Index())
            ShouldBe(lines[i], 40, end, 60 + (i * 18), 2);
    }

    [Theory]
    [InlineData(10, 1)]
    [InlineData(40, 2)]
    public void Words_that_stand_near_each_other_are_one_line_and_others_are_not(int gap, int lines)
    {
        var page = new Page(Size, 255);
        var end = page.Write("sun nor sun", 40, 120, 2, 0);
        page.Write("nor sun nor", end + gap, 120, 2, 0);
        Find(page).Count.ShouldBe(lines);
    }

    /// <summary>Letters that begin and end between pixels, as fonts draw them: the page is drawn four times as large and brought down.</summary>
    [Theory]
    [InlineData(7, 0)]
    [InlineData(9, 1)]
    [InlineData(10, 2)]
    [InlineData(11, 3)]
    [InlineData(13, 0)]
    [InlineData(14, 1)]
    [InlineData(15, 2)]
    public void Heights_between_pixels_are_measured_between_pixels(int quarters, int off)
    {
        var large = new Page(new PictureSize(4 * 1400, 4 * 100), 255);
        large.Write(Words, 160, 160 + off, quarters, 0);
        var page = large.Quarter();
        var line = Find(page).ShouldHaveSingleItem();
        line.XHeight.ShouldBe(Page.XRows * quarters / 4.0, (0.05 * Page.XRows * quarters / 4.0) + 0.15);
        line.Box.Y.ShouldBeInRange(39, 41);
    }

    [Theory]
    [InlineData(28, 40)]
    [InlineData(27, 34)]
    public void A_rule_right_beside_letters_is_none_of_them(int height, int from)
    {
        var page = new Page(Size, 255);
        var end = page.Write(Words, 40, 120, 3, 0);
        page.Fill(new PictureRect(34, 113, 1, height), 0);
        page.Fill(new PictureRect(end + 5, 113, 1, height), 0);
        var line = Find(page).ShouldHaveSingleItem();
        (line.Box.X + 1).ShouldBe(from);
        line.XHeight.ShouldBe(15, 0.5);
    }

    [Theory]
    [InlineData("sun", 1)]
    [InlineData("n", 0)]
    [InlineData("x", 0)]
    public void A_word_is_read_by_itself_and_a_letter_is_not(string word, int lines)
    {
        var page = new Page(Size, 255);
        page.Write(word, 40, 120, 3, 0);
        Find(page).Count.ShouldBe(lines);
    }

    [Fact]
    public void Frames_and_rules_around_text_are_none_of_it()
    {
        var page = new Page(Size, 255);
        foreach (var x in new[] { 20, 1700 })
            page.Fill(new PictureRect(x, 90, 2, 100), 0);
        foreach (var y in new[] { 90, 188 })
            page.Fill(new PictureRect(20, y, 1682, 2), 0);
        var end = page.Write(Words, 40, 120, 3, 0);
        ShouldBe(Find(page).ShouldHaveSingleItem(), 40, end, 120, 3);
    }

    [Fact]
    public void A_word_on_a_button_is_read_on_the_buttons_ground()
    {
        var page = new Page(Size, 255);
        page.Fill(new PictureRect(100, 100, 400, 60), 90);
        var end = page.Write("sun shore", 140, 120, 3, 255);
        ShouldBe(Find(page).ShouldHaveSingleItem(), 140, end, 120, 3);
    }

    [Fact]
    public void Text_at_the_very_edges_of_a_picture_is_found()
    {
        var page = new Page(new PictureSize(640, 18), 255);
        var end = page.Write("sand dunes spread on shore", 0, 4, 2, 0);
        ShouldBe(Find(page).ShouldHaveSingleItem(), 0, end, 4, 2);
    }

    [Fact]
    public void What_is_no_text_is_not_taken_for_it()
    {
        var page = new Page(Size, 255);
        // A bar, a box, a dotted line, a chequered field, a comb of bars, and one with hundreds.
        page.Fill(new PictureRect(40, 40, 3, 20), 0);
        page.Fill(new PictureRect(100, 40, 80, 12), 0);
        for (var i = 0; i < 60; i++)
            page.Fill(new PictureRect(240 + (i * 6), 40, 2, 2), 0);
        for (var row = 0; row < 40; row++)
        for (var column = row % 2; column < 200; column += 2)
            page.Fill(new PictureRect(700 + column, 40 + row, 1, 1), 0);
        for (var i = 0; i < 4; i++)
            page.Fill(new PictureRect(40 + (i * 30), 200, 2, 20), 0);
        for (var i = 0; i < 200; i++)
            page.Fill(new PictureRect(700 + (i * 2), 200, 1, 20), 0);
        Find(page).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(20, 1)]
    [InlineData(34, 0)]
    public void What_is_higher_than_some_160_pixels_is_left_out(int scale, int lines)
    {
        var page = new Page(new PictureSize(1920, 480), 255);
        page.Write("sun nor", 40, 160, scale, 0);
        Find(page).Count.ShouldBe(lines);
    }

    [Fact]
    public void An_empty_picture_has_no_text_and_one_with_too_few_samples_is_refused()
    {
        Find(new Page(Size, 255)).ShouldBeEmpty();
        TextFinder.Find(new byte[100], new PictureSize(10, 10)).ShouldBeEmpty();
        Should.Throw<ArgumentException>(() => TextFinder.Find(new byte[99], new PictureSize(10, 10)));
    }

    [Fact]
    public void Where_it_stands_makes_no_difference()
    {
        var page = new Page(Size, 255);
        page.Write(Words, 40, 60, 3, 0);
        var first = Find(page).ShouldHaveSingleItem();
        foreach (var (x, y) in new[] { (4, 0), (0, 4), (300, 200), (640, 380) })
        {
            var moved = new Page(Size, 255);
            moved.Write(Words, 40 + x, 60 + y, 3, 0);
            var line = Find(moved).ShouldHaveSingleItem();
            line.XHeight.ShouldBe(first.XHeight);
            line.Box.ShouldBe(new PictureRect(first.Box.X + x, first.Box.Y + y, first.Box.Width, first.Box.Height));
        }
    }

    [Fact]
    public void A_rule_that_goes_to_the_bottom_is_no_letter()
    {
        var page = new Page(new PictureSize(1920, 60), 255);
        var end = page.Write(Words, 40, 20, 3, 0);
        page.Fill(new PictureRect(34, 20, 1, 40), 0);
        page.Fill(new PictureRect(end + 5, 20, 1, 40), 0);
        var line = Find(page).ShouldHaveSingleItem();
        (line.Box.X + 1).ShouldBe(40);
        line.XHeight.ShouldBe(15, 0.5);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void A_line_that_begins_at_the_first_pixel_is_found_as_any_other(int scale)
    {
        TextLine At(int x)
        {
            var page = new Page(new PictureSize(1920, 100), 255);
            page.Write(Words, x, 40, scale, 0);
            return Find(page).ShouldHaveSingleItem();
        }

        var (first, other) = (At(0), At(64));
        first.XHeight.ShouldBe(other.XHeight, 0.02);
        (first.Box.Y, first.Box.Height).ShouldBe((other.Box.Y, other.Box.Height));
        // The edge before the first letter lies outside of the picture.
        (first.Box.X + 64).ShouldBeInRange(other.Box.X, other.Box.X + scale);
        (first.Box.X + first.Box.Width + 64).ShouldBe(other.Box.X + other.Box.Width);
    }
}
