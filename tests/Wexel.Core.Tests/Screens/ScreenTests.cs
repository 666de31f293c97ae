using Wexel.Core.Recordings;
using Wexel.Core.Screens;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Screens;

public class ScreenTests
{
    private static readonly PictureSize Size = new(320, 180);

    [Fact]
    public void What_changed_is_counted_in_squares_of_an_eightieth_of_the_width()
    {
        var (before, now) = (new byte[320 * 180], new byte[320 * 180]);
        ScreenSquares.Changed(before, now, Size).ShouldBe(0);
        // A quarter of the picture, to the pixel: 40 x 45/2 squares of 4 pixels.
        for (var y = 0; y < 88; y++)
            now.AsSpan(y * 320, 160).Fill(200);
        ScreenSquares.Changed(before, now, Size).ShouldBe(40 * 22 / (80.0 * 45));
        Array.Fill(now, (byte)200);
        ScreenSquares.Changed(before, now, Size).ShouldBe(1);
    }

    [Fact]
    public void Coding_noise_is_no_change()
    {
        var (before, now) = (new byte[320 * 180], new byte[320 * 180]);
        for (var i = 0; i < now.Length; i++)
            now[i] = (byte)(i % 20);
        ScreenSquares.Changed(before, now, Size).ShouldBe(0);
        Should.Throw<ArgumentException>(() => ScreenSquares.Changed(before, now.AsSpan(1), Size));
    }

    [Fact]
    public void A_line_is_found_once_where_it_is_first_seen_and_only_where_it_is_seen()
    {
        var text = new ScreenText(
            "t",
            [
                Picture(0, Line(10, "Find a booking"), Line(60, "xz"), Line(90, "Unsure words", 0.4)),
                Picture(1000, Line(10, "Find a booking"), Line(200, "Beside what is shown")),
                Picture(2000, Line(10, "FIND A BOOKING."), Line(30, "Refund")),
            ],
            []
        );
        ScreenLines
            .Find(text, null, _ => true)
            .Select(l => (l.Span.Start, l.Text))
            .ShouldBe([(Ms.Of(0), "Find a booking"), (Ms.Of(1000), "Beside what is shown"), (Ms.Of(2000), "Refund")]);
        // The first picture is cut, and what lies below 150 is not shown.
        ScreenLines
            .Find(text, new PictureRect(0, 0, 320, 150), s => s.Start >= Ms.Of(1000))
            .Select(l => (l.Span.Start, l.Text))
            .ShouldBe([(Ms.Of(1000), "Find a booking"), (Ms.Of(2000), "Refund")]);
    }

    private static ScreenPicture Picture(int at, params ScreenLine[] lines) => new(new TimeRange(Ms.Of(at), Ms.Of(at + 1000)), lines);

    private static ScreenLine Line(int y, string text, double confidence = 0.95) => new(new PictureRect(10, y, 100, 12), text, 12, confidence);
}
