using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Releases;

/// <summary>Finds releases that are on their way and that nobody has hold of, since a server went down, and has them gone on with.</summary>
internal sealed class LeftReleases(
    WexelDb db,
    IDbContextFactory<WexelDb> databases,
    ReleaseWishes wishes,
    CourseReleaser releaser,
    IOptions<WexelOptions> options,
    TimeProvider clock
) : IUpkeep
{
    public TimeSpan Every => options.Value.LostAfter / 2;

    public async Task DoAsync(CancellationToken cancel)
    {
        var since = clock.GetUtcNow() - options.Value.LostAfter;
        var left = await db
            .Releases.IgnoreQueryFilters()
            .Where(r =>
                (r.BatchId != null || r.WantsDown)
                && r.Phase < ReleasePhase.Live
                && r.PhaseAt < since
                && !(r.Phase == ReleasePhase.ProcessingThere && r.VideoThere != null)
                && !(
                    r.Phase == ReleasePhase.Rendering
                    && db.Renditions.Any(m =>
                        m.LessonId == r.LessonId && (m.State == RenditionState.Waiting || m.State == RenditionState.Working || m.State == RenditionState.Held)
                    )
                )
            )
            .Select(r => r.Id)
            .ToListAsync(cancel);
        var courses = await db.CourseReleases.Where(r => r.Phase < ReleasePhase.Live && r.PhaseAt < since).Select(r => r.Id).ToListAsync(cancel);
        await using var asking = await databases.CreateDbContextAsync(cancel);
        foreach (var id in left)
        {
            if (await WorkHold.IsFreeAsync(asking, ReleaseWork.HoldOf(id), cancel))
                wishes.Call(id);
        }

        foreach (var id in courses)
        {
            if (await WorkHold.IsFreeAsync(asking, ReleaseWork.HoldOf(id), cancel))
                releaser.Call(id);
        }
    }
}
