using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Packaging;
using Wexel.Server.Feeds;
using Wexel.Server.Outlets;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

internal sealed record ReleaseRequest(Guid OutletId, string ProfileId, Visibility Visibility);

internal sealed record ReleaseView(
    Guid Id,
    int Revision,
    DateTimeOffset ReleasedAt,
    bool Behind,
    Visibility Visibility,
    string ProfileId,
    string? Link,
    string? EmbedCode,
    string? EmbedWarning,
    PackageView? Package,
    string? Feed
);

internal sealed record PackageView(string Link, long Bytes, IReadOnlyList<WrittenFile> Files, SentView? Sent);

internal sealed record SentView(DateTimeOffset At, string? To, bool Behind);

/// <param name="KindName">What it is, for people.</param>
/// <param name="Action">What stands on the button that releases to it.</param>
/// <param name="HasPages">Whether learners come to Wexel's own pages, where who may see it is asked.</param>
/// <param name="PackageWord">What the package that is made for it is called; null where none is.</param>
/// <param name="TakesPackages">Whether what is made can be put there from here.</param>
/// <param name="ByHand">What has to be done there by hand, each in a sentence.</param>
/// <param name="TitleThere">What becomes of the title there, in a sentence; null where it stays as it is.</param>
internal sealed record OutletView(
    Guid Id,
    string Kind,
    string KindName,
    string Action,
    bool HasPages,
    string? PackageWord,
    string Name,
    bool TakesPackages,
    string UsualProfile,
    IReadOnlyList<ProfileRefusal> Refuses,
    ReleaseView? Release,
    IReadOnlyList<string> ByHand,
    string? TitleThere
);

/// <summary>Lessons down, outlets across.</summary>
internal sealed record BoardView(IReadOnlyList<BoardOutlet> Outlets, IReadOnlyList<BoardRow> Lessons);

internal sealed record BoardOutlet(Guid Id, string Name, string KindName);

/// <param name="Cells">What stands at each outlet, in their order; null where nothing does.</param>
internal sealed record BoardRow(Guid LessonId, string Course, int Position, string Title, IReadOnlyList<BoardCell?> Cells);

internal sealed record BoardCell(bool Behind, DateTimeOffset ReleasedAt);

internal static class ReleaseEndpoints
{
    internal static void MapReleases(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/releases", ListAsync).WithName("Releases");
        routes.MapPost("/api/lessons/{id:guid}/releases", ReleaseAsync).WithName("Release");
        routes.MapDelete("/api/releases/{id:guid}", TakeDownAsync).WithName("TakeDown");
        routes.MapPost("/api/releases/{id:guid}/send", SendAsync).WithName("SendRelease");
        routes.MapGet("/api/releases/{id:guid}/package.zip", PackageAsync).WithName("ReleasePackage").ExcludeFromDescription();
        routes.MapGet("/api/board", BoardAsync).WithName("Board");
    }

