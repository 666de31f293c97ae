using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Kit;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Releasing;
using Wexel.Making.Storage;
using Wexel.Media.Measuring;
using Wexel.Server.Setup;

namespace Wexel.Server.Feeds;

/// <summary>Makes feeds and changes what is said of them.</summary>
internal sealed class FeedKeeper(WexelDb db, EpisodeMaker episodes, PictureTaker pictures, IOptions<WexelOptions> options, TimeProvider clock)
{
    /// <summary>Adds a feed as an outlet, with artwork that is made for it.</summary>
    internal async Task<(PodcastFeed? Feed, Problem? Problem)> AddAsync(FeedSettings settings, CancellationToken cancel)
    {
        if (settings.Unusable() is { } problem)
            return (null, problem);
        var outlet = new Outlet { Kind = OutletKind.PodcastFeed, Name = settings.Title };
        var (key, facts) = await MadeArtworkAsync(settings, cancel);
        var feed = new PodcastFeed { OutletId = outlet.Id, Outlet = outlet, Token = Tokens.New(), Settings = WexelJson.Write(settings), ArtworkKey = key, Artwork = WexelJson.Write(facts), ChangedAt = clock.GetUtcNow() };
        db.PodcastFeeds.Add(feed);
        await db.SaveChangesAsync(cancel);
        return (feed, null);
    }

    /// <summary>Saves what is said of a feed; artwork that was made for it is made anew.</summary>
    internal async Task<Problem?> SaveAsync(PodcastFeed feed, FeedSettings settings, CancellationToken cancel)
    {
        if (settings.Unusable() is { } problem)
            return problem;
        if (settings.Media != WexelJson.Read<FeedSettings>(feed.Settings).Media && await db.Releases.AnyAsync(r => r.OutletId == feed.OutletId, cancel))
            return new Problem("feed-has-episodes", "The feed has episodes of the other kind, and apps keep what they have. Take them down first, or make a second feed.", "media");
        (feed.Settings, feed.Outlet!.Name, feed.ChangedAt) = (WexelJson.Write(settings), settings.Title, clock.GetUtcNow());
        if (!feed.ArtworkIsOwn)
            await UseMadeArtworkAsync(feed, cancel);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Gives the feed a new address; the old one is gone.</summary>
    internal Task MoveAsync(PodcastFeed feed, CancellationToken cancel)
    {
        (feed.Token, feed.ChangedAt) = (Tokens.New(), clock.GetUtcNow());
        return db.SaveChangesAsync(cancel);
    }

    /// <summary>Goes back to artwork that is made from the title.</summary>
    internal async Task DropOwnArtworkAsync(PodcastFeed feed, CancellationToken cancel)
    {
        await UseMadeArtworkAsync(feed, cancel);
        (feed.ArtworkIsOwn, feed.ChangedAt) = (false, clock.GetUtcNow());
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Takes a picture as the artwork, or says all that is wrong with it.</summary>
    internal async Task<Problem?> TakeArtworkAsync(PodcastFeed feed, Stream body, CancellationToken cancel)
    {
        var (picture, problem) = await pictures.TakeAsync(body, ArtworkRules.MostBytes, "artwork", ArtworkRules.Wrong, MadeNames.Artwork, cancel);
        if (picture is null)
            return problem;
        (feed.ArtworkKey, feed.Artwork, feed.ArtworkIsOwn, feed.ChangedAt) = (picture.Key, WexelJson.Write(picture.Facts), true, clock.GetUtcNow());
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Makes all artwork anew that carries the house's mark.</summary>
    internal async Task FollowHouseAsync(CancellationToken cancel)
    {
        foreach (var feed in await db.PodcastFeeds.Where(f => !f.ArtworkIsOwn).ToListAsync(cancel))
        {
            await UseMadeArtworkAsync(feed, cancel);
            feed.ChangedAt = clock.GetUtcNow();
        }

        await db.SaveChangesAsync(cancel);
    }

    private async Task UseMadeArtworkAsync(PodcastFeed feed, CancellationToken cancel)
    {
        var (key, facts) = await MadeArtworkAsync(WexelJson.Read<FeedSettings>(feed.Settings), cancel);
        (feed.ArtworkKey, feed.Artwork) = (key, WexelJson.Write(facts));
    }

    private async Task<(string Key, ImageFacts Facts)> MadeArtworkAsync(FeedSettings settings, CancellationToken cancel)
    {
        var mark = (await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel))?.MarkKey;
        var plan = new ArtworkPlan(settings.Title, options.Value.House, settings.Colour);
        var made = await episodes.ArtworkAsync(plan, mark, cancel);
        return (made.Key, (await ArtworkMeasurer.MeasureAsync(made.Path, cancel))!);
    }
}
