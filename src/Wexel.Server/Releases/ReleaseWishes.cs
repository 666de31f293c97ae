using Hangfire;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Live;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>A lesson that somebody wants at an outlet.</summary>
/// <param name="LessonId">The lesson.</param>
/// <param name="OutletId">The outlet.</param>
/// <param name="ProfileId">With which profile; null for the one that it was made with, or that the outlet takes by itself.</param>
/// <param name="Visibility">Who may see it; null for whoever might before.</param>
/// <param name="OpensAt">From when; null for at once, or where who may see it is not said for as before.</param>
/// <param name="EndsAt">Until when; null for ever, or where who may see it is not said for as before.</param>
/// <param name="Named">Who is named as those who may see it; null for those who were before.</param>
internal sealed record ReleaseWish(
    Guid LessonId,
    Guid OutletId,
    string? ProfileId = null,
    Visibility? Visibility = null,
    DateTimeOffset? OpensAt = null,
    DateTimeOffset? EndsAt = null,
    NamedPeople? Named = null
);

/// <summary>
/// Takes what people want at outlets: writes it down, with the address that it has from then on, and has it done in the background.
/// </summary>
internal sealed class ReleaseWishes(WexelDb db, ReleaseShelf releases, OutletShelf outlets, IBackgroundJobClient jobs, LiveNews news, TimeProvider clock)
    : IRenderCare
{
    /// <summary>Wants lessons at outlets, in one step, of which one mail tells.</summary>
    /// <param name="wishes">What is wanted; lessons and outlets that there are.</param>
    /// <param name="person">Who wants it.</param>
    /// <param name="tells">Whether a mail tells when all of it is there.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>The releases, in the order of the wishes.</returns>
    internal async Task<IReadOnlyList<Guid>> WantAsync(IReadOnlyList<ReleaseWish> wishes, Guid person, bool tells, CancellationToken cancel)
    {
        while (true)
        {
            try
            {
                return await WantOnceAsync(wishes, person, tells, cancel);
            }
            catch (DbUpdateConcurrencyException)
            {
                // Somebody said something of one of them meanwhile; the last who speaks has it.
                db.ChangeTracker.Clear();
            }
        }
    }

    private async Task<IReadOnlyList<Guid>> WantOnceAsync(IReadOnlyList<ReleaseWish> wishes, Guid person, bool tells, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        var batch = new ReleaseBatch
        {
            AskedBy = person,
            AskedAt = now,
            ToldAt = tells ? null : now,
        };
        db.ReleaseBatches.Add(batch);
        var ids = new List<Guid>(wishes.Count);
        foreach (var wish in wishes)
        {
            var release = await KeptAsync(wish, cancel);
            var outlet = outlets.Known(await db.Outlets.FirstAsync(o => o.Id == wish.OutletId, cancel));
            var aim = ReleaseAim.Of(wish, release, outlet);
            (release.WantedProfileId, release.WantedVisibility) = (aim.ProfileId, aim.Visibility);
            if (wish.Visibility is not null)
                (release.OpensAt, release.EndsAt) = (wish.OpensAt, wish.EndsAt);
            if (wish.Named is { } named)
                release.Named = NamedPeople.Format.Write(named);
            (release.BatchId, release.WantsDown, release.Problem, release.SentBytes, release.BytesToSend) = (batch.Id, false, null, 0, null);
            release.Go(ReleasePhase.Planned, now);
            db.Say(release, [.. SaidOfReleases.Wanting, nameof(Release.WantedVisibility)]);
            ids.Add(release.Id);
        }

        await db.SaveChangesAsync(cancel);
        var lessons = wishes.Select(w => w.LessonId).Distinct().ToList();
        // A lesson that is nobody's becomes whoever's who first releases it.
        await db.Lessons.Where(l => l.OwnerId == null && lessons.Contains(l.Id)).ExecuteUpdateAsync(set => set.SetProperty(l => l.OwnerId, person), cancel);
        foreach (var id in ids)
            Call(id);
        foreach (var lesson in lessons)
            await news.LessonAsync(lesson);
        return ids;
    }

    /// <summary>The release that a wish is about, with its row. Two people who want the same at once want one release.</summary>
    private async Task<Release> KeptAsync(ReleaseWish wish, CancellationToken cancel)
    {
        while (true)
        {
            var release = await releases.FindOrAddAsync(wish.LessonId, wish.OutletId, cancel);
            if (db.Entry(release).State != EntityState.Added)
                return release;
            try
            {
                await db.SaveChangesAsync(cancel);
                return release;
            }
            catch (DbUpdateException failed) when (failed.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
            {
                // Somebody else was a moment faster.
                db.Entry(release).State = EntityState.Detached;
            }
        }
    }

    /// <inheritdoc/>
    public async Task EndedAsync(IReadOnlyCollection<Guid> lessons, CancellationToken cancel)
    {
        var waiting = db.Releases.IgnoreQueryFilters().Where(r => lessons.Contains(r.LessonId) && r.Phase == ReleasePhase.Rendering).Select(r => r.Id);
        foreach (var id in await waiting.ToListAsync(cancel))
            Call(id);
    }

    /// <summary>Has a release that stands, or that waits for the other side, gone on with; one that is on its way already is.</summary>
    internal async Task GoOnAsync(Guid id, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        await db
            .Releases.IgnoreQueryFilters()
            .Where(r => r.Id == id && (r.Phase == ReleasePhase.Live || r.Phase == ReleasePhase.ProcessingThere))
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.Phase, ReleasePhase.Planned).SetProperty(r => r.PhaseAt, now), cancel);
        Call(id);
    }

    /// <summary>Tells a worker that something may be to do for a release.</summary>
    internal void Call(Guid id) => jobs.Enqueue<ReleaseJob>(job => job.RunAsync(id, CancellationToken.None));
}
