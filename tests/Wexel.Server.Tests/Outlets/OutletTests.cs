using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Outlets;

namespace Wexel.Server.Tests.Outlets;

/// <summary>A server that knows one more kind of outlet.</summary>
public sealed class InfoScreenServer : ServerFixture
{
    protected override void Set(IWebHostBuilder host)
    {
        host.ConfigureTestServices(services => services.AddSingleton<OutletKind, InfoScreenKind>());
        host.UseSetting("Wexel:OutletFolders:0", Path.GetTempPath());
    }
}

/// <summary>Outlets of every kind are added, changed, released to and removed by the same means, whatever kinds there are.</summary>
public sealed class OutletTests(InfoScreenServer fixture) : IClassFixture<InfoScreenServer>
{
    private static object Outlet(string name, object? settings = null, string? by = null, string? to = null) =>
        new
        {
            name,
            settings = settings ?? new { },
            deliverBy = by,
            deliverTo = to,
        };

    private static async Task<JsonElement> AddAsync(HttpClient trainer, string kind, object outlet)
    {
        var answer = await trainer.PostAsJsonAsync($"/api/outlets/{kind}", outlet);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    [Fact]
    public async Task A_kind_of_which_only_its_own_folder_knows_is_added_planned_released_to_seen_and_taken_down()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await trainer.RenderedAsync("web-720p");
        var folder = Directory.CreateTempSubdirectory("wexel-screen-").FullName;

        // Added as the Kit adds it: the kinds say what they ask.
        var kind = (await trainer.JsonAsync("/api/outlet-kinds")).EnumerateArray().Single(k => k.GetProperty("code").GetString() == "infoScreen");
        (kind.GetProperty("fields")[0].GetProperty("label").GetString(), kind.GetProperty("deliveries")[0].GetProperty("askedFor").GetString()).ShouldBe(
            ("Hall", "Folder, as a whole path")
        );
        var outlet = await AddAsync(trainer, "infoScreen", Outlet("Hall screen", new { hall = "North hall" }, "folder", folder));
        (outlet.GetProperty("kindName").GetString(), outlet.GetProperty("usualProfile").GetString()).ShouldBe(("info screen", "web-720p"));

        // Planned: what it takes is known before anything is made.
        outlet.GetProperty("refuses").EnumerateArray().Select(r => r.GetProperty("profileId").GetString()).ShouldBe(["podcast-sound"]);

        // Released to.
        var id = outlet.GetProperty("id").GetString();
        var released = await (
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = id,
                    profileId = "web-720p",
                    visibility = "signedIn",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        released.GetProperty("byHand")[0].GetString().ShouldBe("The screen begins with it at the next full hour.");
        var release = released.GetProperty("release").GetProperty("id").GetString();
        // One press puts it there too.
        released.GetProperty("way").GetProperty("phase").GetString().ShouldBe("live");
        released.GetProperty("release").GetProperty("package").GetProperty("sent").GetProperty("behind").GetBoolean().ShouldBeFalse();
        var there = Path.Combine(folder, $"lesson-{Guid.Parse(lesson):N}");
        (await File.ReadAllTextAsync(Path.Combine(there, "now.txt"))).ShouldBe("North hall: Closing the till");
        var video = new FileInfo(Path.Combine(there, "play.mp4"));
        (video.Length, Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories).Count()).ShouldBe((video.Length, 2));

        // Seen on the board, in the lessons' list and among what was made.
        async Task<bool> BehindAsync()
        {
            var board = await trainer.JsonAsync("/api/board");
            var column = board.GetProperty("outlets").EnumerateArray().Index().Single(o => o.Item.GetProperty("name").GetString() == "Hall screen").Index;
            return board.GetProperty("lessons")[0].GetProperty("cells")[column].GetProperty("phase").GetString() == "behind";
        }

        (await BehindAsync()).ShouldBeFalse();
        (await trainer.JsonAsync("/api/lessons"))[0]
            .GetProperty("lessons")[0]
            .GetProperty("releases")
            .EnumerateArray()
            .ShouldContain(r => r.GetProperty("outlet").GetString() == "Hall screen" && !r.GetProperty("behind").GetBoolean());
        (await trainer.JsonAsync($"/api/lessons/{lesson}/files"))
            .GetProperty("files")
            .EnumerateArray()
            .ShouldContain(f => f.GetProperty("goesWith").EnumerateArray().Any(g => g.GetString() == "The screen “Hall screen” plays it no more."));

        // Its settings make it behind; brought up to date, only what changed is put.
        (await trainer.PutAsJsonAsync($"/api/outlets/{id}", Outlet("Hall screen", new { hall = "South hall" }, "folder", folder))).EnsureSuccessStatusCode();
        (await BehindAsync()).ShouldBeTrue();
        var before = File.GetLastWriteTimeUtc(video.FullName);
        (
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = id,
                    profileId = "web-720p",
                    visibility = "signedIn",
                }
            )
        ).EnsureSuccessStatusCode();
        (await BehindAsync()).ShouldBeFalse();
        (await File.ReadAllTextAsync(Path.Combine(there, "now.txt"))).ShouldBe("South hall: Closing the till");
        File.GetLastWriteTimeUtc(video.FullName).ShouldBe(before);

        // It cannot go while something stands there; taken down, what was put is gone, and then it can.
        var kept = await trainer.DeleteAsync($"/api/outlets/{id}");
        kept.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await kept.ProblemAsync())
            .GetProperty("detail")
            .GetString()
            .ShouldBe("A release stands at “Hall screen”. Take it down first, so that nobody follows a link to nothing.");
        (await trainer.DeleteAsync($"/api/releases/{release}")).EnsureSuccessStatusCode();
        Directory.EnumerateFileSystemEntries(folder).ShouldBeEmpty();
        (await trainer.DeleteAsync($"/api/outlets/{id}")).EnsureSuccessStatusCode();
        (await trainer.JsonAsync("/api/outlets")).EnumerateArray().ShouldNotContain(o => o.GetProperty("name").GetString() == "Hall screen");
        Directory.Delete(folder);
    }

    [Fact]
    public async Task A_lesson_lies_in_a_folder_of_its_name_and_two_of_one_name_lie_beside_each_other()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await trainer.RenderedAsync("web");
        var share = Directory.CreateTempSubdirectory("wexel-share-").FullName;
        // What somebody else keeps there is not touched.
        Directory.CreateDirectory(Path.Combine(share, "closing the till"));
        var outlet = await AddAsync(trainer, "folder", Outlet("Share of the quay", null, "wholeFolder", share));
        var id = outlet.GetProperty("id").GetString();
        async Task<JsonElement> ReleasedAsync(string of)
        {
            var answer = await trainer.PostAsJsonAsync(
                $"/api/lessons/{of}/releases",
                new
                {
                    outletId = id,
                    profileId = "web",
                    visibility = "signedIn",
                }
            );
            answer.EnsureSuccessStatusCode();
            return await answer.Content.ReadFromJsonAsync<JsonElement>();
        }

        var released = await ReleasedAsync(lesson);
        var there = Path.Combine(share, "Closing the till (2)");
        released.GetProperty("handsOn").GetProperty("folder").GetString().ShouldBe(there);
        released.GetProperty("handsOn").GetProperty("link").ValueKind.ShouldBe(JsonValueKind.Null);
        File.Exists(Path.Combine(there, "index.html")).ShouldBeTrue();
        File.Exists(Path.Combine(there, "player", "wexel-player.js")).ShouldBeTrue();
        // The ZIP has one folder too, so that two of them are unpacked beside each other.
        using (
            var zip = new System.IO.Compression.ZipArchive(
                await trainer.GetStreamAsync(released.GetProperty("release").GetProperty("package").GetProperty("link").GetString()!)
            )
        )
            zip.Entries.ShouldAllBe(e => e.FullName.StartsWith("Closing the till/", StringComparison.Ordinal));

        // Released again under another title, it stays where it is.
        var now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = System.Text.Json.Nodes.JsonNode.Parse(now.GetProperty("document").GetRawText())!;
        document["title"] = "NUL";
        (
            await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = now.GetProperty("revision").GetInt32(), document })
        ).EnsureSuccessStatusCode();
        (await ReleasedAsync(lesson)).GetProperty("handsOn").GetProperty("folder").GetString().ShouldBe(there);
        (await File.ReadAllTextAsync(Path.Combine(there, "index.html"))).ShouldContain("<title>NUL");

        (await trainer.DeleteAsync($"/api/releases/{released.GetProperty("release").GetProperty("id").GetString()}")).EnsureSuccessStatusCode();
        Directory.EnumerateFileSystemEntries(share).Select(Path.GetFileName).ShouldBe(["closing the till"]);
        // Wanted anew it has its new name, as Windows takes it.
        (await ReleasedAsync(lesson)).GetProperty("handsOn").GetProperty("folder").GetString().ShouldBe(Path.Combine(share, "NUL_"));
        document["title"] = "Closing the till";
        now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        (
            await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = now.GetProperty("revision").GetInt32(), document })
        ).EnsureSuccessStatusCode();
        (await trainer.DeleteAsync($"/api/releases/{released.GetProperty("release").GetProperty("id").GetString()}")).EnsureSuccessStatusCode();
        (await trainer.DeleteAsync($"/api/outlets/{id}")).EnsureSuccessStatusCode();
        Directory.Delete(share, recursive: true);
    }

    [Theory]
    [InlineData("channel", "Deck channel", """{ "about": "For the deck." }""", """{ "about": "For deck and engine." }""")]
    [InlineData("webServer", "Second server", """{ "page": "https://intranet.example/a/" }""", """{ "page": null }""")]
    [InlineData("learningSystem", "Second school", "{}", """{ "standard": "scorm12" }""")]
    [InlineData("podcastFeed", "Deck hands", """{ "title": "Deck hands", "media": "sound" }""", """{ "description": "Short ones." }""")]
    public async Task Every_kind_is_added_changed_and_removed(string kind, string name, string settings, string changed)
    {
        var trainer = await fixture.SignedInAsync();
        var outlet = await AddAsync(trainer, kind, Outlet(name, JsonSerializer.Deserialize<JsonElement>(settings)));
        var id = outlet.GetProperty("id").GetString();
        foreach (var (field, value) in JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(settings)!)
            outlet.GetProperty("settings").GetProperty(field).ToString().ShouldBe(value.ToString());
        outlet.GetProperty("settings").GetProperty("version").GetInt32().ShouldBe(kind == "channel" ? 2 : 1);

        var saved = await (
            await trainer.PutAsJsonAsync($"/api/outlets/{id}", Outlet(name, JsonSerializer.Deserialize<JsonElement>(changed)))
        ).Content.ReadFromJsonAsync<JsonElement>();
        foreach (var (field, value) in JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(changed)!)
            saved.GetProperty("settings").GetProperty(field).ToString().ShouldBe(value.ToString());
        // What was not said stays as it was.
        if (kind == "podcastFeed")
            saved.GetProperty("settings").GetProperty("media").GetString().ShouldBe("sound");
        (await trainer.DeleteAsync($"/api/outlets/{id}")).EnsureSuccessStatusCode();
        (await trainer.DeleteAsync($"/api/outlets/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData("channel", "", "{}", null, null, "outlet-without-name", "name")]
    [InlineData("newspaper", "Paper", "{}", null, null, "outlet-kind-unknown", "kind")]
    [InlineData("webServer", "W", """{ "page": "intranet" }""", null, null, "outlet-page-unusable", "page")]
    [InlineData("webServer", "W", "{}", "folder", "lessons", "delivery-folder-unusable", "deliverTo")]
    [InlineData("webServer", "W", "{}", "folder", "/tmp/there-is-no-such-folder", "delivery-folder-missing", "deliverTo")]
    [InlineData("webServer", "W", "{}", "folder", "/etc", "delivery-folder-elsewhere", "deliverTo")]
    [InlineData("webServer", "W", "{}", "folder", "/tmp/../etc", "delivery-folder-elsewhere", "deliverTo")]
    [InlineData("webServer", "W", "{}", "put", "ftp://x", "delivery-address-unusable", "deliverTo")]
    [InlineData("channel", "C", "{}", "put", "https://x.example/", "delivery-unknown", "deliverBy")]
    [InlineData("podcastFeed", "P", """{ "title": "" }""", null, null, "feed-without-title", "title")]
    [InlineData("infoScreen", "S", "{}", "folder", "/tmp", "screen-without-hall", "hall")]
    [InlineData("folder", "F", "{}", null, null, "delivery-without-folder", "deliverTo")]
    [InlineData("folder", "F", "{}", "wholeFolder", "/etc", "delivery-folder-elsewhere", "deliverTo")]
    [InlineData("folder", "F", "{}", "download", null, "delivery-unknown", "deliverBy")]
    public async Task What_cannot_be_used_is_said_and_nothing_is_added(
        string kind,
        string name,
        string settings,
        string? by,
        string? to,
        string code,
        string field
    )
    {
        var trainer = await fixture.SignedInAsync();
        var before = (await trainer.JsonAsync("/api/outlets")).GetArrayLength();
        var answer = await trainer.PostAsJsonAsync($"/api/outlets/{kind}", Outlet(name, JsonSerializer.Deserialize<JsonElement>(settings), by, to));
        var problem = await answer.ProblemAsync();
        (problem.GetProperty("code").GetString(), problem.GetProperty("field").GetString()).ShouldBe((code, field));
        (await trainer.JsonAsync("/api/outlets")).GetArrayLength().ShouldBe(before);
    }

    /// <summary>Whoever enters an address must not reach what this machine keeps for itself (OWASP, Server Side Request Forgery Prevention Cheat
    /// Sheet).</summary>
    [Fact]
    public async Task What_is_put_over_HTTP_goes_to_other_machines_only()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await trainer.RenderedAsync("web");
        var outlet = await AddAsync(trainer, "learningSystem", Outlet("Inside", null, "put", "http://localhost:5432/"));
        var refused = await trainer.PostAsJsonAsync(
            $"/api/lessons/{lesson}/releases",
            new
            {
                outletId = outlet.GetProperty("id").GetString(),
                profileId = "web",
                visibility = "signedIn",
            }
        );
        var problem = await refused.ProblemAsync();
        problem.GetProperty("code").GetString().ShouldBe("outlet-not-reached");
        problem.GetProperty("detail").GetString()!.ShouldContain("localhost is this machine itself");
    }

    [Theory]
    [InlineData("127.0.0.1", true)]
    [InlineData("127.8.0.1", true)]
    [InlineData("::1", true)]
    [InlineData("::ffff:127.0.0.1", true)]
    [InlineData("0.0.0.0", true)]
    [InlineData("169.254.169.254", true)]
    [InlineData("fe80::1", true)]
    [InlineData("10.1.2.3", false)]
    [InlineData("192.0.2.1", false)]
    [InlineData("2001:db8::1", false)]
    public void Which_addresses_are_inside(string address, bool inside) => Delivering.Http.OutsideOnly.IsInside(IPAddress.Parse(address)).ShouldBe(inside);
}
