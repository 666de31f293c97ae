using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Server.Audit;

namespace Wexel.Server.Tests;

/// <summary>Every action is in the audit list: who, when, what, from where.</summary>
public sealed class AuditTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private static async Task<List<JsonElement>> ListAsync(HttpClient trainer, string query = "") =>
        [.. (await trainer.JsonAsync("/api/audit" + query)).EnumerateArray()];

    [Fact]
    public async Task What_somebody_does_is_told_with_who_and_where_and_what_is_refused_is_not()
    {
        var trainer = await fixture.SignedInAsync();
        var made = await (
            await trainer.PostAsJsonAsync("/api/outlets/webServer", new { name = "Quay 100 %", settings = new { } })
        ).Content.ReadFromJsonAsync<JsonElement>();
        (await trainer.PostAsJsonAsync("/api/outlets/webServer", new { name = "", settings = new { } })).IsSuccessStatusCode.ShouldBeFalse();
        (await trainer.DeleteAsync($"/api/outlets/{made.GetProperty("id").GetGuid()}")).EnsureSuccessStatusCode();

        var list = await ListAsync(trainer);
        list.Take(3)
            .Select(e => (e.GetProperty("who").GetString(), e.GetProperty("what").GetString(), e.GetProperty("subject").GetString()))
            .ShouldBe([("Mara Tarn", "removed the outlet", "Quay 100 %"), ("Mara Tarn", "added an outlet", null), ("Mara Tarn", "signed in", null)]);
        list[0].GetProperty("at").GetDateTimeOffset().ShouldBe(DateTimeOffset.UtcNow, TimeSpan.FromMinutes(1));
        list[0].TryGetProperty("from", out _).ShouldBeTrue();

        // Found by words as they are, and from a number on.
        (await ListAsync(trainer, "?words=mara%20100%20%25")).Count.ShouldBe(1);
        (await ListAsync(trainer, "?words=1_0")).ShouldBeEmpty();
        (await ListAsync(trainer, $"?before={list[0].GetProperty("number").GetInt64()}"))[0].GetProperty("what").GetString().ShouldBe("added an outlet");
    }

    [Fact]
    public async Task A_lesson_is_named_and_linked()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.UntilAsync("/api/lessons", c => c.GetArrayLength() > 0))[0].GetProperty("lessons")[0];
        var id = lesson.GetProperty("id").GetGuid();
        (await trainer.PutAsJsonAsync($"/api/lessons/{id}/outlets/{await OutletAsync(trainer)}/details", new { })).EnsureSuccessStatusCode();
        var last = (await ListAsync(trainer))[0];
        last.GetProperty("subject").GetString().ShouldBe(lesson.GetProperty("title").GetString());
        last.GetProperty("lessonId").GetGuid().ShouldBe(id);
    }

    private static async Task<Guid> OutletAsync(HttpClient trainer) => (await trainer.JsonAsync("/api/outlets"))[0].GetProperty("id").GetGuid();

    [Fact]
    public void Whatever_changes_something_has_words()
    {
        var names = fixture
            .Server.Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(e => e.RoutePattern.RawText?.TrimStart('/').StartsWith("api/", StringComparison.Ordinal) == true)
            .Where(e => e.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods.Any(m => m is "POST" or "PUT" or "DELETE") == true)
            .ToDictionary(
                e => e.RoutePattern.RawText + string.Join(',', e.Metadata.GetMetadata<HttpMethodMetadata>()!.HttpMethods),
                e => e.Metadata.GetMetadata<IEndpointNameMetadata>()?.EndpointName
            );
        names
            .Where(e => AuditWords.Find(e.Value) is null == !AuditWords.ChangeNothing.Contains(e.Value ?? ""))
            .Select(e => $"{e.Key} {e.Value}")
            .ShouldBeEmpty("Each is either an action with words, or changes nothing.");
        AuditWords.Names.Concat(AuditWords.ChangeNothing).Except(names.Values.OfType<string>()).ShouldBeEmpty("There is no word for what there is not.");
    }
}
