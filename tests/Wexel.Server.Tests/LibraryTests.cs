using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Options;
using Npgsql;
using Wexel.Server.Setup;

namespace Wexel.Server.Tests;

/// <summary>Everything made: what is listed, downloaded, kept, deleted and freed.</summary>
public sealed class LibraryTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private static async Task<JsonElement> FileAsync(HttpClient trainer, Guid lesson, string title) =>
        (await trainer.JsonAsync($"/api/lessons/{lesson}/files")).GetProperty("files").EnumerateArray().First(f => f.GetProperty("title").GetString() == title);

    private static async Task<JsonElement> SpaceAsync(HttpClient trainer, string code) =>
        (await trainer.JsonAsync("/api/space")).GetProperty("kinds").EnumerateArray().FirstOrDefault(k => k.GetProperty("code").GetString() == code);

    private static async Task RenderAsync(HttpClient trainer, Guid lesson, params string[] profiles)
    {
        var asked = await (
            await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles })
        ).Content.ReadFromJsonAsync<JsonElement>();
        var ids = asked.GetProperty("renditions").EnumerateArray().Select(r => r.GetProperty("id").GetGuid()).ToList();
        await trainer.UntilAsync("/api/queue", q =>
            q.EnumerateArray().Where(r => ids.Contains(r.GetProperty("id").GetGuid())).All(r => r.GetProperty("state").GetString() == "done")
        );
    }

    /// <summary>A folder of pieces with one small picture; that all heights are right is tested elsewhere.</summary>
    private static async Task<string> PiecesAsync(HttpClient trainer)
    {
        var profile = JsonNode
            .Parse(
                (await trainer.JsonAsync("/api/profiles"))
                    .EnumerateArray()
                    .First(p => p.GetProperty("profile").GetProperty("id").GetString() == "adaptive")
                    .GetProperty("profile")
                    .GetRawText()
            )!
            .AsObject();
        profile["title"] = "In pieces";
        (profile["picture"]!["size"]!["height"], profile["picture"]!["furtherHeights"]) = (240, new JsonArray());
        return (await (await trainer.PostAsJsonAsync("/api/profiles", profile)).EnsureSuccessStatusCode().Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("id")
            .GetString()!;
    }

    [Fact]
    public async Task Everything_made_is_listed_downloaded_kept_deleted_and_freed()
    {
        fixture.Server.Services.GetRequiredService<IOptions<WexelOptions>>().Value.FreeAfter = TimeSpan.Zero;
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        await RenderAsync(trainer, lesson, "small-480p", "web", await PiecesAsync(trainer));
        async Task<JsonElement> ReleaseAsync(string kind)
        {
            var outlet = (await trainer.JsonAsync("/api/outlets"))
                .EnumerateArray()
                .First(o => o.GetProperty("kind").GetString() == kind)
                .GetProperty("id")
                .GetGuid();
            var answer = await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = outlet,
                    profileId = "small-480p",
                    visibility = "signedIn",
                }
            );
            return await answer.EnsureSuccessStatusCode().Content.ReadFromJsonAsync<JsonElement>();
        }

        // A package goes when its release is taken down.
        var packed = await ReleaseAsync("webServer");
        (await SpaceAsync(trainer, "packages")).GetProperty("freeableFiles").GetInt32().ShouldBe(0);
        (await trainer.DeleteAsync($"/api/releases/{packed.GetProperty("release").GetProperty("id").GetGuid()}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await SpaceAsync(trainer, "packages")).GetProperty("freeableFiles").GetInt32().ShouldBeGreaterThan(0);
        (await trainer.PostAsync("/api/space/packages/free", null)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await SpaceAsync(trainer, "packages")).ValueKind.ShouldBe(JsonValueKind.Undefined);
        await ReleaseAsync("channel");

        // What each is for, which one is handed on, and a sum that is the file's own.
        var list = (await trainer.JsonAsync($"/api/lessons/{lesson}/files")).GetProperty("files").EnumerateArray().ToList();
        list.Single(f => f.GetProperty("linkThis").GetBoolean()).GetProperty("title").GetString().ShouldBe("Small 480p");
        list.ShouldAllBe(f => f.GetProperty("age").GetString() == "upToDate");
        var small = await FileAsync(trainer, lesson, "Small 480p");
        small.GetProperty("link").GetString()!.ShouldStartWith("/watch/");
        var bytes = await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/files/{small.GetProperty("key").GetString()}");
        Convert.ToHexStringLower(SHA256.HashData(bytes)).ShouldBe(small.GetProperty("sha256").GetString());
        small.GetProperty("bytes").GetInt64().ShouldBe(bytes.Length);

        // All in one ZIP, which the tool for such sums agrees with.
        var folder = Directory.CreateTempSubdirectory("wexel-all-").FullName;
        try
        {
            await using (var zip = await trainer.GetStreamAsync($"/api/lessons/{lesson}/files.zip"))
            {
                var archive = new ZipArchive(zip);
                await archive.ExtractToDirectoryAsync(folder);
            }

            File.Exists(Path.Combine(folder, "Closing the till - Small 480p.mp4")).ShouldBeTrue();
            File.Exists(Path.Combine(folder, "Closing the till - In pieces", "lesson.m3u8")).ShouldBeTrue();
            await CliWrap.Cli.Wrap("sha256sum").WithArguments(["--check", "--strict", "--quiet", "SHA256SUMS.txt"]).WithWorkingDirectory(folder).ExecuteAsync();
            Directory
                .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
                .Count()
                .ShouldBe(File.ReadLines(Path.Combine(folder, "SHA256SUMS.txt")).Count() + 1);
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }

        // A master copy is kept from the start, and what is kept cannot be deleted.
        (await trainer.PostAsync($"/api/lessons/{lesson}/master", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await trainer.UntilAsync($"/api/lessons/{lesson}/files", m => m.GetProperty("hasMaster").GetBoolean());
        var master = await FileAsync(trainer, lesson, "Master copy");
        string Path_(JsonElement file) => $"/api/lessons/{lesson}/files/{file.GetProperty("key").GetString()}";
        master.GetProperty("kept").GetBoolean().ShouldBeTrue();
        (await (await trainer.DeleteAsync(Path_(master))).ProblemAsync()).GetProperty("code").GetString().ShouldBe("file-kept");

        // What is released goes only together with its release.
        (await (await trainer.DeleteAsync(Path_(small))).ProblemAsync()).GetProperty("detail").GetString()!.ShouldContain("would lose it");
        (await trainer.DeleteAsync(Path_(small) + "?takeDown=true")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await trainer.GetAsync(Path_(small))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .First(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("release")
            .ValueKind.ShouldBe(JsonValueKind.Null);
        (await trainer.JsonAsync($"/api/lessons/{lesson}/deliver"))
            .GetProperty("profiles")
            .EnumerateArray()
            .First(p => p.GetProperty("id").GetString() == "small-480p")
            .GetProperty("nothingToEncode")
            .GetBoolean()
            .ShouldBeFalse("its picture went with it");
        (await trainer.JsonAsync($"/api/lessons/{lesson}/deliver"))
            .GetProperty("profiles")
            .EnumerateArray()
            .First(p => p.GetProperty("id").GetString() == "web")
            .GetProperty("nothingToEncode")
            .GetBoolean()
            .ShouldBeTrue("what others need stays");

        // With a new title all are behind; what nobody keeps may be freed, and nothing else.
        (await SpaceAsync(trainer, "finished")).GetProperty("freeableFiles").GetInt32().ShouldBe(0);
        var document = JsonNode.Parse((await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("document").GetRawText())!.AsObject();
        document["title"] = "Closing the till at night";
        (
            await trainer.PutAsJsonAsync(
                $"/api/lessons/{lesson}/document",
                new { basedOn = (await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("revision").GetInt32(), document }
            )
        ).EnsureSuccessStatusCode();
        (await FileAsync(trainer, lesson, "Web, as recorded")).GetProperty("age").GetString().ShouldBe("finishing");
        var space = await SpaceAsync(trainer, "finished");
        space.GetProperty("freeableFiles").GetInt32().ShouldBeGreaterThan(1);
        (await SpaceAsync(trainer, "encoded")).GetProperty("freeableFiles").GetInt32().ShouldBe(0, "all of it is in the lesson as it stands");
        var freed = await (await trainer.PostAsync("/api/space/finished/free", null)).Content.ReadFromJsonAsync<JsonElement>();
        freed.GetProperty("bytes").GetInt64().ShouldBe(space.GetProperty("freeableBytes").GetInt64());
        (await trainer.JsonAsync($"/api/lessons/{lesson}/files"))
            .GetProperty("files")
            .EnumerateArray()
            .Select(f => f.GetProperty("title").GetString())
            .ShouldBe(["Master copy"]);
        await trainer.GetByteArrayAsync(Path_(master));
        await RenderAsync(trainer, lesson, "web");
        (await FileAsync(trainer, lesson, "Web, as recorded")).GetProperty("name").GetString().ShouldBe("Closing the till at night - Web, as recorded.mp4");

        // A lesson in the bin comes back with what it had.
        (await trainer.PostAsJsonAsync("/api/bin", new { lessons = new[] { lesson } })).EnsureSuccessStatusCode();
        foreach (var kind in new[] { "encoded", "finished" })
        {
            (await SpaceAsync(trainer, kind)).GetProperty("freeableFiles").GetInt32().ShouldBe(0, kind);
            await trainer.PostAsync($"/api/space/{kind}/free", null);
        }

        (await trainer.PostAsync($"/api/bin/{lesson}/restore", null)).EnsureSuccessStatusCode();
        await trainer.GetByteArrayAsync(Path_(master));
        await trainer.GetByteArrayAsync(Path_(await FileAsync(trainer, lesson, "Web, as recorded")));
    }

    [Fact]
    public async Task Single_frames_that_somebody_looked_at_are_freed_and_taken_again()
    {
        fixture.Server.Services.GetRequiredService<IOptions<WexelOptions>>().Value.FreeAfter = TimeSpan.Zero;
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        var hash = (await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("document").GetProperty("recordingHash").GetString();
        var seen = await trainer.GetByteArrayAsync($"/api/recordings/{hash}/frames/45.jpg");
        (await SpaceAsync(trainer, "looks")).GetProperty("freeableFiles").GetInt32().ShouldBeGreaterThanOrEqualTo(30);
        (await trainer.PostAsync("/api/space/looks/free", null)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await SpaceAsync(trainer, "looks")).ValueKind.ShouldBe(JsonValueKind.Undefined);
        (await trainer.GetByteArrayAsync($"/api/recordings/{hash}/frames/45.jpg")).ShouldBe(seen);
    }

    /// <summary>What a backup has written down of the database must still be there when it comes to the files.</summary>
    [Fact]
    public async Task Nothing_goes_while_a_backup_is_made()
    {
        var trainer = await fixture.SignedInAsync();
        await using (var backup = new NpgsqlConnection(fixture.Connection + ";Pooling=false"))
        {
            await backup.OpenAsync();
            await using (var hold = new NpgsqlCommand("select pg_advisory_lock(hashtextextended('backup', 0))", backup))
                await hold.ExecuteNonQueryAsync();
            var refused = await trainer.PostAsync("/api/space/other/free", null);
            refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
            (await refused.ProblemAsync()).GetProperty("code").GetString().ShouldBe("backup-under-way");
        }

        (await trainer.PostAsync("/api/space/other/free", null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task What_is_not_there_gets_a_sentence_and_nothing_outside_the_lesson_is_reached()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        foreach (var key in new[] { "none", "..%2F..%2Fpid", new string('0', 64) })
        {
            (await trainer.GetAsync($"/api/lessons/{lesson}/files/{key}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
            (await trainer.DeleteAsync($"/api/lessons/{lesson}/files/{key}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        }

        (await trainer.GetAsync($"/api/lessons/{Guid.NewGuid()}/files.zip")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.PostAsync("/api/space/recordings/free", null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await fixture.Anonymous().GetAsync($"/api/lessons/{lesson}/files.zip")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }
}
