using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;
using Wexel.Server.Setup;

namespace Wexel.Server.Lessons;

/// <param name="Lessons">Which, in the order that they are to have there.</param>
/// <param name="CourseId">Where to.</param>
internal sealed record MoveRequest(IReadOnlyList<Guid> Lessons, Guid CourseId);

/// <param name="Lessons">Which.</param>
internal sealed record BinRequest(IReadOnlyList<Guid> Lessons);

internal sealed record LessonCopied(Guid Id, string Title);

/// <summary>Keeping house among lessons: moved, copied, put into the bin and taken out of it.</summary>
internal static class KeepingEndpoints
{
    internal static void MapKeeping(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/lessons/move", MoveAsync).WithName("MoveLessons");
        routes.MapPost("/api/lessons/{id:guid}/copy", CopyAsync).WithName("CopyLesson");
        routes.MapPost("/api/bin", BinAsync).WithName("BinLessons");
        routes.MapGet("/api/bin", async (LessonKeeper keeper, CancellationToken cancel) => TypedResults.Ok(await keeper.BinnedAsync(cancel))).WithName("Bin");
        routes.MapPost("/api/bin/{id:guid}/restore", RestoreAsync).WithName("RestoreLesson");
        routes.MapDelete("/api/bin/{id:guid}", DeleteAsync).WithName("DeleteLesson");
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> MoveAsync(MoveRequest request, LessonKeeper keeper, CancellationToken cancel) =>
        Answer(await keeper.MoveAsync(request.Lessons, request.CourseId, cancel));

    private static async Task<Results<Ok<LessonCopied>, ProblemHttpResult>> CopyAsync(
        Guid id,
        LessonKeeper keeper,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        (await keeper.CopyAsync(id, user, cancel)).Is(out var copy, out _)
            ? TypedResults.Ok(new LessonCopied(copy.Id, copy.Title))
            : Problems.NotThere("lesson");

    private static async Task<Results<NoContent, ProblemHttpResult>> BinAsync(BinRequest request, LessonKeeper keeper, CancellationToken cancel) =>
        Answer(await keeper.BinAsync(request.Lessons, cancel));

    private static async Task<Results<NoContent, ProblemHttpResult>> RestoreAsync(Guid id, LessonKeeper keeper, CancellationToken cancel) =>
        await keeper.RestoreAsync(id, cancel) ? TypedResults.NoContent() : Problems.NotThere("lesson");

    private static async Task<Results<NoContent, ProblemHttpResult>> DeleteAsync(Guid id, LessonKeeper keeper, CancellationToken cancel) =>
        await keeper.DeleteAsync(id, cancel) ? TypedResults.NoContent() : Problems.NotThere("lesson");

    private static Results<NoContent, ProblemHttpResult> Answer(Problem? problem) =>
        problem is null ? TypedResults.NoContent() : Problems.Answer(problem, StatusCodes.Status409Conflict);
}
