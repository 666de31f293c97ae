using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests.VideoServices;

/// <summary>What goes wrong at a service is said plainly, loses nothing, and is gone on with.</summary>
public sealed class VideoFaultTests(VideoFixture fixture) : IClassFixture<VideoFixture>
{
    [Fact]
    public async Task What_passes_by_itself_is_waited_for_and_a_token_that_ends_in_the_middle_is_had_anew()
    {
        var desk = await VideoDesk.ReadyAsync(fixture, "Skerry, busy now and then");
        fixture.Troubles.Set("busy", 2);
        fixture.Troubles.Set("slow-down", 1, under: "/upload");
        fixture.Troubles.Set("expire", 1, under: "/upload");
        var live = await desk.LiveAsync();
        (fixture.Troubles.Left("busy"), fixture.Troubles.Left("slow-down"), fixture.Troubles.Left("expire")).ShouldBe((0, 0, 0), "it met all of it");
        fixture.Store.All.Count(v => v.Key == desk.There(live).Key).ShouldBe(1);
        // What is kept of the connection nobody can read.
        await fixture.WithAsync(db =>
        {
            foreach (var tokens in db.VideoAccounts.Select(a => a.Tokens).ToList())
                tokens.ShouldNotContain("access");
            return Task.CompletedTask;
        });
    }

    [Theory]
    [InlineData("not-json", "video-service-odd-answer", "Skerry is being painted")]
    [InlineData("endless", "video-service-odd-answer", "more than 4 MB")]
    [InlineData("elsewhere", "video-service-odd-answer", "169.254.169.254")]
    public async Task An_answer_that_cannot_be_meant_is_no_answer(string trouble, string code, string said)
    {
        var desk = await VideoDesk.ReadyAsync(fixture, $"Skerry, {trouble}");
        fixture.Troubles.Set(trouble, 1000, "http://169.254.169.254/latest/meta-data/");
        var failed = await desk.EndedAsync();
        VideoDesk.Problem(failed).ShouldBe(code, failed.GetProperty("way").ToString());
        failed.GetProperty("way").GetProperty("problem").GetProperty("sentence").GetString()!.ShouldContain(said);
        fixture.Troubles.Set(trouble, 0);
        await desk.LiveAsync();
    }

    [Fact]
    public async Task A_quota_that_is_used_up_stops_it_at_a_piece_from_which_it_goes_on()
    {
        var desk = await VideoDesk.ReadyAsync(fixture, "Skerry, quota");
        fixture.Troubles.Set("quota", 1000);
        var failed = await desk.EndedAsync();
        fixture.Troubles.Set("quota", 0);
        VideoDesk.Problem(failed).ShouldBe("video-service-quota", failed.GetProperty("way").ToString());
        failed.GetProperty("way").GetProperty("problem").GetProperty("sentence").GetString()!.ShouldContain("full again at midnight");
        var half = desk.There(failed);
        var there = new FileInfo(fixture.Store.Source(half)).Length;
        there.ShouldBe(6 * 20_000, "six pieces were taken");
        var live = await desk.LiveAsync();
        (desk.There(live).Id, desk.There(live).Source).ShouldBe((half.Id, 1));
        new FileInfo(fixture.Store.Source(half)).Length.ShouldBe(half.Bytes);
    }

