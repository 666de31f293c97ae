using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Feeds;

/// <summary>A feed that somebody opened by an address.</summary>
/// <param name="Feed">The feed, with its outlet.</param>
/// <param name="Listener">Whose address it is, in a private feed; null for the one of all.</param>
internal sealed record OpenedFeed(PodcastFeed Feed, Guid? Listener)
{
    /// <summary>Finds what an address opens: a feed by its own, or a private feed by one of its listeners' that was not withdrawn. A private feed has
    /// none for all.</summary>
    internal static async Task<OpenedFeed?> FindAsync(WexelDb db, string token, CancellationToken cancel)
    {
        if (await db.PodcastFeeds.AsNoTracking().Include(f => f.Outlet).FirstOrDefaultAsync(f => f.Token == token, cancel) is { } feed)
            return FeedReader.Settings(feed.Outlet!).Private ? null : new OpenedFeed(feed, null);
        var listener = await db
            .FeedListeners.AsNoTracking()
            .Include(l => l.Feed)
                .ThenInclude(f => f!.Outlet)
            .FirstOrDefaultAsync(l => l.Token == token && l.WithdrawnAt == null, cancel);
        return listener is { Feed.Outlet: { } outlet } && FeedReader.Settings(outlet).Private ? new OpenedFeed(listener.Feed!, listener.Id) : null;
    }
}
