using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Media.Rendering;
using Wexel.Server.Live;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Changes what stands at outlets and makes nothing: takes it down, and says who may see it.</summary>
internal sealed class Releaser(WexelDb db, OutletShelf outlets, PackageDeliverer deliverer, LiveNews news, TimeProvider clock)
{
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

        // The row stays, and so does the address: its page says that it was taken down, and whoever releases it again has it back.
        foreach (var release in releases)
        {
            (release.MadeFrom, release.PackageKey, release.PackageFiles, release.PackageBytes, release.PackedFrom) = ("", null, null, 0, null);
            (release.SentKey, release.SentAt, release.SentTo, release.Problem) = (null, null, null, null);
            release.Go(ReleasePhase.TakenDown, clock.GetUtcNow());
        }

        // An app that asks whether the feed changed must be told that it did.
        var gone = releases.Select(r => r.OutletId).ToList();
        foreach (var feed in await db.PodcastFeeds.Where(f => gone.Contains(f.OutletId)).ToListAsync(cancel))
            feed.ChangedAt = clock.GetUtcNow();
        await db.SaveChangesAsync(cancel);
        foreach (var lesson in releases.Select(r => r.LessonId).Distinct())
            await news.LessonAsync(lesson);
        return null;
    }

    /// <summary>Says who may see a release. Neither its file, nor its address, nor its revision changes.</summary>
    internal async Task OpenAsync(Release release, Visibility visibility, CancellationToken cancel)
    {
        (release.Visibility, release.WantedVisibility) = (visibility, visibility);
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(release.LessonId);
    }

    /// <summary>Where a release's video lies on Wexel's own pages.</summary>
    internal static string VideoPath(string token, Container container) =>
        $"/watch/{token}/{(ContainerFacts.Of(container) is { IsFolder: false, Ending: var ending } ? "video" + ending : Muxing.FileName(container))}";
}
