using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Server.Learning;

namespace Wexel.Server.Tests;

/// <summary>What learners' browsers report is believed as far as it can be so.</summary>
public sealed class ProgressTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private async Task<string> WatchAsync()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        return new Uri(
            (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
                .EnumerateArray()
                .First(o => o.GetProperty("kind").GetString() == "channel")
                .GetProperty("release")
                .GetProperty("link")
                .GetString()!
        ).AbsolutePath;
    }

    private string Opened(TimeSpan ago) =>
        fixture.Server.Services.GetRequiredService<OpenedPages>().At(new DateTimeOffset(DateTime.UtcNow - ago, TimeSpan.Zero));

    private static async Task<JsonElement> ReportAsync(HttpClient learner, string watch, string key, object watched, string? opened)
    {
        var answer = await learner.PostAsJsonAsync(
            watch + "/progress",
            new
            {
                learner = key,
                watched,
                position = 0,
                opened,
            }
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    [Fact]
    public async Task A_lesson_is_not_complete_by_saying_so()
    {
        var (watch, learner) = (await WatchAsync(), await fixture.SignedInAsync(ServerFixture.Learner));
        var opened = (await learner.JsonAsync(watch + "/progress?learner=x")).GetProperty("opened").GetString();
        var said = await ReportAsync(learner, watch, "x", new[] { new[] { 0L, 999_999_999L } }, opened);
        said.GetProperty("complete").GetBoolean().ShouldBeFalse();
        said.GetProperty("watched").EnumerateArray().Sum(r => r[1].GetInt64() - r[0].GetInt64()).ShouldBeLessThan(14_000);
    }

    [Fact]
    public async Task Who_had_the_time_to_watch_it_has_watched_it_and_nobody_makes_up_that_time()
    {
        var (watch, learner) = (await WatchAsync(), fixture.Anonymous());
        (await ReportAsync(learner, watch, "quick", new[] { new[] { 0L, 16_000L } }, "made up")).GetProperty("complete").GetBoolean().ShouldBeFalse();
        (await ReportAsync(learner, watch, "patient", new[] { new[] { 0L, 16_000L } }, Opened(TimeSpan.FromSeconds(20))))
            .GetProperty("complete")
            .GetBoolean()
            .ShouldBeTrue();
    }

    [Fact]
    public async Task Reports_that_are_dust_or_nonsense_are_refused_or_kept_small()
    {
        var (watch, learner) = (await WatchAsync(), fixture.Anonymous());
        foreach (
            var nonsense in new object[]
            {
                Enumerable.Range(0, 2001).Select(i => new[] { i * 10, (i * 10) + 1 }),
                new[] { new[] { 1 } },
                new[] { new[] { 5, 1 } },
            }
        )
            (
                await learner.PostAsJsonAsync(
                    watch + "/progress",
                    new
                    {
                        learner = "dust",
                        watched = nonsense,
                        position = 0,
                    }
                )
            ).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (
            await learner.PostAsJsonAsync(
                watch + "/progress",
                new
                {
                    learner = new string('x', 101),
                    watched = Array.Empty<int[]>(),
                    position = 0,
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var kept = await ReportAsync(
            learner,
            watch,
            "dust",
            Enumerable.Range(0, 1500).Select(i => new[] { i * 10, (i * 10) + 1 }),
            Opened(TimeSpan.FromMinutes(5))
        );
        kept.GetProperty("watched").GetArrayLength().ShouldBe(500);
    }

    /// <summary>A report that nobody's player makes is refused, or counts for nothing: whatever stands in it, and whoever it says to be.</summary>
    [Fact]
    public async Task Forged_reports_are_refused_or_count_for_nothing()
    {
        var (watch, forger) = (await WatchAsync(), fixture.Anonymous());
        foreach (var number in new[] { "NaN", "Infinity", "\"NaN\"", "1e400", "null", "{}", "\"0\"", "0.5" })
        foreach (
            var report in new[] { $$"""{"learner":"f","watched":[[0,{{number}}]],"position":0}""", $$"""{"learner":"f","watched":[],"position":{{number}}}""" }
        )
        {
            using var body = new StringContent(report, System.Text.Encoding.UTF8, "application/json");
            var answer = await forger.PostAsync(watch + "/progress", body, TestContext.Current.CancellationToken);
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest, report);
            answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        }

        // Before the beginning, behind the end, and in more time than there was.
        var opened = Opened(TimeSpan.FromSeconds(4));
        foreach (var (from, to, most) in new[] { (-9_000L, -1_000L, 0L), (long.MinValue, 0L, 0L), (900_000L, 990_000L, 0L), (0L, long.MaxValue, 14_000L) })
        {
            var said = await ReportAsync(forger, watch, $"forged {from} {to}", new[] { new[] { from, to } }, opened);
            said.GetProperty("watched").EnumerateArray().Sum(r => r[1].GetInt64() - r[0].GetInt64()).ShouldBeInRange(0, most);
            said.GetProperty("complete").GetBoolean().ShouldBeFalse();
        }

        // Whoever is signed in is who they are, whatever key is said; and nobody is them by saying theirs.
        var learner = await fixture.SignedInAsync(ServerFixture.Learner);
        var mine = (await ReportAsync(learner, watch, "own", new[] { new[] { 0L, 1_000L } }, Opened(TimeSpan.FromSeconds(9))))
            .GetProperty("watched")
            .ToString();
        var person = "";
        await fixture.WithAsync(async db => person = (await db.Users.SingleAsync(u => u.Email == ServerFixture.Learner)).Id.ToString("N"));
        await ReportAsync(forger, watch, person, new[] { new[] { 2_000L, 5_000L } }, Opened(TimeSpan.FromSeconds(9)));
        await ReportAsync(learner, watch, "another", Array.Empty<long[]>(), null);
        foreach (var key in new[] { "own", "another", person })
            (await learner.JsonAsync($"{watch}/progress?learner={Uri.EscapeDataString(key)}")).GetProperty("watched").ToString().ShouldBe(mine);
        (await forger.JsonAsync($"{watch}/progress?learner=own")).GetProperty("watched").GetArrayLength().ShouldBe(0);
    }

    /// <summary>By a link anybody can say that they are another: not for ever.</summary>
    [Fact]
    public async Task One_address_cannot_be_any_number_of_learners()
    {
        await using var server = fixture.Server.WithWebHostBuilder(host => host.UseSetting("Wexel:NewLearners", "20"));
        var (watch, learner) = (await WatchAsync(), server.CreateClient());
        var answers = new List<HttpStatusCode>();
        for (var i = 0; i < 30; i++)
            answers.Add(
                (
                    await learner.PostAsJsonAsync(
                        watch + "/progress",
                        new
                        {
                            learner = $"crowd {i}",
                            watched = new[] { new[] { 0, 100 } },
                            position = 0,
                        }
                    )
                ).StatusCode
            );
        answers.Count(a => a == HttpStatusCode.OK).ShouldBe(20);
        answers.Count(a => a == HttpStatusCode.TooManyRequests).ShouldBe(10);
    }

    [Fact]
    public async Task One_address_cannot_report_without_end()
    {
        await using var server = fixture.Server.WithWebHostBuilder(host => host.UseSetting("Wexel:ProgressReports", "20"));
        var (watch, learner) = (await WatchAsync(), server.CreateClient());
        var answers = new List<HttpResponseMessage>();
        for (var i = 0; i < 40; i++)
            answers.Add(
                await learner.PostAsJsonAsync(
                    watch + "/progress",
                    new
                    {
                        learner = "often",
                        watched = Array.Empty<int[]>(),
                        position = 0,
                    }
                )
            );
        var refused = answers.Where(a => a.StatusCode == HttpStatusCode.TooManyRequests).ToList();
        refused.Count.ShouldBeGreaterThan(5);
        refused[0].Headers.RetryAfter.ShouldNotBeNull();
    }
}
