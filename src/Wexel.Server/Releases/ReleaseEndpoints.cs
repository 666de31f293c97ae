using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Packaging;
using Wexel.Server.Feeds;
using Wexel.Server.Profiles;
using Wexel.Server.Setup;

namespace Wexel.Server.Releases;

internal sealed record ReleaseRequest(Guid OutletId, string ProfileId, Visibility Visibility);

internal sealed record ReleaseView(Guid Id, int Revision, DateTimeOffset ReleasedAt, bool Behind, Visibility Visibility, string ProfileId, string? Link, string? EmbedCode, string? EmbedWarning, PackageView? Package, string? Feed);

internal sealed record PackageView(string Link, long Bytes, IReadOnlyList<WrittenFile> Files, SentView? Sent);

internal sealed record SentView(DateTimeOffset At, string? To, bool Behind);

/// <param name="TitleThere">What becomes of the title there, in a sentence; null where it stays as it is.</param>
internal sealed record OutletView(Guid Id, OutletKind Kind, string Name, bool TakesPackages, string UsualProfile, IReadOnlyList<ProfileRefusal> Refuses, ReleaseView? Release, string? TitleThere);

/// <summary>A profile that an outlet does not take, and why.</summary>
internal sealed record ProfileRefusal(string ProfileId, string Sentence);

/// <param name="ProfileId">The profile that was chosen for it; null for what is usual for its kind.</param>
/// <param name="UsualProfile">The profile that is taken for it.</param>
/// <param name="Refuses">The profiles that it does not take.</param>
internal sealed record OutletEntry(Guid Id, OutletKind Kind, string Name, string? ProfileId, string UsualProfile, IReadOnlyList<ProfileRefusal> Refuses, OutletLimits Limits);

/// <summary>An outlet's limits as somebody set them; null for none.</summary>
internal sealed record LimitsRequest(long? MostBytes, TimeSpan? MostLength, long? MostBitsPerSecond);

internal sealed record BoardRow(Guid LessonId, string Course, int Position, string Title, IReadOnlyList<OutletView> Outlets);

internal static class ReleaseEndpoints
{
    internal static void MapReleases(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/releases", ListAsync).WithName("Releases");
        routes.MapPost("/api/lessons/{id:guid}/releases", ReleaseAsync).WithName("Release");
        routes.MapDelete("/api/releases/{id:guid}", TakeDownAsync).WithName("TakeDown");
        routes.MapPost("/api/releases/{id:guid}/send", SendAsync).WithName("SendRelease");
        routes.MapGet("/api/releases/{id:guid}/package.zip", PackageAsync).WithName("ReleasePackage").ExcludeFromDescription();
        routes.MapGet("/api/outlets", OutletListAsync).WithName("Outlets");
        routes.MapPut("/api/outlets/{id:guid}/limits", LimitAsync).WithName("LimitOutlet");
        routes.MapGet("/api/board", BoardAsync).WithName("Board");
    }

