using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Board;

internal static class BoardEndpoints
{
    private const int MostAtOnce = 10_000;

    internal static void MapBoard(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/board", (BoardReader reader, CancellationToken cancel) => reader.ReadAsync(cancel)).WithName("Board");
        routes.MapPost("/api/board/plan", PlanAsync).WithName("PlanBoard");
        routes.MapPost("/api/board/apply", ApplyAsync).WithName("ApplyBoard");
    }

    private static async Task<Results<Ok<BoardPlanView>, ProblemHttpResult>> PlanAsync(BoardRequest request, BoardPlanner planner, CancellationToken cancel) =>
        Unusable(request) is { } problem ? Problems.Answer(problem) : TypedResults.Ok(await planner.PlanAsync(request, cancel));

    private static async Task<Results<Ok<BoardApplied>, ProblemHttpResult>> ApplyAsync(
        BoardRequest request,
        BoardPlanner planner,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) => Unusable(request) is { } problem ? Problems.Answer(problem) : TypedResults.Ok(await planner.ApplyAsync(request, user.Id(), cancel));

    private static Problem? Unusable(BoardRequest request) =>
        request.Cells.Count is 0 or > MostAtOnce ? new Problem("board-nothing", $"Choose at least one cell, and at most {MostAtOnce:#,0} at once.")
        : request is { Action: BoardAction.Open, Visibility: null } ? new Problem("board-no-visibility", "Choose who is to see it.", "visibility")
        : null;
}
