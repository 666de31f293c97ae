using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Media.Tools;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Estimates;

/// <param name="ProfileId">The profile that is wanted.</param>
/// <param name="Bytes">The limit.</param>
internal sealed record FitRequest(string ProfileId, long Bytes);

/// <param name="Profile">Settings with which the lesson fits; they are not kept yet.</param>
/// <param name="GivenUp">What is given up for it.</param>
internal sealed record FitView(Profile Profile, IReadOnlyList<string> GivenUp, EstimateView Estimate);

internal static class EstimateEndpoints
{
    private const long LeastLimit = 50_000;
    private const long MostLimit = 20_000_000_000;

    internal static void MapEstimates(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/lessons/{id:guid}/estimates/{profileId}", SampleAsync).WithName("Estimate");
        routes.MapPost("/api/lessons/{id:guid}/fit", FitAsync).WithName("MakeItFit");
    }

    /// <summary>Finds settings with which the lesson fits a limit; whoever leaves the page stops it.</summary>
    private static async Task<Results<Ok<FitView>, ProblemHttpResult>> FitAsync(
        Guid id,
        FitRequest request,
        RenderPlans plans,
        ProfileShelf shelf,
        RenditionEstimates estimates,
        EstimateReader reader,
        CancellationToken cancel
    )
    {
        if (request.Bytes is < LeastLimit or > MostLimit)
            return Problems.Answer(new Problem("fit-out-of-range", "The limit must be between 0.05 and 20,000 MB.", "bytes"));
        if (await shelf.FindAsync(request.ProfileId, cancel) is not { } profile)
            return Problems.NotThere("profile");
        if (await plans.LessonAsync(id, cancel) is not { } renderable)
            return Problems.NotThere("lesson");
        var (wanted, refused) = renderable.Wanted(profile);
        if (wanted is null)
            return Problems.Answer(refused!);
        try
        {
            var (fitted, problem) = await MakeItFit.FindAsync(
                profile,
                request.Bytes,
                wanted.Plan.Picture?.Size.Height ?? 0,
                async settings =>
                {
                    var planned = renderable.With(settings)!;
                    await estimates.SampleAsync(planned, cancel);
                    return await estimates.EstimateAsync(planned, cancel);
                },
                wanted.Plan.Picture?.Copy is not null
            );
            return fitted is null
                ? Problems.Answer(problem!)
                : TypedResults.Ok(
                    new FitView(fitted.Profile, fitted.GivenUp, await reader.EstimateAsync(renderable.With(fitted.Profile)!, fitted.Estimate, cancel))
                );
        }
        catch (ToolFailedException failed)
        {
            return Problems.Answer(new Problem("sample-failed", $"No sample could be encoded: {failed.Said}"));
        }
    }

    /// <summary>Encodes samples of the lesson with a profile and says what all of it will come to; whoever leaves the page stops it.</summary>
    private static async Task<Results<Ok<EstimateView>, ProblemHttpResult>> SampleAsync(
        Guid id,
        string profileId,
        RenderPlans plans,
        ProfileShelf shelf,
        RenditionEstimates estimates,
        EstimateReader reader,
        CancellationToken cancel
    )
    {
        if (await shelf.FindAsync(profileId, cancel) is not { } profile)
            return Problems.NotThere("profile");
        if (await plans.LessonAsync(id, cancel) is not { } renderable)
            return Problems.NotThere("lesson");
        var (planned, refused) = renderable.Wanted(profile);
        if (planned is null)
            return Problems.Answer(refused!);
        try
        {
            await estimates.SampleAsync(planned, cancel);
        }
        catch (ToolFailedException failed)
        {
            return Problems.Answer(new Problem("sample-failed", $"No sample could be encoded: {failed.Said}"));
        }

        return TypedResults.Ok(await reader.EstimateAsync(planned, cancel));
    }
}
