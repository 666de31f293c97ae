using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Net.Http.Headers;
using Wexel.Core.Captions;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Serving;

namespace Wexel.Server.Feeds;

/// <summary>
/// What podcast apps ask for. All of it answers HEAD, conditional requests and byte ranges (RFC 9110, sections 9.3.2, 13 and 14);
/// whoever has the address may.
/// </summary>
internal static class FeedFileEndpoints
{
    internal static void MapFeedFiles(this IEndpointRouteBuilder routes)
    {
        string[] reading = ["GET", "HEAD"];
        var group = routes
            .MapGroup("/feeds/{token}")
            .AllowAnonymous()
            .ExcludeFromDescription()
            .AddEndpointFilter(
                (context, next) =>
                {
                    SafeHeaders.ForOthers(context.HttpContext.Response);
                    // Apps ask again and again; what has not changed is not sent.
                    context.HttpContext.Response.Headers.CacheControl = "public, no-cache";
                    return next(context);
                }
            );
        group.MapMethods(FeedFiles.Feed, reading, (string token, WexelDb db, FeedReader reader, TimeProvider clock, CancellationToken cancel) =>
            FeedAsync(token, db, clock, async feed => await reader.SourcesAsync(feed, reader.Folder(token), cancel), cancel)
        );
        group.MapMethods(FeedFiles.SoundBeside, reading, (string token, WexelDb db, FeedReader reader, TimeProvider clock, CancellationToken cancel) =>
            FeedAsync(token, db, clock, feed => reader.SoundBesideAsync(feed, reader.Folder(token), cancel), cancel)
        );
        group.MapMethods("artwork.{ending:regex(^(jpg|png)$)}", reading, ArtworkAsync);
        group.MapMethods("episodes/{name}.json", reading, (string token, string name, WexelDb db, CancellationToken cancel) =>
            OfEpisodeAsync(token, name, db, (_, _, episode) => Text(episode.ChaptersJson(), FeedFiles.ChaptersType), cancel)
        );
        group.MapMethods("episodes/{name}.vtt", reading, (string token, string name, WexelDb db, CancellationToken cancel) =>
            name.Split('.', 2) is var parts
                ? OfEpisodeAsync(token, parts[0], db, (_, release, episode) => Transcript(release, episode, parts.ElementAtOrDefault(1)), cancel)
                : null!
        );
        group.MapMethods("episodes/{name}.jpg", reading, (string token, string name, WexelDb db, FileStore store, CancellationToken cancel) =>
            OfEpisodeAsync(token, name, db, (_, release, episode) => Picture(store, release, episode), cancel)
        );
        group.MapMethods(
            "episodes/{name}.{ending:regex(^m4[av]$)}",
            reading,
            (string token, string name, string ending, WexelDb db, FileStore store, CancellationToken cancel) =>
                OfEpisodeAsync(token, name, db, (settings, release, _) => Media(store, release, settings, ending), cancel)
        );
    }

    private static async Task<IResult> FeedAsync(
        string token,
        WexelDb db,
        TimeProvider clock,
        Func<PodcastFeed, Task<FeedSources?>> read,
        CancellationToken cancel
    )
    {
        if (await OpenedFeed.FindAsync(db, token, cancel) is not { } opened)
            return TypedResults.NotFound();
        if (opened.Listener is { } listener)
        {
            var now = clock.GetUtcNow();
            await db.FeedListeners.Where(l => l.Id == listener).ExecuteUpdateAsync(set => set.SetProperty(l => l.AskedAt, now), cancel);
        }

        if (await read(opened.Feed) is not { } sources)
            return TypedResults.NotFound();
        var bytes = FeedDocument.Write(sources);
        return TypedResults.File(
            bytes,
            FeedFiles.FeedType + "; charset=utf-8",
            lastModified: sources.ChangedAt,
            entityTag: Tag(bytes),
            enableRangeProcessing: true
        );
    }

    private static async Task<IResult> ArtworkAsync(string token, string ending, WexelDb db, FileStore store, CancellationToken cancel) =>
        await FindAsync(token, db, cancel) is not { } feed || !FeedReader.ArtworkName(feed).EndsWith(ending, StringComparison.Ordinal)
            ? TypedResults.NotFound()
            : TypedResults.PhysicalFile(
                store.Derived(feed.ArtworkKey, MadeNames.Artwork),
                FeedReader.ArtworkType(feed),
                entityTag: new EntityTagHeaderValue($"\"{feed.ArtworkKey}\""),
                enableRangeProcessing: true
            );

    private static async Task<IResult> OfEpisodeAsync(
        string token,
        string name,
        WexelDb db,
        Func<FeedSettings, Release, Episode, IResult> answer,
        CancellationToken cancel
    )
    {
        var feed = await FindAsync(token, db, cancel);
        var release = feed is null
            ? null
            : await db.Releases.AsNoTracking().FirstOrDefaultAsync(r => r.OutletId == feed.OutletId && r.Token == name && r.Episode != null, cancel);
        return release is null ? TypedResults.NotFound() : answer(FeedReader.Settings(feed!.Outlet!), release, Episode.Format.Read(release.Episode!));
    }

    private static IResult Media(FileStore store, Release release, FeedSettings settings, string ending)
    {
        var media = FeedFiles.Ending(FeedMedia.Sound) == $".{ending}" ? FeedMedia.Sound : FeedMedia.Video;
        var key =
            media == settings.Media ? release.FileKey
            : settings.SoundBeside() is null ? null
            : release.SoundKey;
        return key is null
            ? TypedResults.NotFound()
            : TypedResults.PhysicalFile(
                store.Derived(key, MadeNames.Episode(media)),
                FeedFiles.MediaType(media),
                entityTag: new EntityTagHeaderValue($"\"{key}\""),
                enableRangeProcessing: true
            );
    }

    private static IResult Picture(FileStore store, Release release, Episode episode) =>
        episode.Picture is not null && release.PosterKey is { } key
            ? TypedResults.PhysicalFile(
                store.Derived(key, MadeNames.Poster),
                "image/jpeg",
                entityTag: new EntityTagHeaderValue($"\"{key}\""),
                enableRangeProcessing: true
            )
            : TypedResults.NotFound();

    private static IResult Transcript(Release release, Episode episode, string? apart) =>
        episode.TranscriptFiles.Zip(FeedEndpoints.Captions(release)).Where(t => t.First.Apart == apart).Select(t => t.Second).FirstOrDefault() is { } cues
            ? Text(WebVttText.WriteKept(cues), FeedFiles.TranscriptType + "; charset=utf-8")
            : TypedResults.NotFound();

    private static FileContentHttpResult Text(string text, string type)
    {
        var bytes = Encoding.UTF8.GetBytes(text);
        return TypedResults.File(bytes, type, entityTag: Tag(bytes));
    }

    private static EntityTagHeaderValue Tag(byte[] bytes) => new($"\"{Convert.ToHexStringLower(SHA256.HashData(bytes))[..32]}\"");

    private static async Task<PodcastFeed?> FindAsync(string token, WexelDb db, CancellationToken cancel) =>
        (await OpenedFeed.FindAsync(db, token, cancel))?.Feed;
}
