using System.Text.Json;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using Wexel.Core.Details;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Outlets;

/// <summary>oEmbed 1.0 (oembed.com), Open Graph (ogp.me) and schema.org VideoObject, by what their documents require.</summary>
public class WatchPagePreviewTests
{
    private const string Nasty = "</script> & \"Fares\" <b>\u0007";

    private static WatchPagePreview Preview(string title = "Fares") =>
        new(
            title,
            "What a crossing costs.",
            "en",
            "Brackwater Ferries",
            new Uri("https://desk.example/"),
            new Uri("https://desk.example/watch/k"),
            new Uri("https://desk.example/embed/k"),
            new Uri("https://desk.example/watch/k/video.mp4"),
            "video/mp4",
            new Uri("https://desk.example/watch/k/poster.jpg"),
            new PictureSize(1280, 720),
            new PictureSize(1280, 720),
            Ms.Of(83_400),
            new DateTimeOffset(2026, 11, 25, 10, 0, 0, TimeSpan.Zero),
            [new("a", Ms.Of(0), "Start"), new("b", Ms.Of(12_500), title)],
            PlayerDetails.None
        );

    private static JsonElement VideoObject(WatchPagePreview preview) =>
        JsonDocument
            .Parse(
                Regex
                    .Match(
                        preview.HeadTags(new Uri("https://desk.example/oembed")),
                        "<script type=\"application/ld\\+json\">(.*)</script>",
                        RegexOptions.Singleline
                    )
                    .Groups[1]
                    .Value
            )
            .RootElement;

    /// <summary>Properties of schema.org's VideoObject and CreativeWork; their names are from memory.</summary>
    [Fact]
    public void What_is_said_reaches_the_VideoObject_under_its_terms()
    {
        var said = new DetailSet(
            ShortTitle: "Fares",
            Tags: ["fares", "<b>"],
            Category: "Ticket desk",
            FromAge: 16,
            ForChildren: false,
            Licence: "CC-BY-4.0",
            Author: new Author("Mara Tarn", "training@brackwater.example"),
            ThirdParty: new ThirdParty(true, "Tide tables by permission.")
        );
        var video = VideoObject(Preview() with { Details = PlayerDetails.Of(said) });
        video.GetProperty("keywords").EnumerateArray().Select(k => k.GetString()).ShouldBe(["fares", "<b>"]);
        video.GetProperty("alternateName").GetString().ShouldBe("Fares");
        video.GetProperty("genre").GetString().ShouldBe("Ticket desk");
        video.GetProperty("license").GetString().ShouldBe("https://creativecommons.org/licenses/by/4.0/");
        video.GetProperty("typicalAgeRange").GetString().ShouldBe("16-");
        video.GetProperty("isFamilyFriendly").GetBoolean().ShouldBeFalse();
        video.GetProperty("creditText").GetString().ShouldBe("Tide tables by permission.");
        var author = video.GetProperty("author");
        (author.GetProperty("@type").GetString(), author.GetProperty("name").GetString()).ShouldBe(("Person", "Mara Tarn"));
        author.GetProperty("email").GetString().ShouldBe("training@brackwater.example");
    }

    [Fact]
    public void Rights_without_a_page_of_terms_are_a_notice_and_a_page_is_the_authors_address()
    {
        var said = new DetailSet(Licence: Licences.AllRightsReserved, Author: new Author("Training", "https://brackwater.example/training"));
        var video = VideoObject(Preview() with { Details = PlayerDetails.Of(said) });
        video.GetProperty("copyrightNotice").GetString().ShouldBe("All rights reserved");
        video.TryGetProperty("license", out _).ShouldBeFalse();
        video.GetProperty("author").GetProperty("url").GetString().ShouldBe("https://brackwater.example/training");
    }

    [Fact]
    public void What_may_not_be_embedded_is_offered_to_nobody()
    {
        var closed = Preview() with { Details = PlayerDetails.Of(new DetailSet(MayEmbed: false)) };
        var tags = closed.HeadTags(new Uri("https://desk.example/oembed"));
        tags.ShouldNotContain("oembed?url");
        tags.ShouldNotContain("og:video\"");
        tags.ShouldContain("og:title");
        VideoObject(closed).TryGetProperty("embedUrl", out _).ShouldBeFalse();
        VideoObject(Preview()).GetProperty("embedUrl").GetString().ShouldBe("https://desk.example/embed/k");
    }

    [Fact]
    public void Tags_are_Open_Graphs_too()
    {
        var tags = (Preview() with { Details = PlayerDetails.Of(new DetailSet(Tags: ["fares", "a \"b\""])) }).HeadTags(new Uri("https://desk.example/oembed"));
        tags.ShouldContain("<meta property=\"video:tag\" content=\"fares\">");
        tags.ShouldContain("<meta property=\"video:tag\" content=\"a &quot;b&quot;\">");
    }

    [Fact]
    public void A_video_answer_has_what_section_2_3_4_2_requires()
    {
        var answer = JsonDocument.Parse(Preview().OEmbed(null, null).Json()).RootElement;
        answer.GetProperty("type").GetString().ShouldBe("video");
        answer.GetProperty("version").GetString().ShouldBe("1.0");
        answer.GetProperty("html").GetString()!.ShouldStartWith("<iframe src=\"https://desk.example/embed/k\"");
        answer.GetProperty("width").GetInt32().ShouldBe(1280);
        answer.GetProperty("height").GetInt32().ShouldBe(720);
        answer.GetProperty("provider_name").GetString().ShouldBe("Brackwater Ferries");
        answer.GetProperty("thumbnail_url").GetString().ShouldBe("https://desk.example/watch/k/poster.jpg");
        answer.GetProperty("thumbnail_width").GetInt32().ShouldBe(1280);
    }

