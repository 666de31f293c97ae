using Wexel.Core.Feeds;
using Wexel.Core.Kit;

namespace Wexel.Core.Tests.Feeds;

public sealed class FeedCheckTests
{
    private static readonly ImageFacts GoodArtwork = new("mjpeg", 3000, 3000, ImageColour.Rgb, false, 400_000);
    private static readonly string Good = System.Text.Encoding.UTF8.GetString(
        FeedDocument.Write(FeedDocumentTests.Sources(null, new FeedEntry(FeedDocumentTests.Lesson(), DateTimeOffset.UnixEpoch, 1, 1)))
    );

    private static IReadOnlyList<FeedFinding> Check(string feed, ImageFacts? artwork = null) =>
        FeedCheck.Findings(System.Text.Encoding.UTF8.GetBytes(feed), artwork ?? GoodArtwork);

    [Fact]
    public void What_Wexel_writes_is_found_right() => Check(Good).ShouldBeEmpty();

    /// <summary>Each line breaks one rule of RSS 2.0, of a namespace, or of the directories, and is found by that rule's name.</summary>
    [Theory]
    [InlineData("<guid isPermaLink=\"false\">a1</guid>", "", "RSS 2.0: <guid>")]
    [InlineData("Thu, 01 Jan 1970 00:00:00 GMT", "1970-01-01T00:00:00Z", "RSS 2.0: <pubDate> in the form of RFC 822")]
    [InlineData("length=\"1234567\"", "length=\"\"", "RSS 2.0: <enclosure length> in bytes")]
    [InlineData("type=\"video/x-m4v\"", "type=\"video/mp4\"", "RSS 2.0: <enclosure type>")]
    [InlineData("t-a1.m4v", "t-a1.webm", "Directories' requirements: M4A, MP3, M4V, MP4 or MOV")]
    [InlineData("url=\"https://wexel.example/feeds/abc/episodes/t-a1.m4v\"", "url=\"episodes/t-a1.m4v\"", "RSS 2.0: <enclosure url>")]
    [InlineData(
        "<itunes:duration>53</itunes:duration>",
        "<itunes:duration>53 s</itunes:duration>",
        "iTunes namespace: <itunes:duration> in seconds or HH:MM:SS"
    )]
    [InlineData("<itunes:episode>1</itunes:episode>", "<itunes:episode>0</itunes:episode>", "iTunes namespace: <itunes:episode> is a whole number from 1")]
    [InlineData("text=\"Education\"", "text=\"Ferries\"", "iTunes namespace: <itunes:category> from the list")]
    [InlineData("mara.tarn@brackwater.example", "mara.tarn", "Directories' requirements: <itunes:email> of the owner")]
    [InlineData("<itunes:author>Staff training</itunes:author>", "", "Directories' requirements: <itunes:author>")]
    [InlineData("<language>en-GB</language>", "<language>English</language>", "iTunes namespace: <language> by ISO 639")]
    [InlineData("<itunes:type>serial</itunes:type>", "<itunes:type>series</itunes:type>", "iTunes namespace: <itunes:type> is serial or episodic")]
    [InlineData("<description>For the crew.</description>", "<description> </description>", "RSS 2.0: <description> is required")]
    [InlineData("application/json+chapters", "application/json", "Podcasting 2.0: <podcast:chapters type>")]
    [InlineData("<itunes:image href=\"https://wexel.example/feeds/abc/artwork.jpg\" />", "", "iTunes namespace: <itunes:image> ends in .jpg or .png")]
    [InlineData("version=\"2.0\"", "version=\"0.91\"", "RSS 2.0: <rss version=\"2.0\"> with one <channel>")]
    [InlineData("</channel>", "", "XML 1.0: a feed is well-formed")]
    [InlineData(
        "<itunes:duration>53</itunes:duration>",
        "<itunes:duration>1:xx</itunes:duration>",
        "iTunes namespace: <itunes:duration> in seconds or HH:MM:SS"
    )]
    [InlineData(
        "<itunes:duration>53</itunes:duration>",
        "<itunes:duration>0:0:0:53</itunes:duration>",
        "iTunes namespace: <itunes:duration> in seconds or HH:MM:SS"
    )]
    [InlineData("mara.tarn@brackwater.example", "mara tarn@brackwater.example", "Directories' requirements: <itunes:email> of the owner")]
    [InlineData("mara.tarn@brackwater.example", "mara.tarn@example", "Directories' requirements: <itunes:email> of the owner")]
    [InlineData("<itunes:explicit>false</itunes:explicit>\n    <itunes:type>", "<itunes:type>", "iTunes namespace: <itunes:explicit> is true or false")]
    public void A_broken_rule_is_named(string right, string wrong, string rule)
    {
        Good.ShouldContain(right);
        Check(Good.Replace(right, wrong, StringComparison.Ordinal)).ShouldContain(f => f.Rule == rule && f.Weight == FindingWeight.Wrong);
    }

