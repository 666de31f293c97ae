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
    string? SoundAddress,
    string Artwork,
    bool ArtworkIsOwn,
    IReadOnlyList<FeedEpisode> Episodes,
    IReadOnlyList<FeedFinding> Findings,
    string SubscribePage,
    string BannerCode,
    IReadOnlyList<ListenerView> Listeners,
    IReadOnlyList<DirectoryView> Directories
);

/// <summary>Somebody with an address of their own.</summary>
/// <param name="Page">Where they subscribe.</param>
/// <param name="AskedAt">When an app of theirs asked for the feed last; null for never.</param>
internal sealed record ListenerView(Guid Id, string Name, string Page, DateTimeOffset AddedAt, DateTimeOffset? AskedAt);

/// <summary>A directory, and how the feed stands there.</summary>
/// <param name="IsSound">Whether it is the feed of sound beside it that stands there.</param>
/// <param name="Takes">About how long it takes to answer.</param>
/// <param name="SubmittedAt">When it was submitted; null where it was not.</param>
/// <param name="AnsweredAt">When it answered; null while it has not.</param>
/// <param name="Page">Where the feed is listed.</param>
/// <param name="Reasons">Why it was refused.</param>
internal sealed record DirectoryView(
    string Code,
    string Name,
    bool IsSound,
    string Takes,
    DateTimeOffset? SubmittedAt,
    DateTimeOffset? AnsweredAt,
    string? Page,
    IReadOnlyList<string> Reasons
);

internal sealed record ListenerRequest(string Name);

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
        group.MapPost("{id:guid}/listeners", AddListenerAsync).WithName("AddListener");
        group.MapDelete("{id:guid}/listeners/{listener:guid}", WithdrawAsync).WithName("WithdrawListener");
        group.MapPost("{id:guid}/directories/{code}", SubmitAsync).WithName("SubmitFeed");
        group.MapGet("{id:guid}/folder.zip", FolderAsync).WithName("FeedFolder").ExcludeFromDescription();
    }

    private static async Task<Results<Ok<FeedView>, ProblemHttpResult>> AddAsync(
        FeedSettings settings,
        FeedKeeper keeper,
        FeedViews views,
        WexelDb db,
        CancellationToken cancel
    )
    {
        return (await keeper.AddAsync(settings, cancel)).Is(out var feed, out var problem)
            ? TypedResults.Ok(await views.ShowAsync(feed, cancel))
            : Problems.Answer(problem);
    }

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> GetAsync(Guid id, FeedViews views, WexelDb db, CancellationToken cancel) =>
        WithFeedAsync(id, views, db, _ => Task.FromResult<Problem?>(null), cancel);

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> SaveAsync(
        Guid id,
        FeedSettings settings,
        FeedKeeper keeper,
        FeedViews views,
        WexelDb db,
        CancellationToken cancel
    ) => WithFeedAsync(id, views, db, feed => keeper.SaveAsync(feed, settings, cancel), cancel);

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> MoveAsync(
        Guid id,
        FeedKeeper keeper,
        FeedViews views,
        WexelDb db,
        CancellationToken cancel
    ) =>
        WithFeedAsync(
            id,
            views,
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
        FeedViews views,
        WexelDb db,
        CancellationToken cancel
    ) =>
        WithFeedAsync(
            id,
            views,
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
        FeedViews views,
        WexelDb db,
        CancellationToken cancel
    )
    {
        request.TakeAnySize();
        return WithFeedAsync(id, views, db, feed => keeper.TakeArtworkAsync(feed, request.Body, cancel), cancel);
    }

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> AddListenerAsync(
        Guid id,
        ListenerRequest request,
        FeedKeeper keeper,
        FeedViews views,
        WexelDb db,
        CancellationToken cancel
    ) => WithFeedAsync(id, views, db, feed => keeper.AddListenerAsync(feed, request.Name, cancel), cancel);

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> WithdrawAsync(
        Guid id,
        Guid listener,
        FeedKeeper keeper,
        FeedViews views,
        WexelDb db,
        CancellationToken cancel
    ) =>
        WithFeedAsync(
            id,
            views,
            db,
            async feed =>
            {
                await keeper.WithdrawAsync(feed, listener, cancel);
                return null;
            },
            cancel
        );

    private static Task<Results<Ok<FeedView>, ProblemHttpResult>> SubmitAsync(
        Guid id,
        string code,
        bool? sound,
        FeedDirectories directories,
        FeedViews views,
        WexelDb db,
        CancellationToken cancel
    ) => WithFeedAsync(id, views, db, feed => directories.SubmitAsync(feed, code, sound == true, cancel), cancel);

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
        var beside = await reader.SoundBesideAsync(feed, folder, cancel);
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
                    e.Entry.Episode.Picture is not null && e.Release.PosterKey is { } picture ? store.Keyed(picture, MadeNames.Poster) : null,
                    beside is not null && e.Release.SoundKey is { } sound ? store.Keyed(sound, MadeNames.Episode(FeedMedia.Sound)) : null
                )),
        ];
        var made = await packer.PackAsync(FeedFolder.Plan(sources, store.Keyed(feed.ArtworkKey, MadeNames.Artwork), episodes, beside), cancel);
        var zip = store.Derived(made.Key, MadeNames.Package);
        return TypedResults.PhysicalFile(zip, "application/zip", FileName.Safe(sources.Settings.Title, "feed") + ".zip", enableRangeProcessing: true);
    }

    internal static IReadOnlyList<IReadOnlyList<Cue>> Captions(Release release) => [.. PlayerLesson.Format.Read(release.Player).Captions.Select(c => c.Cues)];

    private static async Task<Results<Ok<FeedView>, ProblemHttpResult>> WithFeedAsync(
        Guid id,
        FeedViews views,
        WexelDb db,
        Func<PodcastFeed, Task<Problem?>> change,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, db, cancel) is not { } feed)
            return Problems.NotThere("feed");
        return await change(feed) is { } problem ? Problems.Answer(problem) : TypedResults.Ok(await views.ShowAsync(feed, cancel));
    }

    private static Task<PodcastFeed?> FindAsync(Guid id, WexelDb db, CancellationToken cancel) =>
        db.PodcastFeeds.Include(f => f.Outlet).FirstOrDefaultAsync(f => f.OutletId == id, cancel);
}