    [Theory]
    [InlineData(640, null, 640, 360)]
    [InlineData(null, 480, 853, 480)]
    [InlineData(400, 100, 177, 100)]
    [InlineData(4000, 4000, 1280, 720)]
    [InlineData(1, 1, 1, 1)]
    public void It_fits_the_askers_room_and_keeps_its_shape(int? maxWidth, int? maxHeight, int width, int height)
    {
        var answer = Preview().OEmbed(maxWidth, maxHeight);
        (answer.Width, answer.Height).ShouldBe((width, height));
        (answer.ThumbnailUrl is null).ShouldBe(width < 1280);
        answer.Html.ShouldContain($"width=\"{width}\" height=\"{height}\"");
    }

    [Fact]
    public void A_picture_of_another_size_says_its_own()
    {
        var small = Preview() with { PosterSize = new PictureSize(640, 480) };
        (small.OEmbed(640, null).ThumbnailWidth, small.OEmbed(640, null).ThumbnailHeight).ShouldBe((640, 480));
        small.OEmbed(640, 360).ThumbnailUrl.ShouldBeNull("It is higher than the room.");
        var tags = small.HeadTags(new Uri("https://desk.example/oembed"));
        tags.ShouldContain("<meta property=\"og:image:height\" content=\"480\">");
        tags.ShouldContain("<meta property=\"og:video:height\" content=\"720\">");
    }

    [Fact]
    public void Without_a_picture_none_is_named()
    {
        var bare = Preview() with { Poster = null };
        bare.OEmbed(null, null).ThumbnailUrl.ShouldBeNull();
        var tags = bare.HeadTags(new Uri("https://desk.example/oembed"));
        tags.ShouldNotContain("og:image");
        tags.ShouldNotContain("thumbnailUrl");
    }

    [Fact]
    public void The_XML_answer_says_the_same_and_takes_any_title()
    {
        var answer = XElement.Parse(Preview(Nasty).OEmbed(640, null).Xml());
        answer.Name.LocalName.ShouldBe("oembed");
        answer.Element("title")!.Value.ShouldBe("</script> & \"Fares\" <b> ");
        answer.Element("width")!.Value.ShouldBe("640");
        answer
            .Elements()
            .Select(e => e.Name.LocalName)
            .ShouldBe(JsonDocument.Parse(Preview(Nasty).OEmbed(640, null).Json()).RootElement.EnumerateObject().Select(p => p.Name));
    }

    [Fact]
    public void The_page_can_be_discovered_in_both_formats()
    {
        var tags = Preview().HeadTags(new Uri("https://desk.example/oembed"));
        tags.ShouldContain(
            "<link rel=\"alternate\" type=\"application/json+oembed\" "
                + "href=\"https://desk.example/oembed?url=https%3A%2F%2Fdesk.example%2Fwatch%2Fk&amp;format=json\" title=\"Fares\">"
        );
        tags.ShouldContain("type=\"text/xml+oembed\"");
    }

    [Fact]
    public void Open_Graph_has_its_four_required_properties()
    {
        var tags = Preview().HeadTags(new Uri("https://desk.example/oembed"));
        foreach (
            var (name, value) in new[]
            {
                ("og:title", "Fares"),
                ("og:type", "video.other"),
                ("og:image", "https://desk.example/watch/k/poster.jpg"),
                ("og:url", "https://desk.example/watch/k"),
                ("video:duration", "83"),
            }
        )
            tags.ShouldContain($"<meta property=\"{name}\" content=\"{value}\">");
    }

    [Fact]
    public void The_VideoObject_has_a_clip_for_each_section()
    {
        var video = JsonDocument
            .Parse(
                Regex
                    .Match(Preview(Nasty).HeadTags(new Uri("https://desk.example/oembed")), "<script type=\"application/ld\\+json\">(.*)</script>")
                    .Groups[1]
                    .Value
            )
            .RootElement;
        video.GetProperty("@type").GetString().ShouldBe("VideoObject");
        video.GetProperty("name").GetString().ShouldBe(Nasty);
        // ISO 8601, as schema.org's Duration asks.
        video.GetProperty("duration").GetString().ShouldBe("PT1M23S");
        video.GetProperty("uploadDate").GetDateTimeOffset().ShouldBe(new DateTimeOffset(2026, 11, 25, 10, 0, 0, TimeSpan.Zero));
        var clips = video.GetProperty("hasPart").EnumerateArray().ToList();
        clips.Select(c => (c.GetProperty("startOffset").GetDecimal(), c.GetProperty("endOffset").GetDecimal())).ShouldBe([(0m, 12.5m), (12.5m, 83.4m)]);
        clips[1].GetProperty("url").GetString().ShouldBe("https://desk.example/watch/k#t=12.5");
    }

    [Fact]
    public void No_title_breaks_out_of_the_page()
    {
        var tags = Preview(Nasty).HeadTags(new Uri("https://desk.example/oembed"));
        Regex.Count(tags, "</script>").ShouldBe(1);
        tags.ShouldNotContain("<b>");
    }

    [Theory]
    [InlineData("What a crossing costs.", "What a crossing costs.")]
    [InlineData("", "Fares")]
    public void A_page_without_a_description_is_described_by_its_title(string description, string described)
    {
        var head = (Preview() with { Description = description }).HeadTags(new Uri("https://desk.example/oembed"));
        var json = Regex.Match(head, "<script type=\"application/ld\\+json\">(.*?)</script>", RegexOptions.Singleline).Groups[1].Value;
        JsonDocument.Parse(json).RootElement.GetProperty("description").GetString().ShouldBe(described);
    }
}
