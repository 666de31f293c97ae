using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Kit;
using Wexel.Core.Naming;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Releasing;
using Wexel.Making.Storage;
using Wexel.Server.Setup;

namespace Wexel.Server.Feeds;

internal sealed record FeedView(
    Guid OutletId,
    FeedSettings Settings,
    string Address,
    string Artwork,
    bool ArtworkIsOwn,
    IReadOnlyList<FeedEpisode> Episodes,
    IReadOnlyList<FeedFinding> Findings
);

internal sealed record FeedEpisode(Guid LessonId, string Title, DateTimeOffset PublishedAt, int Season, int Number, TimeSpan Length, long Bytes);

/// <summary>The trainer's side of podcast feeds.</summary>
internal static class FeedEndpoints
{
    internal static void MapFeeds(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/feed-categories", () => TypedResults.Ok(FeedCategories.All)).WithName("FeedCategories");
        var group = routes.MapGroup("/api/feeds");
        group.MapPost("", AddAsync).WithName("AddFeed");
        group.MapGet("{id:guid}", GetAsync).WithName("Feed");
        group.MapPut("{id:guid}", SaveAsync).WithName("SaveFeed");
        group.MapPost("{id:guid}/address", MoveAsync).WithName("MoveFeed");
        group.MapPut("{id:guid}/artwork", TakeArtworkAsync).WithName("TakeArtwork").Accepts<Stream>("application/octet-stream");
        group.MapDelete("{id:guid}/artwork", DropArtworkAsync).WithName("DropArtwork");
        group.MapGet("{id:guid}/folder.zip", FolderAsync).WithName("FeedFolder").ExcludeFromDescription();
    }

    private static async Task<Results<Ok<FeedView>, ProblemHttpResult>> AddAsync(
        FeedSettings settings,
        FeedKeeper keeper,
        FeedReader reader,
        WexelDb db,
        CancellationToken cancel
    )
    {
        return (await keeper.AddAsync(settings, cancel)).Is(out var feed, out var problem)
            ? TypedResults.Ok(await ViewAsync(feed, reader, db, cancel))
            : Problems.Answer(problem);
    }

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> GetAsync(Guid id, FeedReader reader, WexelDb db, CancellationToken cancel) =>
        WithFeedAsync(id, reader, db, _ => Task.FromResult<Problem?>(null), cancel);

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> SaveAsync(
        Guid id,
        FeedSettings settings,
        FeedKeeper keeper,
        FeedReader reader,
        WexelDb db,
        CancellationToken cancel
    ) => WithFeedAsync(id, reader, db, feed => keeper.SaveAsync(feed, settings, cancel), cancel);

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> MoveAsync(
        Guid id,
        FeedKeeper keeper,
        FeedReader reader,
        WexelDb db,
        CancellationToken cancel
    ) =>
        WithFeedAsync(
            id,
            reader,
            db,
            async feed =>
            {
                await keeper.MoveAsync(feed, cancel);
                return null;
            },
            cancel
        );

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> DropArtworkAsync(
        Guid id,
        FeedKeeper keeper,
        FeedReader reader,
        WexelDb db,
        CancellationToken cancel
    ) =>
        WithFeedAsync(
            id,
            reader,
            db,
            async feed =>
            {
                await keeper.DropOwnArtworkAsync(feed, cancel);
                return null;
            },
            cancel
        );

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> TakeArtworkAsync(
        Guid id,
        HttpRequest request,
        FeedKeeper keeper,
        FeedReader reader,
        WexelDb db,
        CancellationToken cancel
    )
    {
        request.TakeAnySize();
        return WithFeedAsync(id, reader, db, feed => keeper.TakeArtworkAsync(feed, request.Body, cancel), cancel);
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> FolderAsync(
        Guid id,
        string? address,
        FeedReader reader,
        FileStore store,
        Packer packer,
        WexelDb db,
        CancellationToken cancel
    )
    {
        if (!Uri.TryCreate(address?.TrimEnd('/') + "/", UriKind.Absolute, out var folder) || folder.Scheme is not ("http" or "https"))
            return Problems.Answer(
                new Problem("feed-address-unusable", "Write the address where the folder will lie, such as https://intranet.example/listening/.", "address")
            );
        if (await FindAsync(id, db, cancel) is not { } feed)
            return Problems.NotThere("feed");
        var sources = await reader.SourcesAsync(feed, folder, cancel);
        var releases = await db.Releases.AsNoTracking().Where(r => r.OutletId == id && r.Episode != null).ToDictionaryAsync(r => r.Token, cancel);
        // What was released after the entries were read is left to the next folder.
        EpisodeSources[] episodes =
        [
            .. sources
                .Entries.Where(e => releases.ContainsKey(e.Episode.Name))
                .Select(e => (Entry: e, Release: releases[e.Episode.Name]))
                .Select(e => new EpisodeSources(
                    e.Entry,
                    store.Keyed(e.Release.FileKey, MadeNames.Episode(sources.Settings.Media)),
                    Captions(e.Release),
                    e.Entry.Episode.Picture is not null && e.Release.PosterKey is { } picture ? store.Keyed(picture, MadeNames.Poster) : null
                )),
        ];
        var made = await packer.PackAsync(FeedFolder.Plan(sources, store.Keyed(feed.ArtworkKey, MadeNames.Artwork), episodes), cancel);
        var zip = store.Derived(made.Key, MadeNames.Package);
        return TypedResults.PhysicalFile(zip, "application/zip", FileName.Safe(sources.Settings.Title, "feed") + ".zip", enableRangeProcessing: true);
    }

    internal static IReadOnlyList<IReadOnlyList<Cue>> Captions(Release release) => [.. PlayerLesson.Format.Read(release.Player).Captions.Select(c => c.Cues)];

    private static async Task<Results<Ok<FeedView>, ProblemHttpResult>> WithFeedAsync(
        Guid id,
        FeedReader reader,
        WexelDb db,
        Func<PodcastFeed, Task<Problem?>> change,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, db, cancel) is not { } feed)
            return Problems.NotThere("feed");
        return await change(feed) is { } problem ? Problems.Answer(problem) : TypedResults.Ok(await ViewAsync(feed, reader, db, cancel));
    }

    private static Task<PodcastFeed?> FindAsync(Guid id, WexelDb db, CancellationToken cancel) =>
        db.PodcastFeeds.Include(f => f.Outlet).FirstOrDefaultAsync(f => f.OutletId == id, cancel);

    private static async Task<FeedView> ViewAsync(PodcastFeed feed, FeedReader reader, WexelDb db, CancellationToken cancel)
    {
        var sources = await reader.SourcesAsync(feed, reader.Folder(feed), cancel);
        var lessons = await db.Releases.AsNoTracking().Where(r => r.OutletId == feed.OutletId).ToDictionaryAsync(r => r.Token, r => r.LessonId, cancel);
        return new FeedView(
            feed.OutletId,
            sources.Settings,
            new Uri(reader.Folder(feed), FeedFiles.Feed).AbsoluteUri,
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
            FeedCheck.Findings(FeedDocument.Write(sources), WexelJson.Read<ImageFacts>(feed.Artwork))
        );
    }
}
