using Hangfire;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Legibility;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Storage;
using Wexel.Server.Recordings;
using Wexel.Server.Setup;

namespace Wexel.Server.Lessons;

/// <param name="Cuts">All that is cut, in recording time.</param>
/// <param name="Canvas">The canvas; null for as recorded.</param>
/// <param name="MoveIns">All move-ins.</param>
internal sealed record ViewPathRequest(IReadOnlyList<TimeRange> Cuts, Canvas? Canvas, IReadOnlyList<MoveIn> MoveIns);

/// <summary>What is seen of the page, frame by frame; see <see cref="ViewPath"/>.</summary>
/// <param name="Grid">The rate of the frames that are counted.</param>
/// <param name="Kept">What is kept of the recording, in frames.</param>
/// <param name="Seen">Where the recording lies on the page.</param>
internal sealed record ViewPathView(FrameRate Grid, IReadOnlyList<KeptStretch> Kept, PictureSize Page, PictureRect Seen, IReadOnlyList<ViewMove> Moves);

/// <param name="Waiting">Whether it is still being looked for.</param>
/// <param name="Delivered">The size in which the lesson is delivered.</param>
/// <param name="EasyFrom">From which height on small letters are easy to read, in delivered pixels.</param>
/// <param name="Stretches">Where something is hard to read, the worst first.</param>
internal sealed record DetailView(bool Waiting, PictureSize Delivered, PictureSize Recorded, double EasyFrom, IReadOnlyList<HardStretch> Stretches);

internal static class MoveInEndpoints
{
    internal static void MapMoveIns(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/lessons/{id:guid}/view-path", PathAsync).WithName("ViewPath");
        routes.MapGet("/api/lessons/{id:guid}/detail", DetailAsync).WithName("Detail");
    }

    private static async Task<Results<Ok<ViewPathView>, ProblemHttpResult>> PathAsync(Guid id, ViewPathRequest request, WexelDb db, CancellationToken cancel)
    {
        if (await db.Lessons.Where(l => l.Id == id).Select(l => l.Recording!.Facts).FirstOrDefaultAsync(cancel) is not { } found)
            return Problems.NotThere("lesson");
        var facts = Json.Read<RecordingFacts>(found);
        var map = RenderPlanner.Map(facts, request.Cuts);
        var placement = CanvasPlacement.Of(facts.Picture!.ShownSize, request.Canvas ?? Canvas.AsRecorded, null);
        var path = ViewPath.Of(MoveInRules.Tidy(request.MoveIns.Take(MoveInRules.Most), facts.Length), map, placement);
        return TypedResults.Ok(new ViewPathView(map.Grid, map.Kept, path.Page, placement.SeenOnPage, path.Moves));
    }

    private static async Task<Results<Ok<DetailView>, ProblemHttpResult>> DetailAsync(Guid id, string profile, WexelDb db, LessonSaver saver, FileStore store, IBackgroundJobClient jobs, CancellationToken cancel)
    {
        var lesson = await db.Lessons.AsNoTracking().Include(l => l.Recording).FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        if (Profiles.Find(profile) is not { } settings)
            return Problems.NotThere("profile");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        var facts = Json.Read<RecordingFacts>(lesson.Recording!.Facts);
        var recorded = facts.Picture!.ShownSize;
        CanvasPlacement Placed(Profile delivered) => CanvasPlacement.Of(recorded, document.Canvas ?? Canvas.AsRecorded, delivered.AtMostHeight);
        var placement = Placed(settings);
        var smaller = Profiles.All.Select(p => Placed(p).WholeDelivered).Where(s => s.Width < recorded.Width).Distinct().ToList();
        var seen = lesson.Recording.Analysis is null ? null : await DetailJob.FindAsync(lesson.Recording.Hash, smaller, store, jobs, cancel);
        var stretches = seen is null ? [] : HardToRead.In(seen, placement, RenderPlanner.Map(facts, document.Cuts), document.MoveIns);
        return TypedResults.Ok(new DetailView(seen is null, placement.Canvas, recorded, HardToRead.EasyFrom, stretches));
    }
}
