using System.Globalization;
using System.Text.Json;
using System.Xml.Linq;
using Wexel.Core.Contents;
using Wexel.Core.Feeds;
using Wexel.Core.Keys;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Feeds;

public sealed class FeedDocumentTests
{
    private static readonly XNamespace ITunes = "http://www.itunes.com/dtds/podcast-1.0.dtd";
    private static readonly XNamespace Podcast = "https://podcastindex.org/namespace/1.0";

    internal static FeedSettings Settings { get; } =
        new(
            "Deck & desk",
            "For the crew.",
            "Staff training",
            "mara.tarn@brackwater.example",
            "Education",
            "How To",
            "en-GB",
            false,
            null,
            FeedMedia.Video,
            FeedOrder.Serial,
            false
        );

    internal static Episode Lesson(string id = "a1", string title = "Opening the desk") =>
        new(
            id,
            "t-" + id,
            title,
            "First line.\nSecond <line> & more.",
            "en",
            TimeSpan.FromSeconds(52.6),
            1234567,
            [new Section("s1", TimeSpan.Zero, "Before you start"), new Section("s2", TimeSpan.FromSeconds(12.371), "Signing <in>")],
            ["en"],
            Picture: new PictureSize(1280, 720)
        );

    internal static FeedSources Sources(FeedSettings? settings = null, params FeedEntry[] entries) =>
        new(
            settings ?? Settings,
            "Brackwater Ferries",
            new Uri("https://wexel.example/"),
            new Uri("https://wexel.example/feeds/abc/"),
            "artwork.jpg",
            new DateTimeOffset(2026, 11, 25, 9, 5, 3, TimeSpan.FromHours(1)),
            entries,
            FeedGuid.For(new Uri("https://wexel.example/feeds/abc/feed.xml"))
        );

    [Fact]
    public void A_feed_of_sound_beside_has_a_title_and_a_guid_of_its_own_that_stay()
    {
        Settings.SoundBeside().ShouldBeNull();
        var beside = (Settings with { AlsoSound = true }).SoundBeside()!;
        (beside.Title, beside.Media, beside.AlsoSound).ShouldBe(("Deck & desk (sound)", FeedMedia.Sound, false));
        (Settings with { AlsoSound = true, Media = FeedMedia.Sound }).SoundBeside().ShouldBeNull();
        var longest = (Settings with { AlsoSound = true, Title = new string('a', 255) }).SoundBeside()!;
        (longest.Title.Length, longest.Unusable()).ShouldBe((255, null));

        var feed = Sources(beside, new FeedEntry(Lesson().AsSound(77), DateTimeOffset.UnixEpoch, 1, 1)) with
        {
            Name = FeedFiles.SoundBeside,
            Identity = FeedGuid.OfSoundBeside(Sources().Identity),
        };
        var channel = XDocument.Load(new MemoryStream(FeedDocument.Write(feed))).Root!.Element("channel")!;
        channel.Elements().Single(e => e.Name.LocalName == "link" && e.Name.NamespaceName.Length > 0).Attribute("href")!.Value.ShouldEndWith("/abc/sound.xml");
        var enclosure = channel.Element("item")!.Element("enclosure")!;
        (enclosure.Attribute("length")!.Value, enclosure.Attribute("type")!.Value).ShouldBe(("77", "audio/x-m4a"));
        var guid = Guid.Parse(channel.Element(Podcast + "guid")!.Value);
        // RFC 9562, section 5.5: version 5.
        (guid.Version, guid == Sources().Identity, guid == FeedGuid.OfSoundBeside(Sources().Identity)).ShouldBe((5, false, true));
    }

    private static FeedEntry Entry(string id, int season, int number, int day) =>
        new(Lesson(id), new DateTimeOffset(2026, 11, day, 8, 0, 0, TimeSpan.Zero), season, number);

    private static XElement Channel(FeedSources sources) => XDocument.Load(new MemoryStream(FeedDocument.Write(sources))).Root!.Element("channel")!;

