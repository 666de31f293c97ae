using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Releases;

namespace Wexel.Server.Tests;

/// <summary>One press: rendered, checked, packed, sent and live in the background, under an address that is there from the first moment.</summary>
public sealed class ReleaseJobTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    internal static async Task<Guid> LessonAsync(HttpClient trainer)
    {
        var lesson = (await trainer.UntilAsync("/api/lessons", c => c.GetArrayLength() > 0))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        return lesson;
    }

    internal static async Task<List<JsonElement>> PlacesAsync(HttpClient trainer, Guid lesson) =>
        [.. (await trainer.JsonAsync($"/api/lessons/{lesson}/releases")).EnumerateArray()];

    internal static string Phase(JsonElement place) =>
        place.GetProperty("way") is { ValueKind: JsonValueKind.Object } way ? way.GetProperty("phase").GetString()! : "";

    internal static bool HasEnded(JsonElement place) => Phase(place) is "live" or "failed" or "takenDown";

    internal static object Wish(Guid lesson, JsonElement place, string visibility = "withLink") =>
        new
        {
            lessonId = lesson,
            outletId = place.GetProperty("id").GetGuid(),
            visibility,
        };

    [Fact]
    public async Task One_press_brings_a_lesson_to_every_place_and_one_mail_tells()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var places = await PlacesAsync(trainer, lesson);
        places.Single(p => p.GetProperty("kind").GetString() == "channel").GetProperty("handsOn").ValueKind.ShouldBe(JsonValueKind.Null);
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = places.Select(p => Wish(lesson, p)) })).EnsureSuccessStatusCode();

        // The address is there from the first moment, and its page says what will be.
        var channel = (await PlacesAsync(trainer, lesson)).Single(p => p.GetProperty("kind").GetString() == "channel");
        var link = new Uri(channel.GetProperty("handsOn").GetProperty("link").GetString()!).AbsolutePath;
        channel.GetProperty("handsOn").GetProperty("embedCode").GetString()!.ShouldContain("/embed/");
        var early = await fixture.Anonymous().GetAsync(link);
        if (early.StatusCode != HttpStatusCode.OK)
        {
            early.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
            early.Headers.RetryAfter.ShouldNotBeNull();
            var said = await early.Content.ReadAsStringAsync();
            said.ShouldContain("being prepared");
            said.ShouldNotContain("Closing the till");
            // The lesson may have come live in between.
            var toTrainer = await trainer.GetAsync(link);
            if (toTrainer.StatusCode != HttpStatusCode.OK)
                (await toTrainer.Content.ReadAsStringAsync()).ShouldContain("whoever has this link");
        }

        var live = (await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => all.EnumerateArray().All(HasEnded))).EnumerateArray().ToList();
        live.Select(Phase).ShouldAllBe(p => p == "live");
        live.ShouldAllBe(p => !p.GetProperty("release").GetProperty("behind").GetBoolean());
        (await fixture.Anonymous().GetAsync(link)).StatusCode.ShouldBe(HttpStatusCode.OK);
        // What has an address was sent there by the same press.
        live.Single(p => p.GetProperty("kind").GetString() == "learningSystem")
            .GetProperty("release")
            .GetProperty("package")
            .GetProperty("sent")
            .ValueKind.ShouldBe(JsonValueKind.Object);

        // Others of these tests write too; this one's tells of all places.
        bool Begins(JsonElement one, string with) => one.GetProperty("subject").GetString()!.StartsWith(with, StringComparison.Ordinal);
        bool IsOurs(JsonElement one) =>
            Begins(one, "Released:")
            && new[] { "Embed code: <iframe", "Feed: ", "Staff channel" }.All(part =>
                one.GetProperty("text").GetString()!.Contains(part, StringComparison.Ordinal)
            );
        var mails = (await fixture.Outside.Client.UntilAsync("mail.json", all => all.EnumerateArray().Any(IsOurs))).EnumerateArray().ToList();
        mails.Count(IsOurs).ShouldBe(1);
        mails.Count(m => Begins(m, "Ready:")).ShouldBe(0, "one mail tells of all of it");

        // Who may see it is changed at once: neither file, nor revision, nor address.
        var release = channel.GetProperty("way").GetProperty("id").GetGuid();
        var before = await RowAsync(release);
        (await trainer.PutAsJsonAsync($"/api/releases/{release}/visibility", new { visibility = "signedIn" })).EnsureSuccessStatusCode();
        (await fixture.Anonymous().GetAsync(link)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        var after = await RowAsync(release);
        (after.Token, after.FileKey, after.Revision, after.MadeFrom, after.ReleasedAt).ShouldBe(
            (before.Token, before.FileKey, before.Revision, before.MadeFrom, before.ReleasedAt)
        );
        (await PlacesAsync(trainer, lesson)).ShouldAllBe(p => !p.GetProperty("release").GetProperty("behind").GetBoolean());

        // Taken down the address says so, and released again it is the same.
        (await trainer.DeleteAsync($"/api/releases/{release}")).EnsureSuccessStatusCode();
        (await trainer.GetAsync(link)).StatusCode.ShouldBe(HttpStatusCode.Gone);
        (await trainer.GetAsync(link.Replace("/watch/", "/embed/", StringComparison.Ordinal))).StatusCode.ShouldBe(HttpStatusCode.Gone);
        (await PlacesAsync(trainer, lesson))
            .Single(p => p.GetProperty("kind").GetString() == "channel")
            .GetProperty("handsOn")
            .ValueKind.ShouldBe(JsonValueKind.Null);
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, channel) } })).EnsureSuccessStatusCode();
        var again = await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all => all.EnumerateArray().All(HasEnded));
        new Uri(
            again.EnumerateArray().Single(p => p.GetProperty("kind").GetString() == "channel").GetProperty("release").GetProperty("link").GetString()!
        ).AbsolutePath.ShouldBe(link);
        (await fixture.Anonymous().GetAsync(link)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await fixture.Anonymous().GetAsync("/watch/neverwas")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Two_people_who_want_the_same_at_once_want_one_release()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var feed = (await PlacesAsync(trainer, lesson)).Single(p => p.GetProperty("kind").GetString() == "podcastFeed");
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 8).Select(_ => trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, feed) } }))
        );
        answers.ShouldAllBe(a => a.IsSuccessStatusCode);
        var ids = await Task.WhenAll(answers.Select(async a => (await a.Content.ReadFromJsonAsync<Guid[]>())!.Single()));
        ids.Distinct().Count().ShouldBe(1);
        await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all =>
            Phase(all.EnumerateArray().Single(p => p.GetProperty("kind").GetString() == "podcastFeed")) == "live"
        );
    }

    [Fact]
    public async Task What_a_dead_server_left_is_gone_on_with()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var host = (await PlacesAsync(trainer, lesson)).Single(p => p.GetProperty("kind").GetString() == "webServer");
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { Wish(lesson, host) } })).EnsureSuccessStatusCode();
        await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all =>
            Phase(all.EnumerateArray().Single(p => p.GetProperty("kind").GetString() == "webServer")) == "live"
        );
        var id = (await PlacesAsync(trainer, lesson))
            .Single(p => p.GetProperty("kind").GetString() == "webServer")
            .GetProperty("way")
            .GetProperty("id")
            .GetGuid();

        // A server wrote down that it packs, and died; nobody has hold of it.
        using var scope = fixture.Server.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        var row = await db.Releases.FirstAsync(r => r.Id == id);
        var long_ago = DateTimeOffset.UtcNow.AddHours(-1);
        row.Go(ReleasePhase.Planned, long_ago);
        row.Go(ReleasePhase.Packing, long_ago);
        await db.SaveChangesAsync();
        await scope.ServiceProvider.GetRequiredService<LeftReleases>().DoAsync(CancellationToken.None);
        await trainer.UntilAsync($"/api/lessons/{lesson}/releases", all =>
            Phase(all.EnumerateArray().Single(p => p.GetProperty("kind").GetString() == "webServer")) == "live"
        );
    }

    [Fact]
    public async Task What_nobody_has_or_too_much_is_refused()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        (await (await trainer.PostAsJsonAsync("/api/releases", new { wishes = Array.Empty<object>() })).ProblemAsync())
            .GetProperty("code")
            .GetString()
            .ShouldBe("release-nothing");
        (
            await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { new { lessonId = Guid.NewGuid(), outletId = Guid.NewGuid() } } })
        ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.PostAsJsonAsync("/api/releases", new { wishes = new[] { new { lessonId = lesson, outletId = Guid.NewGuid() } } })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await trainer.PutAsJsonAsync($"/api/releases/{Guid.NewGuid()}/visibility", new { visibility = "withLink" })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    private Task<Release> RowAsync(Guid id) => RowAsync(fixture, id);

    internal static async Task<Release> RowAsync(ServerFixture fixture, Guid id)
    {
        using var scope = fixture.Server.Services.CreateScope();
        return await scope.ServiceProvider.GetRequiredService<WexelDb>().Releases.IgnoreQueryFilters().AsNoTracking().FirstAsync(r => r.Id == id);
    }
}
