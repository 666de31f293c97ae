using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using static Wexel.Server.Tests.ReleaseJobTests;

namespace Wexel.Server.Tests;

/// <summary>What somebody says of a release while it is on its way holds; a place that refuses stops alone.</summary>
public sealed class ReleaseOvertakenTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    [Fact]
    public async Task Whoever_speaks_last_has_it_also_while_it_is_on_its_way()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var channel = (await PlacesAsync(trainer, lesson)).Single(p => p.GetProperty("kind").GetString() == "channel");
        // Each wish comes while the job works on the one before, or while another is written down.
        var said = Enumerable.Range(0, 12).Select(i => i % 2 == 0 ? "withLink" : "signedIn").ToList();
        var all = await Task.WhenAll(
            said.Select(
                async (visibility, i) =>
                {
                    await Task.Delay(40 * (i / 2));
                    return await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, channel, visibility) } });
                }
            )
        );
        all.ShouldAllBe(a => a.IsSuccessStatusCode);
        async Task<JsonElement> EndedAsync() =>
            (
                await trainer.UntilAsync($"/api/lessons/{lesson}/releases", now =>
                    now.EnumerateArray().Where(p => p.GetProperty("kind").GetString() == "channel").All(HasEnded)
                )
            )
                .EnumerateArray()
                .Single(p => p.GetProperty("kind").GetString() == "channel");
        var live = await EndedAsync();
        Phase(live).ShouldBe("live");
        live.GetProperty("release")
            .GetProperty("visibility")
            .GetString()
            .ShouldBe(live.GetProperty("way").GetProperty("visibility").GetString(), "what stands is what was wanted last");

        // What is said of who may see it, while it is on its way again, is not undone by the job.
        var id = live.GetProperty("way").GetProperty("id").GetGuid();
        foreach (var visibility in new[] { "signedIn", "withLink", "signedIn" })
        {
            var other = visibility == "signedIn" ? "withLink" : "signedIn";
            (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, channel, other) } })).EnsureSuccessStatusCode();
            (await trainer.PutAsJsonAsync($"/api/releases/{id}/visibility", new { visibility })).EnsureSuccessStatusCode();
            (await EndedAsync()).GetProperty("release").GetProperty("visibility").GetString().ShouldBe(visibility);
        }
    }

    /// <summary>Somebody reads a release, its worker writes, and then what they say is written: it holds, also where it was so when they read it.</summary>
    [Fact]
    public async Task What_is_said_holds_also_where_a_worker_wrote_between_reading_and_saying()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var channel = (await PlacesAsync(trainer, lesson)).Single(p => p.GetProperty("kind").GetString() == "channel");
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, channel, "signedIn") } })).EnsureSuccessStatusCode();
        JsonElement There(JsonElement all) => all.EnumerateArray().Single(p => p.GetProperty("kind").GetString() == "channel");
        var id = There(await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => HasEnded(There(all)))).GetProperty("way").GetProperty("id").GetGuid();

        using var scope = fixture.Server.Services.CreateScope();
        var (db, releaser) = (scope.ServiceProvider.GetRequiredService<WexelDb>(), scope.ServiceProvider.GetRequiredService<Releases.Releaser>());
        var read = await db.Releases.IgnoreQueryFilters().Include(r => r.Outlet).Include(r => r.Lesson).FirstAsync(r => r.Id == id);
        await WorkerAsync(set => set.SetProperty(r => r.Visibility, Visibility.WithLink));
        (await releaser.OpenAsync(read, new Opening(Visibility.SignedIn), null, TestContext.Current.CancellationToken)).ShouldBeNull();
        (await RowAsync(fixture, id)).Visibility.ShouldBe(Visibility.SignedIn);

        // Wanted anew and read, and live by the worker before it is taken down.
        await WorkerAsync(set => set.SetProperty(r => r.Phase, ReleasePhase.Planned));
        await db.Entry(read).ReloadAsync();
        await WorkerAsync(set => set.SetProperty(r => r.Phase, ReleasePhase.Live));
        await releaser.TakeDownAsync([read], TestContext.Current.CancellationToken);
        await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => Phase(There(all)) == "takenDown");
        (await RowAsync(fixture, id)).Phase.ShouldBe(ReleasePhase.TakenDown);

        async Task WorkerAsync(Action<Microsoft.EntityFrameworkCore.Query.UpdateSettersBuilder<Release>> writes)
        {
            await using var other = await fixture.Server.Services.GetRequiredService<IDbContextFactory<WexelDb>>().CreateDbContextAsync();
            await other.Releases.IgnoreQueryFilters().Where(r => r.Id == id).ExecuteUpdateAsync(writes);
        }
    }

    [Fact]
    public async Task Sending_is_stopped_and_an_outlet_that_is_being_sent_to_is_not_removed()
    {
        // A place that takes a package and never says that it has it.
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var silent = new TcpListener(IPAddress.Loopback, ServerFixture.SilentPort);
        silent.Start();
        var there = await (
            await trainer.PostAsJsonAsync(
                "/api/outlets/learningSystem",
                new
                {
                    name = "Silent school",
                    settings = new { },
                    deliverBy = "put",
                    deliverTo = $"http://127.0.0.1:{ServerFixture.SilentPort}/",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var outlet = there.GetProperty("id").GetGuid();
        JsonElement Named(JsonElement all) => all.EnumerateArray().Single(p => p.GetProperty("id").GetGuid() == outlet);
        try
        {
            var place = Named(await trainer.JsonAsync($"/api/lessons/{lesson}/releases"));
            (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, place) } })).EnsureSuccessStatusCode();
            var sending = Named(await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => Phase(Named(all)) == "sending"));
            (await (await trainer.DeleteAsync($"/api/outlets/{outlet}")).ProblemAsync()).GetProperty("code").GetString()!.ShouldStartWith("outlet-");
            var id = sending.GetProperty("way").GetProperty("id").GetGuid();
            (await trainer.PostAsync($"/api/releases/{id}/stop", null)).EnsureSuccessStatusCode();
            var stopped = Named(await trainer.JsonAsync($"/api/lessons/{lesson}/releases"));
            Phase(stopped).ShouldBe("failed");
            stopped.GetProperty("way").GetProperty("problem").GetProperty("code").GetString().ShouldBe("release-stopped");
            // The worker lets go of it, and taking it down is not kept waiting.
            (await trainer.DeleteAsync($"/api/releases/{id}")).EnsureSuccessStatusCode();
            Phase(Named(await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))).ShouldBe("takenDown");
        }
        finally
        {
            silent.Stop();
        }

        (await trainer.DeleteAsync($"/api/outlets/{outlet}")).EnsureSuccessStatusCode();
    }

    /// <summary>RFC 9110, section 15.3.3: 202 says that something was accepted, and points to where its state is told; section 10.2.3: when to ask.</summary>
    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task What_the_other_side_makes_ready_is_live_once_it_says_so(bool ready)
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var (asked, may) = (0, new TaskCompletionSource());
        using var school = new HttpListener { Prefixes = { $"http://127.0.0.1:{ServerFixture.SilentPort}/" } };
        school.Start();
        var serving = ServeAsync();
        var there = await (
            await trainer.PostAsJsonAsync(
                "/api/outlets/learningSystem",
                new
                {
                    name = ready ? "Slow school" : "Broken school",
                    settings = new { },
                    deliverBy = "put",
                    deliverTo = $"http://127.0.0.1:{ServerFixture.SilentPort}/",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var outlet = there.GetProperty("id").GetGuid();
        JsonElement Named(JsonElement all) => all.EnumerateArray().Single(p => p.GetProperty("id").GetGuid() == outlet);
        var place = Named(await trainer.JsonAsync($"/api/lessons/{lesson}/releases"));
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, place) } })).EnsureSuccessStatusCode();
        await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => Phase(Named(all)) == "processingThere");
        may.SetResult();
        var ended = Named(await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => HasEnded(Named(all))));
        asked.ShouldBeGreaterThan(1);
        if (ready)
        {
            Phase(ended).ShouldBe("live");
            ended.GetProperty("release").GetProperty("package").GetProperty("sent").GetProperty("to").GetString()!.ShouldEndWith("/courses/7");
        }
        else
        {
            Phase(ended).ShouldBe("failed");
            ended
                .GetProperty("way")
                .GetProperty("problem")
                .GetProperty("sentence")
                .GetString()!
                .ShouldEndWith("could not make it ready: The video is damaged.");
        }

        (await trainer.DeleteAsync($"/api/releases/{ended.GetProperty("way").GetProperty("id").GetGuid()}")).EnsureSuccessStatusCode();
        (await trainer.DeleteAsync($"/api/outlets/{outlet}")).EnsureSuccessStatusCode();
        school.Stop();
        await serving;

        async Task ServeAsync()
        {
            while (school.IsListening)
            {
                HttpListenerContext http;
                try
                {
                    http = await school.GetContextAsync();
                }
                catch (Exception ended) when (ended is HttpListenerException or ObjectDisposedException)
                {
                    return;
                }

                if (http.Request.HttpMethod == "PUT")
                {
                    await http.Request.InputStream.CopyToAsync(Stream.Null);
                    (http.Response.StatusCode, http.Response.RedirectLocation) = (202, "/state/7");
                }
                else
                {
                    asked++;
                    http.Response.AddHeader("Retry-After", "0");
                    if (!may.Task.IsCompleted || asked < 2)
                        http.Response.StatusCode = 202;
                    else if (ready)
                        (http.Response.StatusCode, http.Response.RedirectLocation) = (303, "/courses/7");
                    else
                    {
                        http.Response.StatusCode = 422;
                        http.Response.OutputStream.Write("""{ "detail": "The video is damaged." }"""u8);
                    }
                }

                http.Response.Close();
            }
        }
    }

    [Fact]
    public async Task What_cannot_be_taken_away_stays_says_why_and_goes_when_it_is_tried_again()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var (locked, files) = (true, new System.Collections.Concurrent.ConcurrentDictionary<string, int>());
        using var host = new HttpListener { Prefixes = { $"http://127.0.0.1:{ServerFixture.SilentPort}/" } };
        host.Start();
        var serving = ServeAsync();
        var there = await (
            await trainer.PostAsJsonAsync(
                "/api/outlets/webServer",
                new
                {
                    name = "Locked host",
                    settings = new { },
                    deliverBy = "put",
                    deliverTo = $"http://127.0.0.1:{ServerFixture.SilentPort}/",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var outlet = there.GetProperty("id").GetGuid();
        JsonElement Named(JsonElement all) => all.EnumerateArray().Single(p => p.GetProperty("id").GetGuid() == outlet);
        var place = Named(await trainer.JsonAsync($"/api/lessons/{lesson}/releases"));
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, place) } })).EnsureSuccessStatusCode();
        var live = Named(await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => HasEnded(Named(all))));
        Phase(live).ShouldBe("live");
        files.ShouldNotBeEmpty();

        var id = live.GetProperty("way").GetProperty("id").GetGuid();
        var refused = await trainer.DeleteAsync($"/api/releases/{id}");
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var still = Named(await trainer.JsonAsync($"/api/lessons/{lesson}/releases"));
        (Phase(still), still.GetProperty("way").GetProperty("takesDown").GetBoolean()).ShouldBe(("failed", true));
        still.GetProperty("release").ValueKind.ShouldBe(JsonValueKind.Object, "what stands there stands there");
        var cells = new[] { new { lessonId = lesson, outletId = outlet } };
        (await (await trainer.PostAsJsonAsync("/api/board/plan", new { action = "takeDown", cells })).Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("totals")
            .GetProperty("takenDown")
            .GetInt32()
            .ShouldBe(1, "tried again, there is something to do");

        // Nobody waits for the other side: the board is answered at once, and tells how it goes.
        locked = false;
        (await trainer.PostAsJsonAsync("/api/board/apply", new { action = "takeDown", cells })).EnsureSuccessStatusCode();
        await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => Phase(Named(all)) == "takenDown");
        files.ShouldBeEmpty();
        (await trainer.DeleteAsync($"/api/outlets/{outlet}")).EnsureSuccessStatusCode();
        host.Stop();
        await serving;

        async Task ServeAsync()
        {
            while (host.IsListening)
            {
                HttpListenerContext http;
                try
                {
                    http = await host.GetContextAsync();
                }
                catch (Exception ended) when (ended is HttpListenerException or ObjectDisposedException)
                {
                    return;
                }

                var path = http.Request.Url!.AbsolutePath;
                await http.Request.InputStream.CopyToAsync(Stream.Null);
                if (http.Request.HttpMethod == "PUT")
                    (http.Response.StatusCode, files[path]) = (201, 1);
                else if (locked)
                    http.Response.StatusCode = 403;
                else
                    http.Response.StatusCode = files.TryRemove(path, out _) ? 204 : 404;
                http.Response.Close();
            }
        }
    }

    [Fact]
    public async Task A_place_is_sent_no_more_at_once_than_its_kind_takes()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var most = Core.Outlets.OutletKinds.Shipped["learningSystem"].Terms(null).Takes.FilesAtATime!.Value;
        var (now, seen, taken) = (0, 0, 0);
        using var school = new HttpListener { Prefixes = { $"http://127.0.0.1:{ServerFixture.SilentPort}/" } };
        school.Start();
        var serving = ServeAsync();
        var there = await (
            await trainer.PostAsJsonAsync(
                "/api/outlets/learningSystem",
                new
                {
                    name = "Busy school",
                    settings = new { },
                    deliverBy = "put",
                    deliverTo = $"http://127.0.0.1:{ServerFixture.SilentPort}/",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var outlet = there.GetProperty("id").GetGuid();
        JsonElement Named(JsonElement all) => all.EnumerateArray().Single(p => p.GetProperty("id").GetGuid() == outlet);
        List<Guid> lessons = [lesson];
        for (var i = 0; i < most + 1; i++)
            lessons.Add(
                (await (await trainer.PostAsync($"/api/lessons/{lesson}/copy", null)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetGuid()
            );
        var place = Named(await trainer.JsonAsync($"/api/lessons/{lesson}/releases"));
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = lessons.Select(l => Wish(l, place)) })).EnsureSuccessStatusCode();
        foreach (var one in lessons)
            Phase(Named(await trainer.UntilAsync($"/api/lessons/{one}/releases", all => HasEnded(Named(all))))).ShouldBe("live");
        (taken, seen).ShouldBe((lessons.Count, most), "as many as it takes, and never more");
        var cells = lessons.Select(l => new { lessonId = l, outletId = outlet });
        (await trainer.PostAsJsonAsync("/api/board/apply", new { action = "takeDown", cells })).EnsureSuccessStatusCode();
        foreach (var one in lessons)
            await trainer.UntilAsync($"/api/lessons/{one}/releases", all => Phase(Named(all)) == "takenDown");
        (await trainer.DeleteAsync($"/api/outlets/{outlet}")).EnsureSuccessStatusCode();
        school.Stop();
        await serving;

        async Task ServeAsync()
        {
            while (school.IsListening)
            {
                try
                {
                    _ = TakeAsync(await school.GetContextAsync());
                }
                catch (Exception ended) when (ended is HttpListenerException or ObjectDisposedException)
                {
                    return;
                }
            }
        }

        async Task TakeAsync(HttpListenerContext http)
        {
            seen = Math.Max(seen, Interlocked.Increment(ref now));
            await http.Request.InputStream.CopyToAsync(Stream.Null);
            // Long enough for another to come meanwhile.
            await Task.Delay(1000);
            Interlocked.Decrement(ref now);
            Interlocked.Increment(ref taken);
            http.Response.StatusCode = 201;
            http.Response.Close();
        }
    }

    [Fact]
    public async Task A_recording_that_is_replaced_meanwhile_is_what_learners_get()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var take = new ByteArrayContent(await Pictures.MadeAsync(320, 180, ".mp4", "testsrc=d=3"));
        take.Headers.ContentType = new("application/octet-stream");
        var other = (await (await trainer.PutAsync("/api/recordings?fileName=another take.mp4", take)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty(
            "lessonId"
        );
        var hash = (await trainer.JsonAsync($"/api/lessons/{other}")).GetProperty("document").GetProperty("recordingHash").GetString();
        await trainer.UntilAsync($"/api/reels/{hash}", r => r.GetProperty("analysis") is { ValueKind: JsonValueKind.Object } a && IsThrough(a));
        var channel = (await PlacesAsync(trainer, lesson)).Single(p => p.GetProperty("kind").GetString() == "channel");

        var now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = JsonNode.Parse(now.GetProperty("document").GetRawText())!;
        document["title"] = "Closing the till, another take";
        (document["recordingHash"], document["sections"], document["captions"], document["cuts"]) = (hash, new JsonArray(), new JsonArray(), new JsonArray());
        var wanted = trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, channel) } });
        (
            await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = now.GetProperty("revision").GetInt32(), document })
        ).EnsureSuccessStatusCode();
        (await wanted).EnsureSuccessStatusCode();

        // What was on its way either came to an end as it was then, and is behind, or went on as it is now; wanted again, nothing is left of the first.
        JsonElement There(JsonElement all) => all.EnumerateArray().Single(p => p.GetProperty("kind").GetString() == "channel");
        Phase(There(await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => HasEnded(There(all))))).ShouldBe("live");
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, channel) } })).EnsureSuccessStatusCode();
        var live = There(await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => Phase(There(all)) == "live"));
        live.GetProperty("release").GetProperty("behind").GetBoolean().ShouldBeFalse();
        live.GetProperty("release").GetProperty("revision").GetInt32().ShouldBe(now.GetProperty("revision").GetInt32() + 1);
        var page = await fixture.Anonymous().GetStringAsync(new Uri(live.GetProperty("release").GetProperty("link").GetString()!).AbsolutePath);
        page.ShouldContain("another take");
        page.ShouldContain("\"length\":3000");

        static bool IsThrough(JsonElement analysis) => analysis.GetProperty("lookedUntil").ValueKind == JsonValueKind.Null;
    }

    [Fact]
    public async Task A_refused_place_stops_alone_and_trying_again_does_only_what_is_left()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var there = await (
            await trainer.PostAsJsonAsync(
                "/api/outlets/learningSystem",
                new
                {
                    name = "Nobody’s school",
                    settings = new { },
                    deliverBy = "put",
                    deliverTo = "http://localhost:5432/",
                }
            )
        ).Content.ReadFromJsonAsync<JsonElement>();
        var places = await PlacesAsync(trainer, lesson);
        var nobody = places.Single(p => p.GetProperty("name").GetString() == "Nobody’s school");
        var host = places.Single(p => p.GetProperty("kind").GetString() == "webServer");
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, nobody), Wish(lesson, host) } })).EnsureSuccessStatusCode();
        var ended = await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all =>
            all.EnumerateArray()
                .Where(p => p.GetProperty("name").GetString() is "Nobody’s school" || p.GetProperty("kind").GetString() == "webServer")
                .All(HasEnded)
        );
        JsonElement Named(JsonElement all) => all.EnumerateArray().Single(p => p.GetProperty("name").GetString() == "Nobody’s school");
        Phase(Named(ended)).ShouldBe("failed");
        Named(ended).GetProperty("way").GetProperty("problem").GetProperty("sentence").GetString()!.ShouldContain("localhost is this machine itself");
        Phase(ended.EnumerateArray().Single(p => p.GetProperty("kind").GetString() == "webServer")).ShouldBe("live");

        // Mended and tried again, nothing is packed anew.
        var id = Named(ended).GetProperty("way").GetProperty("id").GetGuid();
        var packed = (await RowAsync(fixture, id)).PackageKey;
        (
            await trainer.PutAsJsonAsync(
                $"/api/outlets/{there.GetProperty("id").GetGuid()}",
                new
                {
                    name = "Nobody’s school",
                    deliverBy = "put",
                    deliverTo = new Uri(fixture.Outside.Client.BaseAddress!, "learning/packages/").AbsoluteUri,
                }
            )
        ).EnsureSuccessStatusCode();
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, nobody) } })).EnsureSuccessStatusCode();
        Phase(Named(await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => HasEnded(Named(all))))).ShouldBe("live");
        (await RowAsync(fixture, id)).PackageKey.ShouldBe(packed);
    }
}