    private static async Task<Results<Ok<List<OutletView>>, ProblemHttpResult>> ListAsync(Guid id, WexelDb db, StandingReader reader, CancellationToken cancel)
    {
        if (await db.Lessons.AsNoTracking().Include(l => l.Releases).FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        var standing = await reader.ReadAsync(cancel);
        return TypedResults.Ok(standing.Outlets.Select(o => View(o, lesson, standing)).ToList());
    }

    private static async Task<Results<Ok<OutletView>, ProblemHttpResult>> ReleaseAsync(
        Guid id,
        ReleaseRequest request,
        WexelDb db,
        Releaser releaser,
        StandingReader reader,
        CancellationToken cancel
    )
    {
        if (!await db.Lessons.AnyAsync(l => l.Id == id, cancel))
            return Problems.NotThere("lesson");
        if (!await db.Outlets.AnyAsync(o => o.Id == request.OutletId, cancel))
            return Problems.NotThere("outlet");
        return (await releaser.ReleaseAsync(new ReleaseAim(id, request.OutletId, request.ProfileId, request.Visibility), cancel)).Is(
            out var release,
            out var problem
        )
            ? TypedResults.Ok(await ViewAsync(release, db, reader, cancel))
            : Problems.Answer(problem);
    }

    private static async Task<Results<Ok<OutletView>, ProblemHttpResult>> SendAsync(
        Guid id,
        WexelDb db,
        Releaser releaser,
        StandingReader reader,
        CancellationToken cancel
    )
    {
        if (await db.Releases.Include(r => r.Outlet).FirstOrDefaultAsync(r => r.Id == id, cancel) is not { } release)
            return Problems.NotThere("release");
        return await releaser.DeliverAsync(release, cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.Ok(await ViewAsync(release, db, reader, cancel));
    }

    private static async Task<OutletView> ViewAsync(Release release, WexelDb db, StandingReader reader, CancellationToken cancel)
    {
        var lesson = await db.Lessons.AsNoTracking().Include(l => l.Releases).FirstAsync(l => l.Id == release.LessonId, cancel);
        var standing = await reader.ReadAsync(cancel);
        return View(standing.Outlets.First(o => o.Row.Id == release.OutletId), lesson, standing);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeDownAsync(Guid id, WexelDb db, Releaser releaser, CancellationToken cancel)
    {
        if (await db.Releases.Include(r => r.Outlet).FirstOrDefaultAsync(r => r.Id == id, cancel) is not { } release)
            return Problems.NotThere("release");
        return await releaser.TakeDownAsync([release], cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PackageAsync(Guid id, WexelDb db, FileStore store, CancellationToken cancel)
    {
        var release = await db.Releases.AsNoTracking().Include(r => r.Lesson).FirstOrDefaultAsync(r => r.Id == id, cancel);
        return release?.PackageKey is { } key
            ? TypedResults.PhysicalFile(store.Derived(key, MadeNames.Package), "application/zip", release.Lesson!.Title + ".zip", enableRangeProcessing: true)
            : Problems.NotThere("package");
    }

    private static async Task<Ok<BoardView>> BoardAsync(WexelDb db, StandingReader reader, CancellationToken cancel)
    {
        var standing = await reader.ReadAsync(cancel);
        var stands = await reader.StandsAsync(standing, cancel);
        var lessons = await db
            .Lessons.OrderBy(l => l.CourseId)
            .ThenBy(l => l.Position)
            .Select(l => new
            {
                l.Id,
                Course = l.Course!.Title,
                l.Position,
                l.Title,
                l.ContentKey,
                l.WantsMark,
            })
            .ToListAsync(cancel);
        return TypedResults.Ok(
            new BoardView(
                [.. standing.Outlets.Select(o => new BoardOutlet(o.Row.Id, o.Row.Name, o.Kind.Name))],
                [
                    .. lessons.Select(l => new BoardRow(
                        l.Id,
                        l.Course,
                        l.Position,
                        l.Title,
                        [.. standing.Outlets.Select(o => Cell(o, new LessonAtHand(l.ContentKey, l.WantsMark), stands[l.Id]))]
                    )),
                ]
            )
        );

        BoardCell? Cell(KnownOutlet outlet, LessonAtHand lesson, IEnumerable<Stands> here) =>
            here.FirstOrDefault(s => s.OutletId == outlet.Row.Id) is { } there
                ? new BoardCell(standing.IsBehind(outlet, there, lesson), there.ReleasedAt)
                : null;
    }

    private static OutletView View(KnownOutlet outlet, Lesson lesson, Standing standing)
    {
        var release = lesson.Releases.FirstOrDefault(r => r.OutletId == outlet.Row.Id) is { } stands ? View(outlet, stands, lesson, standing) : null;
        return new OutletView(
            outlet.Row.Id,
            outlet.Row.Kind,
            outlet.Kind.Name,
            outlet.Kind.Action,
            outlet.Kind.HasPages,
            outlet.Kind.PackageWord,
            outlet.Row.Name,
            outlet.Row.DeliverTo is not null,
            outlet.UsualProfile,
            standing.Refused(outlet),
            release,
            release is null ? [] : outlet.Kind.ByHand(release.Package?.Files.FirstOrDefault(f => f.IsThePageToLink)?.Path),
            outlet.Kind.TitleThere(lesson.Title)
        );
    }

    private static ReleaseView View(KnownOutlet outlet, Release release, Lesson lesson, Standing standing)
    {
        var (pages, options) = (outlet.Kind.HasPages, standing.Options);
        var player = PlayerLesson.Format.Read(release.Player);
        return new ReleaseView(
            release.Id,
            release.Revision,
            release.ReleasedAt,
            standing.IsBehind(outlet, release.Stands(), lesson.AtHand()),
            release.Visibility,
            release.ProfileId,
            pages ? new Uri(options.PublicAddress, $"watch/{release.Token}").AbsoluteUri : null,
            pages
                ? HandOn.EmbedCode(new Uri(options.PublicAddress, $"embed/{release.Token}"), player.Title, new PictureSize(player.Width, player.Height))
                : null,
            pages ? HandOn.EmbedWarning(release.Visibility) : null,
            Package(release, $"/api/releases/{release.Id}/package.zip"),
            outlet.Row.Feed is null ? null : FeedReader.Address(outlet.Row.Feed, options).AbsoluteUri
        );
    }

    internal static PackageView? Package(PackagedRelease release, string link) =>
        release.PackageFiles is null
            ? null
            : new PackageView(
                link,
                release.PackageBytes,
                WexelJson.Read<IReadOnlyList<WrittenFile>>(release.PackageFiles),
                release.SentAt is { } at ? new SentView(at, release.SentTo, release.SentKey != release.PackageKey) : null
            );
}
