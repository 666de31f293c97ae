using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Xml.Linq;
using CliWrap;
using CliWrap.Buffered;

namespace Wexel.Server.Tests;

/// <summary>What is said about lessons, at the four places where it can be said, and where it reaches learners.</summary>
public sealed class DetailTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private static readonly object Author = new { name = "Mara Tarn", contact = "training@brackwater.example" };

    [Fact]
    public async Task What_is_said_anywhere_reaches_every_place_and_encodes_nothing()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await ReleaseAllAsync(trainer, lesson);
        var before = await OutletsAsync(trainer, lesson);
        before.ShouldAllBe(o => !o.GetProperty("release").GetProperty("behind").GetBoolean());
        Guid Outlet(string kind) => before.Single(o => o.GetProperty("kind").GetString() == kind).GetProperty("id").GetGuid();

        // The house says who made it and what others may do; the feed something else; the lesson its tags; one outlet alone its title.
        await PutAsync(
            trainer,
            "/api/house/details",
            new
            {
                author = Author,
                licence = "cc-by-4.0",
                category = "Ticket desk",
            }
        );
        await PutAsync(trainer, $"/api/outlets/{Outlet("podcastFeed")}/details", new { licence = "For our own crews." });
        await SayAsync(trainer, lesson, new { tags = new[] { "till", "night" } });
        await PutAsync(trainer, $"/api/lessons/{lesson}/outlets/{Outlet("webServer")}/details", new { title = "The till, for the quay" });

        var said = await trainer.JsonAsync($"/api/lessons/{lesson}/details");
        var there = said.GetProperty("outlets").EnumerateArray().ToDictionary(o => o.GetProperty("outletId").GetGuid());
        there[Outlet("webServer")].GetProperty("values").GetProperty("title").GetString().ShouldBe("The till, for the quay");
        // What would hold otherwise, and where that comes from, does not go by what is said there alone.
        there[Outlet("webServer")].GetProperty("otherwise").GetProperty("title").GetString().ShouldNotBe("The till, for the quay");
        var from = there[Outlet("webServer")].GetProperty("from");
        new[] { "title", "tags", "licence" }.Select(f => from.GetProperty(f).GetString()).ShouldBe(["lesson", "lesson", "house"]);
        there[Outlet("podcastFeed")].GetProperty("from").GetProperty("licence").GetString().ShouldBe("outlet");
        there.Values.ShouldAllBe(o => o.GetProperty("missing").GetArrayLength() == 0);

        (await OutletsAsync(trainer, lesson)).ShouldAllBe(o => o.GetProperty("release").GetProperty("behind").GetBoolean());
        var encoded = Encodes();
        var links = await ReleaseAllAsync(trainer, lesson);
        Encodes().ShouldBe(encoded);
        (await OutletsAsync(trainer, lesson)).ShouldAllBe(o => !o.GetProperty("release").GetProperty("behind").GetBoolean());

        // A page, as schema.org has it.
        var page = await fixture.Anonymous().GetStringAsync(new Uri(links["channel"]).AbsolutePath);
        page.ShouldContain("\"keywords\":[\"till\",\"night\"]");
        page.ShouldContain("\"license\":\"https://creativecommons.org/licenses/by/4.0/\"");
        page.ShouldContain("\"genre\":\"Ticket desk\"");
        // A feed's item.
        var item = XDocument.Parse(await trainer.GetStringAsync(new Uri(links["podcastFeed"]).AbsolutePath)).Descendants("item").Single();
        item.Elements("category").Select(c => c.Value).ShouldBe(["till", "night"]);
        item.Element(XName.Get("license", "https://podcastindex.org/namespace/1.0"))!.Value.ShouldBe("For our own crews.");
        // A package's metadata.
        using var package = await ZipAsync(trainer, links["learningSystem"]);
        var manifest = XDocument.Load(package.GetEntry("imsmanifest.xml")!.Open());
        manifest.Descendants(XName.Get("keyword", "http://www.imsglobal.org/xsd/imsmd_rootv1p2p1")).Select(k => k.Value).Take(2).ShouldBe(["till", "night"]);
        manifest.ToString().ShouldContain("FN:Mara Tarn");
        // A folder's page, under the title that it has there alone, and the file in it.
        using var folder = await ZipAsync(trainer, links["webServer"]);
        (await new StreamReader(folder.GetEntry("The till, for the quay/index.html")!.Open()).ReadToEndAsync()).ShouldContain(
            "<title>The till, for the quay</title>"
        );
        var video = Path.Combine(Directory.CreateTempSubdirectory("wexel-details-").FullName, "lesson.mp4");
        folder.GetEntry("The till, for the quay/lesson.mp4")!.ExtractToFile(video);
        var tags = await TagsAsync(video);
        Directory.Delete(Path.GetDirectoryName(video)!, recursive: true);
        tags.GetProperty("artist").GetString().ShouldBe("Mara Tarn");
        tags.GetProperty("genre").GetString().ShouldBe("Ticket desk");
        tags.GetProperty("copyright").GetString()!.ShouldStartWith("CC BY 4.0");
        tags.GetProperty("keywords").GetString().ShouldBe("till, night");
    }

    [Fact]
    public async Task A_change_makes_behind_the_places_that_have_the_detail()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await SayAsync(trainer, lesson, new { });
        await ReleaseAllAsync(trainer, lesson);
        await SayAsync(trainer, lesson, new { shortTitle = "The till" });
        (await OutletsAsync(trainer, lesson))
            .Where(o => o.GetProperty("release").GetProperty("behind").GetBoolean())
            .Select(o => o.GetProperty("kind").GetString())
            .ShouldBe(["channel"]);
    }

    [Fact]
    public async Task What_may_not_be_embedded_is_not()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var link = (await ReleaseAllAsync(trainer, lesson))["channel"];
        var token = link[(link.LastIndexOf('/') + 1)..];
        (await trainer.GetAsync($"/embed/{token}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        await SayAsync(trainer, lesson, new { mayEmbed = false });
        await ReleaseAllAsync(trainer, lesson);
        (await trainer.GetAsync($"/embed/{token}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await trainer.GetAsync($"/watch/{token}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await fixture.Anonymous().GetAsync($"/oembed?url={Uri.EscapeDataString(link)}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await OutletsAsync(trainer, lesson))
            .Single(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("release")
            .GetProperty("embedCode")
            .ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Theory]
    [InlineData("""{ "author": { "name": "Mara", "contact": "javascript:alert(1)" } }""", "contact-unusable", "author")]
    [InlineData("""{ "thirdParty": { "used": true, "permission": " " } }""", "permission-missing", "thirdParty")]
    [InlineData("""{ "fromAge": 99 }""", "age-out-of-range", "fromAge")]
    [InlineData("""{ "language": "tongue" }""", "language-unknown", "language")]
    [InlineData("""{ "tags": ["a, b"] }""", "tag-with-comma", "tags")]
    public async Task What_cannot_be_used_is_refused_with_a_sentence(string details, string code, string field)
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var outlet = (await OutletsAsync(trainer, lesson))[0].GetProperty("id").GetGuid();
        foreach (var path in new[] { "/api/house/details", $"/api/outlets/{outlet}/details", $"/api/lessons/{lesson}/outlets/{outlet}/details" })
        {
            var answer = await trainer.PutAsync(path, new StringContent(details, System.Text.Encoding.UTF8, "application/json"));
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            var problem = await answer.Content.ReadFromJsonAsync<JsonElement>();
            (problem.GetProperty("code").GetString(), problem.GetProperty("field").GetString()).ShouldBe((code, field));
        }
    }

    /// <summary>The SPDX licence list, as the package spdx-license-ids publishes it.</summary>
    [Fact]
    public async Task Licences_are_named_by_identifiers_of_the_published_list()
    {
        var home = Environment.GetEnvironmentVariable("WEXEL_HOME")!;
        var published = JsonSerializer.Deserialize<HashSet<string>>(
            await File.ReadAllTextAsync(Path.Combine(home, "node_modules", "spdx-license-ids", "index.json"))
        )!;
        var trainer = await fixture.SignedInAsync();
        var offered = (await trainer.JsonAsync("/api/details")).GetProperty("licences").EnumerateArray().Select(l => l.GetProperty("id").GetString()!).ToList();
        offered.Count(id => id.StartsWith("CC", StringComparison.Ordinal)).ShouldBe(7);
        offered.Where(id => !published.Contains(id)).ShouldBe(["LicenseRef-AllRightsReserved"]);
        // SPDX 2.3, annex D.3: what is not of the list is letters, digits, hyphens and dots behind "LicenseRef-".
        offered.Except(published).Single().ShouldMatch("^LicenseRef-[A-Za-z0-9.-]+$");
    }

    private static async Task<Guid> LessonAsync(HttpClient trainer) =>
        (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();

    private static async Task<List<JsonElement>> OutletsAsync(HttpClient trainer, Guid lesson) =>
        [.. (await trainer.JsonAsync($"/api/lessons/{lesson}/releases")).EnumerateArray()];

    private static async Task PutAsync(HttpClient trainer, string path, object details)
    {
        var answer = await trainer.PutAsJsonAsync(path, details);
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
    }

    /// <summary>Saves what a lesson says.</summary>
    private static async Task SayAsync(HttpClient trainer, Guid lesson, object details)
    {
        var now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = System.Text.Json.Nodes.JsonNode.Parse(now.GetProperty("document").GetRawText())!;
        document["details"] = JsonSerializer.SerializeToNode(details);
        await PutAsync(
            trainer,
            $"/api/lessons/{lesson}/document",
            new
            {
                basedOn = now.GetProperty("revision").GetInt32(),
                document,
                restoredFrom = (int?)null,
            }
        );
    }

    /// <summary>Brings all outlets up to date; what is handed on there, by the kinds.</summary>
    private static async Task<Dictionary<string, string>> ReleaseAllAsync(HttpClient trainer, Guid lesson)
    {
        var links = new Dictionary<string, string>();
        foreach (var outlet in await OutletsAsync(trainer, lesson))
        {
            var release = outlet.GetProperty("release");
            var answer = await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = outlet.GetProperty("id").GetGuid(),
                    profileId = release.GetProperty("profileId").GetString(),
                    visibility = "withLink",
                }
            );
            answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
            var now = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("release");
            links[outlet.GetProperty("kind").GetString()!] = now.GetProperty("link").GetString()
                ?? now.GetProperty("feed").GetString()
                ?? now.GetProperty("package").GetProperty("link").GetString()!;
        }

        return links;
    }

    private static async Task<ZipArchive> ZipAsync(HttpClient trainer, string link) =>
        new(await trainer.GetStreamAsync(new Uri(link, UriKind.RelativeOrAbsolute)));

    private static async Task<JsonElement> TagsAsync(string video)
    {
        var probe = await CliWrap.Cli.Wrap("ffprobe").WithArguments(["-v", "error", "-show_format", "-of", "json", video]).ExecuteBufferedAsync();
        return JsonDocument.Parse(probe.StandardOutput).RootElement.GetProperty("format").GetProperty("tags");
    }

    /// <summary>Everything that is encoded, with when it was.</summary>
    private List<string> Encodes() =>
        [
            .. Directory
                .EnumerateFiles(fixture.Data, "picture.*", SearchOption.AllDirectories)
                .Select(f => $"{f} {File.GetLastWriteTimeUtc(f):O}")
                .Order(StringComparer.Ordinal),
        ];
}
