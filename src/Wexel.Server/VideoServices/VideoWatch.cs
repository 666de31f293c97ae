using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.VideoServices;
using Wexel.Server.Live;
using Wexel.Server.Releases;
using Wexel.Server.Setup;
using Wexel.Server.Upkeep;

namespace Wexel.Server.VideoServices;

/// <summary>
/// Asks video services how far what they process is, and has it gone on with when that has ended; now and then also whether somebody changed something
/// there by hand, and how often it was watched.
/// </summary>
internal sealed class VideoWatch(
    WexelDb db,
    VideoAccounts accounts,
    ReleaseWishes wishes,
    LiveNews news,
    IOptions<WexelOptions> options,
    TimeProvider clock,
    ILogger<VideoWatch> log
) : IUpkeep
{
    private const int FigureDays = 90;

    public TimeSpan Every => options.Value.VideoLooksEvery;

    public async Task DoAsync(CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        var (soon, later) = (now - options.Value.VideoLooksEvery, now - options.Value.VideoFiguresEvery);
        var due = await db
            .Releases.IgnoreQueryFilters()
            .Where(r =>
                r.VideoThere != null
                && ((r.Phase == ReleasePhase.ProcessingThere && r.VideoSeenAt < soon) || (r.Phase == ReleasePhase.Live && r.VideoSeenAt < later))
            )
            .OrderBy(r => r.VideoSeenAt)
            .Select(r => r.Id)
            .ToListAsync(cancel);
        // What an account may, and which categories there are, is another after a while.
        foreach (var account in await db.VideoAccounts.Where(a => a.WithdrawnAt == null && a.FactsAt < later).Select(a => a.Id).ToListAsync(cancel))
            if (await accounts.LookAgainAsync(account, cancel) is { } unread)
                log.LogWarning("Account {Account} could not be looked at: {Problem}", account, unread.Code);
        // Where a service is not there, the rest waits until next time.
        foreach (var id in due)
            if (await LookAsync(id, cancel) is { Code: ServiceProblem.NotReached })
                break;
        // Whose time has come, or is over, is said there.
        var timely = await db
            .Releases.Where(r =>
                r.VideoThere != null
                && r.Phase == ReleasePhase.Live
                && ((r.OpensAt > r.VideoSaidAt && r.OpensAt <= now) || (r.EndsAt > r.VideoSaidAt && r.EndsAt <= now))
            )
            .Select(r => r.Id)
            .ToListAsync(cancel);
        foreach (var id in timely)
            await wishes.GoOnAsync(id, cancel);
    }

    /// <summary>Looks how a release stands at its service.</summary>
    /// <returns>What stood in the way, or null.</returns>
    internal async Task<Core.Problem?> LookAsync(Guid id, CancellationToken cancel)
    {
        var release = await db.Releases.IgnoreQueryFilters().AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, cancel);
        if (release is not { VideoThere: { } kept })
            return null;
        var there = VideoThere.Format.Read(kept);
        if (there.Id is not { } video || await accounts.FindAsync(there.Account, cancel) is not { } account)
            return null;
        if (!(await account.Service.ReadAsync(account.Access, video, cancel)).Is(out var found, out var problem))
        {
            log.LogWarning("Release {Release} could not be looked at at {Service}: {Problem}", id, account.Service.Code, problem.Code);
            await KeepAsync(release, kept, kept, cancel);
            return problem;
        }

        var differs = found is not null && there.Said is { } said && VideoTexts.Differences(said, found.Texts).Count > 0;
        var seen = found is null
            ? there with
            {
                Stage = VideoStage.Gone,
            }
            : there with
            {
                Stage = found.Stage,
                Reason = found.Reason,
                ReadyAt = found.ReadyAt,
                Embed = found.Embed,
                Found = differs ? found.Texts : null,
            };
        var text = VideoThere.Format.Write(seen);
        // Whoever works on it meanwhile knows better.
        if (!await KeepAsync(release, kept, text, cancel))
            return null;
        if (release.Phase == ReleasePhase.ProcessingThere && !seen.IsProcessed)
            await wishes.GoOnAsync(id, cancel);
        else if (release.Phase == ReleasePhase.Live && found is { Stage: VideoStage.Ready })
            await FiguresAsync(id, account, video, cancel);
        if (there != seen)
            await news.LessonAsync(release.LessonId);
        return null;
    }

    private async Task<bool> KeepAsync(Release release, string before, string after, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        return await db
                .Releases.IgnoreQueryFilters()
                .Where(r => r.Id == release.Id && r.VideoThere == before && r.Phase == release.Phase)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.VideoThere, after).SetProperty(r => r.VideoSeenAt, now), cancel) > 0;
    }

    private async Task FiguresAsync(Guid id, ConnectedAccount account, string video, CancellationToken cancel)
    {
        var today = DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);
        if (!(await account.Service.FiguresAsync(account.Access, video, today.AddDays(-FigureDays), today, cancel)).Is(out var days, out var problem))
        {
            log.LogWarning("The figures of release {Release} were not had from {Service}: {Problem}", id, account.Service.Code, problem.Code);
            return;
        }

        var kept = await db.VideoDays.Where(d => d.ReleaseId == id).ToDictionaryAsync(d => d.Day, cancel);
        foreach (var day in days)
        {
            if (!kept.TryGetValue(day.Day, out var row))
                db.VideoDays.Add(row = new VideoDay { ReleaseId = id, Day = day.Day });
            (row.Views, row.Watched) = (day.Views, day.Watched);
        }

        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException)
        {
            // Another server had them at the same time, or the release is gone.
        }

        db.ChangeTracker.Clear();
    }
}