    private static async Task<Ok<List<OutletEntry>>> OutletListAsync(WexelDb db, ProfileShelf shelf, CancellationToken cancel)
    {
        var profiles = await shelf.AllAsync(cancel);
        return TypedResults.Ok((await OutletsAsync(db, cancel)).Select(o => (Outlet: o, Place: new Place(o, profiles))).Select(o => new OutletEntry(o.Outlet.Id, o.Outlet.Kind, o.Outlet.Name, o.Outlet.ProfileId, o.Place.Usual, o.Place.Refuses, OutletLimitsOf.Outlet(o.Outlet))).ToList());
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> LimitAsync(Guid id, LimitsRequest request, WexelDb db, CancellationToken cancel)
    {
        if (await db.Outlets.FirstOrDefaultAsync(o => o.Id == id, cancel) is not { } outlet)
            return Problems.NotThere("outlet");
        if (new OutletLimits(outlet.Name, request.MostBytes, request.MostLength, request.MostBitsPerSecond).Unusable() is { } unusable)
            return Problems.Of(unusable);
        (outlet.MostBytes, outlet.MostLength, outlet.MostBitsPerSecond) = (request.MostBytes, request.MostLength, request.MostBitsPerSecond);
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<List<OutletView>>, ProblemHttpResult>> ListAsync(Guid id, WexelDb db, ProfileShelf shelf, IOptions<WexelOptions> options, CancellationToken cancel)
    {
        var lesson = await db.Lessons.AsNoTracking().Include(l => l.Releases).FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        var outlets = await OutletsAsync(db, cancel);
        var profiles = await shelf.AllAsync(cancel);
        return TypedResults.Ok(outlets.Select(o => View(new Place(o, profiles), lesson, options.Value)).ToList());
    }

    private static async Task<Results<Ok<OutletView>, ProblemHttpResult>> ReleaseAsync(Guid id, ReleaseRequest request, WexelDb db, ProfileShelf shelf, Releaser releaser, IOptions<WexelOptions> options, CancellationToken cancel)
    {
        if (!await db.Lessons.AnyAsync(l => l.Id == id, cancel))
            return Problems.NotThere("lesson");
        if (!await db.Outlets.AnyAsync(o => o.Id == request.OutletId, cancel))
            return Problems.NotThere("outlet");
        var (release, problem) = await releaser.ReleaseAsync(id, request.OutletId, request.ProfileId, request.Visibility, cancel);
        if (problem is not null)
            return Problems.Of(problem);
        return TypedResults.Ok(await ViewAsync(release!, db, shelf, options.Value, cancel));
    }

    private static async Task<Results<Ok<OutletView>, ProblemHttpResult>> SendAsync(Guid id, WexelDb db, ProfileShelf shelf, PackageSender sender, IOptions<WexelOptions> options, CancellationToken cancel)
    {
        var release = await db.Releases.Include(r => r.Outlet).FirstOrDefaultAsync(r => r.Id == id, cancel);
        if (release is null)
            return Problems.NotThere("release");
        return await sender.SendAsync(release, release.Outlet!, Releaser.Identifier(release), cancel) is { } problem
            ? Problems.Of(problem)
            : TypedResults.Ok(await ViewAsync(release, db, shelf, options.Value, cancel));
    }

    private static async Task<OutletView> ViewAsync(Release release, WexelDb db, ProfileShelf shelf, WexelOptions options, CancellationToken cancel)
    {
        var lesson = await db.Lessons.AsNoTracking().Include(l => l.Releases).FirstAsync(l => l.Id == release.LessonId, cancel);
        return View(new Place(await db.Outlets.AsNoTracking().Include(o => o.Feed).FirstAsync(o => o.Id == release.OutletId, cancel), await shelf.AllAsync(cancel)), lesson, options);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeDownAsync(Guid id, WexelDb db, Releaser releaser, CancellationToken cancel)
    {
        if (await db.Releases.FirstOrDefaultAsync(r => r.Id == id, cancel) is not { } release)
            return Problems.NotThere("release");
        await releaser.TakeDownAsync([release], cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PackageAsync(Guid id, WexelDb db, FileStore store, CancellationToken cancel)
    {
        var release = await db.Releases.AsNoTracking().Include(r => r.Lesson).FirstOrDefaultAsync(r => r.Id == id, cancel);
        return release?.PackageKey is { } key
            ? TypedResults.PhysicalFile(store.Derived(key, MadeNames.Package), "application/zip", release.Lesson!.Title + ".zip", enableRangeProcessing: true)
            : Problems.NotThere("package");
    }

    private static async Task<Ok<List<BoardRow>>> BoardAsync(WexelDb db, ProfileShelf shelf, IOptions<WexelOptions> options, CancellationToken cancel)
    {
        var profiles = await shelf.AllAsync(cancel);
        var places = (await OutletsAsync(db, cancel)).ConvertAll(o => new Place(o, profiles));
        var lessons = await db.Lessons.AsNoTracking().Include(l => l.Course).Include(l => l.Releases).OrderBy(l => l.CourseId).ThenBy(l => l.Position).ToListAsync(cancel);
        return TypedResults.Ok(lessons.Select(l => new BoardRow(l.Id, l.Course!.Title, l.Position, l.Title, [.. places.Select(p => View(p, l, options.Value))])).ToList());
    }

    private static Task<List<Outlet>> OutletsAsync(WexelDb db, CancellationToken cancel) =>
        db.Outlets.AsNoTracking().Include(o => o.Feed).OrderBy(o => o.Kind).ThenBy(o => o.Name).ToListAsync(cancel);

    private static OutletView View(Place place, Lesson lesson, WexelOptions options)
    {
        var outlet = place.Outlet;
        return new OutletView(
            outlet.Id, outlet.Kind, outlet.Name, outlet.Address is not null, place.Usual, place.Refuses,
            lesson.Releases.FirstOrDefault(r => r.OutletId == outlet.Id) is { } release ? View(outlet, release, lesson, options) : null,
            OutletTakes.TitleThere(outlet.Kind, lesson.Title));
    }

    private static ReleaseView View(Outlet outlet, Release release, Lesson lesson, WexelOptions options)
    {
        var channel = outlet.Kind == OutletKind.Channel;
        var player = PlayerLesson.Format.Read(release.Player);
        return new ReleaseView(
            release.Id, release.Revision, release.ReleasedAt, IsBehind(release, lesson, outlet.Feed), release.Visibility, release.ProfileId,
            channel ? new Uri(options.PublicAddress, $"watch/{release.Token}").AbsoluteUri : null,
            channel ? HandOn.EmbedCode(new Uri(options.PublicAddress, $"embed/{release.Token}"), player.Title, new PictureSize(player.Width, player.Height)) : null,
            channel ? HandOn.EmbedWarning(release.Visibility) : null,
            Package(release, $"/api/releases/{release.Id}/package.zip"),
            outlet.Feed is null ? null : FeedReader.Address(outlet.Feed, options).AbsoluteUri);
    }

    private static bool IsBehind(Release release, Lesson lesson, PodcastFeed? feed) =>
        release.Revision != lesson.Revision || (feed is not null && release.Episode is { } episode && WexelJson.Read<Episode>(episode).IsBehind(feed.ArtworkKey));

    internal static PackageView? Package(PackagedRelease release, string link) => release.PackageFiles is null ? null : new PackageView(
        link, release.PackageBytes, WexelJson.Read<IReadOnlyList<WrittenFile>>(release.PackageFiles),
        release.SentAt is { } at ? new SentView(at, release.SentTo, release.SentKey != release.PackageKey) : null);

    /// <summary>An outlet and the profiles that it takes, read once for all lessons.</summary>
    private sealed class Place(Outlet outlet, IReadOnlyList<Profile> profiles)
    {
        internal Outlet Outlet => outlet;

        internal string Usual { get; } = OutletProfiles.Usual(outlet);

        internal IReadOnlyList<ProfileRefusal> Refuses { get; } =
            [.. profiles.Select(p => (p.Id, Refusal: OutletProfiles.Refusal(outlet, p))).Where(p => p.Refusal is not null).Select(p => new ProfileRefusal(p.Id, p.Refusal!.Sentence))];
    }
}
