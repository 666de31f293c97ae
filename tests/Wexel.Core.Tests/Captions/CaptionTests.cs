using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using TextEncoding = System.Text.Encoding;

namespace Wexel.Core.Tests.Captions;

public class CaptionTests
{
    static CaptionTests() => TextEncoding.RegisterProvider(System.Text.CodePagesEncodingProvider.Instance);

    private const string SubRip =
        "1\r\n00:00:01,000 --> 00:00:02,500\r\nGrüße <i>an Bord</i>\r\n\r\n2\r\n00:00:03,000 --> 00:00:04,000\r\n{\\an8}Zwei\r\nZeilen\r\n";

    // The example of W3C WebVTT, section 1.2 ("Comments in WebVTT") with cue settings of section 1.4 and tags of section 1.3.
    private const string Vtt = """
        WEBVTT - Translation of that film I like

        NOTE
        This translation was done by Kyle so that
        some friends can watch it with their parents.

        STYLE
        ::cue { color: papayawhip }

        1
        00:02:15.000 --> 00:02:20.000 align:start position:10%
        - Ta en kopp varmt te.
        - Det är inte varmt.

        00:22.000 --> 00:24.500
        <v Roger Bingham><b>We are</b> in &lt;New York&gt; &amp; City

        """;

    [Fact]
    public void Reads_WebVTT_and_puts_it_in_order()
    {
        var reading = CaptionFile.Read(TextEncoding.UTF8.GetBytes(Vtt));
        reading.Problems.ShouldBeEmpty();
        reading.Cues.ShouldBe([
            new Cue(new TimeRange(Ms.Of(22_000), Ms.Of(24_500)), "We are in <New York> & City", "<b>We are</b> in &lt;New York&gt; &amp; City"),
            new Cue(new TimeRange(Ms.Of(135_000), Ms.Of(140_000)), "- Ta en kopp varmt te.\n- Det är inte varmt.", Id: "1"),
        ]);
    }

    [Theory]
    [InlineData("utf-8")]
    [InlineData("utf-8-bom")]
    [InlineData("utf-16le-bom")]
    [InlineData("utf-16be-bom")]
    [InlineData("utf-16le")]
    [InlineData("utf-16be")]
    [InlineData("windows-1252")]
    public void Reads_SubRip_in_any_usual_encoding(string encoding)
    {
        byte[] bytes = encoding switch
        {
            "utf-8-bom" => [.. TextEncoding.UTF8.GetPreamble(), .. TextEncoding.UTF8.GetBytes(SubRip)],
            "utf-16le-bom" => [.. TextEncoding.Unicode.GetPreamble(), .. TextEncoding.Unicode.GetBytes(SubRip)],
            "utf-16le" => TextEncoding.Unicode.GetBytes(SubRip),
            "utf-16be" => TextEncoding.BigEndianUnicode.GetBytes(SubRip),
            "utf-16be-bom" => [.. TextEncoding.BigEndianUnicode.GetPreamble(), .. TextEncoding.BigEndianUnicode.GetBytes(SubRip)],
            _ => TextEncoding.GetEncoding(encoding).GetBytes(SubRip),
        };
        var reading = CaptionFile.Read(bytes);
        reading.Problems.ShouldBeEmpty();
        reading.Cues.Select(c => c.Text).ShouldBe(["Grüße an Bord", "Zwei\nZeilen"]);
        reading.Cues[0].Span.ShouldBe(new TimeRange(Ms.Of(1000), Ms.Of(2500)));
        reading.Cues.Select(c => (c.Markup, c.AtTop)).ShouldBe([("Grüße <i>an Bord</i>", false), (null, true)]);
    }

    [Fact]
    public void Says_which_line_is_wrong_and_keeps_the_rest()
    {
        var reading = CaptionFile.Read(
            TextEncoding.UTF8.GetBytes("WEBVTT\n\n00:01.000 --> 00:0x.000\nBad\n\n00:05.000 --> 00:04.000\nBackward\n\n00:06.000 --> 00:07.000\nGood\n")
        );
        reading.Cues.ShouldHaveSingleItem().Text.ShouldBe("Good");
        reading.Problems.Select(p => (p.Code, p.Field)).ShouldBe([("captions-bad-time", "line 3"), ("captions-backward", "line 6")]);
    }

    [Theory]
    [InlineData("")]
    [InlineData("Just some prose\nwithout times.")]
    [InlineData("WEBVTT\n\nNOTE nothing here\n")]
    public void A_file_without_captions_says_so(string text)
    {
        var reading = CaptionFile.Read(TextEncoding.UTF8.GetBytes(text));
        reading.Cues.ShouldBeEmpty();
        reading.Problems.ShouldHaveSingleItem().Code.ShouldBe("captions-none");
    }

    [Fact]
    public void A_file_that_is_no_text_says_so_and_nothing_of_it_is_shown()
    {
        var problem = CaptionFile
            .Read([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 0, 0, 0, 0x0D, 0x49, 0x48, 0x44, 0x52, 0, 0, 1, 0])
            .Problems.ShouldHaveSingleItem();
        (problem.Code, problem.Sentence.Any(char.IsControl)).ShouldBe(("captions-no-text", false));
    }