    [Theory]
    [InlineData("https://wexel.example", "http://127.0.0.1:5080", "Directories' requirements: a public address")]
    [InlineData("https://wexel.example", "http://wexel.example", "Directories' requirements: HTTPS")]
    [InlineData(
        "<itunes:explicit>false</itunes:explicit>\n    <itunes:type>",
        "<itunes:explicit>false</itunes:explicit><itunes:block>Yes</itunes:block>\n    <itunes:type>",
        "iTunes namespace: <itunes:block> keeps a feed out"
    )]
    public void Advice_is_given_where_a_directory_would_not_refuse(string right, string other, string rule) =>
        Check(Good.Replace(right, other, StringComparison.Ordinal)).Where(f => f.Weight == FindingWeight.Advice).ShouldContain(f => f.Rule == rule);

    [Fact]
    public void An_empty_feed_and_two_episodes_with_one_guid_are_found()
    {
        Check(System.Text.Encoding.UTF8.GetString(FeedDocument.Write(FeedDocumentTests.Sources())))
            .ShouldContain(f => f.Rule == "Directories' requirements: at least one episode");
        var twice = new FeedEntry(FeedDocumentTests.Lesson(), DateTimeOffset.UnixEpoch, 1, 1);
        Check(System.Text.Encoding.UTF8.GetString(FeedDocument.Write(FeedDocumentTests.Sources(null, twice, twice with { Number = 2 }))))
            .ShouldContain(f => f.Rule == "RSS 2.0: <guid> is unique");
    }

    [Fact]
    public void An_external_entity_is_neither_read_nor_fetched()
    {
        var findings = Check(
            "<?xml version=\"1.0\"?><!DOCTYPE rss [<!ENTITY e SYSTEM \"file:///etc/hostname\">]><rss "
                + "version=\"2.0\"><channel><title>&e;</title></channel></rss>"
        );
        findings.ShouldHaveSingleItem().Rule.ShouldBe("XML 1.0: a feed is well-formed");
    }

    [Theory]
    [InlineData("mjpeg", 1400, 1400, ImageColour.Rgb, false, 400_000, "")]
    [InlineData("png", 3000, 3000, ImageColour.Rgb, false, 400_000, "")]
    [InlineData("mjpeg", 1399, 1399, ImageColour.Rgb, false, 400_000, "artwork-too-small")]
    [InlineData("mjpeg", 3001, 3001, ImageColour.Rgb, false, 400_000, "artwork-too-large")]
    [InlineData("mjpeg", 3000, 1400, ImageColour.Rgb, false, 400_000, "artwork-not-square")]
    [InlineData("gif", 1400, 1400, ImageColour.Rgb, false, 400_000, "artwork-format")]
    [InlineData("mjpeg", 1400, 1400, ImageColour.Cmyk, false, 400_000, "artwork-cmyk")]
    [InlineData("png", 1400, 1400, ImageColour.Grey, false, 400_000, "artwork-grey")]
    [InlineData("png", 1400, 1400, ImageColour.Rgb, true, 400_000, "artwork-transparent")]
    [InlineData("png", 1400, 1400, ImageColour.Rgb, false, 40_000_000, "artwork-too-heavy")]
    public void Artwork_is_square_in_RGB_and_of_1400_to_3000_pixels(
        string format,
        int width,
        int height,
        ImageColour colour,
        bool transparent,
        long bytes,
        string code
    ) => string.Join(' ', ArtworkRules.Wrong(new ImageFacts(format, width, height, colour, transparent, bytes)).Select(p => p.Code)).ShouldBe(code);

