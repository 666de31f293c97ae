using CsCheck;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Kit;

public sealed class MarkTests
{
    // Common practice, no source: a fifth of the picture's width, at the bottom right, 5 % in from the edges.
    [Theory]
    [InlineData(MarkPosition.TopLeft, 64, 36)]
    [InlineData(MarkPosition.Top, 512, 36)]
    [InlineData(MarkPosition.TopRight, 960, 36)]
    [InlineData(MarkPosition.Left, 64, 296)]
    [InlineData(MarkPosition.Middle, 512, 296)]
    [InlineData(MarkPosition.Right, 960, 296)]
    [InlineData(MarkPosition.BottomLeft, 64, 556)]
    [InlineData(MarkPosition.Bottom, 512, 556)]
    [InlineData(MarkPosition.BottomRight, 960, 556)]
    public void Nine_places_are_computed_from_the_edges(MarkPosition position, int x, int y) =>
        (MarkPlacement.Usual with { Position = position }).On(new(1280, 720), new(800, 400)).ShouldBe(new PictureRect(x, y, 256, 128));

    [Fact]
    public void An_offset_moves_it_but_never_off_the_picture()
    {
        (MarkPlacement.Usual with { OffsetX = -10, OffsetY = -5 }).On(new(1280, 720), new(800, 400)).ShouldBe(new PictureRect(832, 520, 256, 128));
        (MarkPlacement.Usual with { OffsetX = 100, OffsetY = 100 }).On(new(1280, 720), new(800, 400)).ShouldBe(new PictureRect(1024, 592, 256, 128));
        (MarkPlacement.Usual with { OffsetX = -100 }).On(new(1280, 720), new(800, 400)).X.ShouldBe(0);
    }

    [Fact]
    public void Numbers_out_of_range_are_brought_into_it() =>
        new MarkPlacement(0, 900, (MarkPosition)42, -3, double.NaN, 500).Within().ShouldBe(new MarkPlacement(5, 60, MarkPosition.BottomRight, 0, -100, 100));

    [Fact]
    public void It_always_stands_wholly_on_the_picture_in_even_pixels_and_keeps_its_shape()
    {
        var size = Gen.Select(Gen.Int[16, 4096], Gen.Int[16, 4096], (w, h) => new PictureSize(w, h));
        var placement = Gen.Select(
            Gen.Double[0, 120],
            Gen.Double[0, 120],
            Gen.Int[0, 8],
            Gen.Double[-5, 50],
            Gen.Double[-120, 120],
            Gen.Double[-120, 120],
            (o, w, p, d, x, y) => new MarkPlacement(o, w, (MarkPosition)p, d, x, y)
        );
        Gen.Select(size, size, placement)
            .Sample(
                (picture, mark, where) =>
                {
                    var box = where.On(picture, mark);
                    box.ShouldSatisfyAllConditions(
                        () => (box.X % 2 + box.Y % 2 + box.Width % 2 + box.Height % 2).ShouldBe(0),
                        () => box.X.ShouldBeInRange(0, picture.Width - box.Width),
                        () => box.Y.ShouldBeInRange(0, picture.Height - box.Height)
                    );
                    if (box is { Width: > 60, Height: > 60 })
                        ((double)box.Width / box.Height).ShouldBe((double)mark.Width / mark.Height, 0.05 * mark.Width / mark.Height);
                }
            );
    }