    /// <summary>Media RSS Specification 1.5.1 (RSS Advisory Board): <c>media:thumbnail</c> has the address, and width and height in pixels.</summary>
    [Fact]
    public void An_episode_names_the_lessons_picture()
    {
        XNamespace media = "http://search.yahoo.com/mrss/";
        var thumbnail = Channel(Sources(null, Entry("a1", 1, 1, 1))).Element("item")!.Element(media + "thumbnail")!;
        thumbnail
            .Attributes()
            .Select(a => (a.Name.LocalName, a.Value))
            .ShouldBe([("url", "https://wexel.example/feeds/abc/episodes/t-a1.jpg"), ("width", "1280"), ("height", "720")]);
        Channel(Sources(null, new FeedEntry(Lesson() with { Picture = null }, DateTimeOffset.UnixEpoch, 1, 1)))
            .Element("item")!
            .Element(media + "thumbnail")
            .ShouldBeNull();
    }

    /// <summary>RSS 2.0 (item's category), the iTunes namespace (author) and the Podcasting 2.0 namespace (license: an SPDX identifier in small
    /// letters, or the name of one's own terms).</summary>
    [Theory]
    [InlineData("CC-BY-4.0", "cc-by-4.0", "https://creativecommons.org/licenses/by/4.0/")]
    [InlineData("LicenseRef-AllRightsReserved", "All rights reserved", null)]
    [InlineData("For our <crews>.", "For our <crews>.", null)]
    public void What_is_said_of_an_episode_stands_in_its_item(string licence, string written, string? terms)
    {
        var said = Lesson() with { Author = "Mara & Tarn", Tags = ["fares", "a <b>"], Licence = licence, Permission = "By <permission>." };
        var item = Channel(Sources(null, new FeedEntry(said, DateTimeOffset.UnixEpoch, 1, 1))).Element("item")!;
        item.Elements("category").Select(c => c.Value).ShouldBe(["fares", "a <b>"]);
        item.Element(ITunes + "author")!.Value.ShouldBe("Mara & Tarn");
        item.Element(Podcast + "license")!.Value.ShouldBe(written);
        (item.Element(Podcast + "license")!.Attribute("url")?.Value).ShouldBe(terms);
        item.Element(XName.Get("encoded", "http://purl.org/rss/1.0/modules/content/"))!.Value.ShouldContain("<p>By &lt;permission&gt;.</p>");
    }

    [Fact]
    public void An_item_carries_what_RSS_2_and_the_podcast_namespaces_name()
    {
        var item = Channel(Sources(null, Entry("a1", 1, 2, 24))).Element("item")!;
        item.Element("title")!.Value.ShouldBe("Opening the desk");
        var description = item.Element("description")!.Value;
        description.ShouldBe("First line.\nSecond <line> & more.\n\nContents:\n0:00 Before you start\n0:12 Signing <in>");
        // Whoever reads the feed has the contents back, line by line.
        DescribedContents.Changes(Lesson().Sections, DescribedContents.Read(description).Lines).ShouldBeEmpty();
        item.Element(XName.Get("encoded", "http://purl.org/rss/1.0/modules/content/"))!
            .Value.ShouldBe("<p>First line.</p><p>Second &lt;line&gt; &amp; more.</p><ul><li>0:00 Before you start</li><li>0:12 Signing &lt;in&gt;</li></ul>");
        item.Element("guid")!.Value.ShouldBe("a1");
        item.Element("guid")!.Attribute("isPermaLink")!.Value.ShouldBe("false");
        item.Element("pubDate")!.Value.ShouldBe("Tue, 24 Nov 2026 08:00:00 GMT");
        var enclosure = item.Element("enclosure")!;
        (enclosure.Attribute("url")!.Value, enclosure.Attribute("length")!.Value, enclosure.Attribute("type")!.Value).ShouldBe(
            ("https://wexel.example/feeds/abc/episodes/t-a1.m4v", "1234567", "video/x-m4v")
        );
        item.Element(ITunes + "duration")!.Value.ShouldBe("53");
        (item.Element(ITunes + "season")!.Value, item.Element(ITunes + "episode")!.Value).ShouldBe(("1", "2"));
        item.Element(Podcast + "chapters")!.Attribute("type")!.Value.ShouldBe("application/json+chapters");
        item.Element(Podcast + "transcript")!.Attribute("language")!.Value.ShouldBe("en");
    }

    /// <summary>The example of the Podcasting 2.0 namespace, "Guid" (from memory); Python's uuid.uuid5 gives the same.</summary>
    [Theory]
    [InlineData("https://mp3s.nashownotes.com/pc20rss.xml")]
    [InlineData("http://mp3s.nashownotes.com/pc20rss.xml/")]
    public void What_a_feed_is_known_by_follows_from_its_first_address(string address) =>
        FeedGuid.For(new Uri(address)).ToString().ShouldBe("917393e3-1b1e-5cef-ace4-edaa54e1f810");

