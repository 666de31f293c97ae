using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests;

/// <summary>The board acts: what is planned is what is done, and done once.</summary>
public sealed class BoardTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private static async Task<JsonElement> PlanAsync(HttpClient trainer, object request) => await SentAsync(trainer, "plan", request);

    private static async Task<JsonElement> SentAsync(HttpClient trainer, string what, object request)
    {
        var answer = await trainer.PostAsJsonAsync($"/api/board/{what}", request);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static async Task<(List<object> Cells, List<(Guid Id, string Kind)> Outlets, Guid Lesson)> AllAsync(HttpClient trainer)
    {
        var board = await trainer.JsonAsync("/api/board");
        var outlets = board.GetProperty("outlets").EnumerateArray().Select(o => (o.GetProperty("id").GetGuid(), o.GetProperty("kindName").GetString()!));
        var lesson = board.GetProperty("lessons")[0].GetProperty("lessonId").GetGuid();
        return ([.. outlets.Select(o => Cell(lesson, o.Item1))], [.. outlets], lesson);
    }

    private static object Cell(Guid lesson, Guid outlet) => new { lessonId = lesson, outletId = outlet };

    private static async Task<List<string>> PhasesAsync(HttpClient trainer) =>
        [
            .. (await trainer.JsonAsync("/api/board"))
                .GetProperty("lessons")[0]
                .GetProperty("cells")
                .EnumerateArray()
                .Select(c => c.ValueKind == JsonValueKind.Object ? c.GetProperty("phase").GetString()! : ""),
        ];

    private static int Total(JsonElement plan, string what) => plan.GetProperty("totals").GetProperty(what).GetInt32();

    [Fact]
    public async Task What_stands_is_taken_down_and_released_again_at_the_same_address()
    {
        var trainer = await fixture.SignedInAsync();
        var (cells, outlets, lesson) = await AllAsync(trainer);
        (await PhasesAsync(trainer)).ShouldAllBe(p => p == "live");
        var link = (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .Select(o => o.GetProperty("release").GetProperty("link"))
            .First(l => l.ValueKind == JsonValueKind.String)
            .GetString();

        // As it is wanted, nothing is planned.
        var nothing = await PlanAsync(trainer, new { action = "release", cells });
        (Total(nothing, "nothing"), nothing.GetProperty("lines").GetArrayLength()).ShouldBe((outlets.Count, 0));

        var down = await PlanAsync(trainer, new { action = "takeDown", cells });
        (Total(down, "takenDown"), Total(down, "addressesStay")).ShouldBe((outlets.Count, 0));
        (await SentAsync(trainer, "apply", new { action = "takeDown", cells })).GetProperty("begun").GetInt32().ShouldBe(outlets.Count);
        await trainer.UntilAsync("/api/board", board =>
            board.GetProperty("lessons")[0].GetProperty("cells").EnumerateArray().All(c => c.GetProperty("phase").GetString() == "takenDown")
        );
        Total(await PlanAsync(trainer, new { action = "takeDown", cells }), "takenDown").ShouldBe(0);
        (await SentAsync(trainer, "apply", new { action = "takeDown", cells })).GetProperty("begun").GetInt32().ShouldBe(0);

        // Everything is made already: nothing is rendered, and the addresses are the same.
        var again = await PlanAsync(trainer, new { action = "release", cells });
        (Total(again, "renders"), Total(again, "pagesNew"), Total(again, "addressesStay")).ShouldBe((0, outlets.Count, outlets.Count));
        // Two people who apply plans that overlap at once come to the same end.
        var both = await Task.WhenAll(
            SentAsync(trainer, "apply", new { action = "release", cells }),
            SentAsync(trainer, "apply", new { action = "release", cells = cells.Take(2) })
        );
        both.ShouldAllBe(b => b.GetProperty("refused").GetArrayLength() == 0);
        await trainer.UntilAsync("/api/board", board =>
            board.GetProperty("lessons")[0].GetProperty("cells").EnumerateArray().All(c => c.GetProperty("phase").GetString() == "live")
        );
        (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .Select(o => o.GetProperty("release").GetProperty("link"))
            .First(l => l.ValueKind == JsonValueKind.String)
            .GetString()
            .ShouldBe(link);
    }

    [Fact]
    public async Task Who_may_see_it_is_changed_where_that_is_asked()
    {
        var trainer = await fixture.SignedInAsync();
        var (cells, outlets, lesson) = await AllAsync(trainer);
        await trainer.UntilAsync("/api/board", board =>
            board.GetProperty("lessons")[0].GetProperty("cells").EnumerateArray().All(c => c.GetProperty("phase").GetString() == "live")
        );
        var plan = await PlanAsync(
            trainer,
            new
            {
                action = "open",
                cells,
                visibility = "signedIn",
            }
        );
        var wanted = Total(plan, "opens");
        plan.GetProperty("refused").GetArrayLength().ShouldBe(outlets.Count(o => o.Kind != "channel"));
        (
            await SentAsync(
                trainer,
                "apply",
                new
                {
                    action = "open",
                    cells,
                    visibility = "signedIn",
                }
            )
        ).GetProperty("begun").GetInt32().ShouldBe(wanted);
        (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .Where(o => o.GetProperty("hasPages").GetBoolean())
            .ShouldAllBe(o => o.GetProperty("release").GetProperty("visibility").GetString() == "signedIn");
        Total(
                await PlanAsync(
                    trainer,
                    new
                    {
                        action = "open",
                        cells,
                        visibility = "signedIn",
                    }
                ),
                "opens"
            )
            .ShouldBe(0);

        // What is behind is opened as it stands: nothing else of it is planned.
        var now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = System.Text.Json.Nodes.JsonNode.Parse(now.GetProperty("document").GetRawText())!;
        async Task TitledAsync(string title, int basedOn)
        {
            document["title"] = title;
            (await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn, document })).EnsureSuccessStatusCode();
        }

        var revision = now.GetProperty("revision").GetInt32();
        await TitledAsync("Closing the till anew", revision);
        (await PhasesAsync(trainer)).ShouldAllBe(p => p == "behind");
        var behind = await PlanAsync(
            trainer,
            new
            {
                action = "open",
                cells,
                visibility = "withLink",
            }
        );
        (Total(behind, "opens"), Total(behind, "pagesChange"), Total(behind, "renders")).ShouldBe((1, 0, 0));

        // What must be answered before somebody outside the house may see it is asked by the plan, not only when it is applied.
        var open = new
        {
            action = "open",
            cells,
            visibility = "withLink",
        };
        (await trainer.PutAsJsonAsync("/api/house/details", new { })).EnsureSuccessStatusCode();
        foreach (var asked in new[] { await PlanAsync(trainer, open), await SentAsync(trainer, "apply", open) })
            asked
                .GetProperty("refused")
                .EnumerateArray()
                .Select(r => r.GetProperty("sentence").GetString()!)
                .ShouldContain(s => s.Contains("material of others", StringComparison.OrdinalIgnoreCase));
        (await trainer.PutAsJsonAsync("/api/house/details", new { thirdParty = new { used = false } })).EnsureSuccessStatusCode();
        await TitledAsync(now.GetProperty("document").GetProperty("title").GetString()!, revision + 1);
    }

    [Fact]
    public async Task What_cannot_be_planned_says_why()
    {
        var trainer = await fixture.SignedInAsync();
        var (cells, _, _) = await AllAsync(trainer);
        foreach (
            var (request, code) in new (object, string)[]
            {
                (new { action = "release", cells = Array.Empty<object>() }, "board-nothing"),
                (new { action = "open", cells }, "board-no-visibility"),
            }
        )
        foreach (var what in new[] { "plan", "apply" })
            (await (await trainer.PostAsJsonAsync($"/api/board/{what}", request)).ProblemAsync()).GetProperty("code").GetString().ShouldBe(code);
        // What was removed meanwhile has no cell any more.
        var gone = await PlanAsync(trainer, new { action = "release", cells = new[] { Cell(Guid.NewGuid(), Guid.NewGuid()) } });
        gone.GetProperty("lines").GetArrayLength().ShouldBe(0);
        (await fixture.Anonymous().PostAsJsonAsync("/api/board/plan", new { action = "release", cells })).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }
}
