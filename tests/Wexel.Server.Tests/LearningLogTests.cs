using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Wexel.Data;
using Wexel.Server.Learning;

namespace Wexel.Server.Tests;

/// <summary>What learners did is appended and never changed; what it comes to can be reckoned again, also from the time before there was a log.</summary>
public sealed class LearningLogTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private async Task<(HttpClient Trainer, Guid Lesson, string Watch)> WatchAsync()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        var link = (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .First(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("release")
            .GetProperty("link")
            .GetString()!;
        return (trainer, lesson, new Uri(link).AbsolutePath);
    }

    private async Task<JsonElement> ReportAsync(string watch, string learner, long[][] watched, long position, string? name = null)
    {
        var opened = fixture.Server.Services.GetRequiredService<OpenedPages>().At(DateTimeOffset.UtcNow - TimeSpan.FromMinutes(1));
        return await (
            await fixture
                .Anonymous()
                .PostAsJsonAsync(
                    watch + "/progress",
                    new
                    {
                        learner,
                        watched,
                        position,
                        opened,
                        @event = name,
                    }
                )
        ).Content.ReadFromJsonAsync<JsonElement>();
    }

    private async Task<JsonElement> KnownAsync(string watch, string learner) => await fixture.Anonymous().JsonAsync($"{watch}/progress?learner={learner}");

    private static string Without(JsonElement known, string name) =>
        string.Join(", ", known.EnumerateObject().Where(p => p.Name != name).Select(p => $"{p.Name} {p.Value}"));

    private async Task<T> InDatabaseAsync<T>(Func<WexelDb, IServiceProvider, Task<T>> work)
    {
        await using var scope = fixture.Server.Services.CreateAsyncScope();
        return await work(scope.ServiceProvider.GetRequiredService<WexelDb>(), scope.ServiceProvider);
    }

    private Task<int> EntriesAsync(string learner) => InDatabaseAsync((db, _) => db.LearningLog.CountAsync(e => e.LearnerKey == "link-" + learner));

    private Task<bool> ReckonedAsync() =>
        InDatabaseAsync(
            async (_, services) =>
            {
                await services.GetRequiredService<Projections>().DoAsync(TestContext.Current.CancellationToken);
                return true;
            }
        );

    [Fact]
    public async Task Somebody_who_is_removed_while_they_watch_is_told_and_what_they_watched_stays_in_the_counts()
    {
        var (trainer, lesson, watch) = await WatchAsync();
        const string mail = "sol.brief@brackwater.example";
        var id = await fixture.PersonAsync(mail, "Sol Brief");
        var learner = await fixture.SignedInAsync(mail);
        var opened = fixture.Server.Services.GetRequiredService<OpenedPages>().At(DateTimeOffset.UtcNow - TimeSpan.FromMinutes(1));
        Task<HttpResponseMessage> WatchesAsync() =>
            learner.PostAsJsonAsync(
                watch + "/progress",
                new
                {
                    learner = "x",
                    watched = new long[][] { [0, 4000] },
                    position = 4000,
                    opened,
                }
            );
        (await WatchesAsync()).StatusCode.ShouldBe(HttpStatusCode.OK);
        async Task<int> CountAsync() => (await InDatabaseAsync((db, _) => db.LearnerRecords.Where(r => r.LessonId == lesson).CountAsync()));
        var count = await CountAsync();
        await fixture.WithAsync(db => db.Releases.ExecuteUpdateAsync(set => set.SetProperty(r => r.Visibility, Core.People.Visibility.SignedIn)));
        (await trainer.PutAsync($"/api/people/{id}/disabled", null)).EnsureSuccessStatusCode();
        (await trainer.DeleteAsync($"/api/people/{id}/data")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await WatchesAsync()).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await (await learner.GetAsync(watch)).Content.ReadAsStringAsync()).ShouldContain("Please sign in");
        (await learner.GetAsync(watch + "/video.mp4")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await CountAsync()).ShouldBe(count);
        await fixture.WithAsync(db => db.Releases.ExecuteUpdateAsync(set => set.SetProperty(r => r.Visibility, Core.People.Visibility.Everybody)));
    }

    [Fact]
    public async Task A_report_that_comes_twice_counts_once()
    {
        var (_, _, watch) = await WatchAsync();
        var name = Guid.NewGuid().ToString("N");
        var once = await ReportAsync(
            watch,
            "twice",
            [
                [0, 4000],
            ],
            4000,
            name
        );
        var again = await ReportAsync(
            watch,
            "twice",
            [
                [0, 9000],
            ],
            9000,
            name
        );
        Without(again, "opened").ShouldBe(Without(once, "opened"));
        (await EntriesAsync("twice")).ShouldBe(1);
        // What says nothing new is not written down.
        await ReportAsync(
            watch,
            "twice",
            [
                [0, 4000],
            ],
            4000
        );
        (await EntriesAsync("twice")).ShouldBe(1);
        (
            await fixture
                .Anonymous()
                .PostAsJsonAsync(
                    watch + "/progress",
                    new
                    {
                        learner = "twice",
                        watched = Array.Empty<long[]>(),
                        position = 0,
                        @event = "7",
                    }
                )
        ).StatusCode.ShouldBe(System.Net.HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task What_the_log_comes_to_is_reckoned_again_and_is_the_same()
    {
        var (trainer, lesson, watch) = await WatchAsync();
        await ReportAsync(
            watch,
            "again",
            [
                [0, 16_000],
            ],
            15_000
        );
        await ReportAsync(
            watch,
            "again",
            [
                [1000, 2000],
            ],
            2000
        );
        var (before, row) = (await KnownAsync(watch, "again"), await RowAsync());
        before.GetProperty("position").GetInt64().ShouldBe(2000);
        await InDatabaseAsync((db, _) => db.LearnerRecords.ExecuteDeleteAsync());
        Without(await KnownAsync(watch, "again"), "opened").ShouldBe(Without(before, "opened"));
        await ReckonedAsync();
        (await RowAsync()).ShouldBe(row);
        // By a rule of another version it is reckoned again too.
        await InDatabaseAsync((db, _) => db.LearnerRecords.ExecuteUpdateAsync(set => set.SetProperty(r => r.Version, 0).SetProperty(r => r.SeenShare, 0)));
        await ReckonedAsync();
        (await RowAsync()).ShouldBe(row);

        async Task<string> RowAsync() =>
            (await trainer.JsonAsync($"/api/lessons/{lesson}/results"))
                .GetProperty("learners")
                .EnumerateArray()
                .First(r => r.GetProperty("completedAt").ValueKind == JsonValueKind.String)
                .GetRawText();
    }

    [Fact]
    public async Task A_cut_after_the_release_does_not_make_what_was_watched_mean_something_else()
    {
        var (trainer, lesson, watch) = await WatchAsync();
        await ReportAsync(
            watch,
            "cut",
            [
                [5000, 9000],
            ],
            9000
        );
        var now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        async Task SaveAsync(object[] cuts)
        {
            var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
            var document = JsonSerializer.Deserialize<Dictionary<string, object>>(view.GetProperty("document").GetRawText())!;
            document["cuts"] = cuts;
            (
                await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = view.GetProperty("revision").GetInt32(), document })
            ).EnsureSuccessStatusCode();
        }

        await SaveAsync([new { start = 0, end = 2000 }]);
        // Nothing is other before it is released again.
        (await KnownAsync(watch, "cut")).GetProperty("position").GetInt64().ShouldBe(9000);
        await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "web" } });
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d =>
            d.GetProperty("renditions").EnumerateArray().All(r => r.GetProperty("state").GetString() is "done")
        );
        var outlet = (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .First(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("id")
            .GetString();
        (
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = outlet,
                    profileId = "web",
                    visibility = "withLink",
                }
            )
        ).EnsureSuccessStatusCode();
        var known = await KnownAsync(watch, "cut");
        known.GetProperty("watched").EnumerateArray().Select(r => (r[0].GetInt64(), r[1].GetInt64())).ShouldBe([(3000L, 7000L)]);
        known.GetProperty("position").GetInt64().ShouldBe(7000);
        await SaveAsync([.. now.GetProperty("document").GetProperty("cuts").EnumerateArray().Select(c => (object)c)]);
    }

    [Fact]
    public async Task What_is_in_the_log_cannot_be_changed()
    {
        var (_, _, watch) = await WatchAsync();
        await ReportAsync(
            watch,
            "fixed",
            [
                [0, 1000],
            ],
            1000
        );
        var refused = await Should.ThrowAsync<PostgresException>(() =>
            InDatabaseAsync((db, _) => db.LearningLog.ExecuteUpdateAsync(set => set.SetProperty(e => e.Revision, 9)))
        );
        refused.MessageText.ShouldContain("appended and never changed");
    }
}

