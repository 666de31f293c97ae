using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Outlets.PodcastFeeds;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Releasing;
using Wexel.Media.Measuring;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Feeds;

/// <summary>What a podcast feed has besides its settings: an address of its own, and artwork.</summary>
internal sealed class FeedCare(WexelDb db, EpisodeMaker episodes, IOptions<WexelOptions> options, TimeProvider clock) : IOutletCare
{
    public string Kind => PodcastFeedKind.Feed;

    public async Task<Problem?> RefusalAsync(Outlet outlet, string name, string settings, CancellationToken cancel) =>
        outlet.Settings is not null
        && new PodcastFeedKind().Read(settings).Media != FeedReader.Settings(outlet).Media
        && await db.Releases.AnyAsync(r => r.OutletId == outlet.Id, cancel)
            ? new Problem(
                "feed-has-episodes",
                "The feed has episodes of the other kind, and apps keep what they have. Take them down first, or make a second feed.",
                "media"
            )
            : null;

    public async Task SavingAsync(Outlet outlet, CancellationToken cancel)
    {
        var settings = FeedReader.Settings(outlet);
        outlet.Name = settings.Title;
        if (outlet.Feed is null)
            outlet.Feed = new PodcastFeed
            {
                OutletId = outlet.Id,
                Token = Tokens.New(),
                ArtworkKey = "",
                Artwork = "",
            };
        outlet.Feed.ChangedAt = clock.GetUtcNow();
        if (!outlet.Feed.ArtworkIsOwn)
            await UseMadeArtworkAsync(outlet.Feed, settings, cancel);
    }

    public async Task HouseChangedAsync(CancellationToken cancel)
    {
        foreach (var feed in await db.PodcastFeeds.Include(f => f.Outlet).Where(f => !f.ArtworkIsOwn).ToListAsync(cancel))
        {
            await UseMadeArtworkAsync(feed, FeedReader.Settings(feed.Outlet!), cancel);
            feed.ChangedAt = clock.GetUtcNow();
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Gives a feed artwork that is made from its title; the caller saves.</summary>
    internal async Task UseMadeArtworkAsync(PodcastFeed feed, FeedSettings settings, CancellationToken cancel)
    {
        var mark = (await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel))?.MarkKey;
        var made = await episodes.ArtworkAsync(new ArtworkPlan(settings.Title, options.Value.House, settings.Colour), mark, cancel);
        (feed.ArtworkKey, feed.Artwork) = (made.Key, WexelJson.Write((await ArtworkMeasurer.MeasureAsync(made.Path, cancel))!));
    }
}
