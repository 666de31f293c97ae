using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Live;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <param name="Lessons">All lessons of the course, in the order that they are to have.</param>
internal sealed record CourseOrder(IReadOnlyList<Guid> Lessons);

/// <param name="Courses">All courses, in the order that they are to have.</param>
internal sealed record CoursesOrder(IReadOnlyList<Guid> Courses);

/// <param name="Title">What it is called.</param>
/// <param name="Description">What it is about; may be empty.</param>
internal sealed record CourseRequest(string Title, string Description = "");

internal sealed record CourseAdded(Guid Id);

/// <summary>Courses: made, named, described, put in order, deleted; and the order of their lessons.</summary>
internal static class CourseEndpoints
{
    internal static void MapCourses(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/courses");
        group.MapPost("", AddAsync).WithName("AddCourse");
        group.MapPut("order", OrderAllAsync).WithName("OrderCourses");
        group.MapPut("{id:guid}", SaveAsync).WithName("SaveCourse");
        group.MapDelete("{id:guid}", RemoveAsync).WithName("RemoveCourse");
        group.MapPut("{id:guid}/order", OrderAsync).WithName("OrderCourse");
    }

    private static async Task<Results<Ok<CourseAdded>, ProblemHttpResult>> AddAsync(CourseRequest request, WexelDb db, LiveNews news, CancellationToken cancel)
    {
        if (await UnusableAsync(request, null, db, cancel) is { } problem)
            return Problems.Answer(problem);
        var course = new Course
        {
            Title = Title(request),
            Description = request.Description.Trim(),
            Position = (await db.Courses.MaxAsync(c => (int?)c.Position, cancel) ?? 0) + 1,
        };
        db.Courses.Add(course);
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(Guid.Empty);
        return TypedResults.Ok(new CourseAdded(course.Id));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveAsync(
        Guid id,
        CourseRequest request,
        WexelDb db,
        LiveNews news,
        CancellationToken cancel
    )
    {
        if (await db.Courses.FindAsync([id], cancel) is not { } course)
            return Problems.NotThere("course");
        if (await UnusableAsync(request, id, db, cancel) is { } problem)
            return Problems.Answer(problem);
        (course.Title, course.Description) = (Title(request), request.Description.Trim());
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(Guid.Empty);
        return TypedResults.NoContent();
    }

    private static string Title(CourseRequest request) =>
        string.Join(' ', request.Title.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)) is var line && line.Length > DetailFields.LongestLine
            ? line[..DetailFields.LongestLine]
            : line;

    private static async Task<Problem?> UnusableAsync(CourseRequest request, Guid? own, WexelDb db, CancellationToken cancel)
    {
        var title = Title(request);
        if (title.Length == 0)
            return new Problem("course-no-title", "The course has no title. Say what its lessons are about.", "title");
        if (request.Description.Length > DetailFields.LongestText)
            return new Problem(
                "course-description-too-long",
                $"The description has more than {DetailFields.LongestText} characters. Shorten it.",
                "description"
            );
        return await db.Courses.AnyAsync(c => c.Title == title && c.Id != own, cancel)
            ? new Problem("course-title-taken", $"There is a course “{title}” already. Name this one otherwise, so that both can be told apart.", "title")
            : null;
    }

    /// <summary>Removes a course that has no lessons. What of it lies in the bin goes to another course, so that it can be taken out again.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(Guid id, WexelDb db, LiveNews news, CancellationToken cancel)
    {
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        await CoursePlaces.HoldAsync(db, cancel);
        if (await db.Courses.Include(c => c.Lessons).FirstOrDefaultAsync(c => c.Id == id, cancel) is not { } course)
            return Problems.NotThere("course");
        if (course.Lessons.Count > 0)
            return Problems.Answer(
                new Problem(
                    "course-has-lessons",
                    $"“{course.Title}” has {(course.Lessons.Count == 1 ? "a lesson" : $"{course.Lessons.Count} lessons")}. Move them to another course or put "
                        + "them into the bin first."
                ),
                StatusCodes.Status409Conflict
            );
        var outlets = await db.CourseReleases.Where(r => r.CourseId == id).Select(r => r.Outlet!.Name).ToListAsync(cancel);
        if (outlets.Count > 0)
            return Problems.Answer(
                new Problem("course-released", $"“{course.Title}” stands at {string.Join(", ", outlets)}. Take it down there first."),
                StatusCodes.Status409Conflict
            );
        var other = await db.Courses.Where(c => c.Id != id).OrderBy(c => c.Position).ThenBy(c => c.Id).Select(c => (Guid?)c.Id).FirstOrDefaultAsync(cancel);
        if (other is null)
            return Problems.Answer(
                new Problem("course-last", "It is the only course, and lessons need one. Name it otherwise instead."),
                StatusCodes.Status409Conflict
            );
        await db
            .Lessons.IgnoreQueryFilters()
            .Where(l => l.CourseId == id && l.BinnedAt != null)
            .ExecuteUpdateAsync(set => set.SetProperty(l => l.CourseId, other.Value), cancel);
        db.Courses.Remove(course);
        await db.SaveChangesAsync(cancel);
        await all.CommitAsync(cancel);
        await news.LessonAsync(Guid.Empty);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> OrderAllAsync(CoursesOrder order, WexelDb db, LiveNews news, CancellationToken cancel)
    {
        var courses = await db.Courses.ToDictionaryAsync(c => c.Id, cancel);
        if (order.Courses.Count != courses.Count || courses.Keys.Except(order.Courses).Any())
            return Problems.Answer(
                new Problem("courses-others", "There are other courses by now. Look at them again, then set the order.", "courses"),
                StatusCodes.Status409Conflict
            );
        foreach (var (i, id) in order.Courses.Index())
            courses[id].Position = i + 1;
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(Guid.Empty);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> OrderAsync(Guid id, CourseOrder order, WexelDb db, LiveNews news, CancellationToken cancel)
    {
        var lessons = await db.Lessons.Where(l => l.CourseId == id).Select(l => l.Id).ToListAsync(cancel);
        if (lessons.Count == 0)
            return Problems.NotThere("course");
        if (order.Lessons.Count != lessons.Count || lessons.Except(order.Lessons).Any())
            return Problems.Answer(
                new Problem("course-other-lessons", "The course has other lessons by now. Look at it again, then set the order.", "lessons"),
                StatusCodes.Status409Conflict
            );
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        for (var i = 0; i < order.Lessons.Count; i++)
        {
            var (lesson, position) = (order.Lessons[i], i + 1);
            await db.Lessons.Where(l => l.Id == lesson).ExecuteUpdateAsync(set => set.SetProperty(l => l.Position, position), cancel);
        }

        await all.CommitAsync(cancel);
        await news.LessonAsync(order.Lessons[0]);
        return TypedResults.NoContent();
    }
}
