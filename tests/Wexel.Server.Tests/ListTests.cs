using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Tests;

/// <summary>Lists ask the database as often for a thousand lessons as for a few, and a part of a file costs one question at most.</summary>
public sealed class ListTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    /// <summary>What a request asks the database: the driver's own activities that belong to it.</summary>
    private static async Task<IReadOnlyList<string>> AskedAsync(HttpClient client, HttpRequestMessage request)
    {
        var trace = ActivityTraceId.CreateRandom();
        var asked = new ConcurrentBag<string>();
        using var listener = new ActivityListener
        {
            ShouldListenTo = source => source.Name is "Npgsql" or "Microsoft.AspNetCore",
            Sample = (ref ActivityCreationOptions<ActivityContext> _) => ActivitySamplingResult.AllData,
            ActivityStopped = activity =>
            {
                if (activity.Source.Name == "Npgsql" && activity.TraceId == trace && activity.GetTagItem("db.query.text") is string text)
                    asked.Add(text);
            },
        };
        ActivitySource.AddActivityListener(listener);
        request.Headers.Add("traceparent", $"00-{trace}-{ActivitySpanId.CreateRandom()}-01");
        var answer = await client.SendAsync(request);
        answer.IsSuccessStatusCode.ShouldBeTrue($"{request.RequestUri} {answer.StatusCode}");
        await answer.Content.ReadAsByteArrayAsync();
        return [.. asked];
    }

    private static Task<IReadOnlyList<string>> AskedAsync(HttpClient client, string address) =>
        AskedAsync(client, new HttpRequestMessage(HttpMethod.Get, address));

    /// <summary>As many more of the first lesson, each with its releases, a rendition and learners.</summary>
    private async Task MoreAsync(int lessons)
    {
        await using var db = await fixture.Server.Services.GetRequiredService<IDbContextFactory<WexelDb>>().CreateDbContextAsync();
        var first = await db
            .Lessons.AsNoTracking()
            .Include(l => l.Releases)
            .Include(l => l.Renditions)
            .Include(l => l.Revisions)
            .OrderBy(l => l.Id)
            .FirstAsync();
        for (var i = 0; i < lessons; i++)
        {
            var lesson = new Lesson
            {
                CourseId = first.CourseId,
                Position = 100 + i,
                Title = $"Lesson {i}",
                RecordingHash = first.RecordingHash,
                Length = first.Length,
                Revision = 1,
                ContentKey = first.ContentKey,
            };
            lesson.Revisions.Add(
                new LessonRevision
                {
                    Number = 1,
                    Document = first.Revisions[^1].Document,
                    Changes = "",
                    SavedBy = "",
                    SavedAt = DateTimeOffset.UtcNow,
                }
            );
            db.Lessons.Add(lesson);
            foreach (var r in first.Releases)
            {
                db.Releases.Add(
                    new Release
                    {
                        LessonId = lesson.Id,
                        OutletId = r.OutletId,
                        Token = Guid.NewGuid().ToString("N"),
                        ProfileId = r.ProfileId,
                        FileKey = r.FileKey,
                        Player = r.Player,
                        MadeFrom = r.MadeFrom,
                        Profile = r.Profile,
                        There = r.There,
                        ReleasedAt = r.ReleasedAt,
                        FirstReleasedAt = r.FirstReleasedAt,
                        Revision = 1,
                        Visibility = r.Visibility,
                    }
                );
            }

            db.LearnerRecords.Add(
                new LearnerRecord
                {
                    LessonId = lesson.Id,
                    LearnerKey = $"k{i}",
                    State = "{}",
                    SeenLastAt = DateTimeOffset.UtcNow,
                }
            );
        }

        await db.SaveChangesAsync();
    }

    [Fact]
    public async Task Lists_ask_no_more_of_more_lessons_and_read_no_captions_and_no_analyses()
    {
        var trainer = await fixture.SignedInAsync();
        string[] lists = ["/api/lessons", "/api/board", "/api/board/courses", "/channel", "/api/space"];
        // What is asked once and remembered is asked before.
        foreach (var list in lists)
            await trainer.GetAsync(list);
        var before = new Dictionary<string, int>();
        foreach (var list in lists)
            before[list] = (await AskedAsync(trainer, list)).Count;
        await MoreAsync(60);
        // What new lessons are made from is read once, all of them at once.
        (await AskedAsync(trainer, "/api/space")).Count.ShouldBe(before["/api/space"] + 3);
        foreach (var list in lists)
        {
            // What is remembered may have been forgotten in the meantime, on a machine that has much else to do.
            await trainer.GetAsync(list);
            var asked = await AskedAsync(trainer, list);
            asked.Count.ShouldBe(before[list], list);
            asked.Count.ShouldBeInRange(1, 12, list);

            foreach (var heavy in new[] { "\"Player\"", "\"LessonRevisions\"", "\"AnalysisSoFar\"", "\"Facts\"" })
                asked.ShouldAllBe(sql => !sql.Contains(heavy, StringComparison.Ordinal), $"{list} reads {heavy}");
        }

        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        (await AskedAsync(trainer, $"/api/lessons/{lesson}/results")).Count.ShouldBeInRange(1, 5);
    }

    [Fact]
    public async Task Saving_asks_a_few_things_and_reads_no_analysis()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = JsonSerializer.Deserialize<Dictionary<string, object>>(view.GetProperty("document").GetRawText())!;
        document["description"] = $"At {DateTime.UtcNow:O}";
        var save = new HttpRequestMessage(HttpMethod.Put, $"/api/lessons/{lesson}/document")
        {
            Content = JsonContent.Create(new { basedOn = view.GetProperty("revision").GetInt32(), document }),
        };
        var asked = await AskedAsync(trainer, save);
        asked.Count.ShouldBeInRange(1, 10, string.Join('\n', asked));
        asked.ShouldAllBe(sql => !sql.Contains("\"Analysis\"", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_part_of_a_file_costs_one_question_at_most()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0]
            .GetProperty("lessons")
            .EnumerateArray()
            .First(l => l.GetProperty("title").GetString() == "Closing the till")
            .GetProperty("id")
            .GetGuid();
        var link = (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .First(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("release")
            .GetProperty("link")
            .GetString()!;
        var learner = fixture.Anonymous();
        for (var part = 0; part < 3; part++)
        {
            var asked = await AskedAsync(
                learner,
                new HttpRequestMessage(HttpMethod.Get, new Uri(link).AbsolutePath + "/video.mp4")
                {
                    Headers = { Range = new RangeHeaderValue(part * 100, (part * 100) + 99) },
                }
            );
            asked.Count.ShouldBeLessThanOrEqualTo(1, string.Join('\n', asked));
            asked.ShouldAllBe(sql => !sql.Contains("\"Player\"", StringComparison.Ordinal));
        }
    }
}
