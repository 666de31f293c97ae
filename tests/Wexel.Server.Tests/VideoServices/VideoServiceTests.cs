using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Wexel.Data.Model;
using Wexel.Delivering.VideoServices;
using Wexel.Server.Releases;

namespace Wexel.Server.Tests.VideoServices;

/// <summary>A lesson at an outside video service: connected once, uploaded in pieces, shown as it is processed, changed later without the video.</summary>
public sealed class VideoServiceTests(VideoFixture fixture) : IClassFixture<VideoFixture>
{
    [Fact]
    public async Task It_is_connected_uploaded_processed_and_ready_and_its_link_is_there_from_the_start()
    {
        var ready = await VideoDesk.ReadyAsync(fixture, "Skerry for all");
        var lists = await ready.Trainer.PostAsJsonAsync(
            $"/api/video-accounts/{ready.Account}/lists",
            new
            {
                channel = "desk-lessons",
                title = "The till",
                isOpen = true,
            }
        );
        var list = (await lists.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!;
        await ready.PlaceAsync(list);
        await ready.WantAsync("everybody");

        // Processed from when it is whole there; when it is ready comes with the first look at it.
        var processed = await ready.UntilAsync(p =>
            VideoDesk.Stage(p) is "processing" or "smallSize" or "ready" && p.GetProperty("video").GetProperty("readyAt").ValueKind == JsonValueKind.String
        );
        processed.GetProperty("handsOn").GetProperty("link").GetString()!.ShouldStartWith(fixture.Skerry.BaseAddress!.AbsoluteUri);
        var live = await ready.UntilAsync(ReleaseJobTests.HasEnded);
        ReleaseJobTests.Phase(live).ShouldBe("live", live.GetProperty("way").ToString());
        VideoDesk.Stage(live).ShouldBe("ready");

        var there = ready.There(live);
        there.Texts.Title.ShouldBe("Closing the till");
        there.Texts.Description.ShouldBe("How the till is closed.\n\nContents:\n0:00 Counting\n0:12 Coins");
        (there.Texts.Category, there.Texts.MadeForChildren, there.Texts.Licence, there.Texts.Visibility).ShouldBe(("Work", false, "cc-by", "public"));
        there.Thumbnail.ShouldNotBeNull("it is chosen once the service takes one");
        there.Seconds.ShouldBe(16, 1);
        fixture.Store.Lists.Single(l => l.Id == list).Videos.ShouldBe([there.Id]);
        // Released again, nothing is done.
        var version = there.Version;
        await ready.WantAsync("everybody");
        await ready.UntilAsync(ReleaseJobTests.HasEnded);
        fixture.Store.All.Count(v => v.Texts.Title == there.Texts.Title && v.Key == there.Key).ShouldBe(1);
        ready.There(live).Version.ShouldBe(version);
        // Its own player is what other pages show.
        var code = live.GetProperty("handsOn").GetProperty("embedCode").GetString()!;
        var frame = new Uri(code.Split('"')[1]);
        frame.AbsolutePath.ShouldBe($"/e/{there.Id}");
        (await fixture.Skerry.GetStringAsync(frame)).ShouldContain($"/v/{there.Id}/file");
        // Figures come by themselves.
        await fixture.WithAsync(async db =>
        {
            for (var i = 0; i < 100 && !db.VideoDays.Any(d => d.Views > 0); i++)
                await Task.Delay(100);
            db.VideoDays.Count(d => d.Views > 0).ShouldBeGreaterThan(0);
        });
    }

    [Fact]
    public async Task Texts_and_who_may_see_it_change_later_without_the_video_and_what_changed_there_is_shown()
    {
        var ready = await VideoDesk.ReadyAsync(fixture, "Skerry, changed");
        await ready.WantAsync();
        var live = await ready.UntilAsync(ReleaseJobTests.HasEnded);
        ReleaseJobTests.Phase(live).ShouldBe("live", live.GetProperty("way").ToString());
        var release = live.GetProperty("release").GetProperty("id").GetGuid();
        var first = ready.There(live);

        await ready.SayAsync("The till, closed at night.");
        (await ready.UntilAsync(p => p.GetProperty("release").GetProperty("behind").GetBoolean())).ShouldNotBe(default);
        await ready.WantAsync();
        await ready.UntilAsync(p => ReleaseJobTests.HasEnded(p) && ready.There(p).Texts.Description!.StartsWith("The till, closed", StringComparison.Ordinal));
        (await ready.Trainer.PutAsJsonAsync($"/api/releases/{release}/visibility", new { visibility = "everybody" })).EnsureSuccessStatusCode();
        var opened = await ready.UntilAsync(p => ReleaseJobTests.HasEnded(p) && ready.There(p).Texts.Visibility == "public");
        (ready.There(opened).UploadedAt, ready.There(opened).Id, ready.There(opened).Source).ShouldBe(
            (first.UploadedAt, first.Id, 1),
            "the video went there once"
        );

        // Somebody changes it there.
        fixture.Store.Change(first.Id, v => v with { Texts = v.Texts with { Title = "Shut the till" }, Version = v.Version + 1 });
        (await ready.Trainer.PostAsync($"/api/releases/{release}/video/look", null)).EnsureSuccessStatusCode();
        var changed = await ready.UntilAsync(p => p.GetProperty("video").GetProperty("differences").GetArrayLength() > 0);
        var difference = changed.GetProperty("video").GetProperty("differences").EnumerateArray().Single();
        (difference.GetProperty("ours").GetString(), difference.GetProperty("theirs").GetString()).ShouldBe(("Closing the till", "Shut the till"));
        // It is not written over unseen.
        await ready.SayAsync("Anew.", "Closing the desk");
        await ready.WantAsync("everybody");
        var stopped = await ready.UntilAsync(ReleaseJobTests.HasEnded);
        stopped.GetProperty("way").GetProperty("problem").GetProperty("code").GetString().ShouldBe("video-changed-there");
        ready.There(stopped).Texts.Title.ShouldBe("Shut the till");
        // Taken, it is what is said there from then on.
        (await ready.Trainer.PostAsJsonAsync($"/api/releases/{release}/video/found", new { take = true })).EnsureSuccessStatusCode();
        await ready.WantAsync("everybody");
        var taken = await ready.UntilAsync(p =>
            ReleaseJobTests.Phase(p) == "live" && ready.There(p).Texts.Description!.StartsWith("Anew.", StringComparison.Ordinal)
        );
        ready.There(taken).Texts.Title.ShouldBe("Shut the till");

        // Put back, Wexel's stands there again.
        fixture.Store.Change(first.Id, v => v with { Texts = v.Texts with { Title = "The till!" }, Version = v.Version + 1 });
        (await ready.Trainer.PostAsync($"/api/releases/{release}/video/look", null)).EnsureSuccessStatusCode();
        await ready.UntilAsync(p => p.GetProperty("video").GetProperty("differences").GetArrayLength() > 0);
        (await ready.Trainer.PostAsJsonAsync($"/api/releases/{release}/video/found", new { take = false })).EnsureSuccessStatusCode();
        ready.There(taken).Texts.Title.ShouldBe("Shut the till");

        // Removed there, it is said; wanted again, it is uploaded anew.
        fixture.Store.Remove(ready.There(taken));
        (await ready.Trainer.PostAsync($"/api/releases/{release}/video/look", null)).EnsureSuccessStatusCode();
        await ready.UntilAsync(p => VideoDesk.Stage(p) == "gone");
        await ready.WantAsync("everybody");
        var again = await ready.UntilAsync(p => ReleaseJobTests.Phase(p) == "live" && VideoDesk.Stage(p) == "ready");
        ready.There(again).Id.ShouldNotBe(first.Id);
        // Taken down, it is removed there.
        (await ready.Trainer.DeleteAsync($"/api/releases/{release}")).EnsureSuccessStatusCode();
        fixture.Store.Find(ready.There(again)?.Id ?? "none").ShouldBeNull();
    }

    [Fact]
    public async Task Captions_its_time_and_playlists_go_there_without_the_video_and_a_mail_told_when_it_was_ready()
    {
        var desk = await VideoDesk.ReadyAsync(fixture, "Skerry, later");
        var live = await desk.LiveAsync();
        var (first, link) = (desk.There(live), live.GetProperty("handsOn").GetProperty("link").GetString()!);
        await fixture.Outside.Client.UntilAsync("mail.json", mails =>
            mails
                .EnumerateArray()
                .Any(m =>
                    m.GetProperty("subject").GetString()!.StartsWith("Released:", StringComparison.Ordinal)
                    && m.GetProperty("text").GetString()!.Contains(link, StringComparison.Ordinal)
                )
        );

        var content = new StringContent("WEBVTT\n\n00:00.500 --> 00:02.000\nCount the coins.\n")
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
        };
        var read = await (await desk.Trainer.PutAsync("/api/captions?fileName=a.vtt&language=en-GB", content)).Content.ReadFromJsonAsync<JsonElement>();
        var view = await desk.Trainer.JsonAsync($"/api/lessons/{desk.Lesson}");
        var document = view.GetProperty("document").Deserialize<Dictionary<string, JsonElement>>()!;
        document["captions"] = JsonSerializer.SerializeToElement(new[] { read.GetProperty("track") });
        var body = new { basedOn = view.GetProperty("revision").GetInt32(), document };
        (await desk.Trainer.PutAsJsonAsync($"/api/lessons/{desk.Lesson}/document", body)).EnsureSuccessStatusCode();
        var list = fixture.Store.AddList("desk-lessons", "Later", "unlisted");
        await desk.PlaceAsync(list.Id);
        live = await desk.LiveAsync();
        desk.There(live).Captions.Keys.ShouldBe(["en-GB"]);
        (await File.ReadAllTextAsync(fixture.Store.Captions(first.Id, "en-GB"))).ShouldContain("Count the coins.");
        fixture.Store.Lists.Single(l => l.Id == list.Id).Videos.ShouldBe([first.Id]);

        // What becomes public has its time there; until then it is private.
        var opensAt = DateTimeOffset.UtcNow.AddHours(1);
        var release = live.GetProperty("release").GetProperty("id").GetGuid();
        (await desk.Trainer.PutAsJsonAsync($"/api/releases/{release}/visibility", new { visibility = "everybody", opensAt })).EnsureSuccessStatusCode();
        live = await desk.UntilAsync(p => ReleaseJobTests.HasEnded(p) && desk.There(p).Texts.PublishAt is not null);
        var there = desk.There(live);
        (there.Texts.Visibility, there.SeenBy(DateTimeOffset.UtcNow)).ShouldBe(("public", "private"));
        there.Texts.PublishAt!.Value.ShouldBe(opensAt, TimeSpan.FromSeconds(1));
        // A service knows no time for what is named: Wexel says it when it has come.
        var soon = DateTimeOffset.UtcNow.AddSeconds(12);
        var named = new { mails = new[] { ServerFixture.Learner }, groups = Array.Empty<Guid>() };
        var request = new
        {
            visibility = "named",
            named,
            opensAt = soon,
        };
        (await desk.Trainer.PutAsJsonAsync($"/api/releases/{release}/visibility", request)).EnsureSuccessStatusCode();
        await desk.UntilAsync(p => ReleaseJobTests.HasEnded(p) && desk.There(p).Texts is { Visibility: "private", Named: [] or null });
        await desk.UntilAsync(p => ReleaseJobTests.HasEnded(p) && desk.There(p).Texts.Named is [ServerFixture.Learner]);
        (desk.There(live).UploadedAt, desk.There(live).Source).ShouldBe((first.UploadedAt, 1), "the video went there once");
    }

