using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Documents;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Packages;
using Wexel.Data;

namespace Wexel.Server.Tests;

/// <summary>What was released by an earlier version opens in today's player: its page is brought up to what that is told.</summary>
public sealed class EarlierReleaseTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    public static TheoryData<string> Pages => [.. Directory.EnumerateFiles(Fixtures, "page-*.json").Select(f => Path.GetFileNameWithoutExtension(f)).Order()];

    private static string Fixtures => Path.Combine(ServerFixture.Home, "tests", "Wexel.Core.Tests", "Documents", "Fixtures");

    [Theory]
    [MemberData(nameof(Pages))]
    public async Task It_opens_and_has_what_it_had(string page)
    {
        var cancel = TestContext.Current.CancellationToken;
        var written = await File.ReadAllTextAsync(Path.Combine(Fixtures, page + ".json"), cancel);
        string token;
        await using (var db = await fixture.Server.Services.GetRequiredService<IDbContextFactory<WexelDb>>().CreateDbContextAsync(cancel))
        {
            var release = await db.Releases.FirstAsync(r => r.Outlet!.Kind == ChannelKind.Channel, cancel);
            (release.Player, token) = (written, release.Token);
            await db.SaveChangesAsync(cancel);
        }

        var html = await fixture.Anonymous().GetStringAsync($"/watch/{token}", cancel);
        var data = html[html.IndexOf("id=\"wexel-lesson\">", StringComparison.Ordinal)..];
        data = data[(data.IndexOf('>', StringComparison.Ordinal) + 1)..data.IndexOf("</script>", StringComparison.Ordinal)];
        var lesson = JsonDocument.Parse(data).RootElement.GetProperty("lesson");
        // What is right stays with the server.
        var expected = WexelJson.Write(PlayerLesson.Format.Read(written).WithoutKeys);
        lesson.GetRawText().ShouldBe(expected);
        lesson.GetProperty("captions").ValueKind.ShouldBe(JsonValueKind.Array);
        (await fixture.Anonymous().GetAsync($"/embed/{token}", cancel)).IsSuccessStatusCode.ShouldBeTrue();
    }
}
