using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Wexel.Server.Tests;

/// <summary>Packages for learning systems, made by the server and taken by one that knows nothing of Wexel.</summary>
public sealed class LearningSystemTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private HttpClient School => fixture.Outside.Client;

    [Fact]
    public async Task A_lesson_and_a_course_are_packed_and_sent()
    {
        var trainer = await fixture.SignedInAsync();
        var courses = await trainer.UntilAsync("/api/lessons", c => c.GetArrayLength() > 0);
        var course = courses[0].GetProperty("id").GetString();
        var lesson = courses[0].GetProperty("lessons")[0].GetProperty("id").GetString();
        // The demo lesson releases itself everywhere, as soon as it is rendered.
        var outlets = await trainer.UntilAsync($"/api/lessons/{lesson}/releases", o =>
            o.EnumerateArray()
                .Any(x =>
                    Is(x, "learningSystem")
                    && x.GetProperty("release") is { ValueKind: JsonValueKind.Object } r
                    && r.GetProperty("package").GetProperty("sent").ValueKind == JsonValueKind.Object
                )
        );
        var outlet = outlets.EnumerateArray().Single(o => Is(o, "learningSystem"));
        var package = outlet.GetProperty("release").GetProperty("package");
        package.GetProperty("sent").GetProperty("behind").GetBoolean().ShouldBeFalse();
        using (var zip = new ZipArchive(new MemoryStream(await trainer.GetByteArrayAsync(package.GetProperty("link").GetString()))))
        {
            zip.Entries[0].FullName.ShouldBe("imsmanifest.xml");
            var video = zip.GetEntry("lesson.mp4")!;
            video.CompressedLength.ShouldBe(video.Length);
        }

        var there = await School.GetStringAsync(package.GetProperty("sent").GetProperty("to").GetString());
        there.ShouldContain("1. Closing the till");

        // The course: what is not rendered with that profile is rendered by the same press, and then it goes there by itself.
        async Task<HttpResponseMessage> MakeCourseAsync(string profile) =>
            await trainer.PostAsJsonAsync($"/api/courses/{course}/releases", new { outletId = outlet.GetProperty("id").GetString(), profileId = profile });
        var rendering = await MakeCourseAsync("small-480p");
        rendering.StatusCode.ShouldBe(HttpStatusCode.OK, await rendering.Content.ReadAsStringAsync());
        await trainer.UntilAsync("/api/board/courses", rows => Course(rows) is { ValueKind: JsonValueKind.Object } r && Is480(r));

        JsonElement Course(JsonElement rows) => rows[0].GetProperty("outlets").EnumerateArray().Single(o => Same(o, outlet)).GetProperty("release");
        static bool Same(JsonElement a, JsonElement b) => a.GetProperty("id").GetString() == b.GetProperty("id").GetString();
        static bool Is480(JsonElement release) =>
            release.GetProperty("profileId").GetString() == "small-480p"
            && release.GetProperty("package").GetProperty("sent") is { ValueKind: JsonValueKind.Object } sent
            && !sent.GetProperty("behind").GetBoolean();

        // One press makes it and puts it there.
        var sent = await (await MakeCourseAsync("web")).Content.ReadFromJsonAsync<JsonElement>();
        var id = sent.GetProperty("release").GetProperty("id").GetString();
        sent.GetProperty("way").ValueKind.ShouldBe(JsonValueKind.Null, "it is where it is wanted");
        (await School.GetStringAsync(sent.GetProperty("release").GetProperty("package").GetProperty("sent").GetProperty("to").GetString())).ShouldContain(
            "<h1>Ticket desk basics</h1>"
        );
        (await trainer.GetAsync($"/api/course-releases/{id}/package.zip")).Content.Headers.ContentType!.MediaType.ShouldBe("application/zip");

        // Two people take it down at one moment, and neither is refused; then it stands there again.
        foreach (var answer in await Task.WhenAll(trainer.DeleteAsync($"/api/course-releases/{id}"), trainer.DeleteAsync($"/api/course-releases/{id}")))
            answer.StatusCode.ShouldBeOneOf(HttpStatusCode.NoContent, HttpStatusCode.NotFound);
        (await AtAsync("learningSystem")).ValueKind.ShouldBe(JsonValueKind.Null);
        (await MakeCourseAsync("web")).EnsureSuccessStatusCode();

        // A changed lesson leaves the course's package behind.
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = JsonSerializer.Deserialize<Dictionary<string, object>>(view.GetProperty("document").GetRawText())!;
        document["description"] = "Changed";
        (
            await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = view.GetProperty("revision").GetInt32(), document })
        ).EnsureSuccessStatusCode();
        (await AtAsync("learningSystem")).GetProperty("behind").GetBoolean().ShouldBeTrue();

        // The same course for any web server: one folder, with a page of its lessons. Taken down, it is handed on no more.
        var web = outlets.EnumerateArray().First(o => Is(o, "webServer")).GetProperty("id").GetString();
        (await trainer.PostAsJsonAsync($"/api/courses/{course}/releases", new { outletId = web, profileId = "web" })).StatusCode.ShouldBe(
            HttpStatusCode.OK,
            "A description encodes nothing."
        );
        var folder = await AtAsync("webServer");
        var address = folder.GetProperty("package").GetProperty("link").GetString()!;
        using (var zip = new ZipArchive(await trainer.GetStreamAsync(address)))
        {
            zip.Entries.ShouldAllBe(e => e.FullName.StartsWith("Ticket desk basics/", StringComparison.Ordinal));
            zip.Entries.ShouldContain(e => e.FullName == "Ticket desk basics/index.html");
            zip.Entries.Count(e => e.Name == "lesson.mp4").ShouldBe(1);
        }

        (await trainer.DeleteAsync($"/api/course-releases/{folder.GetProperty("id").GetString()}")).EnsureSuccessStatusCode();
        (await AtAsync("webServer")).ValueKind.ShouldBe(JsonValueKind.Null);
        (await trainer.GetAsync(address)).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        async Task<JsonElement> AtAsync(string kind) =>
            (await trainer.JsonAsync("/api/board/courses"))[0]
                .GetProperty("outlets")
                .EnumerateArray()
                .Single(o => o.GetProperty("id").GetString() == outlets.EnumerateArray().First(k => Is(k, kind)).GetProperty("id").GetString())
                .GetProperty("release");
    }

    private static bool Is(JsonElement outlet, string kind) => outlet.GetProperty("kind").GetString() == kind;

    private const string Manifest = """
        <manifest identifier="m" xmlns="http://www.imsproject.org/xsd/imscp_rootv1p1p2" xmlns:adlcp="http://www.adlnet.org/xsd/adlcp_rootv1p2">
        <metadata><schema>ADL SCORM</schema><schemaversion>1.2</schemaversion></metadata>
        <organizations default="o"><organization identifier="o"><title>T</title>
        <item identifier="i" identifierref="r"><title>One</title></item></organization></organizations>
        <resources><resource identifier="r" type="webcontent" adlcp:scormtype="sco" href="page.html"><file href="page.html"/></resource></resources></manifest>
        """;

    private static byte[] Zip(params (string Name, string Text)[] files)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, text) in files)
            {
                using var entry = zip.CreateEntry(name, CompressionLevel.SmallestSize).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        }

        return bytes.ToArray();
    }

    public static TheoryData<string, string> BadPackages =>
        new()
        {
            { "no manifest", "There is no imsmanifest.xml at the top of the package." },
            { "missing file", "The manifest names “page.html”, which is not in the package." },
            { "outside", "“../out.html” points outside the folder." },
            { "bomb", "The archive unpacks to far more than it holds, as a zip bomb does." },
            { "entity", "imsmanifest.xml cannot be read: For security reasons DTD is prohibited in this XML document." },
            { "version", "The manifest is of schema version “2004 4th Edition”; this system takes SCORM 1.2." },
            { "reference", "An item refers to the resource “nobody”, which is not there." },
            { "not a zip", "That is not a ZIP file, or it is damaged." },
        };

    [Theory, MemberData(nameof(BadPackages))]
    public async Task The_learning_system_refuses_a_bad_package_with_the_reason(string what, string reason)
    {
        var zip = what switch
        {
            "no manifest" => Zip(("folder/imsmanifest.xml", Manifest)),
            "missing file" => Zip(("imsmanifest.xml", Manifest)),
            "outside" => Zip(("imsmanifest.xml", Manifest), ("../out.html", "x")),
            "bomb" => Zip(("imsmanifest.xml", Manifest), ("page.html", new string(' ', 60_000_000))),
            "entity" => Zip(
                (
                    "imsmanifest.xml",
                    "<!DOCTYPE manifest [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>" + Manifest.Replace("<title>T", "<title>&x;", StringComparison.Ordinal)
                ),
                ("page.html", "x")
            ),
            "version" => Zip(("imsmanifest.xml", Manifest.Replace(">1.2<", ">2004 4th Edition<", StringComparison.Ordinal)), ("page.html", "x")),
            "reference" => Zip(
                ("imsmanifest.xml", Manifest.Replace("identifierref=\"r\"", "identifierref=\"nobody\"", StringComparison.Ordinal)),
                ("page.html", "x")
            ),
            _ => "PK, but not really"u8.ToArray(),
        };
        var answer = await School.PutAsync("learning/packages/bad", new ByteArrayContent(zip));
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("detail").GetString()!.ShouldStartWith(reason);
        (await School.GetAsync("learning/courses/bad")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_refused_package_leaves_the_one_before_and_a_good_one_keeps_its_records()
    {
        (await School.PutAsync("learning/packages/kept", new ByteArrayContent(Zip(("imsmanifest.xml", Manifest), ("page.html", "x"))))).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        (
            await School.PostAsJsonAsync(
                "learning/records/kept/i/p1",
                new { elements = new Dictionary<string, string> { ["cmi.core.lesson_status"] = "completed" } }
            )
        ).EnsureSuccessStatusCode();
        (await School.PutAsync("learning/packages/kept", new ByteArrayContent(Zip(("page.html", "x"))))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await School.PutAsync("learning/packages/kept", new ByteArrayContent(Zip(("imsmanifest.xml", Manifest), ("page.html", "new"))))).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        (await School.GetStringAsync("learning/content/kept/page.html")).ShouldBe("new");
        (await School.GetStringAsync("learning/courses/kept")).ShouldContain("<td>completed</td>");
        (await School.GetAsync("learning/content/kept/..%2Fother")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await School.GetAsync("learning/launch/kept/i?pupil=nobody")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Of_two_records_of_one_launch_the_one_that_was_sent_last_stays()
    {
        (await School.PutAsync("learning/packages/order", new ByteArrayContent(Zip(("imsmanifest.xml", Manifest), ("page.html", "x"))))).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        async Task KeepAsync(string launch, int number, string status) =>
            (
                await School.PostAsJsonAsync(
                    "learning/records/order/i/p1",
                    new
                    {
                        elements = new Dictionary<string, string> { ["cmi.core.lesson_status"] = status },
                        launch,
                        number,
                    }
                )
            ).EnsureSuccessStatusCode();
        await KeepAsync("first", 2, "completed");
        await KeepAsync("first", 1, "incomplete");
        (await School.GetStringAsync("learning/courses/order")).ShouldContain("<td>completed</td>");
        await KeepAsync("second", 1, "failed");
        (await School.GetStringAsync("learning/courses/order")).ShouldContain("<td>failed</td>");
    }
}
