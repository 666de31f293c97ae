using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Keys;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Releasing;
using Wexel.Making.Storage;

namespace Wexel.Server.Releases;

/// <summary>Releases lessons to podcast feeds.</summary>
internal sealed class EpisodeReleaser(WexelDb db, FileStore store, EpisodeMaker episodes)
{
    /// <summary>What keeps a lesson out of a feed, or null.</summary>
    internal async Task<Problem?> UnfitAsync(Guid outletId, PlannedRendition ready, CancellationToken cancel)
    {
        var settings = WexelJson.Read<FeedSettings>((await FeedAsync(outletId, cancel)).Settings);
        return settings.Media == FeedMedia.Sound && ready.Plan.Sound is null
            ? new Problem("episode-without-sound", $"“{ready.Lesson.Document.Title}” has no sound, so a feed of sound alone cannot carry it. Release it to a feed of videos.")
            : null;
    }

    /// <summary>Makes the file of a release in a feed and notes it there.</summary>
    internal async Task MakeAsync(Release release, PlannedRendition ready, string? transcriptLanguage, CancellationToken cancel)
    {
        var (feed, document) = (await FeedAsync(release.OutletId, cancel), ready.Lesson.Document);
        var media = WexelJson.Read<FeedSettings>(feed.Settings).Media;
        var made = await episodes.MakeAsync(ready, media, new KeyedFile(store.Derived(feed.ArtworkKey, MadeNames.Artwork), feed.ArtworkKey), cancel);
        release.FileKey = made.Key;
        release.Episode = WexelJson.Write(new Episode(
            FeedKeys.EpisodeId(release.OutletId.ToString(), release.LessonId.ToString()), release.Token, document.Title, document.Description, document.Language,
            ready.Plan.Length, new FileInfo(made.Path).Length, ready.Sections, transcriptLanguage, EpisodeMaker.ArtworkInside(media, feed.ArtworkKey)));
    }

    private Task<PodcastFeed> FeedAsync(Guid outletId, CancellationToken cancel) => db.PodcastFeeds.FirstAsync(f => f.OutletId == outletId, cancel);
}
