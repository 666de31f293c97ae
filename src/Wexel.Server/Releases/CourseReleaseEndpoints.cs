using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Naming;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;

namespace Wexel.Server.Releases;

internal sealed record CourseReleaseRequest(Guid OutletId, string ProfileId);

internal sealed record CourseReleaseView(Guid Id, DateTimeOffset ReleasedAt, bool Behind, string ProfileId, PackageView Package);

/// <param name="Phase">How far it is.</param>
/// <param name="Problem">What stood in the way.</param>
/// <param name="SentBytes">How much of it was put there so far.</param>
/// <param name="BytesToSend">How much there is to put; null where nobody knows yet.</param>
/// <param name="TakesDown">Whether it is taken down there, or was to be.</param>
internal sealed record CourseWayView(ReleasePhase Phase, Problem? Problem, long SentBytes, long? BytesToSend, bool TakesDown);

/// <param name="PackageWord">What is made for it.</param>
/// <param name="Release">What stands there, or was made for it; null where nothing was.</param>
/// <param name="Way">How far it is on its way there; null where it is not on its way.</param>
internal sealed record CourseOutletView(Guid Id, string Name, string PackageWord, bool TakesPackages, CourseReleaseView? Release, CourseWayView? Way);

internal sealed record CourseBoardRow(Guid CourseId, string Course, int Lessons, IReadOnlyList<CourseOutletView> Outlets);

/// <summary>Whole courses at the outlets that take them.</summary>
internal static class CourseReleaseEndpoints
{
    internal static void MapCourseReleases(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/board/courses", ListAsync).WithName("CourseBoard");
        routes.MapPost("/api/courses/{id:guid}/releases", ReleaseAsync).WithName("ReleaseCourse");
        routes.MapDelete("/api/course-releases/{id:guid}", TakeDownAsync).WithName("TakeCourseDown");
        routes.MapGet("/api/course-releases/{id:guid}/package.zip", PackageAsync).WithName("CoursePackage").ExcludeFromDescription();
    }

    private static async Task<Ok<List<CourseBoardRow>>> ListAsync(WexelDb db, StandingReader reader, CancellationToken cancel)
    {
        var standing = await reader.ReadAsync(cancel);
        var courses = await db.Courses.AsNoTracking().Include(c => c.Lessons).OrderBy(c => c.Position).ThenBy(c => c.Id).ToListAsync(cancel);
        var releases = await db.CourseReleases.AsNoTracking().ToListAsync(cancel);
        return TypedResults.Ok(
            courses
                .Where(c => c.Lessons.Count > 0)
                .Select(c => new CourseBoardRow(
                    c.Id,
                    c.Title,
                    c.Lessons.Count,
                    [
                        .. standing
                            .Outlets.Where(o => o.Kind.TakesCourses)
                            .Select(o => View(o, c, releases.FirstOrDefault(r => r.CourseId == c.Id && r.OutletId == o.Row.Id), standing)),
                    ]
                ))
                .ToList()
        );
    }

    /// <summary>Releases a course to an outlet, and answers when it is there, when it failed, or when it takes long.</summary>
    private static async Task<Results<Ok<CourseOutletView>, ProblemHttpResult>> ReleaseAsync(
        Guid id,
        CourseReleaseRequest request,
        ClaimsPrincipal user,
        WexelDb db,
        OutletShelf outlets,
        CourseReleaser releaser,
        StandingReader reader,
        ReleaseWaiting waiting,
        CancellationToken cancel
    )
    {
        if (!await db.Courses.AnyAsync(c => c.Id == id, cancel))
            return Problems.NotThere("course");
        if (await outlets.FindAsync(request.OutletId, cancel) is not { Kind.TakesCourses: true } outlet)
            return Problems.NotThere("outlet");
        if (!(await releaser.WantAsync(id, request.OutletId, request.ProfileId, user.Id(), cancel)).Is(out var wanted, out var refused))
            return Problems.Answer(refused);
        if (await waiting.UntilOverAsync<CourseRelease>(wanted, cancel) is { } problem)
            return Problems.Answer(problem);
        db.ChangeTracker.Clear();
        var course = await db.Courses.AsNoTracking().Include(c => c.Lessons).FirstAsync(c => c.Id == id, cancel);
        var release = await db.CourseReleases.AsNoTracking().FirstOrDefaultAsync(r => r.Id == wanted, cancel);
        return TypedResults.Ok(View(outlet, course, release, await reader.ReadAsync(cancel)));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeDownAsync(
        Guid id,
        CourseReleaser releaser,
        ReleaseWaiting waiting,
        CancellationToken cancel
    )
    {
        if (!await releaser.TakeDownAsync(id, cancel))
            return Problems.NotThere("release");
        return await waiting.UntilOverAsync<CourseRelease>(id, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PackageAsync(Guid id, WexelDb db, FileStore store, CancellationToken cancel)
    {
        var release = await db.CourseReleases.AsNoTracking().Include(r => r.Course).FirstOrDefaultAsync(r => r.Id == id, cancel);
        return release?.PackageKey is { } key
            ? TypedResults.PhysicalFile(
                store.Derived(key, MadeNames.Package),
                "application/zip",
                FileName.Safe(release.Course!.Title, "course") + ".zip",
                enableRangeProcessing: true
            )
            : Problems.NotThere("package");
    }

    private static CourseOutletView View(KnownOutlet outlet, Course course, CourseRelease? release, Standing standing) =>
        new(
            outlet.Row.Id,
            outlet.Row.Name,
            outlet.Kind.PackageWord!,
            outlet.Row.DeliverTo is not null,
            release is { MadeFrom.Length: > 0 }
                ? new CourseReleaseView(
                    release.Id,
                    release.ReleasedAt,
                    standing.IsBehind(outlet, release, course),
                    release.ProfileId,
                    ReleaseEndpoints.Package(release, $"/api/course-releases/{release.Id}/package.zip")!
                )
                : null,
            release is null || release.Phase == ReleasePhase.Live
                ? null
                : new CourseWayView(
                    release.Phase,
                    release.Problem is { } problem ? WexelJson.Read<Problem>(problem) : null,
                    release.SentBytes,
                    release.BytesToSend,
                    release.WantsDown
                )
        );
}
