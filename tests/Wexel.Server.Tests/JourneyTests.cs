using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Documents;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Tests;

public sealed class JourneyTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    [Theory]
    [InlineData("/api/lessons")]
    [InlineData("/api/queue")]
    [InlineData("/api/board")]
    [InlineData("/api/me")]
    [InlineData("/api/profiles")]
    [InlineData("/api/recordings/abc")]
    [InlineData("/api/recordings/abc/view")]
    [InlineData("/api/nothing-of-the-kind")]
    [InlineData("/openapi/v1.json")]
    [InlineData("/live")]
    public async Task Nothing_of_the_trainers_side_is_reached_without_signing_in(string address)
    {
        (await fixture.Anonymous().GetAsync(address)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        if (address != "/api/me")
            (await (await fixture.SignedInAsync(ServerFixture.Learner)).GetAsync(address)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_wrong_password_gets_a_sentence()
    {
        var answer = await fixture.Anonymous().PostAsJsonAsync("/api/sign-in", new { email = ServerFixture.Learner, password = "no" });
        answer.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await answer.ProblemAsync()).GetProperty("detail").GetString().ShouldBe("That address and password do not go together. Check both and try again.");
    }

    [Fact]
    public async Task Bad_recordings_are_refused_in_a_sentence_and_leave_nothing()
    {
        var trainer = await fixture.SignedInAsync();
        var before = Directory.EnumerateFiles(Path.Combine(fixture.Data, "recordings")).Count();
        var refused = await PutAsync(trainer, "../../\"no'te\" 🚢.mp4", Encoding.UTF8.GetBytes("just text"));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var problem = await refused.ProblemAsync();
        problem.GetProperty("code").GetString().ShouldBe("recording-unreadable");
        problem.GetProperty("detail").GetString()!.ShouldStartWith("“\"no'te\" 🚢.mp4” is not a video file");
        (await (await PutAsync(trainer, "empty.mp4", [])).ProblemAsync()).GetProperty("code").GetString().ShouldBe("recording-empty");
        Directory.EnumerateFiles(Path.Combine(fixture.Data, "recordings")).Count().ShouldBe(before);
        Directory.EnumerateFiles(Path.Combine(fixture.Data, "arriving")).ShouldBeEmpty();
    }

    [Fact]
    public async Task The_same_bytes_brought_in_twice_are_recognised()
    {
        var trainer = await fixture.SignedInAsync();
        var bytes = await File.ReadAllBytesAsync(fixture.Recording);
        var answer = await (await PutAsync(trainer, "another name.mov", bytes)).Content.ReadFromJsonAsync<JsonElement>();
        answer.GetProperty("knownBefore").GetBoolean().ShouldBeTrue();
    }

    [Fact]
    public async Task A_full_disk_is_noticed_before_the_work_starts()
    {
        await using var scope = fixture.Server.Services.CreateAsyncScope();
        var options = scope.ServiceProvider.GetRequiredService<Microsoft.Extensions.Options.IOptions<WexelOptions>>().Value;
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        options.KeepFree = long.MaxValue / 2;
        try
        {
            (await (await PutAsync(trainer, "a.mp4", [1, 2, 3])).ProblemAsync()).GetProperty("code").GetString().ShouldBe("disk-full");
            var render = await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "web" } });
            render.StatusCode.ShouldBe(HttpStatusCode.InsufficientStorage);
        }
        finally
        {
            options.KeepFree = 0;
        }
    }

    [Fact]
    public async Task Saving_makes_a_revision_and_two_people_do_not_overwrite_each_other()
    {
        var trainer = await fixture.SignedInAsync();
        var id = await LessonAsync(trainer);
        var lesson = await trainer.JsonAsync($"/api/lessons/{id}");
        var revision = lesson.GetProperty("revision").GetInt32();
        var document = JsonSerializer.Deserialize<Dictionary<string, object>>(lesson.GetProperty("document").GetRawText())!;
        document["description"] = $"<b>{Guid.NewGuid()}</b>";
        Task<HttpResponseMessage> SaveAsync() => trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = revision, document });
        var saved = await (await SaveAsync()).Content.ReadFromJsonAsync<JsonElement>();
        saved.GetProperty("revision").GetInt32().ShouldBe(revision + 1);
        document["description"] = "other";
        var second = await SaveAsync();
        second.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await second.ProblemAsync()).GetProperty("code").GetString().ShouldBe("lesson-saved-by-another");
    }

    [Fact]
    public async Task What_is_cut_is_said_before_closes_up_everywhere_and_comes_back()
    {
        var trainer = await fixture.SignedInAsync();
        var clip = Path.Combine(fixture.Data, "raw.mp4");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-y",
                "-f",
                "lavfi",
                "-i",
                "testsrc2=s=320x180:r=30:d=6",
                "-f",
                "lavfi",
                "-i",
                "sine=d=6",
                "-pix_fmt",
                "yuv420p",
                clip,
            ])
            .ExecuteAsync();
        var id = (await (await PutAsync(trainer, "Ropes raw.mp4", await File.ReadAllBytesAsync(clip))).Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("lessonId")
            .GetGuid();
        var track = (
            await (
                await trainer.PutAsync(
                    "/api/captions?fileName=a.vtt&language=en",
                    Octets("WEBVTT\n\n00:00.500 --> 00:01.500\nFirst\n\n00:04.000 --> 00:05.000\nLast\n"u8.ToArray())
                )
            ).Content.ReadFromJsonAsync<JsonElement>()
        ).GetProperty("track");
        async Task<HttpResponseMessage> SaveAsync(object[] cuts)
        {
            var now = await trainer.JsonAsync($"/api/lessons/{id}");
            var document = JsonSerializer.Deserialize<Dictionary<string, object>>(now.GetProperty("document").GetRawText())!;
            (document["cuts"], document["captions"]) = (cuts, new[] { track });
            document["sections"] = new object[]
            {
                new
                {
                    id = "a",
                    at = 0,
                    title = "A",
                    nested = false,
                },
                new
                {
                    id = "b",
                    at = 2000,
                    title = "B",
                    nested = false,
                },
                new
                {
                    id = "c",
                    at = 4000,
                    title = "C",
                    nested = false,
                },
            };
            return await trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = now.GetProperty("revision").GetInt32(), document });
        }

        (await SaveAsync([])).EnsureSuccessStatusCode();
        object[] cuts = [new { start = 0, end = 1000 }, new { start = 1900, end = 4100 }];
        var outcome = await (await trainer.PostAsJsonAsync($"/api/lessons/{id}/cuts/outcome", new { cuts })).Content.ReadFromJsonAsync<JsonElement>();
        outcome.GetProperty("length").GetInt64().ShouldBe(2800);
        outcome.GetProperty("gone").EnumerateArray().Select(s => s.GetString()).ShouldBe(["the section “B”"]);
        (await (await SaveAsync([new { start = 0, end = 6000 }])).ProblemAsync()).GetProperty("code").GetString().ShouldBe("cuts-everything");

        var saved = await (await SaveAsync(cuts)).Content.ReadFromJsonAsync<JsonElement>();
        saved.GetProperty("length").GetInt64().ShouldBe(2800);
        (await trainer.JsonAsync("/api/lessons"))
            .EnumerateArray()
            .SelectMany(c => c.GetProperty("lessons").EnumerateArray())
            .Single(l => l.GetProperty("id").GetGuid() == id)
            .GetProperty("length")
            .GetInt64()
            .ShouldBe(2800);
        await trainer.UntilAsync($"/api/lessons/{id}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { id }, profiles = new[] { "web" } })).EnsureSuccessStatusCode();
        var delivered = await trainer.UntilAsync($"/api/lessons/{id}/deliver", d =>
            d.GetProperty("renditions").EnumerateArray().Any(r => r.GetProperty("state").GetString() is "done" or "failed")
        );
        delivered.GetProperty("renditions")[0].GetProperty("check").EnumerateArray().ShouldAllBe(f => f.GetProperty("verdict").GetString() == "right");

        // What learners get is in lesson time: B is gone, C starts where it is first kept, and captions keep their part.
        var channel = (await trainer.JsonAsync($"/api/lessons/{id}/releases"))
            .EnumerateArray()
            .Single(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("id")
            .GetString();
        var release = await (
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{id}/releases",
                new
                {
                    outletId = channel,
                    profileId = "web",
                    visibility = "withLink",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var page = await fixture.Anonymous().GetStringAsync(new Uri(release.GetProperty("release").GetProperty("link").GetString()!).AbsolutePath);
        var data = page[(page.IndexOf("\"wexel-lesson\"", StringComparison.Ordinal) + 1)..];
        var lesson = JsonDocument
            .Parse(data[data.IndexOf('{', StringComparison.Ordinal)..data.IndexOf("</script>", StringComparison.Ordinal)])
            .RootElement.GetProperty("lesson");
        lesson.GetProperty("length").GetInt64().ShouldBe(2800);
        lesson
            .GetProperty("sections")
            .EnumerateArray()
            .Select(s => (s.GetProperty("title").GetString(), s.GetProperty("at").GetInt64()))
            .ShouldBe([("A", 0L), ("C", 900L)]);
        lesson
            .GetProperty("captions")[0]
            .GetProperty("cues")
            .EnumerateArray()
            .Select(c => (c.GetProperty("span").GetProperty("start").GetInt64(), c.GetProperty("span").GetProperty("end").GetInt64()))
            .ShouldBe([(0L, 500L), (900L, 1800L)]);

        (await (await SaveAsync([])).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("length").GetInt64().ShouldBeInRange(6000, 6100);
    }

    [Fact]
    public async Task From_a_render_to_a_learner_who_completes()
    {
        var trainer = await fixture.SignedInAsync();
        var id = await LessonAsync(trainer);
        await trainer.UntilAsync($"/api/lessons/{id}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { id }, profiles = new[] { "small-480p" } })).EnsureSuccessStatusCode();
        var delivered = await trainer.UntilAsync($"/api/lessons/{id}/deliver", d =>
            d.GetProperty("renditions")
                .EnumerateArray()
                .Any(r => r.GetProperty("profileTitle").GetString() == "Small 480p" && r.GetProperty("state").GetString() == "done")
        );
        var rendition = delivered.GetProperty("renditions").EnumerateArray().First(r => r.GetProperty("profileTitle").GetString() == "Small 480p");
        rendition.GetProperty("check").EnumerateArray().ShouldAllBe(f => f.GetProperty("verdict").GetString() == "right");

        // The mail went out through real SMTP into the stand-in mailbox.
        var mails = await fixture.Outside.Client.UntilAsync("mail.json", m =>
            m.EnumerateArray()
                .Any(x =>
                    x.GetProperty("subject").GetString()!.StartsWith("Ready: ", StringComparison.Ordinal)
                    && x.GetProperty("text").GetString()!.Contains("Small 480p", StringComparison.Ordinal)
                )
        );
        mails.EnumerateArray().ShouldContain(m => m.GetProperty("to").GetString() == ServerFixture.Trainer);

        // The channel: hidden from whoever is not signed in, until it is opened to the link.
        var outlets = (await trainer.JsonAsync($"/api/lessons/{id}/releases")).EnumerateArray().ToList();
        var channel = outlets.First(o => o.GetProperty("kind").GetString() == "channel").GetProperty("id").GetString();
        async Task<JsonElement> ReleaseAsync(string outlet, string visibility)
        {
            var answer = await trainer.PostAsJsonAsync(
                $"/api/lessons/{id}/releases",
                new
                {
                    outletId = outlet,
                    profileId = "small-480p",
                    visibility,
                }
            );
            answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
            return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("release");
        }

        var release = await ReleaseAsync(channel!, "signedIn");
        release.GetProperty("embedWarning").GetString().ShouldNotBeNull();
        var watch = new Uri(release.GetProperty("link").GetString()!).AbsolutePath;
        (await fixture.Anonymous().GetAsync(watch)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await fixture.Anonymous().GetAsync(watch + "/video.mp4")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await (await fixture.SignedInAsync(ServerFixture.Learner)).GetAsync(watch)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var opened = await ReleaseAsync(channel!, "withLink");
        opened.GetProperty("link").GetString().ShouldBe(release.GetProperty("link").GetString());
        opened.GetProperty("embedWarning").ValueKind.ShouldBe(JsonValueKind.Null);

        // Ranges (RFC 9110, section 14): a learner's browser asks for parts.
        var ask = new HttpRequestMessage(HttpMethod.Get, watch + "/video.mp4") { Headers = { Range = new RangeHeaderValue(100, 199) } };
        var part = await fixture.Anonymous().SendAsync(ask);
        part.StatusCode.ShouldBe(HttpStatusCode.PartialContent);
        (await part.Content.ReadAsByteArrayAsync()).Length.ShouldBe(100);

        // Watching: the union counts, not the furthest point.
        var learner = fixture.Anonymous();
        using var scope = fixture.Server.Services.CreateScope();
        var pageOpened = scope.ServiceProvider.GetRequiredService<Learning.OpenedPages>().At(new DateTimeOffset(DateTime.UtcNow.AddMinutes(-1), TimeSpan.Zero));
        async Task<JsonElement> ReportAsync(long[][] watched, long position)
        {
            // A minute has passed since the last time.
            await scope
                .ServiceProvider.GetRequiredService<WexelDb>()
                .Database.ExecuteSqlRawAsync(
                    """update "LearnerRecords" set "State" = jsonb_set("State", '{{seenLastAt}}', """
                        + """to_jsonb(("State"->>'seenLastAt')::timestamptz - interval '1 minute'))"""
                );
            return await (
                await learner.PostAsJsonAsync(
                    watch + "/progress",
                    new
                    {
                        learner = "k1",
                        watched,
                        position,
                        opened = pageOpened,
                    }
                )
            ).Content.ReadFromJsonAsync<JsonElement>();
        }

        (
            await ReportAsync(
                [
                    [12_000, 16_000],
                ],
                16_000
            )
        ).GetProperty("complete").GetBoolean().ShouldBeFalse();
        (
            await ReportAsync(
                [
                    [0, 9_500],
                ],
                9_500
            )
        ).GetProperty("complete").GetBoolean().ShouldBeFalse();
        (
            await ReportAsync(
                [
                    [9_000, 12_800],
                ],
                12_800
            )
        ).GetProperty("complete").GetBoolean().ShouldBeTrue();
        (await learner.JsonAsync(watch + "/progress?learner=k1")).GetProperty("position").GetInt64().ShouldBe(12_800);
        (await learner.JsonAsync(watch + "/progress?learner=other")).GetProperty("watched").GetArrayLength().ShouldBe(0);
        (await trainer.JsonAsync($"/api/lessons/{id}/results"))
            .GetProperty("learners")
            .EnumerateArray()
            .ShouldContain(r => r.GetProperty("completedAt").ValueKind == JsonValueKind.String);

        // The web folder, unpacked by a host that knows nothing of Wexel.
        var host = outlets.First(o => o.GetProperty("kind").GetString() == "webServer").GetProperty("id").GetString();
        var packed = await ReleaseAsync(host!, "withLink");
        var zip = await trainer.GetByteArrayAsync(packed.GetProperty("package").GetProperty("link").GetString());
        using (var archive = new ZipArchive(new MemoryStream(zip)))
            archive
                .Entries.Select(e => e.FullName)
                .ShouldBe(packed.GetProperty("package").GetProperty("files").EnumerateArray().Select(f => f.GetProperty("path").GetString()));
        (await fixture.Outside.Client.PutAsync("sites/till", new ByteArrayContent(zip))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await fixture.Outside.Client.GetStringAsync("sites/till/Closing%20the%20till/index.html")).ShouldContain("<title>Closing the till</title>");

        // A changed title needs no encoding, and the link stays.
        var lesson = await trainer.JsonAsync($"/api/lessons/{id}");
        var changed = lesson.GetProperty("document").GetRawText().Replace("Coins", "Coins & <notes>", StringComparison.Ordinal);
        (
            await trainer.PutAsync(
                $"/api/lessons/{id}/document",
                new StringContent($$"""{"basedOn":{{lesson.GetProperty("revision").GetInt32()}},"document":{{changed}}}""", Encoding.UTF8, "application/json")
            )
        ).EnsureSuccessStatusCode();
        (await trainer.JsonAsync("/api/board"))
            .GetProperty("lessons")
            .EnumerateArray()
            .SelectMany(r => r.GetProperty("cells").EnumerateArray())
            .ShouldContain(c => c.ValueKind == JsonValueKind.Object && c.GetProperty("phase").GetString() == "behind");
        async Task<string[]> EncodesAsync() =>
            [
                .. (await trainer.JsonAsync($"/api/lessons/{id}/deliver"))
                    .GetProperty("renditions")
                    .EnumerateArray()
                    .Where(r => r.GetProperty("profileTitle").GetString() == "Small 480p")
                    .Select(r => r.GetRawText()),
            ];
        var encodes = await EncodesAsync();
        (await ReleaseAsync(channel!, "withLink")).GetProperty("behind").GetBoolean().ShouldBeFalse();
        (await EncodesAsync()).ShouldBe(encodes);
        (await fixture.Anonymous().GetStringAsync(watch)).ShouldContain("Coins \\u0026 \\u003Cnotes\\u003E");
    }

    [Fact]
    public async Task A_render_whose_server_died_is_done_again_and_a_cancelled_one_leaves_nothing()
    {
        var trainer = await fixture.SignedInAsync();
        var id = await LessonAsync(trainer);
        await trainer.UntilAsync($"/api/lessons/{id}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        var lost = await LostAsync(id, attempts: 1);
        JsonElement Of(JsonElement queue) => queue.EnumerateArray().First(r => r.GetProperty("id").GetGuid() == lost);
        await trainer.UntilAsync("/api/queue", q => Of(q).GetProperty("state").GetString() == "working" && Of(q).GetProperty("progress").GetDouble() > 0);
        (await trainer.PostAsync($"/api/renditions/{lost}/cancel", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await trainer.PostAsync($"/api/renditions/{lost}/cancel", null)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        for (var i = 0; i < 50 && Directory.EnumerateFiles(fixture.Data, ".making-*", SearchOption.AllDirectories).Any(); i++)
            await Task.Delay(100);
        Directory.EnumerateFiles(fixture.Data, ".making-*", SearchOption.AllDirectories).ShouldBeEmpty();
        Of(await trainer.JsonAsync("/api/queue")).GetProperty("state").GetString().ShouldBe("cancelled");
    }

    /// <summary>What brings down every server that takes it would otherwise be taken by the next, for ever.</summary>
    [Fact]
    public async Task A_render_over_which_servers_die_again_and_again_fails_with_a_sentence()
    {
        var trainer = await fixture.SignedInAsync();
        var id = await LessonAsync(trainer);
        await trainer.UntilAsync($"/api/lessons/{id}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        var lost = await LostAsync(id, attempts: 4);
        var queue = await trainer.UntilAsync("/api/queue", q =>
            q.EnumerateArray().Any(r => r.GetProperty("id").GetGuid() == lost && r.GetProperty("state").GetString() == "failed")
        );
        queue
            .EnumerateArray()
            .First(r => r.GetProperty("id").GetGuid() == lost)
            .GetProperty("said")
            .GetString()
            .ShouldBe("The server ended 4 times while this was made.");
    }

    /// <summary>As a killed server leaves a rendition: "working", and no sign of life any more.</summary>
    private async Task<Guid> LostAsync(Guid id, int attempts)
    {
        await using var db = await fixture.Server.Services.GetRequiredService<IDbContextFactory<WexelDb>>().CreateDbContextAsync();
        var lesson = await db.Lessons.FirstAsync(l => l.Id == id);
        var batch = new RenderBatch
        {
            RequestedBy = (await db.Users.FirstAsync(u => u.Email == ServerFixture.Trainer)).Id,
            RequestedAt = DateTimeOffset.UtcNow,
        };
        var rendition = new Rendition
        {
            LessonId = id,
            Revision = lesson.Revision,
            ProfileId = "web-720p",
            Profile = WexelJson.Write(Core.Encoding.Profiles.Web720),
            BatchId = batch.Id,
            Batch = batch,
            EncodeKey = "",
            State = RenditionState.Working,
            SignOfLifeAt = DateTimeOffset.UtcNow.AddMinutes(-1),
            Attempts = attempts,
            RequestedAt = DateTimeOffset.UtcNow,
        };
        db.Renditions.Add(rendition);
        await db.SaveChangesAsync();
        return rendition.Id;
    }

    [Fact]
    public async Task Contents_and_captions_say_what_cannot_be_read()
    {
        var trainer = await fixture.SignedInAsync();
        var reading = await (
            await trainer.PostAsJsonAsync("/api/contents/read", new { text = "0:00 Welcome\nnothing" })
        ).Content.ReadFromJsonAsync<JsonElement>();
        reading.GetProperty("lines").GetArrayLength().ShouldBe(1);
        reading.GetProperty("problems")[0].GetProperty("field").GetString().ShouldBe("line 2");
        var added = await (
            await trainer.PutAsync("/api/captions?fileName=a.srt&language=en", Octets("1\n00:00:01,000 --> 00:00:02,000\n<b>Hi</b>\n"u8.ToArray()))
        ).Content.ReadFromJsonAsync<JsonElement>();
        var cues = await trainer.JsonAsync($"/api/captions/{added.GetProperty("track").GetProperty("hash").GetString()}");
        cues[0].GetProperty("text").GetString().ShouldBe("Hi");
    }

    private static async Task<Guid> LessonAsync(HttpClient trainer) =>
        (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();

    private static async Task<HttpResponseMessage> PutAsync(HttpClient client, string fileName, byte[] bytes) =>
        await client.PutAsync($"/api/recordings?fileName={Uri.EscapeDataString(fileName)}", Octets(bytes));

    private static ByteArrayContent Octets(byte[] bytes) => new(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };
}