    [Theory]
    [InlineData("<b>Stop", "Stop", "<b>Stop</b>")]
    [InlineData("<i>a <b>b</i> c</b>", "a b c", "<i>a <b>b</b></i> c")]
    [InlineData("</i>plain</b>", "plain", null)]
    [InlineData("<c.yellow>one</c> <U>two</U>", "one two", "one <u>two</u>")]
    public void Bold_italics_and_underlines_are_kept_and_closed(string tagged, string text, string? markup)
    {
        var cue = WebVttText.Read($"WEBVTT\n\n00:01.000 --> 00:02.000\n{tagged}\n").Cues.ShouldHaveSingleItem();
        (cue.Text, cue.Markup).ShouldBe((text, markup));
        WebVttText.Read(WebVttText.Write([cue])).Cues.ShouldBe([cue]);
    }

    [Theory]
    [InlineData("line:0", true)]
    [InlineData("position:50% line:10%,start", true)]
    [InlineData("line:80%", false)]
    [InlineData("line:-1", false)]
    [InlineData("align:start", false)]
    public void A_caption_at_the_top_stays_at_the_top(string settings, bool atTop)
    {
        var cue = WebVttText.Read($"WEBVTT\n\n00:01.000 --> 00:02.000 {settings}\nHello\n").Cues.ShouldHaveSingleItem();
        cue.AtTop.ShouldBe(atTop);
        WebVttText.Read(WebVttText.Write([cue])).Cues.ShouldBe([cue]);
    }

    [Fact]
    public void Captions_in_the_picture_keep_both()
    {
        var script = BurntCaptions.Script(
            [new Cue(new TimeRange(Ms.Of(0), Ms.Of(1000)), "Go {on}", "<i>Go</i> {on}", AtTop: true)],
            new PictureSize(1280, 720),
            null
        );
        script.ShouldContain("{\\an8}{\\i1}Go{\\i0} \\{on\\}");
    }

    [Fact]
    public void Survives_any_bytes() =>
        Gen
            .Byte.Array[0, 400]
            .Sample(bytes =>
            {
                var reading = CaptionFile.Read(bytes);
                return reading.Cues.Count > 0 || reading.Problems.Count > 0;
            });

    [Fact]
    public void Writing_and_reading_WebVTT_is_the_identity() =>
        Gen.Select(Gen.Long[0, 10_000_000], Gen.Long[1, 10_000], Gen.String[Pick.From('a', 'B', '<', '>', '&', '-', 'ß', ';', 't'), 1, 30])
            .Array[1, 10]
            .Sample(items =>
            {
                var cues = items.Select(x => new Cue(new TimeRange(Ms.Of(x.Item1), Ms.Of(x.Item1 + x.Item2)), x.Item3)).OrderBy(c => c.Span.Start).ToList();
                var read = WebVttText.Read(WebVttText.Write(cues));
                return read.Problems.Count == 0 && read.Cues.SequenceEqual(cues);
            });

    [Fact]
    public void A_caption_of_no_length_is_left_out_and_its_line_named()
    {
        var reading = CaptionFile.Read(TextEncoding.UTF8.GetBytes("WEBVTT\n\n00:01.000 --> 00:01.000\nA\n\n00:02.000 --> 00:02.001\nB\n"));
        reading.Cues.Single().Text.ShouldBe("B");
        var problem = reading.Problems.Single();
        (problem.Code, problem.Field).ShouldBe(("captions-backward", "line 3"));
    }

    [Fact]
    public void Of_much_that_cannot_be_read_the_rest_is_counted_and_what_can_be_is_read()
    {
        var bad = string.Concat(Enumerable.Repeat("x --> y\nA\n\n", Problem.Most + 5));
        var reading = CaptionFile.Read(TextEncoding.UTF8.GetBytes("WEBVTT\n\n" + bad + "00:01.000 --> 00:02.000\nB\n"));
        (reading.Problems.Count, reading.Problems[^1].Sentence).ShouldBe((Problem.Most + 1, "5 more captions could not be read either."));
        reading.Cues.ShouldHaveSingleItem().Text.ShouldBe("B");
    }

    [Fact]
    public void Tags_follow_each_other_and_an_empty_pair_is_none()
    {
        string Plain(string text) => CaptionFile.Read(TextEncoding.UTF8.GetBytes("1\n00:00:01,000 --> 00:00:02,000\n" + text + "\n")).Cues.Single().Text;
        Plain("{\\an8}{\\i1}a<font color=\"red\">b</font><u></u>c").ShouldBe("abc");
        Plain("a<>b").ShouldBe("ab");
        Plain("ends in {").ShouldBe("ends in {");
    }

    [Fact]
    public void Others_get_no_identifiers()
    {
        Cue[] cues = [new(new TimeRange(Ms.Of(0), Ms.Of(1000)), "A", Id: "c-17")];
        WebVttText.Write(cues).ShouldNotContain("c-17");
        WebVttText.WriteKept(cues).ShouldContain("\nc-17\n00:00:00.000 --> ");
    }

    [Theory]
    [InlineData("<b.loud>a</b>", "a")]
    [InlineData("<bold>a</bold>", "a")]
    [InlineData("<b>a</b>", "a")]
    public void A_tag_is_its_letter_and_no_longer_word(string tagged, string text)
    {
        var cue = CaptionFile.Read(TextEncoding.UTF8.GetBytes($"WEBVTT\n\n00:01.000 --> 00:02.000\n{tagged}\n")).Cues.Single();
        cue.Text.ShouldBe(text);
        (cue.Markup is not null).ShouldBe(!tagged.StartsWith("<bo", StringComparison.Ordinal));
    }
}
