using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Data;
using Wexel.Media.Tools;
using Wexel.Server.Lessons;
using Wexel.Server.Profiles;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;

namespace Wexel.Server.Estimates;

internal static class EstimateEndpoints
{
    internal static void MapEstimates(this IEndpointRouteBuilder routes) =>
        routes.MapPost("/api/lessons/{id:guid}/estimates/{profileId}", SampleAsync).WithName("Estimate");

    /// <summary>Encodes samples of the lesson with a profile and says what all of it will come to; whoever leaves the page stops it.</summary>
    private static async Task<Results<Ok<EstimateView>, ProblemHttpResult>> SampleAsync(Guid id, string profileId, WexelDb db, LessonSaver saver, RenderPlans plans, ProfileShelf shelf, RenditionEstimates estimates, EstimateReader reader, CancellationToken cancel)
    {
        if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        if (await shelf.FindAsync(profileId, cancel) is not { } profile)
            return Problems.NotThere("profile");
        var renderable = await plans.OfAsync((await saver.CurrentAsync(lesson, cancel))!, cancel);
        if (renderable.Check(profile).FirstOrDefault(f => f.IsFault) is { } fault)
            return Problems.Of(new Problem(fault.Code, fault.Sentence));
        if (renderable.With(profile) is not { } planned)
            return Problems.Of(new Problem("recording-not-looked-through", "The recording is still being looked through. Try again in a moment."));
        try
        {
            await estimates.SampleAsync(planned, cancel);
        }
        catch (ToolFailedException failed)
        {
            return Problems.Of(new Problem("sample-failed", $"No sample could be encoded: {failed.Said}"));
        }

        return TypedResults.Ok(await reader.OfAsync(planned, cancel));
    }
}
