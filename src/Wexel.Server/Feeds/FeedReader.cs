using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Kit;
using Wexel.Core.Outlets.PodcastFeeds;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Feeds;

/// <summary>Reads what a feed is written from.</summary>
internal sealed class FeedReader(WexelDb db, KnownEpisodes known, IOptions<WexelOptions> options)
{
    internal Uri Folder(PodcastFeed feed) => Folder(feed.Token);

    /// <summary>Where the files of a feed lie under a token.</summary>
    internal Uri Folder(string token) => Folder(token, options.Value);

    /// <summary>The feed's address under a token.</summary>
    internal Uri Address(string token) => new(Folder(token), FeedFiles.Feed);

    /// <summary>Where people subscribe to it.</summary>
    internal Uri SubscribePage(string token) => SubscribePage(token, options.Value);

    internal static Uri SubscribePage(string token, WexelOptions options) => new(options.PublicAddress, $"subscribe/{token}");

    internal static Uri Address(PodcastFeed feed, WexelOptions options) => new(Folder(feed.Token, options), FeedFiles.Feed);

    /// <summary>The address of the feed of sound beside a feed, under a token; null where there is none.</summary>
    internal Uri? SoundAddress(PodcastFeed feed, string token) => SoundAddress(feed.Outlet!, token, options.Value);

    internal static Uri? SoundAddress(Outlet outlet, string token, WexelOptions options) =>
        Settings(outlet).SoundBeside() is null ? null : new Uri(Folder(token, options), FeedFiles.SoundBeside);

    /// <summary>The feed of sound beside a feed as it stands, under an address; null where there is none.</summary>
    internal async Task<FeedSources?> SoundBesideAsync(PodcastFeed feed, Uri folder, CancellationToken cancel)
    {
        if (Settings(feed.Outlet!).SoundBeside() is not { } settings)
            return null;
        var sources = await SourcesAsync(feed, folder, cancel);
        var sizes = await db
            .Releases.AsNoTracking()
            .Where(r => r.OutletId == feed.OutletId && r.SoundKey != null)
            .Select(r => new { r.Token, r.SoundBytes })
            .ToDictionaryAsync(r => r.Token, r => r.SoundBytes ?? 0, cancel);
        return sources with
        {
            Settings = settings,
            Entries =
            [
                .. sources.Entries.Where(e => sizes.ContainsKey(e.Episode.Name)).Select(e => e with { Episode = e.Episode.AsSound(sizes[e.Episode.Name]) }),
            ],
            Identity = FeedGuid.OfSoundBeside(sources.Identity),
            Name = FeedFiles.SoundBeside,
        };
    }

    /// <summary>The feed as it stands, under an address.</summary>
    internal async Task<FeedSources> SourcesAsync(PodcastFeed feed, Uri folder, CancellationToken cancel)
    {
        var rows = await db
            .Releases.AsNoTracking()
            .Where(r => r.OutletId == feed.OutletId && r.Episode != null)
            .Select(r => new
            {
                r.Id,
                r.FirstReleasedAt,
                r.ReleasedAt,
                r.Lesson!.CourseId,
                CoursePlace = r.Lesson.Course!.Position,
                CourseTitle = r.Lesson.Course.Title,
                r.Lesson.Position,
            })
            .ToListAsync(cancel);
        var episodes = await known.FindAsync(db, [.. rows.Select(r => (r.Id, r.ReleasedAt))], cancel);
        var courses = rows.Select(r => (r.CoursePlace, r.CourseId)).Distinct().Order().Select(c => c.CourseId).ToList();
        return new FeedSources(
            Settings(feed.Outlet!),
            options.Value.House,
            options.Value.PublicAddress,
            folder,
            ArtworkName(feed),
            rows.Select(r => r.ReleasedAt).Append(feed.ChangedAt).Max(),
            // One that was taken down while this was read is in it no more.
            [
                .. rows.Where(r => episodes.ContainsKey(r.Id))
                    .Select(r => new FeedEntry(episodes[r.Id], r.FirstReleasedAt, courses.IndexOf(r.CourseId) + 1, r.Position, r.CourseTitle)),
            ],
            feed.Identity ?? FeedGuid.For(Address(feed, options.Value))
        );
    }

    /// <summary>What is said of a feed.</summary>
    internal static FeedSettings Settings(Outlet outlet) => Kind.Read(outlet.Settings);

    private static readonly PodcastFeedKind Kind = new();

    private static Uri Folder(string token, WexelOptions options) => new(options.PublicAddress, $"feeds/{token}/");

    internal static string ArtworkName(PodcastFeed feed) => WexelJson.Read<ImageFacts>(feed.Artwork).Format == "png" ? "artwork.png" : "artwork.jpg";

    internal static string ArtworkType(PodcastFeed feed) => ArtworkName(feed).EndsWith(".png", StringComparison.Ordinal) ? "image/png" : "image/jpeg";
}
