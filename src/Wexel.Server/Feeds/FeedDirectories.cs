using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.Directories;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Feeds;

/// <summary>Submits feeds to directories, and asks what they answered.</summary>
internal sealed class FeedDirectories(WexelDb db, PodcastDirectories directories, FeedReader reader, TimeProvider clock, ILogger<FeedDirectories> log) : IUpkeep
{
    public TimeSpan Every => TimeSpan.FromSeconds(5);

    /// <summary>Submits a feed, or again what was refused.</summary>
    /// <param name="feed">The feed.</param>
    /// <param name="code">The directory.</param>
    /// <param name="sound">Whether it is the feed of sound beside it that is submitted.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What stood in the way, or null.</returns>
    internal async Task<Problem?> SubmitAsync(PodcastFeed feed, string code, bool sound, CancellationToken cancel)
    {
        var settings = FeedReader.Settings(feed.Outlet!);
        if (directories.Find(code) is not { } directory)
            return new Problem("directory-unknown", "There is no such directory.");
        if (settings.Unlisted || settings.Private)
            return new Problem(
                "feed-not-for-directories",
                $"The feed asks directories to keep it out{(settings.Private ? ", and each listener has an address of their own" : "")}. Change that first."
            );
        if ((sound ? reader.SoundAddress(feed, feed.Token) : reader.Address(feed.Token)) is not { } address)
            return new Problem("feed-without-sound", "There is no feed of sound beside this one. Have one made under its settings first.");
        if (!(await directory.SubmitAsync(address, cancel)).Is(out var submission, out var problem))
            return problem;
        var listing = await db.FeedListings.FirstOrDefaultAsync(l => l.OutletId == feed.OutletId && l.Directory == code && l.IsSound == sound, cancel);
        if (listing is null)
            db.FeedListings.Add(
                listing = new FeedListing
                {
                    OutletId = feed.OutletId,
                    Directory = code,
                    IsSound = sound,
                    Submission = "",
                    Address = "",
                }
            );
        (listing.Submission, listing.Address, listing.SubmittedAt) = (submission, address.AbsoluteUri, clock.GetUtcNow());
        (listing.AnsweredAt, listing.Page, listing.Reasons) = (null, null, null);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    public async Task DoAsync(CancellationToken cancel)
    {
        foreach (var listing in await db.FeedListings.Where(l => l.AnsweredAt == null).ToListAsync(cancel))
        {
            if (directories.Find(listing.Directory) is not { } directory)
                continue;
            if (!(await directory.AnswerAsync(listing.Submission, cancel)).Is(out var answer, out var problem))
            {
                log.LogWarning("What {Directory} answered was not had: {Problem}", listing.Directory, problem.Code);
                continue;
            }

            if (answer is null)
                continue;
            (listing.AnsweredAt, listing.Page) = (clock.GetUtcNow(), answer.Page?.AbsoluteUri);
            listing.Reasons = answer.Page is null ? WexelJson.Write(answer.Reasons) : null;
            await db.SaveChangesAsync(cancel);
        }
    }
}
