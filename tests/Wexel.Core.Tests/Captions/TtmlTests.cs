using System.Xml.Linq;
using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Captions;

/// <summary>TTML in and out, clause by clause of W3C TTML2 and IMSC 1.1.</summary>
public class TtmlTests
{
    /// <summary>TTML2, section 12.3.1: clock times with fractions and frames, offsets in hours, minutes, seconds, milliseconds, frames and ticks.</summary>
    [Theory]
    [InlineData("00:00:01.5", 1500)]
    [InlineData("00:01:02:15", 62_600)]
    [InlineData("01:00:00", 3_600_000)]
    [InlineData("0.5h", 1_800_000)]
    [InlineData("1.5m", 90_000)]
    [InlineData("2.25s", 2250)]
    [InlineData("300ms", 300)]
    [InlineData("50f", 2000)]
    [InlineData("30000t", 3000)]
    public void Times_are_read_in_every_form(string written, int milliseconds) =>
        Read($"<p begin=\"{written}\" end=\"9999s\">x</p>", "ttp:frameRate=\"25\" ttp:tickRate=\"10000\"").Cues[0].Span.Start.ShouldBe(Ms.Of(milliseconds));

    /// <summary>TTML2, section 7.2.5: 30 frames with the multiplier 1000 1001 are 29.97.</summary>
    [Fact]
    public void Frames_are_counted_with_their_multiplier() =>
        Read("<p begin=\"00:00:10:00\" end=\"3000f\">x</p>", "ttp:frameRate=\"30\" ttp:frameRateMultiplier=\"1000 1001\"")
            .Cues[0]
            .Span.ShouldBe(new TimeRange(Ms.Of(10_000), Ms.Of(100_100)));

    /// <summary>TTML2, section 12.2: what is nested counts from what it stands in, is cut off by its end, and may be a sequence.</summary>
    [Fact]
    public void What_is_nested_counts_from_what_it_stands_in()
    {
        Read("<div begin=\"10s\" end=\"14s\"><p begin=\"1s\" end=\"9s\">x</p><p begin=\"2s\" dur=\"1s\">y</p></div>")
            .Cues.Select(c => (c.Text, c.Span))
            .ShouldBe([("x", Range(11_000, 14_000)), ("y", Range(12_000, 13_000))]);
        Read("<div begin=\"5s\" timeContainer=\"seq\"><p dur=\"1s\">x</p><p begin=\"1s\" dur=\"2s\">y</p></div>")
            .Cues.Select(c => (c.Text, c.Span))
            .ShouldBe([("x", Range(5000, 6000)), ("y", Range(7000, 9000))]);
        Read("<p begin=\"10s\" end=\"20s\"><span begin=\"1s\" end=\"2s\">x</span> <span begin=\"3s\">y</span></p>")
            .Cues.Select(c => (c.Text, c.Span))
            .ShouldBe([("x", Range(11_000, 12_000)), ("y", Range(13_000, 20_000))]);
    }

    [Fact]
    public void Lines_styles_and_the_top_are_kept_and_white_space_is_one()
    {
        const string Head =
            "<head><styling><style xml:id=\"s\" tts:fontStyle=\"italic\"/></styling>"
            + "<layout><region xml:id=\"r\" tts:displayAlign=\"before\"/></layout></head>";
        var cue = Read(
            "<p begin=\"0s\" end=\"1s\" region=\"r\">One  \n two<br/><span style=\"s\">three <span tts:fontWeight=\"bold\">four</span></span> &amp; 5</p>",
            head: Head
        ).Cues[0];
        cue.Text.ShouldBe("One two\nthree four & 5");
        cue.Markup.ShouldBe("One two\n<i>three </i><b><i>four</i></b> &amp; 5");
        cue.AtTop.ShouldBeTrue();
    }

    [Fact]
    public void What_cannot_be_read_is_said_with_its_line_and_the_rest_is_kept()
    {
        var reading = Read("<p begin=\"0s\" end=\"1s\">x</p>\n<p begin=\"soon\" end=\"1s\">y</p>\n<p begin=\"2s\" end=\"2s\">z</p>\n<p begin=\"2s\">w</p>");
        reading.Cues.ShouldHaveSingleItem().Text.ShouldBe("x");
        reading.Problems.Select(p => p.Code).ShouldBe(["captions-bad-time", "captions-backward", "captions-no-end"]);
        reading.Problems[0].Sentence.ShouldBe("Line 2: “soon” is no time; it was left out.");
    }

    /// <summary>No external entity is read, and none that grows: the file is refused with a sentence (OWASP, XML External Entity Prevention).</summary>
    [Theory]
    [InlineData("<!DOCTYPE tt [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><tt xmlns=\"http://www.w3.org/ns/ttml\">&x;</tt>", "captions-no-xml")]
    [InlineData("<tt xmlns=\"http://www.w3.org/ns/ttml\"><body>", "captions-no-xml")]
    [InlineData("<html/>", "captions-not-ttml")]
    [InlineData("<tt xmlns=\"http://example.org/\"/>", "captions-not-ttml")]
    public void What_is_no_TTML_is_refused(string text, string code)
    {
        var reading = CaptionFile.Read(System.Text.Encoding.UTF8.GetBytes(text));
        reading.Cues.ShouldBeEmpty();
        reading.Problems[0].Code.ShouldBe(code);
    }

    [Fact]
    public void What_is_nested_without_end_is_refused()
    {
        var deep = string.Concat(Enumerable.Repeat("<span>", 5000)) + "x" + string.Concat(Enumerable.Repeat("</span>", 5000));
        Read($"<p begin=\"0s\" end=\"1s\">{deep}</p>").Problems[0].Sentence.ShouldContain("nested");
    }

