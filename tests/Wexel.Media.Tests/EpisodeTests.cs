using System.Text.Json;
using CliWrap;
using CliWrap.Buffered;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Kit;
using Wexel.Core.Timing;
using Wexel.Media.Measuring;
using Wexel.Media.Rendering;

namespace Wexel.Media.Tests;

public sealed class EpisodeTests(Clips clips) : IClassFixture<Clips>
{
    private static readonly IReadOnlyList<Section> Sections = [new("a", TimeSpan.Zero, "Start"), new("b", TimeSpan.FromSeconds(4), "Where it changes")];
    private static readonly IReadOnlyList<Chapter> Marks =
    [
        new(new TimeRange(TimeSpan.Zero, TimeSpan.FromSeconds(1)), "One <b>"),
        new(new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(3)), "Two = 2; #"),
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_podcast_rendition_has_every_frame_of_a_constant_rate_also_where_nothing_changes()
    {
        var made = await Making.MakeAsync(await clips.QuietAsync(), clips.Path("constant.mp4"), Sections, Profiles.Podcast720);
        made.ShouldBeRight();
        made.Measured.Picture!.FrameCount.ShouldBe(240);
        made.Measured.Picture!.LongestGap.ShouldBeLessThan(TimeSpan.FromMilliseconds(34));
        // As ffprobe sees it: 30 a second on average and as the base rate.
        var streams = await ProbeAsync(made.Path);
        streams.GetProperty("streams")[0].GetProperty("avg_frame_rate").GetString().ShouldBe("30/1");
    }

    private static readonly FileTags Tags = new("First = line;\nsecond # line", "Mara & Tarn", "CC BY 4.0", "Ticket desk", ["fares", "deck"]);

    /// <summary>The names of MP4's own metadata, as ffprobe reads them.</summary>
    private static void SaysWhatIsSaid(JsonElement probed)
    {
        var tags = probed.GetProperty("format").GetProperty("tags");
        new[] { "title", "description", "artist", "copyright", "genre", "keywords" }
            .Select(t => tags.GetProperty(t).GetString())
            .ShouldBe(["Title", Tags.Description, Tags.Author, Tags.Rights, Tags.Category, "fares, deck"]);
    }

    [Fact]
    public async Task A_video_episode_is_M4V_with_its_chapters()
    {
        var episode = clips.Path("episode.m4v");
        await Muxing.EpisodeAsync(
            new MuxInputs([await clips.UsualAsync()], await clips.UsualAsync(), []),
            episode,
            "Title",
            Marks,
            Tags,
            FeedMedia.Video,
            "",
            Cancel
        );
        var probed = await ProbeAsync(episode);
        // The brand that files for Apple's devices carry: "M4V " (MP4 Registration Authority, code points for brands).
        probed.GetProperty("format").GetProperty("tags").GetProperty("major_brand").GetString().ShouldBe("M4V ");
        Titles(probed).ShouldBe(["One <b>", "Two = 2; #"]);
        SaysWhatIsSaid(probed);
    }

    [Fact]
    public async Task A_sound_episode_is_M4A_with_its_chapters_and_artwork_and_no_picture()
    {
        var artwork = clips.Path("artwork.jpg");
        await ArtworkMaker.MakeAsync(new ArtworkPlan("Deck", "House", "#0B6570"), Making.Fonts, null, artwork, Cancel);
        var episode = clips.Path("episode.m4a");
        await Muxing.EpisodeAsync(
            new MuxInputs([await clips.UsualAsync()], await clips.UsualAsync(), []),
            episode,
            "Title",
            Marks,
            Tags,
            FeedMedia.Sound,
            artwork,
            Cancel
        );
        var probed = await ProbeAsync(episode);
        probed.GetProperty("format").GetProperty("tags").GetProperty("major_brand").GetString().ShouldBe("M4A ");
        Titles(probed).ShouldBe(["One <b>", "Two = 2; #"]);
        var streams = probed.GetProperty("streams").EnumerateArray().Where(s => s.GetProperty("codec_type").GetString() is "audio" or "video").ToList();
        streams.Count.ShouldBe(2);
        streams.Single(s => s.GetProperty("codec_type").GetString() == "video").GetProperty("disposition").GetProperty("attached_pic").GetInt32().ShouldBe(1);
    }

    [Theory]
    [InlineData("Deck")]
    [InlineData("{\\pos(0,0)} C:\\new \\N ]]> 'quoted', [a]; 100 %")]
    [InlineData("Übungen für die Überfahrt שלום 乗船")]
    public async Task Artwork_is_made_as_directories_want_it_whatever_the_title(string title)
    {
        var path = clips.Path($"{Guid.NewGuid():N}.jpg");
        await ArtworkMaker.MakeAsync(new ArtworkPlan(title, "Brackwater Ferries", "#0B6570"), Making.Fonts, null, path, Cancel);
        var facts = await ArtworkMeasurer.MeasureAsync(path, Cancel);
        (facts!.Format, facts.Width, facts.Height).ShouldBe(("mjpeg", 3000, 3000));
        ArtworkRules.Wrong(facts).ShouldBeEmpty();
    }

    [Fact]
    public async Task Two_titles_give_two_pictures()
    {
        var paths = new[] { "One", "Two" }.ToDictionary(t => t, t => clips.Path(t + ".jpg"));
        foreach (var (title, path) in paths)
            await ArtworkMaker.MakeAsync(new ArtworkPlan(title, "House", "#0B6570"), Making.Fonts, null, path, Cancel);
        (await File.ReadAllBytesAsync(paths["One"], Cancel)).ShouldNotBe(await File.ReadAllBytesAsync(paths["Two"], Cancel));
    }

