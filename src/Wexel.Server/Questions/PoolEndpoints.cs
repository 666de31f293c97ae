using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Questions;
using Wexel.Server.Setup;

namespace Wexel.Server.Questions;

/// <summary>The pool of questions.</summary>
internal static class PoolEndpoints
{
    internal static void MapPool(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/pool");
        group.MapGet("", (QuestionPool pool, CancellationToken cancel) => pool.ReadAsync(cancel)).WithName("Pool");
        group.MapPost("", KeepAsync).WithName("KeepQuestions");
        group.MapDelete("/{id:guid}", RemoveAsync).WithName("RemovePooled");
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> KeepAsync(
        IReadOnlyList<Question> questions,
        QuestionPool pool,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        await pool.KeepAsync(questions, user.FindFirstValue(ClaimTypes.GivenName) ?? "", cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.NoContent();

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(Guid id, QuestionPool pool, CancellationToken cancel) =>
        await pool.RemoveAsync(id, cancel) ? TypedResults.NoContent() : Problems.NotThere("question");
}
