using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;
using Wexel.Server.Telemetry;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Rendering;

/// <summary>Finds renditions whose worker has died, and has them rendered again.</summary>
internal sealed class LostWork(WexelDb db, IBackgroundJobClient jobs, Figures figures, TimeProvider clock, IOptions<WexelOptions> options) : IUpkeep
{
    /// <summary>How often a worker may be lost over one rendition. Work that brings down whoever takes it must not be handed on for ever.</summary>
    private const int MostLosses = 4;

    public TimeSpan Every => options.Value.LostAfter / 2;

    public async Task DoAsync(CancellationToken cancel)
    {
        var silentSince = clock.GetUtcNow() - options.Value.LostAfter;
        var lost = db.Renditions.Where(r => r.State == RenditionState.Working && r.SignOfLifeAt < silentSince);
        await lost.Where(r => r.Attempts >= MostLosses)
            .ExecuteUpdateAsync(
                set =>
                    set.SetProperty(r => r.State, RenditionState.Failed)
                        .SetProperty(r => r.EndedAt, clock.GetUtcNow())
                        .SetProperty(r => r.Said, $"The server ended {MostLosses} times while this was made.")
                        .SetProperty(r => r.Advice, "Look into the server's log for why, then try again."),
                cancel
            );
        await lost.ExecuteUpdateAsync(set => set.SetProperty(r => r.State, RenditionState.Waiting).SetProperty(r => r.Progress, 0), cancel);

        figures.Queue(
            await db.Renditions.CountAsync(r => r.State == RenditionState.Waiting, cancel),
            await db.Renditions.CountAsync(r => r.State == RenditionState.Working, cancel)
        );

        // Where something waits and nobody works, whoever should have been told was not.
        if (
            await db.Renditions.AnyAsync(r => r.State == RenditionState.Waiting, cancel)
            && !await db.Renditions.AnyAsync(r => r.State == RenditionState.Working, cancel)
        )
            jobs.Enqueue<RenderJob>(job => job.RunAsync(CancellationToken.None));
    }
}
