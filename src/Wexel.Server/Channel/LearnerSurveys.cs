using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Surveys;
using Wexel.Server.Learning;
using Wexel.Server.People;
using Wexel.Server.Serving;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Channel;

/// <summary>What somebody says of a lesson.</summary>
/// <param name="Learner">The key that the learner's browser made.</param>
/// <param name="Values">What they said to each item, by its name.</param>
internal sealed record SurveyReport(string Learner, IReadOnlyDictionary<string, IReadOnlyList<string>> Values);

/// <summary>Takes what learners say of lessons.</summary>
internal static class LearnerSurveys
{
    internal static void Map(IEndpointRouteBuilder group) => group.MapPost("/watch/{token}/survey", TakeAsync).RequireRateLimiting(Limits.Progress);

    private static async Task<Results<NoContent, NotFound, UnauthorizedHttpResult, ProblemHttpResult>> TakeAsync(
        string token,
        SurveyReport report,
        HttpContext http,
        ChannelReader reader,
        Viewers viewers,
        Surveys surveys,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await reader.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!Seeing.May(release.Shown(), await viewers.FindAsync(http.User, cancel), SeenIn.Address, clock.GetUtcNow()))
            return TypedResults.Unauthorized();
        if (LearnerKeys.From(report.Learner, http.User) is not { } key)
            return LearnerKeys.Unusable();
        if (PlayerLesson.Format.Read(release.Player).Survey is not { } survey)
            return Problems.Answer(new Problem("survey-gone", "That survey is not asked any more. Load the page again.", "values"));
        var taken = new Taken(release.LessonId, release.OutletId, release.Id, release.Revision);
        return await surveys.TakeAsync(taken, LearnerProgress.Asking(key, http), survey, report.Values, cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.NoContent();
    }
}