    [Fact]
    public async Task The_houses_mark_stands_in_the_lower_right_corner_as_it_is()
    {
        // A mark of one colour, half transparent: the corner shows that colour on the ground's, the rest stays the ground.
        var mark = await clips.MakeAsync("-f", "lavfi", "-i", "color=c=red@0.5:s=600x400:d=1:r=1,format=rgba", "-frames:v", "1", "mark.png");
        var path = clips.Path("marked.jpg");
        await ArtworkMaker.MakeAsync(new ArtworkPlan("Deck", "House", "#0000FF"), Making.Fonts, mark, path, Cancel);
        (await PixelAsync(path, 2700, 2600)).ShouldBe((128, 0, 127), Within(6));
        (await PixelAsync(path, 1500, 2600)).ShouldBe((0, 0, 255), Within(6));
        ArtworkRules.Wrong((await ArtworkMeasurer.MeasureAsync(path, Cancel))!).ShouldBeEmpty();
    }

    private static async Task<(int R, int G, int B)> PixelAsync(string path, int x, int y)
    {
        using var bytes = new MemoryStream();
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-i", path, "-vf", $"format=rgb24,crop=1:1:{x}:{y}:exact=1", "-f", "rawvideo", "-"])
            .WithStandardOutputPipe(PipeTarget.ToStream(bytes))
            .ExecuteAsync(Cancel);
        var pixel = bytes.ToArray();
        return (pixel[0], pixel[1], pixel[2]);
    }

    private static EqualityComparer<(int R, int G, int B)> Within(int most) =>
        EqualityComparer<(int R, int G, int B)>.Create(
            (a, b) => Math.Abs(a.R - b.R) <= most && Math.Abs(a.G - b.G) <= most && Math.Abs(a.B - b.B) <= most,
            _ => 0
        );

    [Theory]
    [InlineData("rgb24", "png", ImageColour.Rgb, false)]
    [InlineData("rgba", "png", ImageColour.Rgb, true)]
    [InlineData("gray", "png", ImageColour.Grey, false)]
    [InlineData("pal8", "gif", ImageColour.Rgb, false)]
    [InlineData("yuvj420p", "jpg", ImageColour.Rgb, false)]
    public async Task Pictures_are_told_apart_by_what_is_in_them(string format, string ending, ImageColour colour, bool transparent)
    {
        var path = await clips.MakeAsync("-f", "lavfi", "-i", "testsrc2=s=100x100:d=1:r=1", "-frames:v", "1", "-pix_fmt", format, $"picture-{format}.{ending}");
        var facts = await ArtworkMeasurer.MeasureAsync(path, Cancel);
        (facts!.Width, facts.Height, facts.Colour, facts.Transparent).ShouldBe((100, 100, colour, transparent));
    }

    [Fact]
    public async Task A_JPEG_of_four_inks_is_seen()
    {
        var path = clips.Path("inks.jpg");
        await File.WriteAllBytesAsync(path, Inks(), Cancel);
        (await ArtworkMeasurer.MeasureAsync(path, Cancel))!.Colour.ShouldBe(ImageColour.Cmyk);
    }

    [Fact]
    public async Task A_renamed_text_is_no_picture_and_a_playlist_is_not_followed()
    {
        var text = clips.Path("renamed.jpg");
        await File.WriteAllTextAsync(text, "just text", Cancel);
        (await ArtworkMeasurer.MeasureAsync(text, Cancel)).ShouldBeNull();
        var list = clips.Path("list");
        await File.WriteAllTextAsync(list, "#EXTM3U\n#EXTINF:1,\nhttp://127.0.0.1:9/a.ts\n", Cancel);
        (await ArtworkMeasurer.MeasureAsync(list, Cancel)).ShouldBeNull();
    }

    private static IEnumerable<string> Titles(JsonElement probed) =>
        probed.GetProperty("chapters").EnumerateArray().Select(c => c.GetProperty("tags").GetProperty("title").GetString()!);

    private static async Task<JsonElement> ProbeAsync(string path) =>
        JsonSerializer.Deserialize<JsonElement>(
            (
                await Cli.Wrap("ffprobe")
                    .WithArguments(["-v", "error", "-show_streams", "-show_format", "-show_chapters", "-of", "json", path])
                    .ExecuteBufferedAsync(Cancel)
            ).StandardOutput
        );

    /// <summary>The smallest baseline JPEG of four components (ITU-T T.81, annex B): 8 × 8, every block "no difference, end of block".</summary>
    private static byte[] Inks() =>
        [
            0xFF,
            0xD8,
            0xFF,
            0xDB,
            0,
            67,
            0,
            .. Enumerable.Repeat((byte)1, 64),
            0xFF,
            0xC0,
            0,
            20,
            8,
            0,
            8,
            0,
            8,
            4,
            1,
            0x11,
            0,
            2,
            0x11,
            0,
            3,
            0x11,
            0,
            4,
            0x11,
            0,
            0xFF,
            0xC4,
            0,
            20,
            0x00,
            1,
            .. new byte[15],
            0,
            0xFF,
            0xC4,
            0,
            20,
            0x10,
            1,
            .. new byte[15],
            0,
            0xFF,
            0xDA,
            0,
            14,
            4,
            1,
            0,
            2,
            0,
            3,
            0,
            4,
            0,
            0,
            63,
            0,
            0x00,
            0xFF,
            0xD9,
        ];
}
