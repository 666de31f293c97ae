using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Wexel.Cli;
using Wexel.Core.Lessons;

namespace Wexel.Server.Tests;

/// <summary>Lessons as files, and that it makes no difference who makes them: the server and the command line have one pipeline.</summary>
public sealed class LessonFileTests(ServerFixture fixture) : IClassFixture<ServerFixture>, IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("wexel-lesson-file-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private async Task<(int Code, string Error)> MakeAsync(params string[] arguments)
    {
        var (said, wrong) = (new StringWriter(), new StringWriter());
        return (
            await CommandLine.RunAsync(
                ["make", .. arguments],
                new Surroundings(_folder, said, wrong, AtTerminal: false),
                TestContext.Current.CancellationToken
            ),
            wrong.ToString()
        );
    }

    private async Task<string> SavedAsync(HttpClient client, string address, string name)
    {
        await File.WriteAllBytesAsync(Path.Combine(_folder, name), await client.GetByteArrayAsync(address));
        return Path.Combine(_folder, name);
    }

    private static string Sum(string path) => Convert.ToHexStringLower(SHA256.HashData(File.ReadAllBytes(path)));

    private static ByteArrayContent Bytes(byte[] bytes) => new(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };

    /// <summary>A lesson with something of each kind: a cut, sections, captions, a move-in, a canvas, and the house's mark.</summary>
    /// <param name="trainer">Who does it.</param>
    /// <param name="picture">Whether it has a picture of its own; otherwise it has the one that is proposed.</param>
    private static async Task<string> MarkedUpAsync(HttpClient trainer, bool picture)
    {
        var lesson = (await trainer.UntilAsync("/api/lessons", c => c.GetArrayLength() > 0 && c[0].GetProperty("lessons").GetArrayLength() > 0))[0]
            .GetProperty("lessons")[0]
            .GetProperty("id")
            .GetString()!;
        (
            await trainer.PutAsync("/api/house/mark", Bytes(await File.ReadAllBytesAsync(Path.Combine(ServerFixture.Home, "demo", "mark.png"))))
        ).EnsureSuccessStatusCode();
        (
            await trainer.PutAsJsonAsync(
                "/api/house/mark/placement",
                new
                {
                    placement = new
                    {
                        opacityPercent = 60,
                        widthPercent = 15,
                        position = "topRight",
                        distancePercent = 4,
                        offsetX = 0,
                        offsetY = 0,
                    },
                }
            )
        ).EnsureSuccessStatusCode();
        var captions = await (
            await trainer.PutAsync(
                "/api/captions?fileName=till.vtt&language=en-GB",
                Bytes("WEBVTT\n\n00:01.000 --> 00:02.500\n<b>Count</b> the float.\n\n00:06.000 --> 00:07.000\nClose the till.\n"u8.ToArray())
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = JsonNode.Parse(view.GetProperty("document").GetRawText())!.AsObject();
        document["description"] = "How a day ends.";
        document["cuts"] = JsonNode.Parse("""[{ "start": 3000, "end": 4500 }]""");
        document["sections"] = JsonNode.Parse(
            """[{ "id": "s1", "at": 0, "title": "Count", "nested": false }, { "id": "s2", "at": 6000, "title": "Close & lock", "nested": false }]"""
        );
        var spanish = await (
            await trainer.PutAsync("/api/captions?fileName=caja.srt&language=es-ES", Bytes("1\n00:00:01,000 --> 00:00:02,500\nCuente el fondo.\n"u8.ToArray()))
        ).Content.ReadFromJsonAsync<JsonElement>();
        var draft = await (
            await trainer.PutAsync("/api/captions?fileName=draft.vtt&language=en-GB", Bytes("WEBVTT\n\n00:01.000 --> 00:02.500\ncount the float\n"u8.ToArray()))
        ).Content.ReadFromJsonAsync<JsonElement>();
        document["captions"] = new JsonArray(
            Track(captions, "captions", "corrected"),
            Track(spanish, "translation", "corrected"),
            Track(draft, "captions", "draft")
        );
        document["canvas"] = JsonNode.Parse(
            """{ "size": { "width": 640, "height": 360 }, "fit": "whole", "part": { "x": 0, "y": 0, "width": 1, "height": 1 } }"""
        );
        if (picture)
        {
            var given = await trainer.PutAsync("/api/pictures", Bytes(await Pictures.MadeAsync(1600, 900)));
            given.EnsureSuccessStatusCode();
            document["picture"] = new JsonObject { ["own"] = (await given.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("key").GetString() };
        }

        var shown = await (await trainer.PutAsync("/api/pictures/shown", Bytes(await Pictures.MadeAsync(900, 400)))).Content.ReadFromJsonAsync<JsonElement>();
        var key = shown.GetProperty("key").GetString();
        document["questions"] = JsonNode.Parse(
            $$"""[{ "id": "q1", "at": 2000, "text": "Is it so?", "asks": { "kind": "truth", "true": true }, "picture": "{{key}}", "tags": ["till"] }]"""
        );
        document["areas"] = JsonNode.Parse(
            """
            [{ "id": "a1", "span": { "start": 6500, "end": 9000 }, "text": "The drawer", "action": { "kind": "text", "says": "Shut it." },
            "shape": { "kind": "ellipse", "points": [{ "x": 0.2, "y": 0.2 }, { "x": 0.4, "y": 0.3 }] } }]
            """
        );
        document["notes"] = JsonNode.Parse(
            $$"""[{ "id": "n1", "span": { "start": 1000, "end": 4000 }, "text": "Count.", "corner": "middle", "address": "", "picture": "{{key}}" }]"""
        );
        document["survey"] = JsonNode.Parse("""{ "title": "", "named": true, "items": [{ "kind": "comment", "id": "i1", "text": "What was missing?" }] }""");
        document["moveIns"] = JsonNode.Parse(
            """[{ "id": "m1", "span": { "start": 7000, "end": 9500 }, "part": { "x": 0.1, "y": 0.1, "width": 0.5, "height": 0.5 }, "ease": 400 }]"""
        );
        var sound = (await trainer.JsonAsync("/api/sounds?words=tide")).GetProperty("sounds")[0].GetProperty("sound").GetProperty("sound").GetRawText();
        document["sounds"] = JsonNode.Parse(
            $$"""
            [{ "id": "b1", "span": { "start": 500, "end": 8000 }, "sound": {{sound}}, "fadeIn": 300, "fadeOut": 600, "apart": 20, "duck": 10,
            "attack": 300, "release": 800, "loops": true, "endsAtBar": true }]
            """
        );
        var camera = await CameraClips.BroughtInAsync(trainer, lesson, await CameraClips.PictureAsync(9));
        document["cameras"] = JsonNode.Parse(
            $$"""[{ "over": {{document["recordingHash"]!.ToJsonString()}}, "recording": "{{camera}}", "clock": { "starts": -1500, "drift": 0 } }]"""
        );
        document["cameraStretches"] = JsonNode.Parse("""[{ "id": "c1", "span": { "start": 5000, "end": 6000 }, "shown": "large" }]""");
        (
            await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = view.GetProperty("revision").GetInt32(), document })
        ).EnsureSuccessStatusCode();
        return lesson;

        static JsonNode Track(JsonElement read, string kind, string state)
        {
            var track = JsonNode.Parse(read.GetProperty("track").GetRawText())!;
            (track["kind"], track["state"]) = (kind, state);
            return track;
        }
    }

    [Fact]
    public async Task The_same_lesson_through_both_is_the_same_bytes()
    {
        var trainer = await fixture.SignedInAsync();
        await MarkedUpAsync(trainer, picture: false);
        var lesson = await trainer.RenderedAsync("web");
        var zip = await SavedAsync(trainer, $"/api/lessons/{lesson}/lesson.zip", "till.wexel.zip");
        foreach (var (kind, purpose) in new[] { ("webServer", "web"), ("learningSystem", "scorm12") })
        {
            var outlet = (await trainer.JsonAsync("/api/outlets"))
                .EnumerateArray()
                .First(o => o.GetProperty("kind").GetString() == kind)
                .GetProperty("id")
                .GetString();
            var released = await (
                await trainer.PostAsJsonAsync(
                    $"/api/lessons/{lesson}/releases",
                    new
                    {
                        outletId = outlet,
                        profileId = "web",
                        visibility = "signedIn",
                    }
                )
            ).Content.ReadFromJsonAsync<JsonElement>();
            var server = await SavedAsync(
                trainer,
                released.GetProperty("release").GetProperty("package").GetProperty("link").GetString()!,
                $"server-{purpose}.zip"
            );
            var (code, error) = await MakeAsync(zip, "--for", purpose, "--out", $"command-{purpose}.zip");
            code.ShouldBe(0, error);

            // First what is in them, file by file: the rendition, the learner's page, the manifest. Then the package whole.
            using (
                ZipArchive one = ZipFile.OpenRead(server),
                    other = ZipFile.OpenRead(Path.Combine(_folder, $"command-{purpose}.zip"))
            )
                other.Entries.Select(e => (e.FullName, e.Length, e.Crc32)).ShouldBe(one.Entries.Select(e => (e.FullName, e.Length, e.Crc32)));
            Sum(Path.Combine(_folder, $"command-{purpose}.zip")).ShouldBe(Sum(server));
        }
    }

    [Fact]
    public async Task A_profile_that_brings_its_own_mark_makes_the_same_wherever_its_file_is_brought_in()
    {
        var cancel = TestContext.Current.CancellationToken;
        var trainer = await fixture.SignedInAsync();
        var picture = await File.ReadAllBytesAsync(Path.Combine(ServerFixture.Home, "demo", "mark.png"), cancel);
        var taken = await (await trainer.PutAsync("/api/profiles/marks", Bytes(picture))).Content.ReadFromJsonAsync<JsonElement>(cancel);
        (await trainer.PutAsync("/api/profiles/marks", Bytes("no picture"u8.ToArray()))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await trainer.GetByteArrayAsync($"/api/profiles/marks/{taken.GetProperty("key").GetString()}")).ShouldBe(picture);

        var web = (await trainer.JsonAsync("/api/profiles")).EnumerateArray().First(p => p.GetProperty("profile").GetProperty("id").GetString() == "web");
        var own = JsonNode.Parse(web.GetProperty("profile").GetRawText())!.AsObject();
        own["title"] = "With the harbour's mark";
        var mark = JsonNode
            .Parse(
                "{ \"placement\": { \"opacityPercent\": 80, \"widthPercent\": 12, \"position\": \"topLeft\", \"distancePercent\": 3, "
                    + "\"offsetX\": 0, \"offsetY\": 0 } }"
            )!
            .AsObject();
        (mark["key"], mark["size"]) = (new string('0', 64), JsonNode.Parse(taken.GetProperty("size").GetRawText()));
        own["picture"]!["ownMark"] = mark;
        var refused = await trainer.PostAsJsonAsync("/api/profiles", own);
        (await refused.ProblemAsync()).GetProperty("code").GetString().ShouldBe("profile-mark-not-here");
        mark["key"] = taken.GetProperty("key").GetString();
        var added = await (await trainer.PostAsJsonAsync("/api/profiles", own)).Content.ReadFromJsonAsync<JsonElement>(cancel);
        var id = added.GetProperty("id").GetString()!;

        // Its file holds the picture, and is whole; without it, it is refused with a sentence.
        var document = await trainer.GetStringAsync($"/api/profiles/{id}/document");
        var again = await trainer.PostAsync("/api/profiles/document", Bytes(Encoding.UTF8.GetBytes(document)));
        (await again.Content.ReadFromJsonAsync<JsonElement>(cancel))
            .GetProperty("picture")
            .GetProperty("ownMark")
            .GetProperty("key")
            .GetString()
            .ShouldBe(taken.GetProperty("key").GetString());
        await File.WriteAllTextAsync(Path.Combine(_folder, "harbour.json"), document, cancel);
        var without = JsonNode.Parse(document)!.AsObject();
        without.Remove("ownMarkPicture");
        await File.WriteAllTextAsync(Path.Combine(_folder, "without.json"), without.ToJsonString(), cancel);

        var lesson = await trainer.RenderedAsync(id);
        var rendition = (await trainer.JsonAsync($"/api/lessons/{lesson}/deliver"))
            .GetProperty("renditions")
            .EnumerateArray()
            .First(r => r.GetProperty("profileId").GetString() == id)
            .GetProperty("id")
            .GetString();
        var server = await SavedAsync(trainer, $"/api/renditions/{rendition}/file", "server.mp4");
        var zip = await SavedAsync(trainer, $"/api/lessons/{lesson}/lesson.zip", "marked.wexel.zip");
        var (code, error) = await MakeAsync(zip, "--profile", "harbour.json", "--out", "made");
        code.ShouldBe(0, error);
        Sum(Path.Combine(_folder, "made", "lesson.mp4")).ShouldBe(Sum(server));
        (code, error) = await MakeAsync(zip, "--profile", "without.json", "--out", "never");
        code.ShouldBe(2);
        error.ShouldContain("brings a mark of its own and does not hold its picture");
    }

    [Fact]
    public async Task What_learners_could_not_use_is_made_by_neither()
    {
        var cancel = TestContext.Current.CancellationToken;
        var trainer = await fixture.SignedInAsync();
        var lesson = await MarkedUpAsync(trainer, picture: false);
        var zip = await SavedAsync(trainer, $"/api/lessons/{lesson}/lesson.zip", "lacking.wexel.zip");
        using (var archive = ZipFile.Open(zip, ZipArchiveMode.Update))
        {
            var entry = archive.GetEntry(LessonFile.NameInZip)!;
            JsonNode file;
            await using (var kept = entry.Open())
                file = (await JsonNode.ParseAsync(kept, cancellationToken: cancel))!;
            file["questions"]![0]!["asks"]!["true"] = null;
            entry.Delete();
            await using var changed = archive.CreateEntry(LessonFile.NameInZip).Open();
            await changed.WriteAsync(Encoding.UTF8.GetBytes(file.ToJsonString()), cancel);
        }

        var (code, error) = await MakeAsync(zip, "--for", "web", "--out", "lacking.zip");
        (code != 0, error.Contains("Nobody said whether it is true. Choose.", StringComparison.Ordinal)).ShouldBe((true, true), error);
    }

    [Fact]
    public async Task A_lesson_file_names_what_lies_beside_it_and_holds_all_of_the_lesson()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await MarkedUpAsync(trainer, picture: true);
        var zip = await SavedAsync(trainer, $"/api/lessons/{lesson}/lesson.zip", "till.wexel.zip");
        using var archive = ZipFile.OpenRead(zip);
        var before = (await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("document");
        archive
            .Entries.Select(e => e.FullName)
            .ShouldBe([
                "lesson.wexel.json",
                "captions-en-GB.vtt",
                "captions-es-ES.vtt",
                "captions-en-GB-2.vtt",
                "mark",
                "picture",
                LessonFile.ShownPicture(before.GetProperty("notes")[0].GetProperty("picture").GetString()!),
                LessonFile.ShelfSound(before.GetProperty("sounds")[0].GetProperty("sound").GetProperty("key").GetString()!),
                "recordings/Untitled 7.mov",
                "cameras/mara.mp4",
            ]);
        using var reader = new StreamReader(archive.Entries[0].Open());
        var text = await reader.ReadToEndAsync(TestContext.Current.CancellationToken);
        (await trainer.GetStringAsync($"/api/lessons/{lesson}/lesson.wexel.json")).ShouldBe(text);
        LessonFile.Read(text).Is(out var file, out _).ShouldBeTrue();
        var cues = new List<IReadOnlyList<Core.Captions.Cue>>();
        foreach (var entry in archive.Entries.Where(e => e.FullName.EndsWith(".vtt", StringComparison.Ordinal)))
        {
            using var captions = new StreamReader(entry.Open());
            cues.Add(Core.Captions.WebVttText.Read(await captions.ReadToEndAsync(TestContext.Current.CancellationToken)).Cues);
        }

        JsonNode
            .DeepEquals(
                JsonSerializer.SerializeToNode(
                    file!.Lesson([.. file.Recordings.Select(r => r.Hash!)], cues, file.Picture!.Hash, [.. file.Cameras!.Select(c => c.Hash!)]).Document,
                    Core.Documents.WexelJson.Options
                ),
                JsonNode.Parse(before.GetRawText())
            )
            .ShouldBeTrue();
    }

    [Fact]
    public async Task What_was_exported_is_brought_in_as_the_same_lesson()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await MarkedUpAsync(trainer, picture: true);
        var zip = await SavedAsync(trainer, $"/api/lessons/{lesson}/lesson.zip", "till.wexel.zip");
        var alone = await SavedAsync(trainer, $"/api/lessons/{lesson}/lesson.wexel.json", "till.wexel.json");
        foreach (var file in new[] { zip, alone })
        {
            // A lesson of that name is here, so it is another one.
            var other = (await BroughtInAsync(trainer, file)).GetProperty("lessonId").GetString();
            other.ShouldNotBe(lesson);
            (await ContentsAsync(trainer, other!)).ShouldBe(await ContentsAsync(trainer, lesson));
            (await trainer.JsonAsync($"/api/lessons/{other}/revisions"))
                .EnumerateArray()
                .Single()
                .GetProperty("changes")
                .GetString()
                .ShouldBe($"brought in from “{Path.GetFileName(file)}”");
        }

        // Elsewhere it keeps its name for good, so that packages of it stay the same ones.
        var id = Guid.NewGuid();
        using (var archive = ZipFile.Open(zip, ZipArchiveMode.Update))
        {
            var entry = archive.GetEntry("lesson.wexel.json")!;
            string text;
            using (var reader = new StreamReader(entry.Open()))
                text = await reader.ReadToEndAsync(TestContext.Current.CancellationToken);
            entry.Delete();
            await using var writer = new StreamWriter(archive.CreateEntry("lesson.wexel.json").Open());
            await writer.WriteAsync(text.Replace(Guid.Parse(lesson).ToString("N"), id.ToString("N"), StringComparison.Ordinal));
        }

        (await BroughtInAsync(trainer, zip)).GetProperty("lessonId").GetGuid().ShouldBe(id);
    }

    /// <summary>All of an exported lesson but its name for good: entries with their sums, and what the lesson file says.</summary>
    private async Task<string> ContentsAsync(HttpClient trainer, string lesson)
    {
        using var archive = ZipFile.OpenRead(await SavedAsync(trainer, $"/api/lessons/{lesson}/lesson.zip", $"{Guid.NewGuid():N}.zip"));
        using var reader = new StreamReader(archive.Entries[0].Open());
        var text = (await reader.ReadToEndAsync(TestContext.Current.CancellationToken)).Replace(Guid.Parse(lesson).ToString("N"), "", StringComparison.Ordinal);
        return string.Join('\n', archive.Entries.Skip(1).Select(e => $"{e.FullName} {e.Length} {e.Crc32}")) + "\n" + text;
    }

    private static async Task<JsonElement> BroughtInAsync(HttpClient trainer, string file)
    {
        var answer = await trainer.PutAsync($"/api/recordings?fileName={Path.GetFileName(file)}", Bytes(await File.ReadAllBytesAsync(file)));
        answer.StatusCode.ShouldBe(System.Net.HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    /// <summary>A few bytes may hold any number of them.</summary>
    [Fact]
    public async Task A_ZIP_that_holds_more_than_there_is_room_for_is_refused_while_it_comes_out()
    {
        var zip = Path.Combine(_folder, "large.zip");
        using (var archive = ZipFile.Open(zip, ZipArchiveMode.Create))
        {
            foreach (var name in new[] { "zeros", "l.wexel.json" })
            {
                await using var entry = archive.CreateEntry(name, CompressionLevel.SmallestSize).Open();
                await entry.WriteAsync(new byte[10_000_000], TestContext.Current.CancellationToken);
            }
        }

        var to = Directory.CreateDirectory(Path.Combine(_folder, "to")).FullName;
        (await Making.Lessons.LessonArchive.UnpackAsync(zip, "large.zip", to, 1_000_000, TestContext.Current.CancellationToken)).Problem!.Sentence.ShouldBe(
            "“large.zip” holds more than there is room for here."
        );
        new DirectoryInfo(to).EnumerateFiles().Sum(f => f.Length).ShouldBeLessThan(2_000_000);
    }

    [Theory]
    [InlineData("none.zip", "x.txt", "", "“none.zip” holds no lesson file, whose name ends in .wexel.json.")]
    [InlineData("out.zip", "../x.wexel.json", "{}", "“out.zip” holds “../x.wexel.json”, which would lie outside it.")]
    [InlineData(
        "etc.zip",
        "l.wexel.json",
        """{ "title": "T", "language": "en-GB", "recordings": [{ "file": "../../etc/passwd" }] }""",
        "The recording “../../etc/passwd” is not here. Bring it in first, or bring in the ZIP, which holds it."
    )]
    [InlineData("bad.zip", "l.wexel.json", "[]", "The file is no lesson as the schema describes it. There is no lesson file.")]
    [InlineData(
        "later.zip",
        "l.wexel.json",
        """{ "version": 99 }""",
        "The file is no lesson as the schema describes it. The lesson file is of version 99, and this Wexel knows versions up to 9. It was written "
            + "by a newer one."
    )]
    public async Task What_cannot_be_brought_in_says_why(string name, string entry, string text, string said)
    {
        var trainer = await fixture.SignedInAsync();
        var path = Path.Combine(_folder, name);
        using (var archive = ZipFile.Open(path, ZipArchiveMode.Create))
        {
            await using var writer = new StreamWriter(archive.CreateEntry(entry).Open());
            await writer.WriteAsync(text);
        }

        var lessons = (await trainer.JsonAsync("/api/lessons")).GetRawText();
        (await (await trainer.PutAsync($"/api/recordings?fileName={name}", Bytes(await File.ReadAllBytesAsync(path)))).ProblemAsync())
            .GetProperty("detail")
            .GetString()
            .ShouldBe(said);
        (await (await trainer.PutAsync("/api/recordings?fileName=torn.zip", Bytes((await File.ReadAllBytesAsync(path))[..40]))).ProblemAsync())
            .GetProperty("detail")
            .GetString()!
            .ShouldStartWith("“torn.zip” cannot be unpacked");
        (await trainer.JsonAsync("/api/lessons")).GetRawText().ShouldBe(lessons);
        Directory.EnumerateFileSystemEntries(Path.Combine(fixture.Data, "arriving")).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("lesson.zip", "holds no lesson file")]
    [InlineData("outside.zip", "which does not lie in it")]
    [InlineData("other.wexel.json", "is not the recording that the lesson was made of")]
    [InlineData("missing.wexel.json", "There is no file")]
    public async Task What_cannot_be_made_says_why(string name, string said)
    {
        await File.WriteAllTextAsync(Path.Combine(_folder, "x.mp4"), "not the recording", TestContext.Current.CancellationToken);
        string Lesson(string recording, string hash) =>
            $$"""{ "title": "T", "language": "en-GB", "recordings": [{ "file": "{{recording}}", "hash": "{{hash}}" }] }""";
        File.Copy(fixture.Recording, Path.Combine(_folder, "till.mp4"));
        await File.WriteAllTextAsync(Path.Combine(_folder, "other.wexel.json"), Lesson("till.mp4", "aa"), TestContext.Current.CancellationToken);
        await File.WriteAllTextAsync(Path.Combine(_folder, "missing.wexel.json"), Lesson("gone.mp4", "aa"), TestContext.Current.CancellationToken);
        foreach (var (zip, entry) in new[] { ("lesson.zip", "x.txt"), ("outside.zip", "l.wexel.json") })
        {
            using var archive = ZipFile.Open(Path.Combine(_folder, zip), ZipArchiveMode.Create);
            await using var writer = new StreamWriter(archive.CreateEntry(entry).Open());
            await writer.WriteAsync(Lesson("../../etc/passwd", "aa"));
        }

        var (code, error) = await MakeAsync(name);
        code.ShouldBe(2);
        error.ShouldContain(said);
    }

    [Fact]
    public async Task A_lesson_without_a_file_has_a_canvas_and_a_mark_by_options()
    {
        File.Copy(Path.Combine(ServerFixture.Home, "demo", "mark.png"), Path.Combine(_folder, "mark.png"));
        File.Copy(fixture.Recording, Path.Combine(_folder, "till.mp4"));
        var (code, error) = await MakeAsync(
            "till.mp4",
            "--title",
            "Till",
            "--language",
            "de",
            "--canvas",
            "320x240 fill",
            "--mark",
            "mark.png",
            "--out",
            "till"
        );
        code.ShouldBe(0, error);
        var page = await File.ReadAllTextAsync(Path.Combine(_folder, "till", "index.html"), TestContext.Current.CancellationToken);
        page.ShouldContain("<html lang=\"de\">");
        page.ShouldContain("\"width\":320,\"height\":240");
        (await MakeAsync("till.mp4", "--title", "Till", "--canvas", "321x240", "--out", "b")).Error.ShouldContain("The nearest is 320x240");
        (await MakeAsync("till.mp4", "--title", "Till", "--canvas", "wide", "--out", "b")).Error.ShouldContain("write it such as 1280x720");
        (await MakeAsync("till.mp4", "--title", "Till", "--mark", "none.png", "--out", "b")).Error.ShouldContain("is no picture");
    }
}
