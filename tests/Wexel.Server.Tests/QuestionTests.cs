using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Xml.Linq;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Documents;
using Wexel.Core.Learning;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Server.Learning;

namespace Wexel.Server.Tests;

/// <summary>Questions on the way to learners and their answers back: what the page is told, what the server judges, what comes of it.</summary>
public sealed class QuestionTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private const string Asked = """
        {"id":"q1","at":500,"text":"=Which lane?","asks":{"kind":"one","options":[
        {"id":"a","text":"Lane A","reply":"Too short."},{"id":"b","text":"Lane B","right":true}]},
        "tries":2,"penalty":50,"points":2,"right":"So it is."}
        """;

    private async Task<(HttpClient Trainer, Guid Lesson, string Token)> AskingAsync()
    {
        var cancel = TestContext.Current.CancellationToken;
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        var now = JsonNode.Parse(await trainer.GetStringAsync($"/api/lessons/{lesson}", cancel))!;
        var document = now["document"]!;
        document["questions"] = new JsonArray(JsonNode.Parse(Asked));
        document["goal"] = JsonNode.Parse("""{"rule":"score","passPercent":50}""");
        var saved = await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = now["revision"]!.GetValue<int>(), document }, cancel);
        saved.StatusCode.ShouldBe(HttpStatusCode.OK, await saved.Content.ReadAsStringAsync(cancel));
        var revision = (await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("revision").GetInt32();

        // As it would be released: the page with its key.
        await using var scope = fixture.Server.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        var release = await db.Releases.FirstAsync(r => r.LessonId == lesson && r.Outlet!.Kind == "channel", cancel);
        var question = WexelJson.Read<Core.Questions.Question>(Asked);
        var page = PlayerLesson.Format.Read(release.Player) with { Questions = PlayerQuestion.List([question], [], TimeSpan.FromMinutes(1)) };
        (release.Player, release.Revision) = (PlayerLesson.Format.Write(page), revision);
        await db.SaveChangesAsync(cancel);
        return (trainer, lesson, release.Token);
    }

    private async Task<(HttpStatusCode Status, JsonElement Body)> AnswerAsync(string token, string learner, string value, Guid? name = null)
    {
        var cancel = TestContext.Current.CancellationToken;
        var answer = new
        {
            learner,
            @event = (name ?? Guid.NewGuid()).ToString("N"),
            question = "q1",
            answer = new[] { value },
            took = 4200,
        };
        var sent = await fixture.Anonymous().PostAsJsonAsync($"/watch/{token}/answers", answer, cancel);
        return (sent.StatusCode, await sent.Content.ReadFromJsonAsync<JsonElement>(cancel));
    }

    [Fact]
    public async Task What_is_right_stays_with_the_server_which_judges_counts_and_remembers()
    {
        var cancel = TestContext.Current.CancellationToken;
        var (trainer, lesson, token) = await AskingAsync();
        // Other tests ask the same lesson.
        var taken = (await trainer.JsonAsync($"/api/lessons/{lesson}/results"))
            .GetProperty("questions")[0]
            .GetProperty("answers")
            .EnumerateArray()
            .Where(a => a.GetProperty("words").GetString() == "Lane A")
            .Sum(a => a.GetProperty("count").GetInt32());
        var page = await fixture.Anonymous().GetStringAsync($"/watch/{token}", cancel);
        page.ShouldContain("Which lane?");
        page.ShouldContain("wexel-questions.js");
        page.ShouldNotContain("So it is.");
        page.ShouldNotContain("Too short.");

        var first = Guid.NewGuid();
        var (_, wrong) = await AnswerAsync(token, "one", "a", first);
        wrong.GetProperty("says").EnumerateArray().Select(s => s.GetString()).ShouldBe(["Too short."]);
        wrong.GetProperty("solution").ValueKind.ShouldBe(JsonValueKind.Null);
        // Sent again under the same name, it counts once.
        await AnswerAsync(token, "one", "a", first);
        var (_, right) = await AnswerAsync(token, "one", "b");
        right.GetProperty("known").GetProperty("score").GetProperty("raw").GetDouble().ShouldBe(1);
        right.GetProperty("known").GetProperty("passed").GetBoolean().ShouldBeTrue();
        (await AnswerAsync(token, "one", "b")).Body.GetProperty("counted").GetBoolean().ShouldBeFalse();
        var known = (await fixture.Anonymous().JsonAsync($"/watch/{token}/progress?learner=one")).GetProperty("answers")[0];
        (known.GetProperty("tries").GetInt32(), known.GetProperty("share").GetDouble()).ShouldBe((2, 0.5));

        // What the log comes to is the same when all of it is reckoned again.
        await using (var scope = fixture.Server.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
            var before = await db.LearnerRecords.Where(r => r.LearnerKey == "link-one").Select(r => r.State).SingleAsync(cancel);
            await db.LearnerRecords.Where(r => r.LearnerKey == "link-one").ExecuteUpdateAsync(s => s.SetProperty(r => r.Version, 0), cancel);
            await scope.ServiceProvider.GetRequiredService<Projections>().DoAsync(cancel);
            var after = await db.LearnerRecords.AsNoTracking().Where(r => r.LearnerKey == "link-one").Select(r => r.State).SingleAsync(cancel);
            Said(after).ShouldBe(Said(before));
        }

        // The database keeps times to the microsecond.
        string Said(string state) =>
            WexelJson.Read<LearnerState>(state) is var s
                ? WexelJson.Write((object[])[s.Score, s.Passed!, .. s.Answers.Select(a => a with { At = default })])
                : "";

        foreach (var learner in new[] { "two", "three", "four", "five" })
            await AnswerAsync(token, learner, "a");
        var results = await trainer.JsonAsync($"/api/lessons/{lesson}/results");
        var question = results.GetProperty("questions")[0];
        question.GetProperty("missedByMost").GetBoolean().ShouldBeTrue();
        question
            .GetProperty("answers")
            .EnumerateArray()
            .Single(a => a.GetProperty("words").GetString() == "Lane A")
            .GetProperty("count")
            .GetInt32()
            .ShouldBe(taken + 5);
        results.GetProperty("learners").EnumerateArray().ShouldContain(l => l.GetProperty("score").GetProperty("raw").GetDouble() == 1);

        // No table program takes a question for a formula.
        var csv = await trainer.GetStringAsync($"/api/lessons/{lesson}/results.csv", cancel);
        csv.ShouldContain("'=Which lane?,points,tries");
        csv.ShouldContain("Lane B,1,2");
    }

    [Fact]
    public async Task A_question_that_was_wrong_itself_is_mended_and_points_follow_when_somebody_wants_it()
    {
        var cancel = TestContext.Current.CancellationToken;
        var (trainer, lesson, token) = await AskingAsync();
        await AnswerAsync(token, "first", "a");
        await AnswerAsync(token, "second", "b");
        var rescore = $"/api/lessons/{lesson}/results/questions/q1/rescore";
        (await trainer.JsonAsync(rescore)).GetProperty("changed").GetInt32().ShouldBe(0);

        // Lane A was right all along.
        await fixture.WithAsync(async db =>
        {
            var release = await db.Releases.FirstAsync(r => r.Token == token, cancel);
            var mended = WexelJson.Read<Core.Questions.Question>(
                Asked
                    .Replace("\"text\":\"Lane A\"", "\"right\":true,\"text\":\"Lane A\"", StringComparison.Ordinal)
                    .Replace(",\"right\":true}]", "}]", StringComparison.Ordinal)
            );
            var page = PlayerLesson.Format.Read(release.Player) with { Questions = PlayerQuestion.List([mended], [], TimeSpan.FromMinutes(1)) };
            release.Player = PlayerLesson.Format.Write(page);
            await db.SaveChangesAsync(cancel);
        });
        async Task<double> PointsAsync(string learner) =>
            (await fixture.Anonymous().JsonAsync($"/watch/{token}/progress?learner={learner}")).GetProperty("score").GetProperty("raw").GetDouble();
        (await PointsAsync("first"), await PointsAsync("second")).ShouldBe((0, 2));
        (await trainer.JsonAsync(rescore)).GetProperty("changed").GetInt32().ShouldBeGreaterThanOrEqualTo(2);
        // Looking changes nothing.
        (await PointsAsync("first"), await PointsAsync("second")).ShouldBe((0, 2));
        (await trainer.PostAsync(rescore, null, cancel)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await PointsAsync("first"), await PointsAsync("second")).ShouldBe((2, 0));
        (await trainer.JsonAsync(rescore)).GetProperty("changed").GetInt32().ShouldBe(0);

        // It is in the log: reckoned from there, it is the same.
        await fixture.WithAsync(db =>
            db.LearnerRecords.Where(r => r.LearnerKey == "link-first").ExecuteUpdateAsync(s => s.SetProperty(r => r.Version, 0), cancel)
        );
        (await PointsAsync("first")).ShouldBe(2);
        (await trainer.GetAsync($"/api/lessons/{lesson}/results/questions/q77/rescore", cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Of_some_questions_each_learner_is_asked_so_many_and_the_server_takes_no_others()
    {
        var cancel = TestContext.Current.CancellationToken;
        var (trainer, lesson, token) = await AskingAsync();
        var now = JsonNode.Parse(await trainer.GetStringAsync($"/api/lessons/{lesson}", cancel))!;
        string[] names = ["q1", "q2", "q3", "q4"];
        var questions = names.Select(name => Asked.Replace("\"id\":\"q1\"", $"\"id\":\"{name}\",\"tags\":[\"lanes\"]", StringComparison.Ordinal)).ToList();
        now["document"]!["questions"] = new JsonArray([.. questions.Select(q => JsonNode.Parse(q))]);
        now["document"]!["draws"] = JsonNode.Parse("""[{"tag":"lanes","take":1}]""");
        var saved = await trainer.PutAsJsonAsync(
            $"/api/lessons/{lesson}/document",
            new { basedOn = now["revision"]!.GetValue<int>(), document = now["document"] },
            cancel
        );
        saved.StatusCode.ShouldBe(HttpStatusCode.OK, await saved.Content.ReadAsStringAsync(cancel));
        var revision = (await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("revision").GetInt32();
        await fixture.WithAsync(async db =>
        {
            var release = await db.Releases.FirstAsync(r => r.Token == token, cancel);
            var asked = questions.ConvertAll(q => WexelJson.Read<Core.Questions.Question>(q));
            var page = PlayerLesson.Format.Read(release.Player) with
            {
                Questions = PlayerQuestion.List(asked, [], TimeSpan.FromMinutes(1)),
                Draws = Core.Questions.DrawnFrom.In(asked, [new("lanes", 1)]),
            };
            (release.Player, release.Revision) = (PlayerLesson.Format.Write(page), revision);
            await db.SaveChangesAsync(cancel);
        });
        var progress = await fixture.Anonymous().JsonAsync($"/watch/{token}/progress?learner=drawn");
        var not = progress.GetProperty("notAsked").EnumerateArray().Select(q => q.GetString()).ToList();
        not.Count.ShouldBe(3);
        progress.GetProperty("score").GetProperty("max").GetDouble().ShouldBe(2);
        async Task<(HttpStatusCode, string)> SendAsync(string question)
        {
            var sent = await fixture
                .Anonymous()
                .PostAsJsonAsync(
                    $"/watch/{token}/answers",
                    new
                    {
                        learner = "drawn",
                        @event = Guid.NewGuid().ToString("N"),
                        question,
                        answer = new[] { "b" },
                    },
                    cancel
                );
            return (sent.StatusCode, await sent.Content.ReadAsStringAsync(cancel));
        }

        (await SendAsync(not[0]!)).Item2.ShouldContain("You are asked other questions of this lesson.");
        (await SendAsync(names.First(n => !not.Contains(n)))).Item1.ShouldBe(HttpStatusCode.OK);
        (await fixture.Anonymous().JsonAsync($"/watch/{token}/progress?learner=drawn")).GetProperty("score").GetProperty("raw").GetDouble().ShouldBe(2);
    }

    [Fact]
    public async Task A_picture_of_a_question_is_taken_kept_with_the_lesson_and_sent_to_whoever_may_see_it()
    {
        var cancel = TestContext.Current.CancellationToken;
        var (trainer, lesson, token) = await AskingAsync();
        async Task<JsonElement> TakeAsync(byte[] picture, HttpStatusCode expected)
        {
            var sent = await trainer.PutAsync(
                "/api/pictures/shown",
                new ByteArrayContent(picture) { Headers = { ContentType = new("application/octet-stream") } },
                cancel
            );
            sent.StatusCode.ShouldBe(expected, await sent.Content.ReadAsStringAsync(cancel));
            return await sent.Content.ReadFromJsonAsync<JsonElement>(cancel);
        }

        (await TakeAsync("no picture"u8.ToArray(), HttpStatusCode.UnprocessableEntity)).GetProperty("detail").GetString()!.ShouldContain("no picture");
        var given = await Pictures.MadeAsync(1200, 300);
        var key = (await TakeAsync(given, HttpStatusCode.OK)).GetProperty("key").GetString()!;
        var shown = await trainer.GetByteArrayAsync($"/api/pictures/shown/{key}.jpg", cancel);
        // JPEG (ITU-T T.81): it begins with the marker SOI.
        shown[..2].ShouldBe([0xFF, 0xD8]);
        (await fixture.Anonymous().GetByteArrayAsync($"/watch/{token}/pictures/{key}.jpg", cancel)).ShouldBe(shown);
        (await fixture.Anonymous().GetAsync($"/watch/{token}/pictures/{new string('0', 64)}.jpg", cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        async Task<HttpResponseMessage> SaveAsync(string picture)
        {
            var now = JsonNode.Parse(await trainer.GetStringAsync($"/api/lessons/{lesson}", cancel))!;
            now["document"]!["questions"]![0]!["picture"] = picture;
            return await trainer.PutAsJsonAsync(
                $"/api/lessons/{lesson}/document",
                new { basedOn = now["revision"]!.GetValue<int>(), document = now["document"] },
                cancel
            );
        }

        (await (await SaveAsync(new string('0', 64))).Content.ReadAsStringAsync(cancel)).ShouldContain("is not here. Take it again.");
        (await SaveAsync(key)).StatusCode.ShouldBe(HttpStatusCode.OK);
        // Saved as a file, the lesson has it as it was given.
        using var zip = new ZipArchive(new MemoryStream(await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/lesson.zip", cancel)));
        await using var inside = zip.GetEntry($"pictures/{key}")!.Open();
        using var bytes = new MemoryStream();
        await inside.CopyToAsync(bytes, cancel);
        bytes.ToArray().ShouldBe(given);
    }

    [Fact]
    public async Task Pictures_go_along_in_a_package_and_a_place_is_clicked_on_the_frame_that_learners_see()
    {
        var cancel = TestContext.Current.CancellationToken;
        var (trainer, lesson, _) = await AskingAsync();
        using var body = new ByteArrayContent(await Pictures.MadeAsync(400, 300)) { Headers = { ContentType = new("application/octet-stream") } };
        var key = (await (await trainer.PutAsync("/api/pictures/shown", body, cancel)).Content.ReadFromJsonAsync<JsonElement>(cancel))
            .GetProperty("key")
            .GetString()!;
        var now = JsonNode.Parse(await trainer.GetStringAsync($"/api/lessons/{lesson}", cancel))!;
        // Where it is asked, the right half of the picture fills it.
        now["document"]!["moveIns"] = JsonNode.Parse(
            """[{"id":"m1","span":{"start":0,"end":2000},"part":{"x":0.5,"y":0.25,"width":0.5,"height":0.5},"ease":0}]"""
        );
        now["document"]!["questions"]!
            .AsArray()
            .Add(
                JsonNode.Parse(
                    $$"""
                    {"id":"where","at":1000,"text":"Where is it?","picture":"{{key}}","asks":{"kind":"place","areas":[
                      {"shape":{"kind":"rectangle","points":[{"x":0.5,"y":0.25},{"x":0.75,"y":0.5} ] },"text":"Upper","right":true},
                      {"shape":{"kind":"rectangle","points":[{"x":0.75,"y":0.5},{"x":1,"y":0.75} ] },"text":"Lower"} ] } }
                    """
                )
            );
        var saved = await trainer.PutAsJsonAsync(
            $"/api/lessons/{lesson}/document",
            new { basedOn = now["revision"]!.GetValue<int>(), document = now["document"] },
            cancel
        );
        saved.StatusCode.ShouldBe(HttpStatusCode.OK, await saved.Content.ReadAsStringAsync(cancel));
        var frame = await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/picture.jpg?at=1000", cancel);
        using var zip = new ZipArchive(new MemoryStream(await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/questions-qti22.zip", cancel)));
        async Task<byte[]> FileAsync(string path)
        {
            await using var inside = zip.GetEntry(path)!.Open();
            using var bytes = new MemoryStream();
            await inside.CopyToAsync(bytes, cancel);
            return bytes.ToArray();
        }

        (await FileAsync($"pictures/{key}.jpg")).ShouldBe(await trainer.GetByteArrayAsync($"/api/pictures/shown/{key}.jpg", cancel));
        var item = XElement.Parse(Encoding.UTF8.GetString(await FileAsync("items/where.xml")));
        var clicked = item.Descendants().Single(e => e.Name.LocalName == "object");
        (await FileAsync(clicked.Attribute("data")!.Value[3..])).ShouldBe(frame);
        var (width, height) = ((int)clicked.Attribute("width")!, (int)clicked.Attribute("height")!);
        // What is seen is a rectangle in whole pixels of the recording, which is smaller here than the picture.
        int[] expected = [0, 0, width / 2, height / 2, width / 2, height / 2, width, height];
        var coords = item.Descendants()
            .Where(e => e.Name.LocalName == "areaMapEntry")
            .SelectMany(e => e.Attribute("coords")!.Value.Split(',').Select(int.Parse));
        coords.Zip(expected).ShouldAllBe(c => Math.Abs(c.First - c.Second) <= 2 && c.First >= 0);
    }

    [Fact]
    public async Task What_cannot_be_an_answer_is_refused()
    {
        var (_, _, token) = await AskingAsync();
        (await AnswerAsync("nothere", "x", "a")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await AnswerAsync(token, "x", new string('a', 501))).Status.ShouldBe(HttpStatusCode.BadRequest);
        (await AnswerAsync(token, new string('x', 101), "a")).Status.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task Files_of_questions_are_read_and_what_is_none_is_said()
    {
        var cancel = TestContext.Current.CancellationToken;
        var trainer = await fixture.SignedInAsync();
        async Task<(HttpStatusCode Status, string Text)> ReadAsync(byte[] file)
        {
            var sent = await trainer.PostAsync(
                "/api/questions/file",
                new ByteArrayContent(file) { Headers = { ContentType = new("application/octet-stream") } },
                cancel
            );
            return (sent.StatusCode, await sent.Content.ReadAsStringAsync(cancel));
        }

        (await ReadAsync(Encoding.UTF8.GetBytes("Is it so? {T}"))).Text.ShouldContain("\"format\":\"GIFT\"");
        (await ReadAsync(Encoding.Unicode.GetPreamble().Concat(Encoding.Unicode.GetBytes("Which?\nA. yes\nB. no\nANSWER: A\n")).ToArray())).Text.ShouldContain(
            "Aiken"
        );
        (await ReadAsync([.. Enumerable.Range(0, 900).Select(i => (byte)(i % 7))])).Text.ShouldContain("no text and no package");
        (await ReadAsync("PK\u0003\u0004torn"u8.ToArray())).Text.ShouldContain("cannot be unpacked");

        using var bomb = new MemoryStream();
        using (var zip = new ZipArchive(bomb, ZipArchiveMode.Create, leaveOpen: true))
        {
            await using var entry = zip.CreateEntry("bomb.xml", CompressionLevel.SmallestSize).Open();
            var block = new byte[1_000_000];
            for (var i = 0; i < 110; i++)
                await entry.WriteAsync(block, cancel);
        }

        (await ReadAsync(bomb.ToArray())).Text.ShouldContain("unpacks to far more");

        // A package of a lesson's own questions comes back as they are.
        var (_, lesson, _) = await AskingAsync();
        foreach (var version in new[] { "qti22", "qti30" })
        {
            var package = await trainer.GetByteArrayAsync($"/api/lessons/{lesson}/questions-{version}.zip", cancel);
            var read = JsonDocument.Parse((await ReadAsync(package)).Text).RootElement;
            read.GetProperty("problems").GetArrayLength().ShouldBe(0);
            read.GetProperty("questions")[0].GetProperty("text").GetString().ShouldBe("=Which lane?");
        }

        (await trainer.GetAsync($"/api/lessons/{lesson}/questions-qti99.zip", cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_question_is_looked_at_before_it_is_saved()
    {
        var cancel = TestContext.Current.CancellationToken;
        var trainer = await fixture.SignedInAsync();
        var sent = await trainer.PostAsJsonAsync(
            "/api/questions/look",
            new JsonArray(JsonNode.Parse(Asked), JsonNode.Parse("""{"id":"q2","at":1,"text":"","asks":{"kind":"truth","true":null}}""")),
            cancel
        );
        var looks = await sent.Content.ReadFromJsonAsync<JsonElement>(cancel);
        looks[0].GetProperty("faults").GetArrayLength().ShouldBe(0);
        looks[0].GetProperty("asked").GetProperty("key").GetProperty("answer").GetString().ShouldBe("Lane B");
        looks[1].GetProperty("faults").GetArrayLength().ShouldBe(2);
        // A kind that nobody knows is no question.
        var unknown = await trainer.PostAsJsonAsync(
            "/api/questions/look",
            new JsonArray(JsonNode.Parse("""{"id":"q","at":1,"text":"?","asks":{"kind":"guess"}}""")),
            cancel
        );
        unknown.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }
}
