using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Naming;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Server.Releases;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Channel;

/// <summary>Finds what learners may look at.</summary>
internal sealed class ChannelReader(WexelDb db, FileStore store, IOptions<WexelOptions> options, TimeProvider clock)
{
    private IQueryable<Release> Channel =>
        db.Releases.AsNoTracking().Include(r => r.Lesson).ThenInclude(l => l!.Course).Include(r => r.Outlet).Where(r => r.Outlet!.Kind == ChannelKind.Channel);

    internal Task<Release?> FindAsync(string token, CancellationToken cancel) => Channel.FirstOrDefaultAsync(r => r.Token == token, cancel);

    /// <summary>A release in the channel that learners cannot watch yet, or any more; null where a token stands for none.</summary>
    internal Task<Release?> FindAwayAsync(string token, CancellationToken cancel) =>
        db
            .Releases.IgnoreQueryFilters()
            .AsNoTracking()
            .Include(r => r.Lesson)
            .Where(r => r.Outlet!.Kind == ChannelKind.Channel && r.BatchId != null)
            .FirstOrDefaultAsync(r => r.Token == token, cancel);

    /// <summary>How many lessons are being looked through or rendered.</summary>
    internal Task<int> BeingMadeAsync(CancellationToken cancel) =>
        db.Lessons.CountAsync(
            l =>
                (l.Recording!.Analysis == null && l.Recording.AnalysisFailure == null)
                || l.Renditions.Any(r => r.State == RenditionState.Waiting || r.State == RenditionState.Working),
            cancel
        );

    internal async Task<PlayerSite> PlaceAsync(Release release, Viewer viewer, CancellationToken cancel)
    {
        var lesson = release.Lesson!;
        var count = await db.Lessons.CountAsync(l => l.CourseId == lesson.CourseId, cancel);
        return new PlayerSite(
            options.Value.House,
            $"{release.Outlet!.Name} · {lesson.Course!.Title} · lesson {lesson.Position} of {count}",
            viewer.IsSignedIn || release.Visibility == Visibility.Everybody ? $"/c/{ChannelCare.Address(release.Outlet)}" : null,
            await BesideAsync(release, viewer, before: true, cancel),
            await BesideAsync(release, viewer, before: false, cancel),
            Served(release, viewer)
        );
    }

    /// <summary>The nearest lesson of the same course in the same channel that whoever asks finds listed there.</summary>
    private async Task<PlayerLink?> BesideAsync(Release release, Viewer viewer, bool before, CancellationToken cancel)
    {
        var here = release.Lesson!;
        var others = db
            .Releases.AsNoTracking()
            .Include(r => r.Lesson)
            .Where(r => r.OutletId == release.OutletId && r.Lesson!.CourseId == here.CourseId && r.Visibility != Visibility.WithLink);
        others = before
            ? others.Where(r => r.Lesson!.Position < here.Position).OrderByDescending(r => r.Lesson!.Position)
            : others.Where(r => r.Lesson!.Position > here.Position).OrderBy(r => r.Lesson!.Position);
        var now = clock.GetUtcNow();
        await foreach (var other in others.AsAsyncEnumerable().WithCancellation(cancel))
        {
            if (Seeing.May(other.Shown(), viewer, SeenIn.List, now))
                return new PlayerLink(PlayerLesson.Format.Read(other.Player).Title, $"/watch/{other.Token}");
        }

        return null;
    }

    private PlayerServed Served(Release release, Viewer viewer)
    {
        var details = PlayerLesson.Format.Read(release.Player).Details;
        var preview = Preview(release);
        return new PlayerServed(
            new Uri(options.Value.PublicAddress, $"watch/{release.Token}").AbsoluteUri,
            // What strangers may not see would stand in another page as a refusal.
            details.MayEmbed && preview is not null
                ? HandOn.EmbedCode(preview.Embed, preview.Title, preview.Size)
                : null,
            LearnerFiles.TakesNotes(details) ? $"/watch/{release.Token}/notes" : null,
            details.MayDownload ? Download(release) : null,
            viewer.MakesLessons ? $"/watch/{release.Token}/correct" : null
        );
    }

    /// <summary>The file that learners may keep; null where there is none, or one that comes in pieces.</summary>
    private PlayerDownload? Download(Release release)
    {
        var player = PlayerLesson.Format.Read(release.Player);
        var (key, container, size, path) = release is { DownloadKey: { } other, DownloadContainer: { } kept }
            ? (other, kept, new PictureSize(release.DownloadWidth ?? 0, release.DownloadHeight ?? 0), $"/watch/{release.Token}/download")
            : (release.FileKey, release.Container, new PictureSize(player.Width, player.Height), player.Video);
        var (facts, file) = (ContainerFacts.Of(container), new FileInfo(store.Derived(key, Muxing.FileName(container))));
        return facts.IsFolder || !file.Exists
            ? null
            : new PlayerDownload(path, FileName.Safe(player.Title, "lesson") + facts.Ending, facts.Name, size.Width, size.Height, file.Length);
    }

    /// <summary>What other sites may know of a release: only of one that whoever has the link may see.</summary>
    internal WatchPagePreview? Preview(Release release)
    {
        if (!Seeing.May(release.Shown(), Viewer.Stranger, SeenIn.Preview, clock.GetUtcNow()))
            return null;
        var player = PlayerLesson.Format.Read(release.Player);
        Uri At(string path) => new(options.Value.PublicAddress, path + release.Token);
        return new WatchPagePreview(
            player.Title,
            player.Description,
            player.Language,
            options.Value.House,
            options.Value.PublicAddress,
            At("watch/"),
            At("embed/"),
            new Uri(options.Value.PublicAddress, Releaser.VideoPath(release.Token, release.Container)[1..]),
            ContainerFacts.Of(release.Container).MediaType,
            player.Poster is null ? null : new Uri(At("watch/") + "/poster.jpg"),
            player.Poster is { } poster ? new PictureSize(poster.Width, poster.Height) : default,
            new PictureSize(player.Width, player.Height),
            player.Length,
            release.ReleasedAt,
            player.Sections,
            player.Details
        );
    }

    /// <summary>The release that a link leads to, whatever stands behind its path.</summary>
    internal Task<Release?> FindByLinkAsync(Uri link, CancellationToken cancel)
    {
        var watch = new Uri(options.Value.PublicAddress, "watch/");
        var page = link.GetLeftPart(UriPartial.Path);
        return page.StartsWith(watch.AbsoluteUri, StringComparison.OrdinalIgnoreCase)
            ? FindAsync(page[watch.AbsoluteUri.Length..], cancel)
            : Task.FromResult<Release?>(null);
    }
}
