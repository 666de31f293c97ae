using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Media.Tools;
using Wexel.Server.Live;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.Telemetry;

namespace Wexel.Server.Rendering;

/// <summary>Renders what waits. It may die at any line and be run again; whoever comes second finds nothing to do.</summary>
internal sealed class RenderJob(
    IDbContextFactory<WexelDb> databases,
    RenderQueue queue,
    RenditionWork work,
    BatchMail mail,
    IEnumerable<IRenderCare> cares,
    LiveNews news,
    Figures figures,
    IOptions<WexelOptions> options,
    TimeProvider clock,
    ILogger<RenderJob> log
)
{
    private const int MostAttempts = 2;

    [AutomaticRetry(Attempts = 0)]
    [Queue("render")]
    public async Task RunAsync(CancellationToken shutdown)
    {
        var taken = await queue.TakeNextAsync(shutdown);
        if (taken.Count == 0)
            return;
        await using var db = await databases.CreateDbContextAsync(shutdown);
        var renditions = await db.Renditions.Include(r => r.Lesson).Where(r => taken.Contains(r.Id)).OrderBy(r => r.Place).ToListAsync(shutdown);
        await using var watch = new RenderWatch(databases, news, clock, renditions, options.Value.EncoderHangsAfter, options.Value.LostAfter, shutdown);
        var outcome = new Outcome(RenditionState.Done);
        using var trace = Figures.Work.StartActivity("render");
        var began = clock.GetTimestamp();
        try
        {
            await work.DoAsync(db, renditions, watch, watch.Stop);
            figures.Rendered(watch.Length, clock.GetElapsedTime(began));
        }
        catch (OperationCanceledException) when (watch.Hangs)
        {
            outcome = new Outcome(
                RenditionState.Failed,
                "ffmpeg wrote nothing for a long time and was ended.",
                "Try again; if it fails again, copy the recording anew and bring it in.",
                MayHelpToTryAgain: true
            );
        }
        catch (OperationCanceledException)
        {
            // Somebody stopped all of it, which its rows say; or the server goes down: then it waits for the next one, from the start.
            outcome = new Outcome(RenditionState.Waiting);
        }
        catch (ToolFailedException failed)
        {
            outcome = new Outcome(RenditionState.Failed, failed.Said, failed.Advice, failed.MayHelpToTryAgain);
        }
        catch (IOException failed)
        {
            outcome = new Outcome(RenditionState.Failed, failed.Message, "Look whether the server's disk is full, then try again.");
        }
        catch (Exception failed) when (!DatabaseOutage.Is(failed))
        {
            // Taken up again and again it would look like a server that dies over it.
            figures.Fault("render");
            log.LogError(failed, "Rendering lesson {Lesson} failed in a way that nobody expected", renditions[0].LessonId);
            outcome = new Outcome(
                RenditionState.Failed,
                $"Wexel itself failed: {failed.Message}",
                "Try again; if it fails again, whoever looks after the server finds more in its log."
            );
        }

        await watch.EndAsync();
        foreach (var rendition in renditions)
            await SettleAsync(db, rendition, outcome, together: renditions.Count > 1);
        if (await db.Renditions.AnyAsync(r => r.State == RenditionState.Waiting, CancellationToken.None))
            queue.CallWorker();
        foreach (var care in cares)
            await care.EndedAsync([.. renditions.Select(r => r.LessonId).Distinct()], CancellationToken.None);
        foreach (var batch in renditions.Select(r => r.BatchId).Distinct())
            await mail.TellAsync(batch, CancellationToken.None);
    }

    /// <summary>Writes what became of one, unless somebody stopped it meanwhile.</summary>
    private async Task SettleAsync(WexelDb db, Rendition rendition, Outcome outcome, bool together)
    {
        // One profile that cannot be made must not take the others down: after a pass together each is tried by itself.
        var again = outcome.State == RenditionState.Failed && rendition.Attempts < MostAttempts && (together || outcome.MayHelpToTryAgain);
        rendition.Alone |= again && together;
        rendition.State = again ? RenditionState.Waiting : outcome.State;
        (rendition.Said, rendition.Advice) = (outcome.Said, outcome.Advice);
        rendition.Progress = rendition.State == RenditionState.Done ? 1 : 0;
        rendition.EndedAt = rendition.State == RenditionState.Waiting ? null : clock.GetUtcNow();
        // Holds the row: whoever stops it in this moment comes before, or finds it settled.
        await using var settling = await db.Database.BeginTransactionAsync(CancellationToken.None);
        if (
            await db
                .Renditions.Where(r => r.Id == rendition.Id && r.State == RenditionState.Working)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.SignOfLifeAt, clock.GetUtcNow())) == 0
        )
        {
            db.Entry(rendition).State = EntityState.Detached;
            return;
        }

        await db.SaveChangesAsync(CancellationToken.None);
        await settling.CommitAsync(CancellationToken.None);
        await news.RenditionAsync(new RenditionNews(rendition.Id, rendition.LessonId, rendition.State, rendition.Progress, null));
        log.LogInformation("Rendition {Id} of lesson {Lesson}: {State}", rendition.Id, rendition.LessonId, rendition.State);
    }

    private sealed record Outcome(RenditionState State, string? Said = null, string? Advice = null, bool MayHelpToTryAgain = false);
}
