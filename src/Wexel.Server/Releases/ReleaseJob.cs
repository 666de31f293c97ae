using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Tools;
using Wexel.Server.Live;
using Wexel.Server.People;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>
/// Brings a release to its outlet, step by step. It may die at any line and be run again: what is left is found anew each time, by what is
/// wanted then. While something is rendered nobody waits; it goes on when that has ended.
/// </summary>
internal sealed class ReleaseJob(
    WexelDb db,
    ReleaseWork work,
    ReleaseSteps steps,
    WantedRenders renders,
    ProfileShelf shelf,
    FileStore store,
    ReleaseMail mail,
    Invitations invitations,
    LiveNews news,
    TimeProvider clock,
    ILogger<ReleaseJob> log
)
{
    [AutomaticRetry(Attempts = 0)]
    public async Task RunAsync(Guid id, CancellationToken shutdown)
    {
        if (await work.DoAsync(id, () => StepAsync(id, shutdown), shutdown))
            await mail.TellAsync(id, CancellationToken.None);
    }

    /// <summary>Does the next thing that is left.</summary>
    /// <returns>Whether there may be more.</returns>
    private async Task<bool> StepAsync(Guid id, CancellationToken shutdown)
    {
        if (
            await db.Releases.IgnoreQueryFilters().Include(r => r.Outlet).FirstOrDefaultAsync(r => r.Id == id, shutdown) is not { } release
            || (release.BatchId is null && !release.WantsDown)
            || !ReleasePhases.IsUnderWay(release.Phase)
        )
            return false;
        if (release.WantsDown)
        {
            await GoAsync(release, ReleasePhase.Sending, null);
            var said = release.SaidNumber;
            if (await work.TryAsync(id, () => steps.TakeBackAsync(release, shutdown)) is { } why)
                return await FailAsync(release, why);
            // What was said meanwhile is what is wanted now.
            if (release.SaidNumber != said)
                return true;
            await steps.GoneAsync(release, shutdown);
            await GoAsync(release, ReleasePhase.TakenDown, null);
            return false;
        }

        var ended = false;
        var stopped = await work.TryAsync(id, async () =>
        {
            if (!(await steps.FindAsync(ReleaseAim.Of(release), shutdown)).Is(out var way, out var problem))
                return problem;
            var left = steps.Left(way);
            if (left.Count == 0)
            {
                ReleaseSteps.Settle(way);
                await GoAsync(release, ReleasePhase.Live, null);
                await invitations.TellAsync(release.Id, CancellationToken.None);
                ended = true;
                return null;
            }

            await GoAsync(release, ReleasePhases.DoneIn(left[0]), null);
            if (left[0] != ReleaseStep.Encode)
            {
                var came = await steps.DoAsync(way, left[0], shutdown);
                if (came is { Problem: null, Waits: true })
                {
                    // Whoever watches the other side goes on with it.
                    await GoAsync(release, ReleasePhase.ProcessingThere, null);
                    ended = true;
                }

                return came.Problem;
            }

            ended = true;
            return await RenderAsync(way, shutdown);
        });
        return stopped is null ? !ended : await FailAsync(release, stopped);
    }

    private async Task<bool> FailAsync(Release release, Problem why)
    {
        // What a step left half noted is not kept with it.
        db.ChangeTracker.Clear();
        await GoAsync(await db.Releases.IgnoreQueryFilters().FirstAsync(r => r.Id == release.Id), ReleasePhase.Failed, why);
        return false;
    }

    /// <summary>Has picture and sound encoded, unless that is under way.</summary>
    /// <returns>Why it will not be encoded; null where it is waited for.</returns>
    private async Task<Problem?> RenderAsync(ReleaseWay way, CancellationToken shutdown)
    {
        var asked = await db.ReleaseBatches.Where(b => b.Id == way.Release.BatchId).FirstAsync(shutdown);
        foreach (var (profile, planned) in way.Files.Where(f => Lacks(way, f)))
        {
            if (
                await renders.AskAsync(way.Lesson, planned, profile, asked.AskedBy, asked.AskedAt, () => OthersAsync(way, profile, shutdown), shutdown) is
                { } why
            )
                return why;
        }

        return null;
    }

    /// <summary>Whether a file has to be encoded: one that lies finished needs that only for a copy of it.</summary>
    private bool Lacks(ReleaseWay way, ReleaseFile file) =>
        !file.Planned.IsEncoded(store) && (way.Wanted.Copies.Count > 0 || !Wholeness.IsWhole(file.Planned.File(store)));

    /// <summary>What is wanted of the lesson besides, here and at other places.</summary>
    private async Task<IReadOnlyList<Profile>> OthersAsync(ReleaseWay way, Profile asked, CancellationToken shutdown)
    {
        var lesson = way.Lesson.Id;
        var others = way.Files.Where(f => f.Profile.Id != asked.Id && Lacks(way, f)).Select(f => f.Profile).ToList();
        var wanted = db
            .Releases.IgnoreQueryFilters()
            .Where(r => r.LessonId == lesson && r.BatchId != null && !r.WantsDown && r.Phase <= ReleasePhase.Rendering && r.WantedProfileId != asked.Id)
            .Select(r => r.WantedProfileId)
            .Distinct();
        foreach (var id in await wanted.ToListAsync(shutdown))
        {
            if (
                others.TrueForAll(o => o.Id != id)
                && await shelf.FindAsync(id, shutdown) is { } other
                && way.Planned.Lesson.With(other) is { } planned
                && !planned.IsEncoded(store)
            )
                others.Add(other);
        }

        return others;
    }

    private async Task GoAsync(Release release, ReleasePhase phase, Problem? problem)
    {
        if (release.Phase == phase && problem is null)
        {
            await db.SaveChangesAsync(CancellationToken.None);
            return;
        }

        release.GoOn(phase, clock.GetUtcNow());
        release.Problem = problem is null ? null : WexelJson.Write(problem);
        await db.SaveChangesAsync(CancellationToken.None);
        await news.LessonAsync(release.LessonId);
        log.LogInformation("Release {Release} of lesson {Lesson}: {Phase}", release.Id, release.LessonId, phase);
    }
}
