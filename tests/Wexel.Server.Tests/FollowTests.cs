using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using Wexel.Core.Details;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Tests;

/// <summary>Who follows a channel or a course is told of what is new there: once, of what they may see, and no more when they do not want it.</summary>
public sealed partial class FollowTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_release_is_told_once_to_each_who_follows_and_may_see_it_while_the_mail_server_refuses_one()
    {
        var (one, two, moved, outside, gone) = (
            await FollowerAsync("one.follows"),
            await FollowerAsync("two.follows"),
            await FollowerAsync("moved-away.follows"),
            await FollowerAsync("guest.follows"),
            await FollowerAsync("gone.follows")
        );
        await fixture.WithAsync(async db =>
        {
            await db.Users.Where(p => p.Id == outside.Id).ExecuteUpdateAsync(set => set.SetProperty(p => p.IsGuest, true), Cancel);
            await db.Users.Where(p => p.Id == gone.Id).ExecuteUpdateAsync(set => set.SetProperty(p => p.DisabledAt, DateTimeOffset.UtcNow), Cancel);
        });
        // Channel and course: one lesson, one mail.
        var (channel, course) = await PlacesAsync();
        foreach (var what in (Guid[])[channel, course])
            (await one.Browser.PutAsync($"/api/me/follows/{what}", null, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await two.Browser.PutAsync($"/api/me/follows/{course}", null, Cancel)).EnsureSuccessStatusCode();
        (await moved.Browser.PutAsync($"/api/me/follows/{channel}", null, Cancel)).EnsureSuccessStatusCode();
        await fixture.WithAsync(async db =>
        {
            foreach (var person in (Guid[])[outside.Id, gone.Id])
                db.Follows.Add(new Follow { PersonId = person, OutletId = channel });
            await db.SaveChangesAsync(Cancel);
        });
        (await one.Browser.PutAsync($"/api/me/follows/{Guid.NewGuid()}", null, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        // While the mail server is away, all of it waits.
        (await fixture.Outside.Client.PutAsync("mail/closed/follows@", null, Cancel)).EnsureSuccessStatusCode();
        var release = await AnewAsync(Visibility.SignedIn);
        await UntilAsync(db => db.FollowerMails.CountAsync(m => m.ReleaseId == release, Cancel), 3);
        await Task.Delay(1500, Cancel);
        foreach (var name in (string[])["one", "two"])
            (await fixture.Outside.MailsAsync($"{name}.follows@")).ShouldBeEmpty();
        (await fixture.Outside.Client.DeleteAsync("mail/closed", Cancel)).EnsureSuccessStatusCode();
        await fixture.Outside.MailAsync("one.follows@");
        await fixture.Outside.MailAsync("two.follows@");
        await UntilAsync(db => db.FollowerMails.CountAsync(m => m.ReleaseId == release && m.SentAt != null, Cancel), 3);
        await fixture.WithAsync(async db =>
            (await db.FollowerMails.SingleAsync(m => m.PersonId == moved.Id, Cancel)).Refusal.ShouldNotBeNull().ShouldContain("mailbox", Case.Insensitive)
        );
        // Whoever looks after people sees why one of them gets none.
        var entry = (await (await fixture.SignedInAsync()).JsonAsync("/api/people?find=moved-away")).GetProperty("people")[0];
        entry.GetProperty("mailRefused").GetString()!.ShouldContain("mailbox", Case.Insensitive);
        (await fixture.Outside.MailsAsync("guest.follows@")).ShouldBeEmpty();
        (await fixture.Outside.MailsAsync("gone.follows@")).ShouldBeEmpty();

        // It is told once, whatever is said of it afterwards.
        await AnewAsync(Visibility.Everybody);
        await UntilAsync(db => db.Releases.CountAsync(r => r.Id == release && r.FollowersToldAt != null, Cancel), 1);
        await Task.Delay(1500, Cancel);
        (await fixture.Outside.MailsAsync("one.follows@")).Count.ShouldBe(1);

        // As mail programs read it (MimeKit): text beside HTML, the picture in it, and one request that ends it (RFC 8058).
        var number = (await fixture.Outside.MailAsync("two.follows@")).GetProperty("number").GetInt32();
        var mail = await MimeMessage.LoadAsync(await fixture.Outside.Client.GetStreamAsync(new Uri($"mail/{number}/raw", UriKind.Relative), Cancel), Cancel);
        var (text, html) = (mail.TextBody.ShouldNotBeNull(), mail.HtmlBody.ShouldNotBeNull());
        mail.Headers[HeaderId.ListUnsubscribePost].ShouldBe("List-Unsubscribe=One-Click");
        text.ShouldContain("because you follow the course");
        html.ShouldContain("cid:lesson-1");
        mail.BodyParts.OfType<MimePart>().Single(p => p.ContentId == "lesson-1").ContentType.MimeType.ShouldBe("image/jpeg");
        html.ShouldContain(Page().Match(text).Value);
        var stop = new Uri(mail.Headers[HeaderId.ListUnsubscribe]!.Trim('<', '>'));
        text.ShouldContain(stop.AbsoluteUri);
        var program = fixture.Anonymous();
        // Looking ends nothing, nor does a request that says nothing.
        (await program.GetStringAsync(stop.PathAndQuery, Cancel)).ShouldContain("Tell me of it no more");
        (await program.PostAsync(stop.PathAndQuery, null, Cancel)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await two.Browser.JsonAsync("/api/me/follows")).GetProperty("all").GetArrayLength().ShouldBe(1);
        using var oneClick = new FormUrlEncodedContent([new("List-Unsubscribe", "One-Click")]);
        (await program.PostAsync(stop.PathAndQuery, oneClick, Cancel)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await two.Browser.JsonAsync("/api/me/follows")).GetProperty("all").GetArrayLength().ShouldBe(0);
        (await program.GetStringAsync(stop.PathAndQuery, Cancel)).ShouldContain("You follow it no more");
        (await program.GetStringAsync("/follow/stop/made-up", Cancel)).ShouldContain("nothing to end");
    }

    [Fact]
    public async Task What_is_seen_by_nobody_yet_is_told_when_it_is_and_once_a_day_where_somebody_wants_that()
    {
        var daily = await FollowerAsync("daily.follows");
        var (channel, _) = await PlacesAsync();
        (await daily.Browser.PutAsJsonAsync("/api/me/follows/mails", new { daily = true }, Cancel)).EnsureSuccessStatusCode();
        // By the form on the channel's page, which needs no scripts and goes back to it.
        using var form = new FormUrlEncodedContent([new("back", "/c/staff-channel")]);
        (await daily.Browser.PostAsync($"/follow/{channel}", form, Cancel)).Headers.Location!.OriginalString.ShouldBe("/c/staff-channel");
        (await daily.Browser.GetStringAsync("/c/staff-channel", Cancel)).ShouldContain("You follow it.");
        (await daily.Browser.JsonAsync("/api/me/follows")).GetProperty("daily").GetBoolean().ShouldBeTrue();
        var release = await AnewAsync(Visibility.WithLink);
        await Task.Delay(1500, Cancel);
        await fixture.WithAsync(async db => (await db.Releases.SingleAsync(r => r.Id == release, Cancel)).FollowersToldAt.ShouldBeNull());
        await fixture.WithAsync(db =>
            db.Releases.Where(r => r.Id == release).ExecuteUpdateAsync(set => set.SetProperty(r => r.Visibility, Visibility.SignedIn), Cancel)
        );
        await UntilAsync(db => db.FollowerMails.CountAsync(m => m.PersonId == daily.Id && m.SentAt == null && m.DueAt > DateTimeOffset.UtcNow, Cancel), 1);
        // The morning has come.
        await fixture.WithAsync(db =>
            db.FollowerMails.Where(m => m.PersonId == daily.Id).ExecuteUpdateAsync(set => set.SetProperty(m => m.DueAt, DateTimeOffset.UtcNow), Cancel)
        );
        (await fixture.Outside.MailAsync("daily.follows@")).GetProperty("subject").GetString()!.ShouldStartWith("New: ");
        using var end = new FormUrlEncodedContent([new("end", "yes"), new("back", "https://harbour.example/")]);
        (await daily.Browser.PostAsync($"/follow/{channel}", end, Cancel)).Headers.Location!.OriginalString.ShouldBe("/channel");
        (await daily.Browser.JsonAsync("/api/me/follows")).GetProperty("all").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task Its_owner_is_told_once_when_a_release_opens_at_its_time()
    {
        var owner = await FollowerAsync("owner.opens");
        await fixture.WithAsync(async db =>
        {
            var release = await db.Releases.FirstAsync(r => r.Outlet!.Kind == "channel", Cancel);
            await db.Lessons.Where(l => l.Id == release.LessonId).ExecuteUpdateAsync(set => set.SetProperty(l => l.OwnerId, owner.Id), Cancel);
            var soon = DateTimeOffset.UtcNow.AddSeconds(2);
            await db.Releases.Where(r => r.Id == release.Id).ExecuteUpdateAsync(set => set.SetProperty(r => r.OpensAt, soon), Cancel);
        });
        (await fixture.Outside.MailsAsync("owner.opens@")).ShouldBeEmpty();
        var mail = await fixture.Outside.MailAsync("owner.opens@");
        mail.GetProperty("subject").GetString()!.ShouldStartWith("Open now: ");
        await Task.Delay(1500, Cancel);
        (await fixture.Outside.MailsAsync("owner.opens@")).Count.ShouldBe(1);
        await fixture.WithAsync(async db =>
        {
            await db.Releases.ExecuteUpdateAsync(set => set.SetProperty(r => r.OpensAt, (DateTimeOffset?)null), Cancel);
            await db.Lessons.ExecuteUpdateAsync(set => set.SetProperty(l => l.OwnerId, (Guid?)null), Cancel);
        });
    }

    private async Task<(Guid Id, HttpClient Browser)> FollowerAsync(string name)
    {
        var id = await fixture.PersonAsync($"{name}@brackwater.example", name);
        return (id, await fixture.SignedInAsync($"{name}@brackwater.example"));
    }

    private async Task<(Guid Channel, Guid Course)> PlacesAsync()
    {
        (Guid, Guid) places = default;
        await fixture.WithAsync(async db =>
        {
            var release = await db.Releases.Include(r => r.Lesson).FirstAsync(r => r.Outlet!.Kind == "channel", Cancel);
            places = (release.OutletId, release.Lesson!.CourseId);
        });
        return places;
    }

    /// <summary>As if the lesson were released only now, with those who follow to be told.</summary>
    private async Task<Guid> AnewAsync(Visibility visibility)
    {
        var id = Guid.Empty;
        await fixture.WithAsync(async db =>
        {
            var release = await db.Releases.FirstAsync(r => r.Outlet!.Kind == "channel", Cancel);
            id = release.Id;
            var told = DetailSet.Format.Write(new DetailSet(TellFollowers: true));
            await db.Outlets.Where(o => o.Id == release.OutletId).ExecuteUpdateAsync(set => set.SetProperty(o => o.Details, told), Cancel);
            await db
                .Releases.Where(r => r.Id == id)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.Visibility, visibility).SetProperty(r => r.FollowersToldAt, (DateTimeOffset?)null), Cancel);
        });
        return id;
    }

    private async Task UntilAsync(Func<WexelDb, Task<int>> count, int wanted)
    {
        var found = -1;
        for (var until = DateTime.UtcNow.AddSeconds(30); found != wanted && DateTime.UtcNow < until; await Task.Delay(100, Cancel))
            await fixture.WithAsync(async db => found = await count(db));
        found.ShouldBe(wanted);
    }

    [GeneratedRegex(@"http\S+/watch/\w+")]
    private static partial Regex Page();
}