    /// <summary>IMSC 1.1: the text profile is named (6.1), each paragraph has a region (6.7), sizes and origins are in per cent of the picture (8.4),
    /// times are of the media (7.3), the language is said (TTML2, 8.1.1).</summary>
    [Fact]
    public void What_is_written_keeps_the_clauses_of_the_text_profile()
    {
        var root = XDocument.Parse(TtmlWriter.Write([Cue(0, 1500, "A & B", top: true)], "en-GB")).Root!;
        XNamespace tt = "http://www.w3.org/ns/ttml";
        root.Attribute(XNamespace.Xml + "lang")!.Value.ShouldBe("en-GB");
        root.Attributes().ShouldContain(a => a.Name.LocalName == "contentProfiles" && a.Value == "http://www.w3.org/ns/ttml/profile/imsc1.1/text");
        root.Attributes().ShouldContain(a => a.Name.LocalName == "timeBase" && a.Value == "media");
        var regions = root.Descendants(tt + "region").ToDictionary(r => r.Attribute(XNamespace.Xml + "id")!.Value);
        regions.Values.ShouldAllBe(r => r.Attributes().Count(a => a.Name.LocalName == "origin" || a.Name.LocalName == "extent") == 2);
        regions.Values.SelectMany(r => r.Attributes().Where(a => a.Name.LocalName is "origin" or "extent")).ShouldAllBe(a => a.Value.Count(c => c == '%') == 2);
        var paragraph = root.Descendants(tt + "p").Single();
        regions.ShouldContainKey(paragraph.Attribute("region")!.Value);
        paragraph.Attribute("begin")!.Value.ShouldBe("00:00:00.000");
        paragraph.Attribute("end")!.Value.ShouldBe("00:00:01.500");
    }

    /// <summary>Whatever stands in captions comes back as it was from every format; SubRip has no way to say that a sign is no tag.</summary>
    [Fact]
    public void What_is_written_is_read_back_without_loss()
    {
        string[] words = ["Make", "fast.", "<i>aft</i>", "<b>Wait</b>", "A & B", "<u>now</u>", "à la carte", "“so”"];
        var line = Gen.Int[0, words.Length - 1].Array[1, 4].Select(w => string.Join(' ', w.Select(i => words[i])));
        var cue = Gen.Select(line.Array[1, 2], Gen.Int[1, 3000], Gen.Bool, (lines, length, top) => (lines, length, top));
        cue.Array[1, 12]
            .Sample(said =>
            {
                var (cues, at) = (new List<Cue>(), 0);
                foreach (var (lines, length, top) in said)
                {
                    var tagged = string.Join('\n', lines.Select(l => l.Replace("&", "&amp;", StringComparison.Ordinal)));
                    var (text, markup) = (
                        System.Net.WebUtility.HtmlDecode(System.Text.RegularExpressions.Regex.Replace(tagged, "<[^>]*>", "")),
                        tagged.Contains('<') ? tagged : null
                    );
                    cues.Add(new Cue(Range(at, at + length), text, markup, top));
                    at += length + 100;
                }

                foreach (var format in CaptionFormats.All)
                {
                    var read = CaptionFile.Read(System.Text.Encoding.UTF8.GetBytes(format.Write(cues, "en-GB")));
                    read.Problems.ShouldBeEmpty(format.Name);
                    read.Cues.Select(c => (c.Span, c.Text, c.AtTop)).ShouldBe(cues.Select(c => (c.Span, c.Text, c.AtTop)), format.Name);
                }
            });
    }

    [Fact]
    public void SubRip_is_numbered_and_has_commas() =>
        SubRipText
            .Write([Cue(61_500, 3_723_004, "<b>A</b> & B", markup: "<b>A</b> &amp; B", top: true)])
            .ShouldBe("1\n00:01:01,500 --> 01:02:03,004\n{\\an8}<b>A</b> & B\n\n");

    [Fact]
    public void A_format_is_found_by_its_ending()
    {
        CaptionFormats.Find("SRT")!.Name.ShouldBe("SubRip");
        CaptionFormats.Find(".ttml")!.MediaType.ShouldBe("application/ttml+xml");
        CaptionFormats.Find("exe").ShouldBeNull();
    }

    [Fact]
    public void A_transcript_has_sections_and_paragraphs()
    {
        Cue[] cues = [Cue(0, 900, "Before."), Cue(5000, 6000, "One\ntwo."), Cue(6100, 7000, "Three."), Cue(9000, 9900, "Four.")];
        Transcript.Text(cues, [(Ms.Of(5000), "Fares"), (Ms.Of(20_000), "Empty")]).ShouldBe("Before.\n\n0:05 Fares\n\nOne two. Three.\n\nFour.\n\n0:20 Empty\n");
        Transcript.Text([], []).ShouldBe("\n");
    }

    private static Cue Cue(int from, int to, string text, bool top = false, string? markup = null) => new(Range(from, to), text, markup, top);

    private static TimeRange Range(int from, int to) => new(Ms.Of(from), Ms.Of(to));

    private static CaptionReading Read(string body, string parameters = "", string head = "") =>
        CaptionFile.Read(
            System.Text.Encoding.UTF8.GetBytes(
                "<tt xmlns=\"http://www.w3.org/ns/ttml\" xmlns:ttp=\"http://www.w3.org/ns/ttml#parameter\" "
                    + $"xmlns:tts=\"http://www.w3.org/ns/ttml#styling\" {parameters}>{head}<body><div>{body}</div></body></tt>"
            )
        );
}
