using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Media.Rendering;
using Wexel.Server.Live;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Changes what stands at outlets and makes nothing: stops what is on its way, takes it down, and says who may see it.</summary>
internal sealed class Releaser(
    WexelDb db,
    IDbContextFactory<WexelDb> databases,
    OutletShelf outlets,
    PackageDeliverer deliverer,
    StandingReader standings,
    LiveNews news,
    TimeProvider clock
)
{
    /// <summary>How long a worker that was told to stop may take to let go of a release.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    /// <summary>Stops releases that are on their way; what stands there stays.</summary>
    internal async Task StopAsync(Release release, CancellationToken cancel)
    {
        if (!ReleasePhases.IsUnderWay(release.Phase))
            return;
        var why = new Problem("release-stopped", "It was stopped on its way. What was done is kept: going on begins there.");
        await SayAsync(
            release,
            r =>
            {
                if (!ReleasePhases.IsUnderWay(r.Phase))
                    return;
                r.Go(ReleasePhase.Failed, clock.GetUtcNow());
                r.Problem = WexelJson.Write(why);
            },
            cancel
        );
        await news.LessonAsync(release.LessonId);
    }

    /// <summary>Takes releases down. Where what was put at an outlet can be taken away from here, it is.</summary>
    internal async Task<Problem?> TakeDownAsync(IReadOnlyList<Release> releases, CancellationToken cancel)
    {
        foreach (var release in releases)
        {
            if (await TakeDownAsync(release, cancel) is { } problem)
                return problem;
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

    private async Task<Problem?> TakeDownAsync(Release release, CancellationToken cancel)
    {
        await StopAsync(release, cancel);
        await using var holding = await databases.CreateDbContextAsync(cancel);
        if (await WorkHold.TryAsync(holding, ReleaseJob.HoldOf(release.Id), Patience, cancel) is not { } hold)
            return new Problem("release-busy", "It was told to stop, and is still being worked on. Take it down in a moment.");
        await using (hold)
        {
            await db.Entry(release).ReloadAsync(cancel);
            if (release.Outlet is { } outlet && await deliverer.TakeBackAsync(release, outlets.Known(outlet), cancel) is { } problem)
                return problem;
            // The row stays, and so does the address: its page says that it was taken down, and whoever releases it again has it back.
            await SayAsync(
                release,
                r =>
                {
                    (r.MadeFrom, r.PackageKey, r.PackageFiles, r.PackageBytes, r.PackedFrom) = ("", null, null, 0, null);
                    // What cannot be taken away from here is left to whoever is told so, and is put anew when it is released again.
                    (r.There, r.SentKey, r.SentAt, r.SentTo, r.Problem) = (null, null, null, null, null);
                    r.Go(ReleasePhase.TakenDown, clock.GetUtcNow());
                },
                cancel
            );
        }

        return null;
    }

    /// <summary>Says who may see a release. Neither its file, nor its address, nor its revision changes.</summary>
    /// <param name="release">The release, with its outlet and its lesson.</param>
    /// <param name="opening">Who may see it from now on, or from when.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What must be answered before, or null.</returns>
    internal async Task<Problem?> OpenAsync(Release release, Opening opening, CancellationToken cancel)
    {
        if (Unanswered(release, release.Lesson!, outlets.Known(release.Outlet!), opening.Visibility, await standings.ReadAsync(cancel)) is { } unanswered)
            return unanswered;
        await SayAsync(release, r => (r.Visibility, r.WantedVisibility, r.OpensAt) = (opening.Visibility, opening.Visibility, opening.From), cancel);
        await news.LessonAsync(release.LessonId);
        return null;
    }

    /// <summary>What must be answered before somebody else may see a release, or null.</summary>
    internal static Problem? Unanswered(Release release, Lesson lesson, KnownOutlet outlet, Visibility visibility, Standing standing)
    {
        var said = standing.Details(outlet, DetailShelf.Said(lesson), DetailShelf.Said(release)).Values;
        var isOpen = release.MadeFrom.Length > 0 && OpenToAll.Is(outlet.Kind, release.Visibility);
        return OpenToAll.Unanswered(outlet.Kind, visibility, said, isOpen, outlet.Row.Name);
    }

    /// <summary>Writes down what somebody says of a release; where somebody else was a moment faster, it is said of what that left.</summary>
    private async Task SayAsync(Release release, Action<Release> say, CancellationToken cancel)
    {
        while (true)
        {
            say(release);
            release.SaidAnew();
            try
            {
                await db.SaveChangesAsync(cancel);
                return;
            }
            catch (DbUpdateConcurrencyException)
            {
                await db.Entry(release).ReloadAsync(cancel);
            }
        }
    }

    /// <summary>Where a release's video lies on Wexel's own pages.</summary>
    internal static string VideoPath(string token, Container container) =>
        $"/watch/{token}/{(ContainerFacts.Of(container) is { IsFolder: false, Ending: var ending } ? "video" + ending : Muxing.FileName(container))}";
}