    [Theory]
    [InlineData(10, false)]
    [InlineData(10.01, true)]
    public void A_new_account_takes_ten_minutes(double minutes, bool refused)
    {
        var row = new VideoAccount
        {
            Service = "skerry",
            AccountId = "deck-crew",
            Name = "Deck crew",
            Facts = "",
            Tokens = "",
        };
        var facts = new ServiceAccount("deck-crew", "Deck crew", [], null, TimeSpan.FromMinutes(10), 5000, [], []);
        var problem = VideoUnfit.Find(row, "Skerry", facts, null, TimeSpan.FromMinutes(minutes));
        (problem?.Code == "video-too-long").ShouldBe(refused);
    }

    [Fact]
    public async Task What_an_account_may_is_asked_again_after_a_while()
    {
        var desk = await VideoDesk.ReadyAsync(fixture, "Skerry, asked again");
        await fixture.WithAsync(async db =>
        {
            var row = await db.VideoAccounts.SingleAsync(a => a.Id == desk.Account);
            row.Facts.ShouldContain("Sea and weather");
            (row.Name, row.FactsAt) = ("Desk of old", DateTimeOffset.UnixEpoch);
            row.Facts = row.Facts.Replace("Sea and weather", "Sea alone", StringComparison.Ordinal);
            await db.SaveChangesAsync();
        });
        var accounts = await desk.Trainer.UntilAsync($"/api/outlets/{desk.Outlet}/video-accounts", a =>
            a.GetProperty("accounts").EnumerateArray().Any(one => one.GetProperty("name").GetString() == "Ticket desk")
        );
        accounts.GetRawText().ShouldNotContain("Desk of old");
        await fixture.WithAsync(async db =>
        {
            (await db.VideoAccounts.SingleAsync(a => a.Id == desk.Account)).Facts.ShouldContain("Sea and weather");
        });
    }
}
