using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Mixing;
using Wexel.Core.Timing;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Sounds;

/// <summary>How a lesson sounds as it is saved: the numbers by which renditions are mixed.</summary>
/// <param name="Under">What is mixed with the voice, in lesson time; null for nothing.</param>
/// <param name="Spoken">Where somebody speaks, in lesson time.</param>
/// <param name="VoiceLufs">How loud, in LUFS; null where nobody speaks.</param>
internal sealed record MixingView(UnderPlan? Under, IReadOnlyList<TimeRange> Spoken, double? VoiceLufs);

/// <summary>What lies under a lesson's voice.</summary>
internal static class MixingEndpoints
{
    internal static void MapMixing(this IEndpointRouteBuilder routes) => routes.MapGet("/api/lessons/{id:guid}/mixing", MixingAsync).WithName("Mixing");

    private static async Task<Results<Ok<MixingView>, ProblemHttpResult>> MixingAsync(Guid id, RenderPlans plans, CancellationToken cancel)
    {
        if (await plans.LessonAsync(id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        var map = lesson.Found.Reel.Map(lesson.Document.Cuts);
        var voice = lesson.Voice(map);
        return TypedResults.Ok(new MixingView(lesson.Under(map), voice.Spoken, voice.Lufs));
    }
}
