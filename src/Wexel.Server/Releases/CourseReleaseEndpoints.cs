using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Naming;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

internal sealed record CourseReleaseRequest(Guid OutletId, string ProfileId);

internal sealed record CourseReleaseView(Guid Id, DateTimeOffset ReleasedAt, bool Behind, string ProfileId, PackageView Package);

/// <param name="PackageWord">What is made for it.</param>
internal sealed record CourseOutletView(Guid Id, string Name, string PackageWord, bool TakesPackages, CourseReleaseView? Release);

internal sealed record CourseBoardRow(Guid CourseId, string Course, int Lessons, IReadOnlyList<CourseOutletView> Outlets);

/// <summary>Whole courses at the outlets that take them.</summary>
internal static class CourseReleaseEndpoints
{
    internal static void MapCourseReleases(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/board/courses", ListAsync).WithName("CourseBoard");
        routes.MapPost("/api/courses/{id:guid}/releases", ReleaseAsync).WithName("ReleaseCourse");
        routes.MapPost("/api/course-releases/{id:guid}/send", SendAsync).WithName("SendCourse");
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

    private static async Task<Results<Ok<CourseOutletView>, ProblemHttpResult>> ReleaseAsync(
        Guid id,
        CourseReleaseRequest request,
        WexelDb db,
        OutletShelf outlets,
        CourseReleaser releaser,
        StandingReader reader,
        CancellationToken cancel
    )
    {
        var course = await db.Courses.Include(c => c.Lessons).FirstOrDefaultAsync(c => c.Id == id, cancel);
        if (course is null)
            return Problems.NotThere("course");
        if (await outlets.FindAsync(request.OutletId, cancel) is not { Kind.TakesCourses: true } outlet)
            return Problems.NotThere("outlet");
        return (await releaser.ReleaseAsync(course, outlet, request.ProfileId, cancel)).Is(out var release, out var problem)
            ? TypedResults.Ok(View(outlet, course, release, await reader.ReadAsync(cancel)))
            : Problems.Answer(problem);
    }

    private static async Task<Results<Ok<CourseOutletView>, ProblemHttpResult>> SendAsync(
        Guid id,
        WexelDb db,
        OutletShelf outlets,
        CourseReleaser releaser,
        StandingReader reader,
        CancellationToken cancel
    )
    {
        var release = await db
            .CourseReleases.Include(r => r.Outlet)
            .Include(r => r.Course)
                .ThenInclude(c => c!.Lessons)
            .FirstOrDefaultAsync(r => r.Id == id, cancel);
        if (release is null)
            return Problems.NotThere("release");
        var outlet = outlets.Known(release.Outlet!);
        return await releaser.SendAsync(release, outlet, cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.Ok(View(outlet, release.Course!, release, await reader.ReadAsync(cancel)));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeDownAsync(
        Guid id,
        WexelDb db,
        OutletShelf outlets,
        CourseReleaser releaser,
        CancellationToken cancel
    )
    {
        if (await db.CourseReleases.Include(r => r.Outlet).FirstOrDefaultAsync(r => r.Id == id, cancel) is not { } release)
            return Problems.NotThere("release");
        return await releaser.TakeDownAsync(release, outlets.Known(release.Outlet!), cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.NoContent();
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
            release is null
                ? null
                : new CourseReleaseView(
                    release.Id,
                    release.ReleasedAt,
                    standing.IsBehind(outlet, release, course),
                    release.ProfileId,
                    ReleaseEndpoints.Package(release, $"/api/course-releases/{release.Id}/package.zip")!
                )
        );
}
