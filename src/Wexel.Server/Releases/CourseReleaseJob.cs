using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Live;

namespace Wexel.Server.Releases;

/// <summary>Brings a whole course to its outlet, step by step, or takes it down. It may die at any line and be run again.</summary>
internal sealed class CourseReleaseJob(WexelDb db, ReleaseWork work, CourseReleaser releaser, LiveNews news, TimeProvider clock)
{
    [AutomaticRetry(Attempts = 0)]
    public Task RunAsync(Guid id, CancellationToken shutdown) => work.DoAsync(id, () => StepAsync(id, shutdown), shutdown);

    /// <summary>Does the next thing that is left.</summary>
    /// <returns>Whether there may be more.</returns>
    private async Task<bool> StepAsync(Guid id, CancellationToken shutdown)
    {
        var release = await db
            .CourseReleases.Include(r => r.Outlet)
            .Include(r => r.Course)
                .ThenInclude(c => c!.Lessons)
            .FirstOrDefaultAsync(r => r.Id == id, shutdown);
        if (release is null || !ReleasePhases.IsUnderWay(release.Phase))
            return false;
        var said = release.SaidNumber;
        var step = await NextAsync(release, shutdown);
        if (step is { } phase)
            await GoAsync(release, phase, null);
        var problem = await work.TryAsync(id, () => step switch
            {
                null => Task.FromResult<Problem?>(null),
                ReleasePhase.Rendering => releaser.RenderAsync(release, shutdown),
                ReleasePhase.Packing => releaser.PackAsync(release, shutdown),
                _ when release.WantsDown => releaser.TakeBackAsync(release, shutdown),
                _ => releaser.SendAsync(release, shutdown),
            });
        if (problem is not null)
        {
            // What a step left half noted is not kept with it.
            db.ChangeTracker.Clear();
            await GoAsync(await db.CourseReleases.FirstAsync(r => r.Id == id, shutdown), ReleasePhase.Failed, problem);
            return false;
        }

        // While something is rendered nobody waits; it goes on when that has ended.
        if (step is ReleasePhase.Rendering)
            return false;
        if (step is null)
            await GoAsync(release, ReleasePhase.Live, null);
        // What was said meanwhile is what is wanted now.
        else if (!release.WantsDown || release.SaidNumber != said)
            return true;
        else
        {
            db.CourseReleases.Remove(release);
            await db.SaveChangesAsync(CancellationToken.None);
            await news.CourseAsync(release.CourseId);
        }

        return false;
    }

    /// <summary>In which phase the next thing is done; null where nothing is left.</summary>
    private async Task<ReleasePhase?> NextAsync(CourseRelease release, CancellationToken cancel)
    {
        if (release.WantsDown)
            return ReleasePhase.Sending;
        if (await releaser.IsToPackAsync(release, cancel))
            return await releaser.IsToRenderAsync(release, cancel) ? ReleasePhase.Rendering : ReleasePhase.Packing;
        return release.Outlet!.DeliverTo is not null && release.SentKey != release.PackageKey ? ReleasePhase.Sending : null;
    }

    private async Task GoAsync(CourseRelease release, ReleasePhase phase, Problem? problem)
    {
        release.GoOn(phase, clock.GetUtcNow());
        release.Problem = problem is null ? null : WexelJson.Write(problem);
        await db.SaveChangesAsync(CancellationToken.None);
        await news.CourseAsync(release.CourseId);
    }
}
