using System.Text;
using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Captions;

/// <summary>Caption files as they come: what can be read of them is read, and the rest is said.</summary>
public sealed class BadCaptionTests
{
    private static CaptionReading Read(string text, System.Text.Encoding? encoding = null)
    {
        var used = encoding ?? new UTF8Encoding(false);
        return CaptionFile.Read([.. used.GetPreamble(), .. used.GetBytes(text)]);
    }

    private static string Time(int ms) => TimeSpan.FromMilliseconds(ms).ToString(@"hh\:mm\:ss\.fff", System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>The whole of W3C WebVTT's syntax: style and region blocks, notes, settings, voices, classes, ruby, languages and times inside cues.</summary>
    [Fact]
    public void Styles_regions_voices_and_markup_leave_the_words()
    {
        var read = Read(
            """
            WEBVTT - a title
            Kind: captions

            STYLE
            ::cue(v[voice="Mara"]) { color: yellow }

            REGION
            id:low
            width:40%
            lines:3

            NOTE
            A note about what comes

            first
            00:00.000 --> 00:02.000 region:low align:start position:10%
            <v.loud Mara Tarn>Take <c.big>the <b>rope</b></c></v> &amp; <lang es>la cuerda</lang>

            00:02.000 --> 00:04.000 line:-3 vertical:rl size:50%
            <00:02.500>Pull<00:03.000> it <ruby>hard<rt>er</rt></ruby>
            """
        );
        read.Problems.ShouldBeEmpty();
        read.Cues.Select(c => (c.Text, c.Markup)).ShouldBe([("Take the rope & la cuerda", "Take the <b>rope</b> &amp; la cuerda"), ("Pull it harder", null)]);
    }

    /// <summary>20,000 captions, of which every seventh overlaps its neighbour, every eleventh has no length, and all stand in the wrong order.</summary>
    [Fact]
    public void Twenty_thousand_overlapping_unordered_and_empty_ones_are_put_in_order()
    {
        var cues = Enumerable
            .Range(0, 20_000)
            .Reverse()
            .Select(i => $"c{i}\n{Time(i * 1000)} --> {Time((i * 1000) + (i % 11 == 0 ? 0 : i % 7 == 0 ? 1900 : 900))}\nSaid {i}\n");
        var read = Read("WEBVTT\n\n" + string.Join('\n', cues));
        read.Cues.Count.ShouldBe(20_000 - 1819);
        read.Problems[^1].Sentence.ShouldBe("1,719 more captions could not be read either.");
        read.Cues.Select(c => c.Span.Start).ShouldBeInOrder();
        read.Cues[0].ShouldBe(new Cue(new TimeRange(Ms.Of(1000), Ms.Of(1900)), "Said 1", Id: "c1"));
        // They are kept, read again, shifted and split in the same time.
        var kept = CaptionFile.Read(System.Text.Encoding.UTF8.GetBytes(WebVttText.WriteKept(read.Cues)));
        kept.Cues.ShouldBe(read.Cues);
        new CueChanges([read.Cues[5] with { Text = "Other" }], [read.Cues[6].Id]).Apply(read.Cues).Count.ShouldBe(read.Cues.Count - 1);
        new GuidelineCheck(CaptionGuidelines.Adults, new FrameRate(25, 1), [], TimeSpan.FromHours(6)).Find(read.Cues).ShouldNotBeEmpty();
    }

    [Theory]
    [InlineData("windows-1252")]
    [InlineData("utf-16")]
    [InlineData("utf-16BE")]
    [InlineData("utf-8")]
    public void SubRip_with_mixed_line_ends_and_letters_of_its_country_is_read(string name)
    {
        System.Text.Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        const string Mixed =
            "1\r\n00:00:01,000 --> 00:00:02,000\r\nÜber die Brücke,\nzurück\r\n\r\n2\n00:00:03,5 --> 00:00:04,000\rDanach – „Stopp“, für 20 €\n\n";
        var read = Read(Mixed, System.Text.Encoding.GetEncoding(name));
        read.Problems.ShouldBeEmpty();
        read.Cues.Select(c => c.Text).ShouldBe(["Über die Brücke,\nzurück", "Danach – „Stopp“, für 20 €"]);
        read.Cues[1].Span.ShouldBe(new TimeRange(Ms.Of(3500), Ms.Of(4000)));
    }

    /// <summary>W3C TTML2, section 12.3.1: frames count by frameRate times frameRateMultiplier, ticks by tickRate; NTSC’s 24 frames take 1.001 s.</summary>
    [Fact]
    public void TTML_of_other_rates_with_nested_spans_and_entities_is_read_and_no_external_one()
    {
        const string Head = "<?xml version=\"1.0\"?><tt xmlns=\"http://www.w3.org/ns/ttml\" xmlns:ttp=\"http://www.w3.org/ns/ttml#parameter\"";
        var read = Read(
            Head
                + " ttp:frameRate=\"24\" ttp:frameRateMultiplier=\"1000 1001\" ttp:tickRate=\"10000000\"><body><div begin=\"1s\">"
                + "<p begin=\"24f\" end=\"00:00:03:00\"><span>Take <span>the &lt;long&gt; <span>&#x72;ope</span></span></span> &amp; pull</p>"
                + "<p begin=\"50000000t\" dur=\"2.5s\">Stop</p></div></body></tt>"
        );
        read.Problems.ShouldBeEmpty();
        read.Cues.Select(c => c.Text).ShouldBe(["Take the <long> rope & pull", "Stop"]);
        read.Cues[0].Span.Start.ShouldBe(Ms.Of(2001));
        read.Cues[1].Span.ShouldBe(new TimeRange(Ms.Of(6000), Ms.Of(8500)));
        var external = Read(
            "<!DOCTYPE tt [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>" + Head[21..] + "><body><div><p begin=\"0s\" end=\"1s\">&x;</p></div></body></tt>"
        );
        external.Cues.ShouldBeEmpty();
        external.Problems.ShouldHaveSingleItem().Sentence.ShouldContain("DTD");
    }
}
