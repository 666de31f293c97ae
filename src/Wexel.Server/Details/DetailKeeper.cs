using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Core.Feeds;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Live;
using Wexel.Server.Shelves;

namespace Wexel.Server.Details;

/// <summary>Keeps what is said about lessons, wherever it is said but in a lesson itself.</summary>
internal sealed class DetailKeeper(WexelDb db, ReleaseShelf releases, LiveNews news)
{
    internal Task<Problem?> SaveHouseAsync(DetailSet details, CancellationToken cancel) =>
        SaveAsync(
            details,
            DetailLevel.House,
            async kept =>
            {
                if (await db.Houses.FirstOrDefaultAsync(cancel) is not { } house)
                    db.Houses.Add(house = new House { Colour = FeedSettings.UsualColour });
                house.Details = kept;
            },
            cancel
        );

    internal Task<Problem?> SaveOutletAsync(Outlet outlet, DetailSet details, CancellationToken cancel) =>
        SaveAsync(
            details,
            DetailLevel.Outlet,
            kept =>
            {
                outlet.Details = kept;
                return Task.CompletedTask;
            },
            cancel
        );

    internal async Task<Problem?> SaveReleaseAsync(Guid lessonId, Guid outletId, DetailSet details, CancellationToken cancel)
    {
        var problem = await SaveAsync(
            details,
            DetailLevel.Release,
            async kept => (await releases.FindOrAddAsync(lessonId, outletId, cancel)).Details = kept,
            cancel
        );
        if (problem is null)
            await news.LessonAsync(lessonId);
        return problem;
    }

    private async Task<Problem?> SaveAsync(DetailSet details, DetailLevel level, Func<string?, Task> keep, CancellationToken cancel)
    {
        var tidy = DetailFields.Tidy(details, level);
        if (DetailFields.Unusable(tidy) is { } unusable)
            return unusable;
        await keep(DetailShelf.Write(tidy));
        await db.SaveChangesAsync(cancel);
        return null;
    }
}
