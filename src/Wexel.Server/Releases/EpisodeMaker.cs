using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Contents;
using Wexel.Core.Feeds;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Rendering;
using Wexel.Server.Feeds;
using Wexel.Server.Setup;

namespace Wexel.Server.Releases;

/// <summary>Makes episodes of lessons: the rendition copied as podcast apps take it. Nothing is encoded.</summary>
internal sealed class EpisodeMaker(WexelDb db, FileStore store)
{
    internal const string FileName = "episode";

    /// <summary>What keeps a lesson out of a feed, or null.</summary>
    internal async Task<Problem?> UnfitAsync(Guid outletId, ReadyLesson ready, CancellationToken cancel)
    {
        var settings = Json.Read<FeedSettings>((await FeedAsync(outletId, cancel)).Settings);
        return settings.Media == FeedMedia.Sound && ready.Plan.Sound is null
            ? new Problem("episode-without-sound", $"“{ready.Document.Title}” has no sound, so a feed of sound alone cannot carry it. Release it to a feed of videos.")
            : null;
    }

    /// <summary>Makes the file of a release in a feed and notes it there.</summary>
    internal async Task MakeAsync(Release release, ReadyLesson ready, PlayerLesson player, CancellationToken cancel)
    {
        var feed = await FeedAsync(release.OutletId, cancel);
        var media = Json.Read<FeedSettings>(feed.Settings).Media;
        var chapters = Chapters.Of(ready.Sections, ready.Plan.Length);
        var artwork = media == FeedMedia.Sound ? feed.ArtworkKey : null;
        var key = DerivedKey.Of(Finishing.EpisodeMaker, ready.Planned.EncodeKey, ready.Document.Title, chapters, media, artwork);
        var path = store.Derived(key, FileName + FeedFiles.Ending(media));
        if (!File.Exists(path))
            await Finishing.EpisodeAsync(ready.Planned.Tracks(store) with { Captions = null }, path, ready.Document.Title, chapters, media, store.Derived(feed.ArtworkKey, FeedKeeper.ArtworkFile), cancel);
        release.FileKey = key;
        release.Episode = Json.Write(new Episode(
            // The same whenever the lesson is in this feed, even when it was taken down in between.
            DerivedKey.Of("episode-id/1", release.OutletId, release.LessonId)[..32], release.Token, ready.Document.Title, ready.Document.Description, ready.Document.Language,
            ready.Plan.Length, new FileInfo(path).Length, ready.Sections, player.Captions?.Language, artwork));
    }

    private Task<PodcastFeed> FeedAsync(Guid outletId, CancellationToken cancel) => db.PodcastFeeds.FirstAsync(f => f.OutletId == outletId, cancel);
}