    [Fact]
    public async Task A_connection_that_was_withdrawn_is_said_plainly_and_mended_with_one_press()
    {
        var desk = await VideoDesk.ReadyAsync(fixture, "Skerry, withdrawn", "deck-crew", "Deck crew");
        var live = await desk.LiveAsync();
        var page = await fixture.Skerry.GetStringAsync("");
        var grants = System.Text.RegularExpressions.Regex.Matches(page, "deck-crew <form[^>]*grant=([0-9a-f]+)");
        foreach (var grant in grants.Select(g => g.Groups[1].Value))
            await fixture.Skerry.PostAsync($"door/withdraw?grant={grant}", null);
        await desk.SayAsync("Another.");
        var failed = await desk.EndedAsync();
        VideoDesk.Problem(failed).ShouldBe("video-service-withdrawn", failed.GetProperty("way").ToString());
        (await VideoFixture.AccountAsync(desk.Trainer, desk.Outlet, "Deck crew")).GetProperty("withdrawn").GetBoolean().ShouldBeTrue();
        failed.GetProperty("video").GetProperty("unfit").GetProperty("code").GetString().ShouldBe("video-service-withdrawn");
        // Whoever does not want to is asked nothing more.
        (await fixture.ConnectAsync(desk.Trainer, desk.Outlet, "")).ShouldContain("refused=");
        (await fixture.ConnectAsync(desk.Trainer, desk.Outlet, "deck-crew")).ShouldContain("connected=Deck%20crew");
        var again = await desk.LiveAsync();
        (desk.There(again).Id, desk.There(again).Texts.Description![..8]).ShouldBe((desk.There(live).Id, "Another."));
        // Who began it somewhere else cannot end it here.
        (await desk.Trainer.GetAsync("/api/video-services/back?code=x&state=made-up")).Headers.Location!.ToString().ShouldBe("/kit");
        // An account under which something stands is not forgotten.
        var kept = await desk.Trainer.DeleteAsync($"/api/video-accounts/{desk.Account}");
        (await kept.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString().ShouldBe("video-account-in-use");
    }

    [Fact]
    public async Task Its_clock_may_go_wrong()
    {
        var desk = await VideoDesk.ReadyAsync(fixture, "Skerry, an hour ahead");
        fixture.Troubles.Set("clock", 1);
        await desk.WantAsync();
        var processed = await desk.UntilAsync(p => p.GetProperty("video").GetProperty("readyAt").ValueKind == JsonValueKind.String);
        fixture.Troubles.Set("clock", 0);
        processed.GetProperty("video").GetProperty("readyAt").GetDateTimeOffset().ShouldBe(DateTimeOffset.UtcNow, TimeSpan.FromMinutes(1));
        await desk.UntilAsync(ReleaseJobTests.HasEnded);
    }

    [Fact]
    public async Task What_the_service_would_refuse_is_said_before_it_is_asked()
    {
        var desk = await VideoDesk.ReadyAsync(fixture, "Skerry, refusing");
        await desk.SayAsync(category: "Ferry operations");
        var place = await desk.UntilAsync(p => p.GetProperty("video").GetProperty("unfit").ValueKind == JsonValueKind.Object);
        place.GetProperty("video").GetProperty("unfit").GetProperty("sentence").GetString()!.ShouldContain("Harbour life");
        VideoDesk.Problem(await desk.EndedAsync()).ShouldBe("video-category-unknown");
        await desk.SayAsync();
        VideoDesk.Problem(await desk.EndedAsync("signedIn")).ShouldBe("visibility-not-there");
        // What only the service knows it says itself.
        await desk.SayAsync(title: "The <till>");
        var refused = await desk.EndedAsync();
        VideoDesk.Problem(refused).ShouldBe("video-service-refused");
        refused.GetProperty("way").GetProperty("problem").GetProperty("sentence").GetString()!.ShouldContain("no angle brackets");
        // Nobody says whether it is made for children: there is no default.
        var bare = await desk.Trainer.PutAsJsonAsync($"/api/lessons/{desk.Lesson}/outlets/{desk.Outlet}/details", new { title = "Closing the till" });
        bare.EnsureSuccessStatusCode();
        VideoDesk.Problem(await desk.EndedAsync()).ShouldBe("detail-missing");
    }

    [Fact]
    public async Task Two_releases_to_two_accounts_at_once_are_two_videos()
    {
        var one = await VideoDesk.ReadyAsync(fixture, "Skerry, one");
        var other = await VideoDesk.ReadyAsync(fixture, "Skerry, other", "deck-crew", "Deck crew");
        await Task.WhenAll(one.WantAsync(), other.WantAsync());
        var (first, second) = (one.There(await one.UntilAsync(ReleaseJobTests.HasEnded)), other.There(await other.UntilAsync(ReleaseJobTests.HasEnded)));
        (first.Account, second.Account).ShouldBe(("ticket-desk", "deck-crew"));
        first.Id.ShouldNotBe(second.Id);
        // Moved to another account, it is removed under the first.
        var moved = one with { Account = other.Account };
        await moved.PlaceAsync();
        var live = await moved.LiveAsync();
        moved.There(live).Account.ShouldBe("deck-crew");
        fixture.Store.Find(first.Id).ShouldBeNull();
    }
}
