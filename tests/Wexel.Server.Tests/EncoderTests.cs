using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Options;
using Wexel.Data;
using Wexel.Server.Setup;

namespace Wexel.Server.Tests;

/// <summary>What happens to an encoder from outside: its rendition is tried once more, and comes out whole.</summary>
public sealed class EncoderTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    [Theory]
    [InlineData("KILL")]
    [InlineData("STOP")]
    public async Task An_encoder_that_is_killed_or_hangs_is_ended_and_its_work_done_again(string signal)
    {
        fixture.Server.Services.GetRequiredService<IOptions<WexelOptions>>().Value.EncoderHangsAfter = TimeSpan.FromSeconds(8);
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        // Every frame, with much effort: it takes long enough to be caught at it.
        var slow = JsonNode.Parse((await trainer.JsonAsync("/api/profiles"))[0].GetProperty("profile").GetRawText())!.AsObject();
        (slow["title"], slow["picture"]!["effort"], slow["picture"]!["timing"]) = ($"Slow {signal}", "smaller", new JsonObject { ["rule"] = "asRecorded" });
        slow["picture"]!["size"] = new JsonObject { ["rule"] = "atMostHeight", ["height"] = 480 };
        slow["picture"]!["rate"]!["quality"] = signal == "KILL" ? 24 : 25;
        var profile = (await (await trainer.PostAsJsonAsync("/api/profiles", slow)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!;
        var asked = await (
            await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { profile } })
        ).Content.ReadFromJsonAsync<JsonElement>();
        var id = asked.GetProperty("renditions")[0].GetProperty("id").GetGuid();
        JsonElement Mine(JsonElement queue) => queue.EnumerateArray().First(r => r.GetProperty("id").GetGuid() == id);
        await trainer.UntilAsync("/api/queue", q => Mine(q).GetProperty("progress").GetDouble() > 0);
        using (
            var killing = Process.Start(
                "kill",
                [$"-{signal}", (await File.ReadAllTextAsync(Directory.EnumerateFiles(Path.Combine(fixture.Data, "working")).Single())).Trim()]
            )
        )
            await killing.WaitForExitAsync();

        Mine(await trainer.UntilAsync("/api/queue", q => Mine(q).GetProperty("state").GetString() is "done" or "failed"))
            .GetProperty("state")
            .GetString()
            .ShouldBe("done");
        await using var db = await fixture.Server.Services.GetRequiredService<IDbContextFactory<WexelDb>>().CreateDbContextAsync();
        (await db.Renditions.AsNoTracking().SingleAsync(r => r.Id == id)).Attempts.ShouldBe(2);
        Directory.EnumerateFiles(fixture.Data, ".making-*", SearchOption.AllDirectories).ShouldBeEmpty();
    }
}
