using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Server.Screens;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <summary>What is said before people outside the house can come to a lesson.</summary>
internal static class RightsEndpoints
{
    internal static void MapRights(this IEndpointRouteBuilder routes) => routes.MapGet("/api/lessons/{id:guid}/rights", GetAsync).WithName("Rights");

    private static async Task<Results<Ok<RightsNotice>, ProblemHttpResult>> GetAsync(
        Guid id,
        WexelDb db,
        LessonSaver lessons,
        ReadScreens screens,
        LessonReels reels,
        CancellationToken cancel
    )
    {
        if (
            await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } row
            || await lessons.CurrentAsync(row, cancel) is not { } lesson
            || await reels.TimesAsync(lesson.Recordings, cancel) is not { } reel
        )
            return Problems.NotThere("lesson");
        var map = reel.Map(lesson.Cuts);
        var notice = RightsNotice.Of(lesson, await screens.ShownAsync(lesson, reels, cancel));
        // The desk goes there along the recordings.
        return TypedResults.Ok(notice with { Seen = [.. notice.Seen.Select(s => s with { At = s.At is { } at ? map.ToRecording(at) : null })] });
    }
}
