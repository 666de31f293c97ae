using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Xml.Linq;

namespace Wexel.Server.Tests;

/// <summary>The pictures by which lessons are known: proposed, chosen, given, and where they reach learners.</summary>
public sealed class PictureTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    [Fact]
    public async Task Some_are_proposed_and_the_first_stands_until_somebody_chooses()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var proposals = (await trainer.JsonAsync($"/api/lessons/{lesson}/pictures"))
            .GetProperty("proposals")
            .EnumerateArray()
            .Select(p => p.GetInt64())
            .ToList();
        proposals.Count.ShouldBeInRange(1, 3);
        proposals.ShouldBeUnique();
        proposals.ShouldAllBe(p => p >= 0 && p < view.GetProperty("length").GetInt64());

        var now = await trainer.GetAsync($"/api/lessons/{lesson}/picture.jpg");
        now.Content.Headers.ContentType!.MediaType.ShouldBe("image/jpeg");
        var bytes = await now.Content.ReadAsByteArrayAsync();
        (await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/picture.jpg?at={proposals[0]}")).ShouldBe(bytes);
        var small = await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/picture.jpg?small=true");
        small.Length.ShouldBeLessThan(bytes.Length);

        // What has not changed is not sent again.
        var again = new HttpRequestMessage(HttpMethod.Get, $"/api/lessons/{lesson}/picture.jpg");
        again.Headers.IfNoneMatch.Add(now.Headers.ETag!);
        (await trainer.SendAsync(again)).StatusCode.ShouldBe(HttpStatusCode.NotModified);
        (await fixture.Anonymous().GetAsync($"/api/lessons/{lesson}/picture.jpg")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task A_chosen_one_reaches_every_place_and_nothing_is_made_anew_but_pages_and_packages()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await ReleaseAllAsync(trainer, lesson);
        var made = Made();
        await ChooseAsync(trainer, lesson, new { own = await GiveAsync(trainer, await Pictures.MadeAsync(1920, 1200, ".webp")) });
        (await OutletsAsync(trainer, lesson)).ShouldAllBe(o => o.GetProperty("release").GetProperty("behind").GetBoolean());
        var links = await ReleaseAllAsync(trainer, lesson);
        (await OutletsAsync(trainer, lesson)).ShouldAllBe(o => !o.GetProperty("release").GetProperty("behind").GetBoolean());
        Made().ShouldBe(made, "No picture, no sound and no finished file was made.");

        // Page, embed, preview and oEmbed name it in its own size.
        var page = new Uri(links["channel"]).AbsolutePath;
        var picture = await fixture.Anonymous().GetByteArrayAsync(page + "/poster.jpg");
        picture.ShouldBe(await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/picture.jpg"));
        var html = await fixture.Anonymous().GetStringAsync(page);
        html.ShouldContain("<meta property=\"og:image:width\" content=\"1280\">");
        html.ShouldContain($"\"thumbnailUrl\":[\"{links["channel"]}/poster.jpg\"]");
        (await fixture.Anonymous().GetStringAsync(page.Replace("/watch/", "/embed/", StringComparison.Ordinal))).ShouldContain("/poster.jpg");
        var embed = JsonDocument.Parse(await fixture.Anonymous().GetStringAsync($"/oembed?url={Uri.EscapeDataString(links["channel"])}")).RootElement;
        (embed.GetProperty("thumbnail_url").GetString(), embed.GetProperty("thumbnail_width").GetInt32()).ShouldBe((links["channel"] + "/poster.jpg", 1280));

        // The feed's item, the web folder and the package for a learning system have it as it is.
        var item = XDocument.Parse(await fixture.Anonymous().GetStringAsync(new Uri(links["podcastFeed"]).AbsolutePath)).Descendants("item").Single();
        var thumbnail = item.Element(XName.Get("thumbnail", "http://search.yahoo.com/mrss/"))!.Attribute("url")!.Value;
        (await fixture.Anonymous().GetByteArrayAsync(new Uri(thumbnail).AbsolutePath)).ShouldBe(picture);
        foreach (var kind in new[] { "webServer", "learningSystem" })
        {
            using var zip = new ZipArchive(await trainer.GetStreamAsync(links[kind]));
            using var packed = new MemoryStream();
            await zip.Entries.Single(e => e.Name == "poster.jpg").Open().CopyToAsync(packed);
            packed.ToArray().ShouldBe(picture, kind);
        }
    }

    [Fact]
    public async Task Any_frame_can_be_taken_and_what_was_chosen_can_be_taken_back()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var proposed = await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/picture.jpg?at=0");
        await ChooseAsync(trainer, lesson, new { at = 4000 });
        var frame = await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/picture.jpg");
        frame.ShouldNotBe(proposed);
        (await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/picture.jpg?at=4000")).ShouldBe(frame);
        var revisions = (await trainer.JsonAsync($"/api/lessons/{lesson}/revisions")).EnumerateArray().Select(r => r.GetProperty("changes").GetString());
        revisions.ShouldContain("the lesson’s picture");
        await ChooseAsync(trainer, lesson, null);
        (await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("document").GetProperty("picture").ValueKind.ShouldBe(JsonValueKind.Null);
        // Far behind the end the last frame stands.
        (await trainer.GetAsync($"/api/lessons/{lesson}/picture.jpg?at=99999999")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task What_cannot_be_used_is_refused_with_a_sentence_and_not_kept()
    {
        var trainer = await fixture.SignedInAsync();
        var whole = await Pictures.MadeAsync(1600, 900);
        foreach (
            var (bytes, code, said) in new[]
            {
                (await Pictures.MadeAsync(20_000, 1300, ".jpg", "color"), "picture-too-large", "20000 × 1300"),
                (await Pictures.MadeAsync(1279, 720), "picture-too-small", "at least 1280"),
                (await Pictures.MadeAsync(1280, 720, ".gif"), "picture-format", "PNG, JPEG nor WebP"),
                ("<svg xmlns='http://www.w3.org/2000/svg' width='1280' height='720'/>"u8.ToArray(), "picture-no-picture", "no picture"),
                (whole[..(whole.Length / 2)], "picture-no-picture", "no picture"),
                (Array.Empty<byte>(), "picture-no-picture", "no picture"),
            }
        )
        {
            var answer = await trainer.PutAsync("/api/pictures", Bytes(bytes));
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, said);
            var problem = await answer.Content.ReadFromJsonAsync<JsonElement>();
            (problem.GetProperty("code").GetString(), problem.GetProperty("field").GetString()).ShouldBe((code, "picture"));
            problem.GetProperty("detail").GetString()!.ShouldContain(said);
        }

        Directory.EnumerateFiles(fixture.Data, "given", SearchOption.AllDirectories).Where(f => new FileInfo(f).Length == whole.Length / 2).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("0000000000000000000000000000000000000000000000000000000000000000")]
    [InlineData("../../recordings/x")]
    [InlineData("x")]
    public async Task A_picture_that_is_not_here_is_no_lessons(string own)
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        (await trainer.GetAsync($"/api/lessons/{lesson}/picture.jpg?own={Uri.EscapeDataString(own)}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var answer = await SaveAsync(trainer, lesson, new { own });
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString().ShouldBe("picture-gone");
    }

    private static ByteArrayContent Bytes(byte[] bytes) => new(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };

    private static async Task<Guid> LessonAsync(HttpClient trainer) =>
        (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();

    private static async Task<string> GiveAsync(HttpClient trainer, byte[] picture)
    {
        var answer = await trainer.PutAsync("/api/pictures", Bytes(picture));
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
        return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("key").GetString()!;
    }

    private static async Task<HttpResponseMessage> SaveAsync(HttpClient trainer, Guid lesson, object? picture)
    {
        var now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = JsonNode.Parse(now.GetProperty("document").GetRawText())!;
        document["picture"] = JsonSerializer.SerializeToNode(picture);
        return await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = now.GetProperty("revision").GetInt32(), document });
    }

    private static async Task ChooseAsync(HttpClient trainer, Guid lesson, object? picture)
    {
        var answer = await SaveAsync(trainer, lesson, picture);
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
    }

    private static async Task<List<JsonElement>> OutletsAsync(HttpClient trainer, Guid lesson) =>
        [.. (await trainer.JsonAsync($"/api/lessons/{lesson}/releases")).EnumerateArray()];

    /// <summary>Brings all outlets up to date; what is handed on there, by the kinds.</summary>
    private static async Task<Dictionary<string, string>> ReleaseAllAsync(HttpClient trainer, Guid lesson)
    {
        var links = new Dictionary<string, string>();
        foreach (var outlet in await OutletsAsync(trainer, lesson))
        {
            var answer = await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new { outletId = outlet.GetProperty("id").GetGuid(), visibility = "withLink" }
            );
            answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
            var now = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("release");
            links[outlet.GetProperty("kind").GetString()!] = now.GetProperty("link").GetString()
                ?? now.GetProperty("feed").GetString()
                ?? now.GetProperty("package").GetProperty("link").GetString()!;
        }

        return links;
    }

    /// <summary>All pictures, sounds and finished files that were made.</summary>
    private List<string> Made() =>
        [
            .. Directory
                .EnumerateFiles(fixture.Data, "*", SearchOption.AllDirectories)
                .Where(f => Path.GetFileName(f) is "picture.mp4" or "lesson.mp4" || Path.GetFileName(f).StartsWith("episode.", StringComparison.Ordinal))
                .Order(),
        ];
}
