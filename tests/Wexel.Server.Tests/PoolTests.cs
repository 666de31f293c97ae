using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Wexel.Server.Tests;

/// <summary>Questions that are kept for reuse: by tag, each once, and none that only its own lesson could ask.</summary>
public sealed class PoolTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private static string Question(string text, string asks, string tags = "[]") =>
        $$"""{"id":"q","at":500,"text":"{{text}}","asks":{{asks}},"again":400,"tags":{{tags}}}""";

    private const string Truth = """{"kind":"truth","true":true}""";

    private static async Task<(HttpStatusCode Status, string Said)> KeepAsync(HttpClient trainer, params string[] questions)
    {
        var cancel = TestContext.Current.CancellationToken;
        using var body = new StringContent($"[{string.Join(',', questions)}]", Encoding.UTF8, "application/json");
        var kept = await trainer.PostAsync("/api/pool", body, cancel);
        var text = await kept.Content.ReadAsStringAsync(cancel);
        return (kept.StatusCode, text.Length == 0 ? "" : JsonDocument.Parse(text).RootElement.GetProperty("detail").GetString()!);
    }

    [Fact]
    public async Task What_is_kept_is_found_by_its_tags_at_no_moment_and_only_once()
    {
        var cancel = TestContext.Current.CancellationToken;
        var trainer = await fixture.SignedInAsync();
        (
            await KeepAsync(trainer, Question("Cars drive over the gangway.", Truth, """["Deck","deck "]"""), Question("Dogs need a ticket.", Truth))
        ).Status.ShouldBe(HttpStatusCode.NoContent);
        await KeepAsync(trainer, Question("Cars drive over the gangway.", """{"kind":"truth","true":false}"""));
        var pool = (await trainer.JsonAsync("/api/pool")).EnumerateArray().ToList();
        pool.Count(p => p.GetProperty("question").GetProperty("text").GetString() == "Dogs need a ticket.").ShouldBe(1);
        var cars = pool.Single(p => p.GetProperty("question").GetProperty("text").GetString()!.StartsWith("Cars", StringComparison.Ordinal));
        (cars.GetProperty("question").GetProperty("asks").GetProperty("true").GetBoolean(), cars.GetProperty("keptBy").GetString()).ShouldBe(
            (false, "Mara Tarn")
        );
        (cars.GetProperty("question").GetProperty("at").GetInt32(), cars.GetProperty("question").GetProperty("again").ValueKind).ShouldBe(
            (0, JsonValueKind.Null)
        );
        var id = cars.GetProperty("id").GetGuid();
        (await trainer.DeleteAsync($"/api/pool/{id}", cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await trainer.DeleteAsync($"/api/pool/{id}", cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task What_asks_the_same_is_kept_once_also_in_one_step_and_by_several_at_once()
    {
        var trainer = await fixture.SignedInAsync();
        const string lie = """{"kind":"truth","true":false}""";
        (await KeepAsync(trainer, Question("The ramp is wet.", Truth), Question("The ramp is wet.", lie))).Status.ShouldBe(HttpStatusCode.NoContent);
        var several = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => KeepAsync(trainer, Question("The bell rings twice.", Truth))));
        several.ShouldAllBe(kept => kept.Status == HttpStatusCode.NoContent);
        var pool = (await trainer.JsonAsync("/api/pool")).EnumerateArray().Select(p => p.GetProperty("question")).ToList();
        pool.Single(q => q.GetProperty("text").GetString() == "The ramp is wet.").GetProperty("asks").GetProperty("true").GetBoolean().ShouldBeFalse();
        pool.Count(q => q.GetProperty("text").GetString() == "The bell rings twice.").ShouldBe(1);
    }

    [Fact]
    public async Task What_cannot_be_asked_elsewhere_is_refused_in_a_sentence()
    {
        var trainer = await fixture.SignedInAsync();
        (await KeepAsync(trainer, Question("Which?", """{"kind":"one","options":[{"id":"a","text":"A"}]}"""))).Said.ShouldContain(
            "“Which?” cannot be asked yet"
        );
        const string place = """{"kind":"place","areas":[{"shape":{"kind":"rectangle","points":[{"x":0,"y":0},{"x":1,"y":1}]},"text":"A","right":true}]}""";
        (await KeepAsync(trainer, Question("Where?", place))).Said.ShouldContain("about a picture of its lesson");
        (await KeepAsync(trainer, [.. Enumerable.Range(0, 201).Select(i => Question($"Number {i}?", Truth))])).Said.ShouldBe(
            "201 questions are more than the pool takes in one step. Keep 200 at a time."
        );
        (await fixture.Anonymous().GetAsync("/api/pool", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }
}