    [Fact]
    public void A_feed_says_who_made_it_what_it_is_known_by_and_that_nobody_may_take_it_over()
    {
        var entry = new FeedEntry(Lesson() with { Author = "Ilse Marr" }, DateTimeOffset.UnixEpoch, 2, 3, "Ticket desk basics");
        var channel = Channel(Sources(null, entry));
        channel.Element(Podcast + "guid")!.Value.ShouldBe(FeedGuid.For(new Uri("https://wexel.example/feeds/abc/feed.xml")).ToString());
        (channel.Element(Podcast + "locked")!.Value, channel.Element(Podcast + "locked")!.Attribute("owner")!.Value).ShouldBe(
            ("yes", "mara.tarn@brackwater.example")
        );
        channel.Element(Podcast + "person")!.Value.ShouldBe("Staff training");
        var item = channel.Element("item")!;
        item.Element(Podcast + "person")!.Value.ShouldBe("Ilse Marr");
        (item.Element(Podcast + "season")!.Value, item.Element(Podcast + "season")!.Attribute("name")!.Value).ShouldBe(("2", "Ticket desk basics"));
        item.Element(Podcast + "episode")!.Value.ShouldBe("3");
        // A private feed asks directories to keep it out.
        Channel(Sources(Settings with { Private = true })).Element(ITunes + "block")!.Value.ShouldBe("Yes");
    }

    [Fact]
    public void A_channel_names_owner_category_artwork_and_itself()
    {
        var channel = Channel(Sources(Settings with { Unlisted = true }));
        channel.Element(XName.Get("link", "http://www.w3.org/2005/Atom"))!.Attribute("href")!.Value.ShouldBe("https://wexel.example/feeds/abc/feed.xml");
        channel.Element(ITunes + "owner")!.Element(ITunes + "email")!.Value.ShouldBe("mara.tarn@brackwater.example");
        channel.Element(ITunes + "category")!.Element(ITunes + "category")!.Attribute("text")!.Value.ShouldBe("How To");
        channel.Element(ITunes + "image")!.Attribute("href")!.Value.ShouldBe("https://wexel.example/feeds/abc/artwork.jpg");
        channel.Element(ITunes + "block")!.Value.ShouldBe("Yes");
        channel.Element("lastBuildDate")!.Value.ShouldBe("Wed, 25 Nov 2026 08:05:03 GMT");
        Channel(Sources()).Element(ITunes + "block").ShouldBeNull();
    }

    [Fact]
    public void Serial_feeds_follow_the_course_and_episodic_ones_the_date()
    {
        FeedEntry[] entries = [Entry("late", 1, 1, 20), Entry("early", 1, 2, 10), Entry("other", 2, 1, 15)];
        string[] Order(FeedOrder order) =>
            [.. Channel(Sources(Settings with { Order = order }, entries)).Elements("item").Select(i => i.Element("guid")!.Value)];
        Order(FeedOrder.Serial).ShouldBe(["late", "early", "other"]);
        Order(FeedOrder.Episodic).ShouldBe(["late", "other", "early"]);
    }

    [Fact]
    public void The_same_sources_give_the_same_bytes_and_no_byte_order_mark()
    {
        var entries = Enumerable.Range(1, 20).Select(n => Entry($"e{n}", 1, n, n)).ToArray();
        var bytes = FeedDocument.Write(Sources(null, entries));
        FeedDocument.Write(Sources(null, [.. entries.Reverse()])).ShouldBe(bytes);
        System.Text.Encoding.UTF8.GetString(bytes).ShouldStartWith("<?xml version=\"1.0\" encoding=\"utf-8\"?>");
    }

    [Theory]
    [InlineData("ends ]]> here")]
    [InlineData("bell \u0007 and null \0")]
    [InlineData("\u202Eright to left שלום")]
    [InlineData("half \uD83D a pair")]
    [InlineData("🚢 & <b>\"quotes\"</b> 'too'")]
    public void Any_title_gives_a_feed_that_can_be_read(string title)
    {
        var entry = new FeedEntry(Lesson("x", title), DateTimeOffset.UnixEpoch, 1, 1);
        var read = Channel(Sources(Settings with { Title = title }, entry));
        read.Element("title")!.Value.ShouldBe(XmlText.Printable(title));
        read.Element("item")!.Element("title")!.Value.ShouldBe(XmlText.Printable(title));
    }

