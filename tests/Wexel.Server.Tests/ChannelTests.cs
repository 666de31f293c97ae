using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Data;

namespace Wexel.Server.Tests;

/// <summary>What a channel is known by, and who looks after it.</summary>
public sealed class ChannelTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    [Fact]
    public async Task A_channel_has_a_picture_and_owners_who_alone_change_it_besides_administrators()
    {
        var administrator = await fixture.SignedInAsync();
        const string pia = "pia.owns@brackwater.example",
            rex = "rex.other@brackwater.example";
        var (owner, _) = (await fixture.PersonAsync(pia, "Pia Owns", "trainer"), await fixture.PersonAsync(rex, "Rex Other", "trainer"));
        var learner = await fixture.PersonAsync("lou.learns@brackwater.example", "Lou Learns");
        var (hers, his) = (await fixture.SignedInAsync(pia), await fixture.SignedInAsync(rex));
        var channel = (await administrator.JsonAsync("/api/outlets")).EnumerateArray().First(o => o.GetProperty("kind").GetString() == "channel");
        var (id, name) = (channel.GetProperty("id").GetGuid(), channel.GetProperty("name").GetString()!);
        Task<HttpResponseMessage> SaveAsync(HttpClient who, JsonObject settings) => who.PutAsJsonAsync($"/api/outlets/{id}", new { name, settings });

        // Where nobody looks after it, every trainer does.
        (await SaveAsync(his, new() { ["about"] = "For the desk." })).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await CodeOf(await SaveAsync(hers, new() { ["owners"] = new JsonArray(learner.ToString()) }))).ShouldBe("channel-owner-unfit");
        (await CodeOf(await SaveAsync(hers, new() { ["picture"] = "made-up" }))).ShouldBe("channel-picture-gone");
        (await SaveAsync(hers, new() { ["owners"] = new JsonArray(owner.ToString()) })).StatusCode.ShouldBe(HttpStatusCode.OK);

        var refused = await SaveAsync(his, new() { ["about"] = "Mine." });
        refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await refused.ProblemAsync()).GetProperty("detail").GetString()!.ShouldContain("looked after by Pia Owns");
        (await his.DeleteAsync($"/api/outlets/{id}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await SaveAsync(administrator, new() { ["about"] = "For the desk and the quay." })).StatusCode.ShouldBe(HttpStatusCode.OK);

        using var picture = new ByteArrayContent(await Pictures.MadeAsync(1280, 720));
        picture.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        var taken = await hers.PutAsync("/api/pictures", picture);
        taken.StatusCode.ShouldBe(HttpStatusCode.OK, await taken.Content.ReadAsStringAsync());
        var key = (await taken.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("key").GetString();
        (await SaveAsync(hers, new() { ["picture"] = key })).StatusCode.ShouldBe(HttpStatusCode.OK);
        var page = await his.GetStringAsync("/c/staff-channel");
        page.ShouldContain("Looked after by");
        page.ShouldContain($"/c/staff-channel/picture.jpg?of={key}");
        var shown = await his.GetAsync("/c/staff-channel/picture.jpg");
        shown.Content.Headers.ContentType!.MediaType.ShouldBe("image/jpeg");
        // Who may see nothing in it sees no picture either.
        var release = (await ReleasesAsync())[0];
        await ServerFixture.ExecuteAsync($"""update "Releases" set "Visibility" = 'SignedIn' where "Id" = '{release}'""", fixture.Database);
        await fixture.Anonymous().UntilStatusAsync("/c/staff-channel/picture.jpg", HttpStatusCode.NotFound);

        // Where its owner is let in no more, it is everybody's again.
        (await administrator.PutAsync($"/api/people/{owner}/disabled", null)).EnsureSuccessStatusCode();
        (await SaveAsync(his, new() { ["owners"] = new JsonArray() })).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    private async Task<List<Guid>> ReleasesAsync()
    {
        using var scope = fixture.Server.Services.CreateScope();
        return await scope.ServiceProvider.GetRequiredService<WexelDb>().Releases.Where(r => r.Outlet!.Kind == "channel").Select(r => r.Id).ToListAsync();
    }

    private static async Task<string?> CodeOf(HttpResponseMessage refused) => (await refused.ProblemAsync()).GetProperty("code").GetString();
}
