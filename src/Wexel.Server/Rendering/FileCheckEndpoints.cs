using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Lessons;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Measuring;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Setup;

namespace Wexel.Server.Rendering;

internal sealed record LetPassRequest(string Code, string Reason);

/// <summary>What a rendition and its source can be set side by side by.</summary>
/// <param name="Grid">The rate of the frames that are counted.</param>
/// <param name="Frames">How many there are.</param>
/// <param name="Worst">Frames at which a fact of the check is worst.</param>
internal sealed record CompareView(string LessonTitle, Guid LessonId, string ProfileTitle, PictureSize Size, FrameRate Grid, long Frames, IReadOnlyList<WorstFrame> Worst);

internal sealed record WorstFrame(long Frame, string Fact, string Measured);

internal static class FileCheckEndpoints
{
    internal static void MapFileChecks(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/renditions/{id:guid}/let-pass", LetPassAsync).WithName("LetPass");
        routes.MapGet("/api/renditions/{id:guid}/compare", CompareAsync).WithName("Compare");
        routes.MapGet("/api/renditions/{id:guid}/compare/{frame:long}/{side}.png", PictureAsync).WithName("ComparePicture").ExcludeFromDescription();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> LetPassAsync(Guid id, LetPassRequest request, WexelDb db, CheckOverrides checks, ClaimsPrincipal user, CancellationToken cancel) =>
        await db.Renditions.FirstOrDefaultAsync(r => r.Id == id && r.State == RenditionState.Done, cancel) is not { } rendition ? Problems.NotThere("file")
        : await checks.LetPassAsync(rendition, request.Code, request.Reason, user.Identity!.Name!, cancel) is { } problem ? Problems.Of(problem)
        : TypedResults.NoContent();

    private static async Task<Results<Ok<CompareView>, ProblemHttpResult>> CompareAsync(Guid id, WexelDb db, RenderPlans plans, CancellationToken cancel)
    {
        if (await PlannedAsync(id, db, plans, cancel) is not ({ } rendition, { Plan.Picture: { } picture }))
            return Problems.NotThere("picture");
        var grid = picture.Timing.Grid;
        var worst = Json.Read<IReadOnlyList<CheckedFact>>(rendition.Check!).Where(f => f.At is not null).Select(f => new WorstFrame(Math.Min(picture.Timing.LastFrame, grid.FrameAt(f.At!.Value)), f.Fact, f.Measured));
        return TypedResults.Ok(new CompareView(rendition.Lesson!.Title, rendition.LessonId, Json.Read<Profile>(rendition.Profile).Title, picture.Size, grid, picture.Timing.LastFrame + 1, [.. worst]));
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PictureAsync(Guid id, long frame, string side, WexelDb db, RenderPlans plans, FileStore store, IOptions<WexelOptions> options, CancellationToken cancel)
    {
        if (!Enum.TryParse<Side>(side, ignoreCase: true, out var which) || await PlannedAsync(id, db, plans, cancel) is not ({ } rendition, { Plan.Picture: { } picture } planned) || frame < 0 || frame > picture.Timing.LastFrame)
            return Problems.NotThere("picture");
        // A folder of pieces has the encode's own frames in it, and no one file to seek in.
        var file = ContainerFacts.Of(planned.Plan.File.Container).IsFolder ? planned.Picture(store, 0) : store.Derived(rendition.FileKey!, Finishing.FileName(planned.Plan.File.Container));
        var png = store.Derived(DerivedKey.Of("compared/2", which == Side.Source ? planned.PosterKey : rendition.FileKey, frame, which), "frame.png");
        try
        {
            if (!File.Exists(png))
                await SourcePicture.TakeAsync(picture, planned.Inputs(store, options.Value.PlayerFolder), file, frame, which, png, cancel);
        }
        catch (ToolFailedException failed)
        {
            return Problems.Of(new Problem("frame-unreadable", $"There is no picture at this frame of the {(which == Side.Source ? "recording" : "file")}: {failed.Said}"));
        }

        return TypedResults.PhysicalFile(png, "image/png");
    }

    /// <summary>A finished rendition with the plan by which it was made: of the revision that it was made from, with the house's mark as it is.</summary>
    private static async Task<(Rendition?, PlannedRender?)> PlannedAsync(Guid id, WexelDb db, RenderPlans plans, CancellationToken cancel)
    {
        var rendition = await db.Renditions.AsNoTracking().Include(r => r.Lesson).FirstOrDefaultAsync(r => r.Id == id && r.State == RenditionState.Done, cancel);
        if (rendition is null)
            return (null, null);
        var saved = await db.LessonRevisions.AsNoTracking().FirstAsync(r => r.LessonId == rendition.LessonId && r.Number == rendition.Revision, cancel);
        return (rendition, (await plans.OfAsync(Json.Read<LessonDocument>(saved.Document), cancel)).With(Json.Read<Profile>(rendition.Profile)));
    }
}
