using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Making.Storage;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <param name="Cuts">All that would be cut, in recording time.</param>
internal sealed record CutsRequest(IReadOnlyList<TimeRange> Cuts);

/// <param name="Length">How long the lesson would be.</param>
/// <param name="Gone">What was placed and would be gone, in a few words each.</param>
/// <param name="Problem">Why it cannot be cut like that.</param>
internal sealed record CutsOutcome(TimeSpan Length, IReadOnlyList<string> Gone, Problem? Problem);

internal static class CutEndpoints
{
    internal static void MapCuts(this IEndpointRouteBuilder routes) =>
        routes.MapPost("/api/lessons/{id:guid}/cuts/outcome", OutcomeAsync).WithName("CutsOutcome");

    /// <summary>What cuts would come to, before anybody makes them.</summary>
    private static async Task<Results<Ok<CutsOutcome>, ProblemHttpResult>> OutcomeAsync(
        Guid id,
        CutsRequest request,
        WexelDb db,
        LessonSaver saver,
        LessonReels reels,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        var lesson = await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        var reel = (await reels.ReadAsync(document, cancel)).Reel;
        var (before, after) = (reel.Map(document.Cuts), reel.Map(request.Cuts));
        return TypedResults.Ok(
            new CutsOutcome(
                after.Length,
                GoneWithCuts.InWords(await captions.ReadAsync(document, cancel), before, after),
                CutRules.Refusal(request.Cuts, after)
            )
        );
    }
}
