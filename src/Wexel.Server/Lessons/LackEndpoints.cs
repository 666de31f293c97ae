using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <summary>What keeps things of a lesson from learners.</summary>
internal static class LackEndpoints
{
    internal static void MapLacks(this IEndpointRouteBuilder routes) => routes.MapGet("/api/lessons/{id:guid}/lacks", GetAsync).WithName("Lacks");

    private static async Task<Results<Ok<IReadOnlyList<LessonLack>>, ProblemHttpResult>> GetAsync(
        Guid id,
        WexelDb db,
        LessonSaver lessons,
        CancellationToken cancel
    ) =>
        await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is { } row && await lessons.CurrentAsync(row, cancel) is { } lesson
            ? TypedResults.Ok(LessonRules.Lacks(lesson))
            : Problems.NotThere("lesson");
}
