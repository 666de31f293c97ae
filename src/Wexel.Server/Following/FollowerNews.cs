using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Details;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Mailing;
using Wexel.Server.People;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Following;

/// <summary>Sees what has come to where people find it: whoever follows is to be told of it, and where it waited for its time, its owner is.</summary>
internal sealed class FollowerNews(WexelDb db, Viewers viewers, IBackgroundJobClient jobs, IOptions<WexelOptions> options, TimeProvider clock) : IUpkeep
{
    private const int AtOnce = 100;

    public TimeSpan Every => options.Value.FollowersEvery;

    public async Task DoAsync(CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        foreach (var id in await NewlySeen(now).Select(r => r.Id).Take(AtOnce).ToListAsync(cancel))
            await TellAsync(id, now, cancel);
        var opened = Seen.Where(r => r.OpensAt <= now && r.OpensAt > r.ReleasedAt && (r.OpeningToldAt == null || r.OpeningToldAt < r.OpensAt));
        foreach (var id in await opened.Select(r => r.Id).Take(AtOnce).ToListAsync(cancel))
            await TellOwnerAsync(id, now, cancel);
    }

    private IQueryable<Release> Seen =>
        db.Releases.Where(r => r.Outlet!.Kind == ChannelKind.Channel && (r.Phase == ReleasePhase.Live || r.Phase == ReleasePhase.Behind) && !r.WantsDown);

    private IQueryable<Release> NewlySeen(DateTimeOffset now) =>
        Seen.Where(r =>
            r.FollowersToldAt == null && r.Visibility != Visibility.OnlyMe && r.Visibility != Visibility.WithLink && (r.OpensAt == null || r.OpensAt <= now)
        );

    private async Task TellAsync(Guid id, DateTimeOffset now, CancellationToken cancel)
    {
        // That it was seen to and whom it is told to are written down together, whoever dies in between.
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        if (
            await NewlySeen(now).Where(r => r.Id == id).ExecuteUpdateAsync(set => set.SetProperty(r => r.FollowersToldAt, now), cancel) == 0
            || await db.Releases.AsNoTracking().Include(r => r.Lesson).Include(r => r.Outlet).FirstOrDefaultAsync(r => r.Id == id, cancel) is not { } release
        )
            return;
        var house = await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel);
        var said = DetailLayers.Merged(
            DetailShelf.Said(house),
            DetailShelf.Read(release.Outlet!.Details),
            DetailShelf.Said(release.Lesson!),
            DetailShelf.Said(release)
        );
        var follows =
            said.TellFollowers == true
                ? await db
                    .Follows.AsNoTracking()
                    .Where(f => f.OutletId == release.OutletId || f.CourseId == release.Lesson!.CourseId)
                    .OrderBy(f => f.Since)
                    .ToListAsync(cancel)
                : [];
        foreach (var follow in follows.DistinctBy(f => f.PersonId).Where(f => f.PersonId != release.Lesson!.OwnerId))
        {
            if (await viewers.AwayAsync(follow.PersonId, cancel) is not { } viewer || !Seeing.May(release.Shown(), viewer, SeenIn.List, now))
                continue;
            var daily = await db.Users.Where(p => p.Id == follow.PersonId).Select(p => p.MailsDaily).FirstAsync(cancel);
            var due = TellingTimes.Due(now, daily, clock.LocalTimeZone).ToUniversalTime();
            await db.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO "FollowerMails" ("PersonId", "LessonId", "ReleaseId", "FollowId", "DueAt")
                VALUES ({follow.PersonId}, {release.LessonId}, {release.Id}, {follow.Id}, {due}) ON CONFLICT DO NOTHING
                """,
                cancel
            );
        }

        await all.CommitAsync(cancel);
    }

    private async Task TellOwnerAsync(Guid id, DateTimeOffset now, CancellationToken cancel)
    {
        var release = await db.Releases.AsNoTracking().Include(r => r.Lesson).Include(r => r.Outlet).FirstOrDefaultAsync(r => r.Id == id, cancel);
        if (
            release is null
            || await db
                .Releases.Where(r => r.Id == id && (r.OpeningToldAt == null || r.OpeningToldAt < r.OpensAt))
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.OpeningToldAt, now), cancel) == 0
        )
            return;
        var owner = await db.Users.Where(p => p.Id == release.Lesson!.OwnerId && p.DisabledAt == null).Select(p => p.Email).FirstOrDefaultAsync(cancel);
        if (owner is null)
            return;
        var (title, page) = (release.Lesson!.Title, new Uri(options.Value.PublicAddress, $"watch/{release.Token}"));
        var text =
            $"“{title}” opened at its time and is at {release.Outlet!.Name} now, for {Words(release.Visibility)}.\nLink: {page}\nAll its places: "
            + $"{new Uri(options.Value.PublicAddress, $"lessons/{release.LessonId}/deliver")}\n";
        jobs.Enqueue<Mailer>(mailer => mailer.SendAsync(owner, $"Open now: {title}", text, CancellationToken.None));
    }

    private static string Words(Visibility visibility) =>
        visibility switch
        {
            Visibility.OnlyMe => "you alone",
            Visibility.Named => "the people who are named",
            Visibility.WithLink => "whoever has the address",
            Visibility.SignedIn => "the organisation",
            _ => "everybody",
        };
}
