using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using System.Xml.Linq;

namespace Wexel.Server.Tests;

/// <summary>A podcast feed, from its settings to what apps ask for.</summary>
public sealed class FeedTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private static readonly XNamespace ITunes = "http://www.itunes.com/dtds/podcast-1.0.dtd";

    private static object Settings(
        string title = "Deck",
        string media = "video",
        bool unlisted = false,
        string mail = "mara.tarn@brackwater.example",
        bool alsoSound = false
    ) =>
        new
        {
            title,
            description = "For the crew.",
            author = "Staff training",
            ownerMail = mail,
            category = "Education",
            subcategory = "How To",
            language = "en-GB",
            @explicit = false,
            link = (string?)null,
            media,
            order = "serial",
            unlisted,
            colour = "#0B6570",
            alsoSound,
        };

    private static async Task<JsonElement> FeedAsync(HttpClient trainer, object settings)
    {
        var answer = await trainer.PostAsJsonAsync("/api/feeds", settings);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static string Path(JsonElement feed) => new Uri(feed.GetProperty("address").GetString()!).AbsolutePath;

    /// <summary>A lesson of two seconds, rendered.</summary>
    private async Task<string> LessonAsync(HttpClient trainer, string title, bool hasSound, string profile = "small-480p")
    {
        var clip = System.IO.Path.Combine(fixture.Data, title + ".mp4");
        string[] sound = hasSound ? ["-f", "lavfi", "-i", "sine=d=2"] : [];
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-f", "lavfi", "-i", "color=navy:s=320x180:r=10:d=2", .. sound, "-pix_fmt", "yuv420p", clip])
            .ExecuteAsync();
        var broughtIn = await (
            await trainer.PutAsync(
                $"/api/recordings?fileName={title}.mp4",
                new ByteArrayContent(await File.ReadAllBytesAsync(clip)) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var lesson = broughtIn.GetProperty("lessonId").GetString()!;
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { profile } })).EnsureSuccessStatusCode();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d =>
            d.GetProperty("renditions").EnumerateArray().Any(r => r.GetProperty("state").GetString() == "done")
        );
        return lesson;
    }

    private static async Task ReleaseAsync(HttpClient trainer, string lesson, string? outlet, string profile = "small-480p") =>
        (
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = outlet,
                    profileId = profile,
                    visibility = "withLink",
                }
            )
        ).EnsureSuccessStatusCode();

    /// <summary>The demo's own feed, once its lesson is released there.</summary>
    private async Task<(HttpClient Trainer, JsonElement Feed, string Lesson)> ReleasedAsync()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetString()!;
        // By name: other tests add feeds of their own, in whatever order they run.
        static JsonElement Of(JsonElement outlets) => outlets.EnumerateArray().Single(o => o.GetProperty("name").GetString() == "Ticket desk on the way");
        var outlets = await trainer.UntilAsync($"/api/lessons/{lesson}/releases", o => Of(o).GetProperty("release").ValueKind == JsonValueKind.Object);
        return (trainer, await trainer.JsonAsync($"/api/feeds/{Of(outlets).GetProperty("id").GetString()}"), lesson);
    }

    [Fact]
    public async Task A_feed_that_moves_is_known_by_the_same_and_a_directory_answers_after_a_while()
    {
        var trainer = await fixture.SignedInAsync();
        var feed = await FeedAsync(trainer, Settings("Deck, moved"));
        XNamespace podcast = "https://podcastindex.org/namespace/1.0";
        async Task<string> KnownByAsync(JsonElement now) =>
            XDocument.Parse(await fixture.Anonymous().GetStringAsync(Path(now))).Root!.Element("channel")!.Element(podcast + "guid")!.Value;
        var before = await KnownByAsync(feed);
        var id = feed.GetProperty("outletId").GetGuid();
        var moved = await (await trainer.PostAsync($"/api/feeds/{id}/address", null)).Content.ReadFromJsonAsync<JsonElement>();
        Path(moved).ShouldNotBe(Path(feed));
        (await KnownByAsync(moved)).ShouldBe(before);

        // The directory cannot reach the tests' server, and says so after a while.
        (await trainer.PostAsync($"/api/feeds/{id}/directories/desk", null)).EnsureSuccessStatusCode();
        var answered = await trainer.UntilAsync($"/api/feeds/{id}", f =>
            f.GetProperty("directories")[0].GetProperty("answeredAt").ValueKind == JsonValueKind.String
        );
        answered.GetProperty("directories")[0].GetProperty("reasons").GetArrayLength().ShouldBeGreaterThan(0);
        (await trainer.PostAsync($"/api/feeds/{id}/directories/nowhere", null)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        // There is none of sound beside it; one that has one submits both, each by itself.
        var soundless = await trainer.PostAsync($"/api/feeds/{id}/directories/desk?sound=true", null);
        (await soundless.ProblemAsync()).GetProperty("code").GetString().ShouldBe("feed-without-sound");
        var two = (await FeedAsync(trainer, Settings("Deck, heard", alsoSound: true))).GetProperty("outletId").GetGuid();
        (await trainer.PostAsync($"/api/feeds/{two}/directories/desk?sound=true", null)).EnsureSuccessStatusCode();
        var heard = await trainer.UntilAsync($"/api/feeds/{two}", f =>
            f.GetProperty("directories")[1].GetProperty("answeredAt").ValueKind == JsonValueKind.String
        );
        (
            heard.GetProperty("directories")[0].GetProperty("isSound").GetBoolean(),
            heard.GetProperty("directories")[1].GetProperty("isSound").GetBoolean()
        ).ShouldBe((false, true));
        heard.GetProperty("directories")[0].GetProperty("submittedAt").ValueKind.ShouldBe(JsonValueKind.Null);
        var kept = await FeedAsync(trainer, Settings("Deck, kept out", unlisted: true));
        var refused = await trainer.PostAsync($"/api/feeds/{kept.GetProperty("outletId").GetGuid()}/directories/desk", null);
        (await refused.ProblemAsync()).GetProperty("code").GetString().ShouldBe("feed-not-for-directories");
        // Who the address is for must be said.
        var nobody = await trainer.PostAsJsonAsync($"/api/feeds/{id}/listeners", new { name = " " });
        (await nobody.ProblemAsync()).GetProperty("code").GetString().ShouldBe("listener-without-name");
    }

    [Fact]
    public async Task An_episode_is_served_as_apps_ask_for_it()
    {
        var (trainer, feed, lesson) = await ReleasedAsync();
        (await trainer.JsonAsync($"/api/lessons/{lesson}/files"))
            .GetProperty("files")
            .EnumerateArray()
            .Single(f => f.GetProperty("title").GetString() == "Podcast 720p")
            .GetProperty("purpose")
            .GetString()
            .ShouldBe("The episode in “Ticket desk on the way” is a copy of it, and stays when this goes.");
        var app = fixture.Anonymous();
        var first = await app.GetAsync(Path(feed));
        first.Content.Headers.ContentType!.MediaType.ShouldBe("application/rss+xml");
        var bytes = await first.Content.ReadAsByteArrayAsync();
        (await app.GetByteArrayAsync(Path(feed))).ShouldBe(bytes);

        // RFC 9110, sections 13.1.2 and 13.1.3: either condition alone answers 304, and HEAD has no body.
        foreach (
            var condition in new Action<HttpRequestMessage>[]
            {
                r => r.Headers.IfNoneMatch.Add(first.Headers.ETag!),
                r => r.Headers.IfModifiedSince = first.Content.Headers.LastModified,
            }
        )
        {
            var again = new HttpRequestMessage(HttpMethod.Get, Path(feed));
            condition(again);
            (await app.SendAsync(again)).StatusCode.ShouldBe(HttpStatusCode.NotModified);
        }

        var head = await app.SendAsync(new HttpRequestMessage(HttpMethod.Head, Path(feed)));
        head.Content.Headers.ContentLength.ShouldBe(bytes.Length);
        (await head.Content.ReadAsByteArrayAsync()).ShouldBeEmpty();

        var item = XDocument.Load(new MemoryStream(bytes)).Root!.Element("channel")!.Elements("item").Single();
        item.Element("title")!.Value.ShouldBe("Closing the till");
        var enclosure = item.Element("enclosure")!;
        var media = new Uri(enclosure.Attribute("url")!.Value).AbsolutePath;
        var asked = new HttpRequestMessage(HttpMethod.Get, media) { Headers = { Range = new RangeHeaderValue(4, 11) } };
        var part = await app.SendAsync(asked);
        part.StatusCode.ShouldBe(HttpStatusCode.PartialContent);
        part.Content.Headers.ContentRange!.Length!.Value.ToString(System.Globalization.CultureInfo.InvariantCulture)
            .ShouldBe(enclosure.Attribute("length")!.Value);
        part.Content.Headers.ContentType!.MediaType.ShouldBe(enclosure.Attribute("type")!.Value);
        System.Text.Encoding.ASCII.GetString(await part.Content.ReadAsByteArrayAsync()).ShouldBe("ftypM4V ");

        var chapters = await app.JsonAsync(new Uri(item.Elements().Single(e => e.Name.LocalName == "chapters").Attribute("url")!.Value).AbsolutePath);
        chapters.GetProperty("chapters").EnumerateArray().Select(c => c.GetProperty("title").GetString()).ShouldBe(["Counting", "Coins"]);
        var artwork = await app.GetAsync(
            new Uri(XDocument.Load(new MemoryStream(bytes)).Root!.Element("channel")!.Element(ITunes + "image")!.Attribute("href")!.Value).AbsolutePath
        );
        artwork.Content.Headers.ContentType!.MediaType.ShouldBe("image/jpeg");
    }

    [Fact]
    public async Task A_change_moves_the_tag_and_the_guid_stays_even_through_a_take_down()
    {
        var (trainer, feed, lesson) = await ReleasedAsync();
        var app = fixture.Anonymous();
        async Task<XElement?> ItemAsync() => XDocument.Parse(await app.GetStringAsync(Path(feed))).Root!.Element("channel")!.Element("item");
        var before = await app.GetAsync(Path(feed));
        var guid = (await ItemAsync())!.Element("guid")!.Value;
        var outlet = feed.GetProperty("outletId").GetString();
        var release = (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .Single(o => o.GetProperty("id").GetString() == outlet)
            .GetProperty("release")
            .GetProperty("id")
            .GetString();
        (await trainer.DeleteAsync($"/api/releases/{release}")).EnsureSuccessStatusCode();
        (await ItemAsync()).ShouldBeNull();
        (await app.GetAsync(Path(feed))).Headers.ETag.ShouldNotBe(before.Headers.ETag);
        (await trainer.JsonAsync($"/api/feeds/{outlet}"))
            .GetProperty("findings")
            .EnumerateArray()
            .ShouldContain(f => f.GetProperty("sentence").GetString()!.StartsWith("There is no episode yet", StringComparison.Ordinal));
        (
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = outlet,
                    profileId = "podcast-720p",
                    visibility = "withLink",
                }
            )
        ).EnsureSuccessStatusCode();
        (await ItemAsync())!.Element("guid")!.Value.ShouldBe(guid);
    }

    [Fact]
    public async Task A_lesson_that_does_not_fit_is_refused_with_the_reason()
    {
        var (trainer, feed, lesson) = await ReleasedAsync();
        var sound = await FeedAsync(trainer, Settings("To listen to", "sound"));
        async Task<JsonElement> RefusedAsync(JsonElement to)
        {
            var answer = await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = to.GetProperty("outletId").GetString(),
                    profileId = "web",
                    visibility = "withLink",
                }
            );
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            return await answer.ProblemAsync();
        }

        (await RefusedAsync(sound))
            .GetProperty("detail")
            .GetString()
            .ShouldBe("“Closing the till” has no sound, and feeds of sound take something to hear. Release it elsewhere.");
        (await RefusedAsync(feed)).GetProperty("code").GetString().ShouldBe("takes-every-frame");
        var changed = await trainer.PutAsJsonAsync($"/api/feeds/{feed.GetProperty("outletId").GetString()}", Settings(media: "sound"));
        (await changed.ProblemAsync()).GetProperty("code").GetString().ShouldBe("feed-has-episodes");
    }

    [Fact]
    public async Task An_unlisted_feed_is_blocked_for_directories_and_can_be_given_a_new_address()
    {
        var trainer = await fixture.SignedInAsync();
        var feed = await FeedAsync(trainer, Settings(unlisted: true));
        var app = fixture.Anonymous();
        XDocument.Parse(await app.GetStringAsync(Path(feed))).Root!.Element("channel")!.Element(ITunes + "block")!.Value.ShouldBe("Yes");
        var moved = await (
            await trainer.PostAsync($"/api/feeds/{feed.GetProperty("outletId").GetString()}/address", null)
        ).Content.ReadFromJsonAsync<JsonElement>();
        Path(moved).ShouldNotBe(Path(feed));
        (await app.GetAsync(Path(feed))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await app.GetStringAsync(Path(moved))).ShouldContain(moved.GetProperty("address").GetString()!);
    }

    [Fact]
    public async Task The_feed_check_names_each_rule_before_anything_is_submitted()
    {
        var trainer = await fixture.SignedInAsync();
        var findings = (await FeedAsync(trainer, Settings(mail: ""))).GetProperty("findings").EnumerateArray().ToList();
        findings.ShouldContain(f =>
            f.GetProperty("rule").GetString() == "Directories' requirements: <itunes:email> of the owner" && f.GetProperty("weight").GetString() == "wrong"
        );
        (await (await trainer.PostAsJsonAsync("/api/feeds", Settings(""))).ProblemAsync()).GetProperty("field").GetString().ShouldBe("title");
    }

    [Fact]
    public async Task Artwork_that_cannot_be_used_is_refused_with_all_that_is_wrong_and_nothing_is_kept()
    {
        var trainer = await fixture.SignedInAsync();
        var feed = await FeedAsync(trainer, Settings("Artwork"));
        var address = $"/api/feeds/{feed.GetProperty("outletId").GetString()}/artwork";
        async Task<string> RefusedAsync(byte[] bytes) =>
            (
                await (
                    await trainer.PutAsync(
                        address,
                        new ByteArrayContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
                    )
                ).ProblemAsync()
            )
                .GetProperty("detail")
                .GetString()!;

        (await RefusedAsync("just text"u8.ToArray())).ShouldBe("The file is no picture that can be read. Choose a JPEG or PNG.");
        (await RefusedAsync(new byte[40_000_000])).ShouldBe("The file has more than 10 MB. Save it as JPEG.");
        var small = System.IO.Path.Combine(fixture.Data, "small.jpg");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-f", "lavfi", "-i", "color=red:s=100x80:d=1", "-frames:v", "1", small])
            .ExecuteAsync();
        (await RefusedAsync(await File.ReadAllBytesAsync(small))).ShouldBe(
            "The picture is 100 × 80 pixels; directories take square ones. Crop it. The picture is 100 × 80 pixels; directories take 1400 to 3000 "
                + "pixels a side. Make it anew at that size, since enlarging makes it soft."
        );
        Directory.EnumerateFiles(System.IO.Path.Combine(fixture.Data, "arriving")).ShouldBeEmpty();

        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-f", "lavfi", "-i", "color=red:s=1400x1400:d=1", "-frames:v", "1", small])
            .ExecuteAsync();
        var taken = await trainer.PutAsync(
            address,
            new ByteArrayContent(await File.ReadAllBytesAsync(small)) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
        );
        (await taken.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("artworkIsOwn").GetBoolean().ShouldBeTrue();
        var dropped = await (await trainer.DeleteAsync(address)).Content.ReadFromJsonAsync<JsonElement>();
        dropped.GetProperty("artworkIsOwn").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task The_houses_mark_goes_onto_artwork_that_is_made_and_off_again()
    {
        var trainer = await fixture.SignedInAsync();
        var app = fixture.Anonymous();
        var feed = await FeedAsync(trainer, Settings("Marked"));
        var artwork = new Uri(feed.GetProperty("address").GetString()!.Replace("feed.xml", "artwork.jpg", StringComparison.Ordinal)).AbsolutePath;
        var plain = await app.GetByteArrayAsync(artwork);
        async Task<HttpResponseMessage> MarkAsync(string size)
        {
            var path = System.IO.Path.Combine(fixture.Data, "mark.png");
            await CliWrap
                .Cli.Wrap("ffmpeg")
                .WithArguments(["-v", "error", "-y", "-f", "lavfi", "-i", $"color=red:s={size}:d=1", "-frames:v", "1", path])
                .ExecuteAsync();
            return await trainer.PutAsync(
                "/api/house/mark",
                new ByteArrayContent(await File.ReadAllBytesAsync(path)) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
            );
        }

        (await (await MarkAsync("399x100")).ProblemAsync()).GetProperty("code").GetString().ShouldBe("mark-too-small");
        var house = await (await MarkAsync("400x100")).Content.ReadFromJsonAsync<JsonElement>();
        (await trainer.GetAsync(house.GetProperty("mark").GetString())).Content.Headers.ContentType!.MediaType.ShouldBe("image/png");
        (await app.GetByteArrayAsync(artwork)).ShouldNotBe(plain);
        (await trainer.DeleteAsync("/api/house/mark")).EnsureSuccessStatusCode();
        (await app.GetByteArrayAsync(artwork)).ShouldBe(plain);
    }

    [Fact]
    public async Task An_episode_with_the_old_artwork_inside_is_behind_until_it_is_released_again()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer, "Ropes", hasSound: true);
        var outlet = (await FeedAsync(trainer, Settings("Spoken", "sound"))).GetProperty("outletId").GetString();
        Task ReleaseAsync() => FeedTests.ReleaseAsync(trainer, lesson, outlet);
        async Task<bool> BehindAsync() =>
            (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
                .EnumerateArray()
                .Single(o => o.GetProperty("id").GetString() == outlet)
                .GetProperty("release")
                .GetProperty("behind")
                .GetBoolean();

        await ReleaseAsync();
        (await BehindAsync()).ShouldBeFalse();
        (await trainer.PutAsJsonAsync($"/api/feeds/{outlet}", Settings("Spoken aloud", "sound"))).EnsureSuccessStatusCode();
        (await BehindAsync()).ShouldBeTrue();
        await ReleaseAsync();
        (await BehindAsync()).ShouldBeFalse();
    }

    [Fact]
    public async Task A_feed_of_sound_stands_beside_one_of_video_with_one_choice()
    {
        var trainer = await fixture.SignedInAsync();
        const string profile = "podcast-720p";
        var (spoken, silent) = (await LessonAsync(trainer, "Bowline", true, profile), await LessonAsync(trainer, "Flags", false, profile));
        var feed = await FeedAsync(trainer, Settings("Knots", alsoSound: true));
        var outlet = feed.GetProperty("outletId").GetString();
        foreach (var lesson in new[] { spoken, silent })
            await ReleaseAsync(trainer, lesson, outlet, profile);
        var app = fixture.Anonymous();
        async Task<List<XElement>> ItemsAsync(string address) =>
            [.. XDocument.Parse(await app.GetStringAsync(address)).Root!.Element("channel")!.Elements("item")];
        var beside = new Uri(feed.GetProperty("soundAddress").GetString()!).AbsolutePath;
        (await ItemsAsync(Path(feed))).Count.ShouldBe(2);
        var enclosure = (await ItemsAsync(beside)).Single().Element("enclosure")!;
        enclosure.Attribute("type")!.Value.ShouldBe("audio/x-m4a");
        var heard = await app.GetByteArrayAsync(new Uri(enclosure.Attribute("url")!.Value).AbsolutePath);
        heard.Length.ToString(System.Globalization.CultureInfo.InvariantCulture).ShouldBe(enclosure.Attribute("length")!.Value);
        // What ffprobe finds in it: sound, and the artwork as a picture that does not move.
        var file = System.IO.Path.Combine(fixture.Data, "heard.m4a");
        await File.WriteAllBytesAsync(file, heard, TestContext.Current.CancellationToken);
        var probed = new System.Text.StringBuilder();
        await CliWrap
            .Cli.Wrap("ffprobe")
            .WithArguments(["-v", "error", "-show_entries", "stream=codec_type:stream_disposition=attached_pic", "-of", "csv=p=0", file])
            .WithStandardOutputPipe(CliWrap.PipeTarget.ToStringBuilder(probed))
            .ExecuteAsync(TestContext.Current.CancellationToken);
        probed
            .ToString()
            .Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .ShouldBe(["audio,0", "video,1"], ignoreOrder: true);

        var page = await app.GetStringAsync(new Uri(feed.GetProperty("subscribePage").GetString()!).AbsolutePath);
        page.ShouldContain(feed.GetProperty("soundAddress").GetString()!);
        using var zip = new ZipArchive(
            new MemoryStream(await trainer.GetByteArrayAsync($"/api/feeds/{outlet}/folder.zip?address=https%3A%2F%2Fintranet.example%2Fknots"))
        );
        zip.Entries.Select(e => System.IO.Path.GetExtension(e.FullName)).Count(e => e is ".m4a" or ".xml").ShouldBe(3);
        (await trainer.JsonAsync($"/api/lessons/{spoken}/files"))
            .GetProperty("files")
            .EnumerateArray()
            .Count(f => f.GetProperty("title").GetString() == "Knots")
            .ShouldBe(2);

        // Without it what stands there is behind, and the address opens nothing.
        (await trainer.PutAsJsonAsync($"/api/feeds/{outlet}", Settings("Knots"))).EnsureSuccessStatusCode();
        (await app.GetAsync(beside)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await app.GetAsync(new Uri(enclosure.Attribute("url")!.Value).AbsolutePath)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.JsonAsync($"/api/lessons/{spoken}/releases"))
            .EnumerateArray()
            .Single(o => o.GetProperty("id").GetString() == outlet)
            .GetProperty("release")
            .GetProperty("behind")
            .GetBoolean()
            .ShouldBeTrue();
    }

    [Fact]
    public async Task The_folder_is_the_same_feed_under_another_address()
    {
        var (trainer, feed, _) = await ReleasedAsync();
        var at = $"/api/feeds/{feed.GetProperty("outletId").GetString()}/folder.zip";
        (await (await trainer.GetAsync(at + "?address=listening")).ProblemAsync()).GetProperty("field").GetString().ShouldBe("address");
        using var zip = new ZipArchive(new MemoryStream(await trainer.GetByteArrayAsync(at + "?address=https%3A%2F%2Fintranet.example%2Flistening")));
        await using var written = await zip.GetEntry("feed.xml")!.OpenAsync(TestContext.Current.CancellationToken);
        var channel = (await XDocument.LoadAsync(written, LoadOptions.None, TestContext.Current.CancellationToken)).Root!.Element("channel")!;
        var enclosure = channel.Element("item")!.Element("enclosure")!;
        enclosure.Attribute("url")!.Value.ShouldStartWith("https://intranet.example/listening/episodes/");
        zip.GetEntry(enclosure.Attribute("url")!.Value["https://intranet.example/listening/".Length..])!
            .Length.ToString(System.Globalization.CultureInfo.InvariantCulture)
            .ShouldBe(enclosure.Attribute("length")!.Value);
        zip.GetEntry("artwork.jpg").ShouldNotBeNull();
    }

    [Fact]
    public async Task Feeds_and_their_folder_are_the_trainers_alone()
    {
        var learner = await fixture.SignedInAsync(ServerFixture.Learner);
        (await learner.GetAsync($"/api/feeds/{Guid.NewGuid()}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await fixture.Anonymous().GetAsync($"/api/feeds/{Guid.NewGuid()}/folder.zip?address=https://a.example/")).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        (await fixture.Anonymous().GetAsync("/feeds/nothing/feed.xml")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }
}