/// <summary>A database from before there was a log.</summary>
public sealed class LearningHistoryTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    [Fact]
    public async Task What_was_known_before_there_was_a_log_is_known_after()
    {
        var cancel = TestContext.Current.CancellationToken;
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await using (var scope = fixture.Server.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
            await db.LearnerRecords.ExecuteDeleteAsync(cancel);
            var migrator = db.GetService<IMigrator>();
            await migrator.MigrateAsync("Start", cancel);
            await db.Database.ExecuteSqlAsync(
                $"""
                insert into "LearnerRecords" ("Id", "LessonId", "LearnerKey", "Name", "Watched", "Position", "SeenShare", "CompletedAt", "SeenLastAt")
                values ({Guid.NewGuid()}, {lesson}, 'k', 'Ida Moor', '[[1000, 4000], [6000, 9500]]', interval '9.5 seconds', 0.4,
                        '2026-11-20T09:05:00Z', '2026-11-20T09:06:00Z'),
                       ({Guid.NewGuid()}, {lesson}, 'link-x', null, '[]', interval '0', 0, null, '2026-11-21T09:06:00Z')
                """,
                cancel
            );
            await migrator.MigrateAsync(cancellationToken: cancel);
            (await db.LearnerRecords.CountAsync(cancel)).ShouldBe(0);
            await scope.ServiceProvider.GetRequiredService<Projections>().DoAsync(cancel);
            var known = (await db.LearnerRecords.AsNoTracking().ToListAsync(cancel)).ToDictionary(r => r.LearnerKey);
            (known["k"].Name, known["k"].CompletedAt, known["k"].SeenLastAt).ShouldBe(
                ("Ida Moor", new DateTimeOffset(2026, 11, 20, 9, 5, 0, TimeSpan.Zero), new DateTimeOffset(2026, 11, 20, 9, 6, 0, TimeSpan.Zero))
            );
            known["k"].SeenShare.ShouldBe(6.5 / 16, 0.01);
            known["link-x"].CompletedAt.ShouldBeNull();
        }

        var link = (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .First(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("release")
            .GetProperty("link")
            .GetString()!;
        (await fixture.Anonymous().JsonAsync(new Uri(link).AbsolutePath + "/progress?learner=x")).GetProperty("position").GetInt64().ShouldBe(0);
        (await trainer.JsonAsync($"/api/lessons/{lesson}/results"))
            .GetProperty("learners")
            .EnumerateArray()
            .Select(r => r.GetProperty("name").GetString())
            .ShouldBe(["Somebody with the link", "Ida Moor"]);
    }
}
