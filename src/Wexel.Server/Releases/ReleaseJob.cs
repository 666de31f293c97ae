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
using Wexel.Server.Rendering;
using Wexel.Server.Shelves;
using Wexel.Server.Telemetry;

namespace Wexel.Server.Releases;

/// <summary>
/// Brings a release to its outlet, step by step. It may die at any line and be run again: what is left is found anew each time, by what is
/// wanted then. While something is rendered nobody waits; it goes on when that has ended.
/// </summary>
internal sealed class ReleaseJob(
    WexelDb db,
    IDbContextFactory<WexelDb> databases,
    ReleaseSteps steps,
    RenderQueue queue,
    ProfileShelf shelf,
    FileStore store,
    ReleaseMail mail,
    LiveNews news,
    Figures figures,
    TimeProvider clock,
    ILogger<ReleaseJob> log
)
{
    [AutomaticRetry(Attempts = 0)]
    public async Task RunAsync(Guid id, CancellationToken shutdown)
    {
        await using var holding = await databases.CreateDbContextAsync(shutdown);
        // Whoever has it finds all that there is to do; who is just about to let it go is waited for.
        if (await WorkHold.TryAsync(holding, HoldOf(id), Overlap, shutdown) is not { } hold)
            return;
        await using (hold)
        {
            while (await NextAsync(id, shutdown)) { }
        }

        await mail.TellAsync(id, CancellationToken.None);
    }

    private static readonly TimeSpan Overlap = TimeSpan.FromSeconds(1);

    /// <summary>By what one worker alone has a release.</summary>
    internal static string HoldOf(Guid id) => $"release {id:N}";

    /// <summary>Does the next thing that is left.</summary>
    /// <returns>Whether there may be more.</returns>
    private async Task<bool> NextAsync(Guid id, CancellationToken shutdown)
    {
        db.ChangeTracker.Clear();
        try
        {
            return await StepAsync(id, shutdown);
        }
        catch (DbUpdateConcurrencyException)
        {
            // Something else is wanted since it was read; what is left is found by that.
            return true;
        }
    }

    private async Task<bool> StepAsync(Guid id, CancellationToken shutdown)
    {
        if (
            await db.Releases.IgnoreQueryFilters().FirstOrDefaultAsync(r => r.Id == id, shutdown) is not { } release
            || release.BatchId is null
            || !ReleasePhases.IsUnderWay(release.Phase)
        )
            return false;
        Problem? stopped;
        try
        {
            if ((await steps.FindAsync(ReleaseAim.Of(release), shutdown)).Is(out var way, out stopped))
            {
                var left = steps.Left(way);
                if (left.Count == 0)
                {
                    ReleaseSteps.Settle(way);
                    await GoAsync(release, ReleasePhase.Live, null);
                    return false;
                }

                await GoAsync(release, ReleasePhases.DoneIn(left[0]), null);
                if (left[0] == ReleaseStep.Encode)
                    return await RenderAsync(way, shutdown) is { } why && await FailAsync(release, why);
                stopped = await steps.DoAsync(way, left[0], shutdown);
            }
        }
        catch (ToolFailedException failed)
        {
            stopped = new Problem("release-tool-failed", $"{failed.Said} {failed.Advice}".Trim());
        }
        catch (IOException failed)
        {
            stopped = new Problem("release-not-written", $"{failed.Message} Look whether the server’s disk is full, then try again.");
        }
        catch (Exception failed) when (failed is not (OperationCanceledException or DbUpdateConcurrencyException) && !DatabaseOutage.Is(failed))
        {
            figures.Fault("release");
            log.LogError(failed, "Release {Release} failed in a way that nobody expected", id);
            stopped = new Problem(
                "release-failed",
                $"Wexel itself failed: {failed.Message} Try again; if it fails again, whoever looks after the server finds more in its log."
            );
        }

        return stopped is null || await FailAsync(release, stopped);
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
        var (lesson, profile, encodes) = (way.Lesson.Id, way.Profile.Id, way.Planned.Keys.Encodes);
        var asked = await db.ReleaseBatches.Where(b => b.Id == way.Release.BatchId).FirstAsync(shutdown);
        var last = await db
            .Renditions.Where(r => r.LessonId == lesson && r.ProfileId == profile && r.EncodeKey == encodes)
            .OrderByDescending(r => r.RequestedAt)
            .FirstOrDefaultAsync(shutdown);
        switch (last)
        {
            case { State: RenditionState.Waiting or RenditionState.Working or RenditionState.Held }:
                return null;
            case { State: RenditionState.Failed } when last.EndedAt >= asked.AskedAt:
                return new Problem("release-not-rendered", $"It could not be rendered with “{way.Profile.Title}”: {last.Said} {last.Advice}".Trim());
            case { State: RenditionState.Cancelled } when last.EndedAt >= asked.AskedAt:
                return new Problem("release-stopped", $"Somebody stopped the render with “{way.Profile.Title}”. Try again when it is wanted.");
        }

        // What other places want of the lesson goes into the same pass: its recordings are read once.
        var profiles = new List<Profile> { way.Profile };
        var wanted = db
            .Releases.IgnoreQueryFilters()
            .Where(r => r.LessonId == lesson && r.BatchId != null && r.Phase <= ReleasePhase.Rendering && r.WantedProfileId != profile)
            .Select(r => r.WantedProfileId)
            .Distinct();
        foreach (var id in await wanted.ToListAsync(shutdown))
        {
            if (await shelf.FindAsync(id, shutdown) is { } other && way.Planned.Lesson.With(other) is { } planned && !planned.IsEncoded(store))
                profiles.Add(other);
        }

        var answer = await queue.AskAsync([way.Lesson], profiles, asked.AskedBy, tells: false, shutdown);
        return answer.Refused.FirstOrDefault(r => r.ProfileTitle == way.Profile.Title)?.Problem;
    }

    private async Task GoAsync(Release release, ReleasePhase phase, Problem? problem)
    {
        if (release.Phase == phase && problem is null)
        {
            await db.SaveChangesAsync(CancellationToken.None);
            return;
        }

        release.Go(phase, clock.GetUtcNow());
        release.Problem = problem is null ? null : WexelJson.Write(problem);
        await db.SaveChangesAsync(CancellationToken.None);
        await news.LessonAsync(release.LessonId);
        log.LogInformation("Release {Release} of lesson {Lesson}: {Phase}", release.Id, release.LessonId, phase);
    }
}