    [Theory]
    [InlineData("png", 400, 100, ImageColour.Rgb, "")]
    [InlineData("mjpeg", 100, 400, ImageColour.Grey, "")]
    [InlineData("png", 399, 399, ImageColour.Rgb, "mark-too-small")]
    [InlineData("gif", 400, 400, ImageColour.Rgb, "mark-format")]
    [InlineData("mjpeg", 400, 400, ImageColour.Cmyk, "mark-cmyk")]
    public void A_mark_is_large_enough_to_stand_on_artwork(string format, int width, int height, ImageColour colour, string code) =>
        string.Join(' ', Wexel.Core.Kit.HouseMark.Wrong(new ImageFacts(format, width, height, colour, true, 1000)).Select(p => p.Code)).ShouldBe(code);

    [Fact]
    public void Letters_on_any_ground_have_the_contrast_that_WCAG_asks_of_large_text()
    {
        for (var grey = 0; grey < 256; grey += 5)
            Contrast(grey, new ArtworkPlan("t", "h", $"#{grey:X2}{grey:X2}{grey:X2}").TextColour == "#FBFAF6" ? 0.955 : 0.0152).ShouldBeGreaterThan(3);
    }

    [Theory]
    [InlineData("", "feed-without-title")]
    [InlineData("A title", null)]
    public void A_feed_without_a_title_is_not_saved(string title, string? code) =>
        ((FeedDocumentTests.Settings with { Title = title }).Unusable()?.Code).ShouldBe(code);

    [Fact]
    public void Settings_that_cannot_be_written_are_refused_at_their_field()
    {
        (FeedDocumentTests.Settings with { Link = "intranet" }).Unusable()!.Field.ShouldBe("link");
        (FeedDocumentTests.Settings with { Category = "Arts", Subcategory = "How To" }).Unusable()!.Field.ShouldBe("category");
        (FeedDocumentTests.Settings with { Colour = "teal" }).Unusable()!.Field.ShouldBe("colour");
        FeedDocumentTests.Settings.Unusable().ShouldBeNull();
    }

    /// <summary>WCAG 2.2, relative luminance of a grey, against that of the letters (paper 0.955, ink 0.0152, worked out by hand).</summary>
    private static double Contrast(int grey, double letters)
    {
        var value = grey / 255.0;
        var ground = value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
        return (Math.Max(ground, letters) + 0.05) / (Math.Min(ground, letters) + 0.05);
    }

    [Theory]
    [InlineData(FeedMedia.Video, "video")]
    [InlineData(FeedMedia.Sound, "podcast")]
    public void A_feed_says_what_it_is_made_of(FeedMedia media, string medium) =>
        System
            .Text.Encoding.UTF8.GetString(FeedDocument.Write(FeedDocumentTests.Sources(FeedDocumentTests.Settings with { Media = media })))
            .ShouldContain($"<podcast:medium>{medium}</podcast:medium>");

    /// <summary>WCAG 2.2, relative luminance: of greys, paper stands out more up to #7C7C7C.</summary>
    [Theory]
    [InlineData("#7A7A7A", true)]
    [InlineData("#7C7C7C", true)]
    [InlineData("#808080", false)]
    public void Letters_have_the_higher_contrast_of_the_two(string ground, bool paper) =>
        (new ArtworkPlan("T", "H", ground).TextColour == new ArtworkPlan("T", "H", "#000000").TextColour).ShouldBe(paper);

    [Fact]
    public void What_XML_cannot_write_is_a_space()
    {
        XmlText.Printable("\u0001a").ShouldBe(" a");
        XmlText.Printable("a\u0001").ShouldBe("a ");
        XmlText.Printable("a" + '\uD800' + "b").ShouldBe("a b");
        XmlText.Printable("a\U0001F6A2b").ShouldBe("a\U0001F6A2b");
    }
}
