using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests;

/// <summary>A lesson may be seen from a moment on: until then only whoever makes lessons sees it, and its address says when.</summary>
public sealed class OpeningTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    [Fact]
    public async Task A_lesson_opens_when_its_time_has_come()
    {
        var trainer = await fixture.SignedInAsync();
        var learner = await fixture.SignedInAsync(ServerFixture.Learner);
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0];
        var channel = (await trainer.JsonAsync($"/api/lessons/{lesson.GetProperty("id").GetGuid()}/releases"))
            .EnumerateArray()
            .Single(o => o.GetProperty("kind").GetString() == "channel");
        var release = channel.GetProperty("release").GetProperty("id").GetGuid();
        var page = new Uri(channel.GetProperty("release").GetProperty("link").GetString()!).AbsolutePath;
        async Task OpenAsync(DateTimeOffset? opensAt) =>
            (await trainer.PutAsJsonAsync($"/api/releases/{release}/visibility", new { visibility = "everybody", opensAt })).EnsureSuccessStatusCode();

        var later = DateTimeOffset.UtcNow.AddHours(2);
        await OpenAsync(later);
        foreach (var somebody in new[] { learner, fixture.Anonymous() })
        {
            var away = await somebody.GetAsync(page);
            away.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
            // When it may be asked for again, in seconds (RFC 9110, section 10.2.3).
            away.Headers.RetryAfter!.Delta!.Value.ShouldBe(TimeSpan.FromHours(2), TimeSpan.FromMinutes(1));
            (await away.Content.ReadAsStringAsync()).ShouldContain("opens later");
            (await somebody.GetAsync(page.Replace("/watch/", "/embed/", StringComparison.Ordinal))).StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
            (await somebody.GetAsync(page + "/video.mp4")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
            (
                await somebody.GetAsync($"/oembed?url={Uri.EscapeDataString(channel.GetProperty("release").GetProperty("link").GetString()!)}")
            ).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        }

        (await learner.GetStringAsync("/channel")).ShouldNotContain(page);
        (await trainer.GetAsync(page)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await trainer.GetAsync(page + "/video.mp4")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await trainer.JsonAsync($"/api/lessons/{lesson.GetProperty("id").GetGuid()}/releases"))
            .EnumerateArray()
            .Single(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("release")
            .GetProperty("opensAt")
            .GetDateTimeOffset()
            .ShouldBe(later, TimeSpan.FromSeconds(1));

        await OpenAsync(DateTimeOffset.UtcNow.AddSeconds(-1));
        (await fixture.Anonymous().GetAsync(page)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await learner.GetStringAsync("/channel")).ShouldContain(page);
        await OpenAsync(null);
        (await fixture.Anonymous().GetAsync(page + "/video.mp4")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task What_is_downloaded_is_named_as_the_house_says()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        var package = (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .Select(o => o.GetProperty("release").GetProperty("package"))
            .First(p => p.ValueKind == JsonValueKind.Object)
            .GetProperty("link")
            .GetString()!;
        async Task<string> NameAsync() => (await trainer.GetAsync(package)).Content.Headers.ContentDisposition!.FileNameStar!;
        (await NameAsync()).ShouldBe("Closing the till.zip");
        var house = await (
            await trainer.PutAsJsonAsync("/api/house/names", new { filePattern = "{course} {number} {short}" })
        ).Content.ReadFromJsonAsync<JsonElement>();
        house.GetProperty("fileExample").GetString().ShouldBe("Ticket desk basics 03 The till.mp4");
        (await NameAsync()).ShouldEndWith("01 Closing the till.zip");
        var refused = await (await trainer.PutAsJsonAsync("/api/house/names", new { filePattern = "{course}" })).ProblemAsync();
        (refused.GetProperty("code").GetString(), refused.GetProperty("field").GetString()).ShouldBe(("name-pattern-unusable", "filePattern"));
        (await trainer.PutAsJsonAsync("/api/house/names", new { filePattern = "" })).EnsureSuccessStatusCode();
        (await NameAsync()).ShouldBe("Closing the till.zip");
    }
}
