using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Media.Rendering;
using Wexel.Server.Live;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>
/// Brings lessons to outlets: what is wanted there is held against what there is, and the steps between the two are done. Whatever was made
/// before stays, and addresses stay; done again, nothing is done.
/// </summary>
internal sealed class Releaser(WexelDb db, OutletShelf outlets, ReleaseSteps steps, PackageDeliverer deliverer, LiveNews news, TimeProvider clock)
{
    internal async Task<Result<Release>> ReleaseAsync(ReleaseAim aim, CancellationToken cancel)
    {
        if (!(await steps.FindAsync(aim, cancel)).Is(out var way, out var problem))
            return problem;
        foreach (var step in steps.Left(way))
        {
            if (await steps.DoAsync(way, step, cancel) is { } stopped)
                return stopped;
        }

        // Neither makes anything new: who may see it, and a profile of another name that makes the same.
        (way.Release.Visibility, way.Release.ProfileId, way.Release.Profile) = (aim.Visibility, way.Profile.Id, Profile.Format.Write(way.Profile));
        await db.SaveChangesAsync(cancel);

        await news.LessonAsync(aim.LessonId);
        return way.Release;
    }

    /// <summary>Puts what a release has where its outlet is: what changed, and nothing else.</summary>
    internal async Task<Problem?> DeliverAsync(Release release, CancellationToken cancel)
    {
        var outlet = outlets.Known(release.Outlet ?? await db.Outlets.FirstAsync(o => o.Id == release.OutletId, cancel));
        return await deliverer.DeliverAsync(release, outlet, ReleaseSteps.Identifier(release), cancel);
    }

    /// <summary>Takes releases down. Where what was put at an outlet can be taken away from here, it is.</summary>
    internal async Task<Problem?> TakeDownAsync(IReadOnlyList<Release> releases, CancellationToken cancel)
    {
        foreach (var release in releases.Where(r => r.Outlet is not null))
        {
            if (await deliverer.TakeBackAsync(release, outlets.Known(release.Outlet!), cancel) is not { } problem)
                continue;
            // What went is written down, so that going on begins there.
            await db.SaveChangesAsync(CancellationToken.None);
            return problem;
        }

        db.Releases.RemoveRange(releases);
        // An app that asks whether the feed changed must be told that it did.
        var gone = releases.Select(r => r.OutletId).ToList();
        foreach (var feed in await db.PodcastFeeds.Where(f => gone.Contains(f.OutletId)).ToListAsync(cancel))
            feed.ChangedAt = clock.GetUtcNow();
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Where a release's video lies on Wexel's own pages.</summary>
    internal static string VideoPath(string token, Container container) =>
        $"/watch/{token}/{(ContainerFacts.Of(container) is { IsFolder: false, Ending: var ending } ? "video" + ending : Muxing.FileName(container))}";
}