    // Podcasting 2.0 namespace, "JSON Chapters Format" 1.2: the members' names and units are from memory.
    [Fact]
    public void Chapters_are_JSON_chapters_1_2_without_a_gap()
    {
        var chapters = JsonSerializer.Deserialize<JsonElement>(Lesson().ChaptersJson());
        chapters.GetProperty("version").GetString().ShouldBe("1.2.0");
        var list = chapters.GetProperty("chapters").EnumerateArray().ToList();
        list.Select(c => c.GetProperty("startTime").GetDecimal()).ShouldBe([0m, 12.371m]);
        list.Select(c => c.GetProperty("endTime").GetDecimal()).ShouldBe([12.371m, 52.6m]);
        list[1].GetProperty("title").GetString().ShouldBe("Signing <in>");
    }

    [Fact]
    public void Dates_are_those_of_RFC_822_with_four_digits_of_a_year() =>
        // RFC 2822, Appendix A.1.1, gives "Fri, 21 Nov 1997 09:55:06 -0600", which is 15:55:06 in GMT.
        FeedDocument.Date(DateTimeOffset.Parse("1997-11-21T09:55:06-06:00", CultureInfo.InvariantCulture)).ShouldBe("Fri, 21 Nov 1997 15:55:06 GMT");

    [Fact]
    public void A_folder_holds_all_that_the_feed_names()
    {
        var sources = Sources(null, Entry("a1", 1, 1, 1));
        var files = FeedFolder.Plan(
            sources,
            new KeyedFile("/x/artwork", "a"),
            [
                new EpisodeSources(
                    sources.Entries[0],
                    new KeyedFile("/x/episode.m4v", "e"),
                    [
                        [],
                    ],
                    new KeyedFile("/x/poster.jpg", "p")
                ),
            ]
        );
        var named = Channel(sources)
            .DescendantsAndSelf()
            .Attributes()
            .Select(a => a.Value)
            .Where(v => v.StartsWith(sources.Folder.AbsoluteUri, StringComparison.Ordinal))
            .Select(v => v[sources.Folder.AbsoluteUri.Length..])
            .Distinct();
        files.Select(f => f.Path).ShouldBe(named, ignoreOrder: true);
    }

    [Theory]
    [InlineData("#0B6570", true)]
    [InlineData("#0b6570", true)]
    [InlineData("#0B657", false)]
    [InlineData("#0B65700", false)]
    [InlineData("#0B657G", false)]
    [InlineData("0B65700", false)]
    [InlineData("#zzzzzz", false)]
    public void A_colour_is_a_sign_and_six_digits(string text, bool colour) => FeedSettings.IsColour(text).ShouldBe(colour);

    [Fact]
    public void An_episode_has_a_transcript_for_each_language()
    {
        FeedFiles.Transcript("till", null).ShouldBe("episodes/till.vtt");
        FeedFiles.Transcript("till", "de").ShouldBe("episodes/till.de.vtt");
    }

    [Fact]
    public void Artwork_is_judged_by_both_sides_and_its_size()
    {
        IEnumerable<string> Wrong(int width, int height, long bytes = 1_000_000) =>
            ArtworkRules.Wrong(new ImageFacts("png", width, height, ImageColour.Rgb, false, bytes)).Select(p => p.Code);
        Wrong(3000, 3000).ShouldBeEmpty();
        Wrong(1400, 1400).ShouldBeEmpty();
        Wrong(3001, 1400).ShouldBe(["artwork-not-square", "artwork-too-large"]);
        Wrong(1400, 3001).ShouldBe(["artwork-not-square", "artwork-too-large"]);
        Wrong(1399, 2000).ShouldBe(["artwork-not-square", "artwork-too-small"]);
        Wrong(2000, 2000, ArtworkRules.MostBytes).ShouldBeEmpty();
        ArtworkRules
            .Wrong(new ImageFacts("png", 2000, 2000, ImageColour.Rgb, false, ArtworkRules.MostBytes + 1))
            .Single()
            .Sentence.ShouldContain("at most 10 MB");
    }
}
