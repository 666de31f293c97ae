using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Outlets.PodcastFeeds;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Outlets;
using Wexel.Server.Setup;

namespace Wexel.Server.Feeds;

/// <summary>Makes feeds and changes what is said of them.</summary>
internal sealed class FeedKeeper(WexelDb db, OutletKeeper outlets, FeedCare care, PictureTaker pictures, IOptions<WexelOptions> options, TimeProvider clock)
{
    /// <summary>Adds a feed as an outlet, with artwork that is made for it.</summary>
    internal async Task<Result<PodcastFeed>> AddAsync(FeedSettings settings, CancellationToken cancel) =>
        settings.Unusable() is { } unusable ? unusable
        : (await outlets.AddAsync(PodcastFeedKind.Feed, Request(settings), cancel)).Is(out var outlet, out var problem) ? outlet.Feed!
        : OfTitle(problem);

    /// <summary>Saves what is said of a feed; artwork that was made for it is made anew.</summary>
    internal async Task<Problem?> SaveAsync(PodcastFeed feed, FeedSettings settings, CancellationToken cancel) =>
        settings.Unusable() ?? (await outlets.SaveAsync(feed.Outlet!, Request(settings), cancel) is { } problem ? OfTitle(problem) : null);

    /// <summary>Gives the feed a new address; the old one is gone.</summary>
    internal Task MoveAsync(PodcastFeed feed, CancellationToken cancel)
    {
        // What it is known by stays.
        feed.Identity ??= FeedGuid.For(FeedReader.Address(feed, options.Value));
        (feed.Token, feed.ChangedAt) = (Tokens.New(), clock.GetUtcNow());
        return db.SaveChangesAsync(cancel);
    }

    /// <summary>Gives somebody an address of their own.</summary>
    internal async Task<Problem?> AddListenerAsync(PodcastFeed feed, string name, CancellationToken cancel)
    {
        if (name.Trim() is not { Length: > 0 and <= 255 } called)
            return new Problem("listener-without-name", "Say who the address is for, in at most 255 characters.", "name");
        db.FeedListeners.Add(
            new FeedListener
            {
                OutletId = feed.OutletId,
                Name = called,
                Token = Tokens.New(),
                AddedAt = clock.GetUtcNow(),
            }
        );
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Withdraws somebody's address: it opens nothing any more, and others stay as they are.</summary>
    internal Task WithdrawAsync(PodcastFeed feed, Guid listener, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        return db
            .FeedListeners.Where(l => l.OutletId == feed.OutletId && l.Id == listener && l.WithdrawnAt == null)
            .ExecuteUpdateAsync(set => set.SetProperty(l => l.WithdrawnAt, now), cancel);
    }

    /// <summary>Goes back to artwork that is made from the title.</summary>
    internal async Task DropOwnArtworkAsync(PodcastFeed feed, CancellationToken cancel)
    {
        await care.UseMadeArtworkAsync(feed, FeedReader.Settings(feed.Outlet!), cancel);
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

    private static OutletRequest Request(FeedSettings settings) => new(settings.Title, new PodcastFeedKind().Format.Node(settings));

    /// <summary>A feed is called by its title.</summary>
    private static Problem OfTitle(Problem problem) => problem.Field == "name" ? problem with { Field = "title" } : problem;
}
