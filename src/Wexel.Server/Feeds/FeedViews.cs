using System.Net;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Kit;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.Directories;

namespace Wexel.Server.Feeds;

/// <summary>Shows a feed to trainers.</summary>
internal sealed class FeedViews(WexelDb db, FeedReader reader, PodcastDirectories directories)
{
    internal async Task<FeedView> ShowAsync(PodcastFeed feed, CancellationToken cancel)
    {
        var sources = await reader.SourcesAsync(feed, reader.Folder(feed), cancel);
        var lessons = await db.Releases.AsNoTracking().Where(r => r.OutletId == feed.OutletId).ToDictionaryAsync(r => r.Token, r => r.LessonId, cancel);
        var listeners = await db
            .FeedListeners.AsNoTracking()
            .Where(l => l.OutletId == feed.OutletId && l.WithdrawnAt == null)
            .OrderBy(l => l.Name)
            .ToListAsync(cancel);
        var listings = await db.FeedListings.AsNoTracking().Where(l => l.OutletId == feed.OutletId).ToDictionaryAsync(l => (l.Directory, l.IsSound), cancel);
        var sound = reader.SoundAddress(feed, feed.Token);
        IReadOnlyList<bool> forms = sound is null ? [false] : [false, true];
        return new FeedView(
            feed.OutletId,
            sources.Settings,
            sources.Address.AbsoluteUri,
            sound?.AbsoluteUri,
            new Uri(reader.Folder(feed), $"{sources.Artwork}?v={feed.ArtworkKey[..8]}").PathAndQuery,
            feed.ArtworkIsOwn,
            [
                .. sources
                    .Entries.OrderBy(e => e.Season)
                    .ThenBy(e => e.Number)
                    .Select(e => new FeedEpisode(
                        lessons.GetValueOrDefault(e.Episode.Name),
                        e.Episode.Title,
                        e.PublishedAt,
                        e.Season,
                        e.Number,
                        e.Episode.Length,
                        e.Episode.Bytes
                    )),
            ],
            FeedCheck.Findings(FeedDocument.Write(sources), WexelJson.Read<ImageFacts>(feed.Artwork)),
            reader.SubscribePage(feed.Token).AbsoluteUri,
            BannerCode(reader.SubscribePage(feed.Token), sources.Settings.Title),
            listeners.ConvertAll(l => new ListenerView(l.Id, l.Name, reader.SubscribePage(l.Token).AbsoluteUri, l.AddedAt, l.AskedAt)),
            [.. directories.All.SelectMany(d => forms.Select(isSound => View(d, isSound, listings.GetValueOrDefault((d.Code, isSound)))))]
        );
    }

    private static DirectoryView View(IPodcastDirectory directory, bool isSound, FeedListing? listing) =>
        new(
            directory.Code,
            directory.Name,
            isSound,
            directory.Takes,
            listing?.SubmittedAt,
            listing?.AnsweredAt,
            listing?.Page,
            listing?.Reasons is { } reasons ? WexelJson.Read<IReadOnlyList<string>>(reasons) : []
        );

    /// <summary>A banner that leads to where people subscribe, for a page of one's own.</summary>
    private static string BannerCode(Uri page, string title) =>
        $"<a href=\"{page.AbsoluteUri}\"><img src=\"{page.AbsoluteUri}/banner.svg\" width=\"360\" height=\"72\" "
        + $"alt=\"Subscribe to {WebUtility.HtmlEncode(title)}\"></a>";
}
