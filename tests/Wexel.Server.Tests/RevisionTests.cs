using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests;

public sealed class RevisionTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private async Task<Guid> LessonAsync(HttpClient trainer, string name)
    {
        var clip = Path.Combine(fixture.Data, name + ".mp4");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-f", "lavfi", "-i", $"testsrc2=s=320x180:r=30:d={6 + name.Length / 10.0}", "-pix_fmt", "yuv420p", clip])
            .ExecuteAsync();
        var content = new ByteArrayContent(await File.ReadAllBytesAsync(clip))
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
        };
        return (await (await trainer.PutAsync($"/api/recordings?fileName={name}.mp4", content)).Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("lessonId")
            .GetGuid();
    }

    private static async Task<Dictionary<string, object>> DocumentAsync(HttpClient trainer, Guid id) =>
        JsonSerializer.Deserialize<Dictionary<string, object>>((await trainer.JsonAsync($"/api/lessons/{id}")).GetProperty("document").GetRawText())!;

    private static async Task<JsonElement> SaveAsync(HttpClient trainer, Guid id, int basedOn, object document, int? restoredFrom = null)
    {
        var answer = await trainer.PutAsJsonAsync(
            $"/api/lessons/{id}/document",
            new
            {
                basedOn,
                document,
                restoredFrom,
            }
        );
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static int[] Numbers(JsonElement list) => [.. list.EnumerateArray().Select(n => n.GetInt32())];

    [Fact]
    public async Task Undo_and_redo_lead_through_saved_revisions_with_what_changed_in_words()
    {
        var trainer = await fixture.SignedInAsync();
        var id = await LessonAsync(trainer, "history");
        var document = await DocumentAsync(trainer, id);
        document["title"] = "Two";
        (await SaveAsync(trainer, id, 1, document)).GetProperty("changes").GetString().ShouldBe("title");
        document["cuts"] = new[] { new { start = 0, end = 1000 } };
        (await SaveAsync(trainer, id, 2, document)).GetProperty("changes").GetString().ShouldBe("1.0 s cut");
        var second = await trainer.JsonAsync($"/api/lessons/{id}/revisions/2");
        second.GetProperty("cuts").GetArrayLength().ShouldBe(0);
        (await SaveAsync(trainer, id, 3, second, 2)).GetProperty("changes").GetString().ShouldBe("1.0 s restored");

        var history = (await trainer.JsonAsync($"/api/lessons/{id}")).GetProperty("history");
        (history.GetProperty("now").GetInt32(), Numbers(history.GetProperty("back")).Single(), Numbers(history.GetProperty("on")).Single()).ShouldBe((2, 1, 3));
        var listed = (await trainer.JsonAsync($"/api/lessons/{id}/revisions")).EnumerateArray().ToList();
        listed.Select(r => r.GetProperty("changes").GetString()).ShouldBe(["1.0 s restored", "1.0 s cut", "title", "brought in"]);
        listed[0].GetProperty("restoredFrom").GetInt32().ShouldBe(2);
        listed[0].GetProperty("savedBy").GetString().ShouldBe("Mara Tarn");
        (await trainer.GetAsync($"/api/lessons/{id}/revisions/99")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Whoever_saves_second_is_shown_the_difference_and_can_keep_both()
    {
        var trainer = await fixture.SignedInAsync();
        var id = await LessonAsync(trainer, "conflict");
        var (theirs, mine) = (await DocumentAsync(trainer, id), await DocumentAsync(trainer, id));
        (theirs["title"], theirs["description"]) = ("Theirs", "What they wrote");
        await SaveAsync(trainer, id, 1, theirs);
        (mine["title"], mine["cuts"]) = ("Mine", new[] { new { start = 1000, end = 3000 } });
        var refused = await trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = 1, document = mine });
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var difference = await (
            await trainer.PostAsJsonAsync($"/api/lessons/{id}/difference", new { basedOn = 1, document = mine })
        ).Content.ReadFromJsonAsync<JsonElement>();
        difference.GetProperty("by").GetString().ShouldBe("Mara Tarn");
        difference.GetProperty("theirs").GetString().ShouldBe("title, description");
        difference.GetProperty("mine").GetString().ShouldBe("title, 2.0 s cut");
        difference.GetProperty("clashes").EnumerateArray().Select(c => c.GetString()).ShouldBe(["the title"]);
        await SaveAsync(trainer, id, difference.GetProperty("revision").GetInt32(), difference.GetProperty("merged"));
        var both = (await trainer.JsonAsync($"/api/lessons/{id}")).GetProperty("document");
        (both.GetProperty("title").GetString(), both.GetProperty("description").GetString(), both.GetProperty("cuts").GetArrayLength()).ShouldBe(
            ("Mine", "What they wrote", 1)
        );
    }

    /// <summary>Captions are corrected in their file, whose identifiers tell which is which; the track keeps its name.</summary>
    [Fact]
    public async Task Two_who_correct_different_captions_both_keep_their_work()
    {
        var trainer = await fixture.SignedInAsync();
        var id = await LessonAsync(trainer, "corrected twice");
        async Task<JsonElement> TrackAsync(string vtt) =>
            (
                await (
                    await trainer.PutAsync("/api/captions?fileName=a.vtt&language=en-GB", new StringContent(vtt, null, "application/octet-stream"))
                ).Content.ReadFromJsonAsync<JsonElement>()
            ).GetProperty("track");
        var first = await TrackAsync("WEBVTT\n\n00:01.000 --> 00:02.000\nTake the rope\n\n00:03.000 --> 00:04.000\nin both hands\n");
        var begun = await DocumentAsync(trainer, id);
        begun["captions"] = new[] { first };
        await SaveAsync(trainer, id, 1, begun);
        async Task<Dictionary<string, object>> CorrectedAsync(string one, string two)
        {
            var document = await DocumentAsync(trainer, id);
            var track = await TrackAsync($"WEBVTT\n\nc1\n00:01.000 --> 00:02.000\n{one}\n\nc2\n00:03.000 --> 00:04.000\n{two}\n");
            document["captions"] = new[]
            {
                new
                {
                    id = first.GetProperty("id").GetString(),
                    hash = track.GetProperty("hash").GetString(),
                    language = "en-GB",
                    fileName = "a.vtt",
                    cueCount = 2,
                    kind = "captions",
                    state = "corrected",
                },
            };
            return document;
        }

        var (theirs, mine) = (await CorrectedAsync("Take the line", "in both hands"), await CorrectedAsync("Take the rope", "in both hands."));
        await SaveAsync(trainer, id, 2, theirs);
        var difference = await (
            await trainer.PostAsJsonAsync($"/api/lessons/{id}/difference", new { basedOn = 2, document = mine })
        ).Content.ReadFromJsonAsync<JsonElement>();
        difference.GetProperty("clashes").GetArrayLength().ShouldBe(0);
        await SaveAsync(trainer, id, 3, difference.GetProperty("merged"));
        var hash = (await trainer.JsonAsync($"/api/lessons/{id}")).GetProperty("document").GetProperty("captions")[0].GetProperty("hash").GetString();
        (await trainer.JsonAsync($"/api/captions/{hash}"))
            .EnumerateArray()
            .Select(c => (c.GetProperty("id").GetString(), c.GetProperty("text").GetString()))
            .ShouldBe([("c1", "Take the line"), ("c2", "in both hands.")]);
    }

    [Fact]
    public async Task Captions_that_are_not_here_are_refused()
    {
        var trainer = await fixture.SignedInAsync();
        var id = await LessonAsync(trainer, "no captions");
        var document = await DocumentAsync(trainer, id);
        document["captions"] = new[]
        {
            new
            {
                id = "t1",
                hash = new string('0', 64),
                language = "en-GB",
                fileName = "a.vtt",
                cueCount = 2,
                kind = "captions",
                state = "corrected",
            },
        };
        var refused = await trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = 1, document });
        (await refused.ProblemAsync()).GetProperty("code").GetString().ShouldBe("lesson-no-captions");
        // Nor are they taken for captions that somebody has deleted.
        var difference = await trainer.PostAsJsonAsync($"/api/lessons/{id}/difference", new { basedOn = 1, document });
        (await difference.ProblemAsync()).GetProperty("code").GetString().ShouldBe("lesson-no-captions");
    }

    [Fact]
    public async Task A_courses_order_is_the_trainers()
    {
        var trainer = await fixture.SignedInAsync();
        await LessonAsync(trainer, "order");
        async Task<JsonElement> CourseAsync() => (await trainer.JsonAsync("/api/lessons"))[0];
        var course = await CourseAsync();
        var ids = course.GetProperty("lessons").EnumerateArray().Select(l => l.GetProperty("id").GetGuid()).ToList();
        ids.Count.ShouldBeGreaterThan(1);
        ids.Reverse();
        var address = $"/api/courses/{course.GetProperty("id").GetGuid()}/order";
        (await trainer.PutAsJsonAsync(address, new { lessons = ids })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var after = (await CourseAsync()).GetProperty("lessons").EnumerateArray().ToList();
        after.Select(l => l.GetProperty("id").GetGuid()).ShouldBe(ids);
        after.Select(l => l.GetProperty("position").GetInt32()).ShouldBe(Enumerable.Range(1, ids.Count));
        (await (await trainer.PutAsJsonAsync(address, new { lessons = ids.Skip(1) })).ProblemAsync())
            .GetProperty("code")
            .GetString()
            .ShouldBe("course-other-lessons");
        (await (await trainer.PutAsJsonAsync(address, new { lessons = ids.Skip(1).Append(ids[1]) })).ProblemAsync())
            .GetProperty("code")
            .GetString()
            .ShouldBe("course-other-lessons");
    }
}
