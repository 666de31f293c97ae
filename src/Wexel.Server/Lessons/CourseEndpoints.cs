using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Data;
using Wexel.Server.Live;
using Wexel.Server.Setup;

namespace Wexel.Server.Lessons;

/// <param name="Lessons">All lessons of the course, in the order that they are to have.</param>
internal sealed record CourseOrder(IReadOnlyList<Guid> Lessons);

internal static class CourseEndpoints
{
    internal static void MapCourses(this IEndpointRouteBuilder routes) => routes.MapPut("/api/courses/{id:guid}/order", OrderAsync).WithName("OrderCourse");

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
