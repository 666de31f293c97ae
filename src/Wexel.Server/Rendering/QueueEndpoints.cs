using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Live;
using Wexel.Server.Setup;

namespace Wexel.Server.Rendering;

/// <param name="Renditions">Those that wait, in the order that is wanted.</param>
internal sealed record QueueOrder(IReadOnlyList<Guid> Renditions);

/// <summary>What can be done with what stands in the queue.</summary>
internal static class QueueEndpoints
{
    internal static void MapQueue(this IEndpointRouteBuilder routes)
    {
        routes.MapPut("/api/queue/order", OrderAsync).WithName("OrderQueue");
        var group = routes.MapGroup("/api/renditions/{id:guid}");
        group
            .MapPost("cancel", (Guid id, WexelDb db, LiveNews news, BatchMail mail, TimeProvider clock, CancellationToken cancel) =>
                StopAsync(id, RenditionState.Cancelled, db, news, mail, clock, cancel)
            )
            .WithName("CancelRendition");
        group
            .MapPost("hold", (Guid id, WexelDb db, LiveNews news, BatchMail mail, TimeProvider clock, CancellationToken cancel) =>
                StopAsync(id, RenditionState.Held, db, news, mail, clock, cancel)
            )
            .WithName("HoldRendition");
        group.MapPost("go-on", GoOnAsync).WithName("GoOnWithRendition");
        group.MapPost("first", FirstAsync).WithName("RenderFirst");
    }

    /// <summary>Stops one that waits or is worked on, for good or for later. Others of the same pass go on.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> StopAsync(
        Guid id,
        RenditionState stopped,
        WexelDb db,
        LiveNews news,
        BatchMail mail,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var ended = stopped == RenditionState.Cancelled ? clock.GetUtcNow() : (DateTimeOffset?)null;
        if (
            await db
                .Renditions.Where(r =>
                    r.Id == id
                    && (
                        r.State == RenditionState.Waiting
                        || r.State == RenditionState.Working
                        || (r.State == RenditionState.Held && stopped == RenditionState.Cancelled)
                    )
                )
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.State, stopped).SetProperty(r => r.EndedAt, ended).SetProperty(r => r.Progress, 0), cancel)
            == 0
        )
            return Problems.Answer(new Problem("rendition-over", "It has ended already; there is nothing to stop."), StatusCodes.Status409Conflict);
        var batch = await TellAsync(id, stopped, db, news, cancel);
        // It may have been the last of its batch that somebody waits for.
        await mail.TellAsync(batch, cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Lets one wait again that was kept for later, stopped, or failed.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> GoOnAsync(Guid id, WexelDb db, RenderQueue queue, LiveNews news, CancellationToken cancel)
    {
        var last = await db.Renditions.MaxAsync(r => (double?)r.Place, cancel) ?? 0;
        if (
            await db
                .Renditions.Where(r =>
                    r.Id == id && (r.State == RenditionState.Held || r.State == RenditionState.Cancelled || r.State == RenditionState.Failed)
                )
                .ExecuteUpdateAsync(
                    set =>
                        set.SetProperty(r => r.State, RenditionState.Waiting)
                            .SetProperty(r => r.Attempts, 0)
                            .SetProperty(r => r.Alone, false)
                            .SetProperty(r => r.EndedAt, (DateTimeOffset?)null)
                            .SetProperty(r => r.Said, (string?)null)
                            .SetProperty(r => r.Advice, (string?)null)
                            .SetProperty(r => r.Place, last + 1),
                    cancel
                ) == 0
        )
            return Problems.Answer(new Problem("rendition-not-stopped", "It is not stopped; there is nothing to go on with."), StatusCodes.Status409Conflict);
        queue.CallWorker();
        await TellAsync(id, RenditionState.Waiting, db, news, cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Brings those that wait into an order. One that began meanwhile is left out, and one that is not named keeps its place.</summary>
    private static async Task<NoContent> OrderAsync(QueueOrder order, WexelDb db, LiveNews news, CancellationToken cancel)
    {
        var waiting = await db.Renditions.AsNoTracking().Where(r => order.Renditions.Contains(r.Id) && r.State == RenditionState.Waiting).ToListAsync(cancel);
        var places = waiting.Select(r => r.Place).Order().ToList();
        foreach (var (rendition, place) in waiting.OrderBy(r => order.Renditions.ToList().IndexOf(r.Id)).Zip(places))
            await db
                .Renditions.Where(r => r.Id == rendition.Id && r.State == RenditionState.Waiting)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.Place, place), cancel);
        if (waiting.Count > 0)
            await news.RenditionAsync(new RenditionNews(waiting[0].Id, waiting[0].LessonId, RenditionState.Waiting, 0, null));
        return TypedResults.NoContent();
    }

    /// <summary>Puts one that waits before all others.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> FirstAsync(Guid id, WexelDb db, LiveNews news, CancellationToken cancel)
    {
        var first = await db.Renditions.Where(r => r.State == RenditionState.Waiting).MinAsync(r => (double?)r.Place, cancel) ?? 0;
        if (
            await db
                .Renditions.Where(r => r.Id == id && r.State == RenditionState.Waiting)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.Place, first - 1), cancel) == 0
        )
            return Problems.Answer(new Problem("rendition-not-waiting", "It does not wait any more."), StatusCodes.Status409Conflict);
        await TellAsync(id, RenditionState.Waiting, db, news, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Guid> TellAsync(Guid id, RenditionState state, WexelDb db, LiveNews news, CancellationToken cancel)
    {
        var rendition = await db.Renditions.AsNoTracking().FirstAsync(r => r.Id == id, cancel);
        await news.RenditionAsync(new RenditionNews(id, rendition.LessonId, state, 0, null));
        return rendition.BatchId;
    }
}
