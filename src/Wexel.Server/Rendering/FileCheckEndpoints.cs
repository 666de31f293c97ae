using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Measuring;
using Wexel.Media.Tools;
using Wexel.Server.Setup;

namespace Wexel.Server.Rendering;

internal sealed record LetPassRequest(string Code, string Reason);

/// <summary>What a rendition and its source can be set side by side by.</summary>
/// <param name="Grid">The rate of the frames that are counted.</param>
/// <param name="Frames">How many there are.</param>
/// <param name="Worst">Frames at which a fact of the check is worst.</param>
internal sealed record CompareView(
    string LessonTitle,
    Guid LessonId,
    string ProfileTitle,
    PictureSize Size,
    FrameRate Grid,
    long Frames,
    IReadOnlyList<WorstFrame> Worst
);

internal sealed record WorstFrame(long Frame, string Fact, string Measured);

internal static class FileCheckEndpoints
{
    internal static void MapFileChecks(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/renditions/{id:guid}/let-pass", LetPassAsync).WithName("LetPass");
        routes.MapGet("/api/renditions/{id:guid}/compare", CompareAsync).WithName("Compare");
        routes.MapGet("/api/renditions/{id:guid}/compare/{frame:long}/{side}.png", PictureAsync).WithName("ComparePicture").ExcludeFromDescription();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> LetPassAsync(
        Guid id,
        LetPassRequest request,
        WexelDb db,
        CheckOverrides checks,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        await db.Renditions.FirstOrDefaultAsync(r => r.Id == id && r.State == RenditionState.Done, cancel) is not { } rendition ? Problems.NotThere("file")
        : await checks.LetPassAsync(rendition, request.Code, request.Reason, user.Identity!.Name!, cancel) is { } problem ? Problems.Answer(problem)
        : TypedResults.NoContent();

    private static async Task<Results<Ok<CompareView>, ProblemHttpResult>> CompareAsync(Guid id, WexelDb db, CancellationToken cancel)
    {
        if (await MadeAsync(id, db, cancel) is not ({ } rendition, { Plan.Picture: { } picture }))
            return Problems.NotThere("picture");
        var grid = picture.Timing.Grid;
        var worst = WexelJson
            .Read<IReadOnlyList<CheckedFact>>(rendition.Check!)
            .Where(f => f.At is not null)
            .Select(f => new WorstFrame(Math.Min(picture.Timing.LastFrame, grid.FrameAt(f.At!.Value)), f.Fact, f.Measured));
        return TypedResults.Ok(
            new CompareView(
                rendition.Lesson!.Title,
                rendition.LessonId,
                Profile.Format.Read(rendition.Profile).Title,
                picture.Size,
                grid,
                picture.Timing.LastFrame + 1,
                [.. worst]
            )
        );
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PictureAsync(
        Guid id,
        long frame,
        string side,
        WexelDb db,
        MakingFolders folders,
        CancellationToken cancel
    )
    {
        if (
            !Enum.TryParse<Side>(side, ignoreCase: true, out var which)
            || await MadeAsync(id, db, cancel) is not ({ FileKey: { } fileKey }, { Plan.Picture: { } picture } by)
            || frame < 0
            || frame > picture.Timing.LastFrame
        )
            return Problems.NotThere("picture");
        // A folder of pieces has the encode's own frames in it, and no one file to seek in.
        var file = ContainerFacts.Of(by.Plan.File.Container).IsFolder
            ? folders.Store.Derived(by.Keys.Pictures[0], MadeNames.Picture)
            : folders.Store.Derived(fileKey, MadeNames.Finished(by.Plan.File.Container));
        var png = folders.Store.Derived(RenditionKeys.Compared(which.ToString(), which == Side.Source ? by.Keys.Pictures[0] : fileKey, frame), MadeNames.Frame);
        try
        {
            if (!File.Exists(png))
                await SourcePicture.TakeAsync(picture, PlannedRendition.Inputs(by.Plan, by.Recordings, folders), file, frame, which, png, cancel);
        }
        catch (ToolFailedException failed)
        {
            return Problems.Answer(
                new Problem("frame-unreadable", $"There is no picture at this frame of the {(which == Side.Source ? "recording" : "file")}: {failed.Said}")
            );
        }

        return TypedResults.PhysicalFile(png, "image/png");
    }

    /// <summary>A finished rendition with what it was made by.</summary>
    private static async Task<(Rendition?, MadeBy?)> MadeAsync(Guid id, WexelDb db, CancellationToken cancel) =>
        await db.Renditions.AsNoTracking().Include(r => r.Lesson).FirstOrDefaultAsync(r => r.Id == id && r.State == RenditionState.Done, cancel)
            is { MadeBy: { } madeBy } rendition
            ? (rendition, MadeBy.Format.Read(madeBy))
            : (null, null);
}