    [Theory]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>", "it holds <script>")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><g onclick='x()'/></svg>", "it holds a script, in “onclick”")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><image href='http://pier.example/a.png'/></svg>", "it points elsewhere, in “href”")]
    [InlineData(
        "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink'><use xlink:href='file:///etc/passwd#a'/></svg>",
        "it points elsewhere, in “xlink:href”"
    )]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><image href='data:image/svg+xml,x'/></svg>", "it points elsewhere, in “href”")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><style>@import 'a.css';</style></svg>", "its styles fetch something from elsewhere")]
    [InlineData(
        "<svg xmlns='http://www.w3.org/2000/svg'><style>g { fill: url( 'http://pier.example/x') }</style></svg>",
        "its styles fetch something from elsewhere"
    )]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><g style='fill:url(//pier.example/x)'/></svg>", "it fetches something from elsewhere, in “style”")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><foreignObject/></svg>", "it holds <foreignObject>")]
    [InlineData("<?xml-stylesheet href='a.css'?><svg xmlns='http://www.w3.org/2000/svg'/>", "it holds a processing instruction, <?xml-stylesheet?>")]
    public void An_svg_that_is_more_than_a_drawing_is_refused(string svg, string why) =>
        Wrong(svg)!.Sentence.ShouldBe($"The SVG is not only a drawing: {why}. Save it as plain SVG, or as a PNG.");

    [Fact]
    public void Entities_and_what_is_not_well_formed_are_refused()
    {
        foreach (
            var svg in new[]
            {
                "<!DOCTYPE svg [<!ENTITY a SYSTEM 'file:///etc/passwd'>]><svg xmlns='http://www.w3.org/2000/svg'>&a;</svg>",
                "<svg><g></svg>",
                "<svg",
            }
        )
            Wrong(svg)!.Code.ShouldBe("mark-svg-broken");
        Wrong("<html/>")!.Code.ShouldBe("mark-no-picture");
    }

    [Fact]
    public void A_drawing_is_taken()
    {
        Wrong(
                "<?xml version='1.0'?><svg xmlns='http://www.w3.org/2000/svg'><defs><linearGradient id='a'/></defs><rect fill='url(#a)' width='4' "
                    + "height='4'/><use href='#a'/></svg>"
            )
            .ShouldBeNull();
        SvgCheck.LooksLikeOne("\uFEFF \n<svg"u8).ShouldBeTrue();
        SvgCheck.LooksLikeOne([0x89, (byte)'P', (byte)'N', (byte)'G']).ShouldBeFalse();
        SvgCheck.LooksLikeOne("just text"u8).ShouldBeFalse();
    }

    /// <summary>A few hundred bytes that would be drawn ten thousand million times, and their like.</summary>
    [Fact]
    public void A_drawing_that_takes_too_much_to_draw_is_refused_by_what_takes_it()
    {
        var doubled = string.Concat(
            Enumerable.Range(1, 10).Select(n => $"<g id='a{n}'>{string.Concat(Enumerable.Repeat($"<use href='#a{n - 1}'/>", 10))}</g>")
        );
        TooMuch($"<g id='a0'><path/></g>{doubled}").ShouldBe("more than 20000 elements are drawn");
        TooMuch("<g id='a'><use href='#b'/></g><g id='b'><use xlink:href='#a'/></g>").ShouldBe("more than 20000 elements are drawn");
        TooMuch(string.Concat(Enumerable.Repeat("<path/>", 20_001))).ShouldBe("it has more than 20000 elements");
        TooMuch(string.Concat(Enumerable.Repeat("<g>", 101)) + string.Concat(Enumerable.Repeat("</g>", 101)))
            .ShouldBe("elements stand more than 100 deep in each other");
        TooMuch($"<filter id='f'>{string.Concat(Enumerable.Repeat("<feGaussianBlur stdDeviation='99'/>", 21))}</filter>")
            .ShouldBe("its filters have more than 20 steps");
        TooMuch(string.Concat(Enumerable.Repeat("<use href='#none'/>", 1001))).ShouldBe("it draws parts again more than 1000 times");
        // What is used a few times in a few places is an ordinary drawing.
        static string Used(int n) => $"<g id='a{n}'>{string.Concat(Enumerable.Repeat($"<use href='#a{n - 1}'/>", 10))}</g>";
        TooMuch($"<g id='a0'><path/></g>{string.Concat(Enumerable.Range(1, 3).Select(Used))}").ShouldBeNull();
    }

    private static string? TooMuch(string inside) =>
        Wrong($"<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink'>{inside}</svg>") is { } problem
            ? problem.Sentence["The SVG takes too much to draw: ".Length..^". Save it simpler, or as a PNG.".Length]
            : null;

    private static Problem? Wrong(string svg) => SvgCheck.Wrong(new MemoryStream(System.Text.Encoding.UTF8.GetBytes(svg)));

    [Fact]
    public void As_much_as_is_allowed_is_taken()
    {
        string? Wrong(string inner) =>
            SvgCheck
                .Wrong(
                    new MemoryStream(System.Text.Encoding.UTF8.GetBytes($"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"10\" height=\"10\">{inner}</svg>"))
                )
                ?.Sentence;
        string Uses(int count) => "<path id=\"p\" d=\"M0 0\"/>" + string.Concat(Enumerable.Repeat("<use href=\"#p\"/>", count));
        Wrong(Uses(SvgCheck.MostUses)).ShouldBeNull();
        Wrong(Uses(SvgCheck.MostUses + 1)).ShouldNotBeNull();
        string Deep(int count) => string.Concat(Enumerable.Repeat("<g>", count)) + string.Concat(Enumerable.Repeat("</g>", count));
        Wrong(Deep(SvgCheck.Deepest)).ShouldBeNull();
        Wrong(Deep(SvgCheck.Deepest + 1)).ShouldNotBeNull();
        string Filters(int count) => "<filter>" + string.Concat(Enumerable.Repeat("<feOffset/>", count)) + "</filter>";
        Wrong(Filters(SvgCheck.MostFilterSteps)).ShouldBeNull();
        Wrong(Filters(SvgCheck.MostFilterSteps + 1)).ShouldNotBeNull();
    }
}
