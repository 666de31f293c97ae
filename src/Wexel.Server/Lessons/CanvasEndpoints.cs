using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Server.Setup;

namespace Wexel.Server.Lessons;

/// <summary>How a recording stands on a canvas, at the canvas's own size.</summary>
/// <param name="Notes">What somebody should know of it, in sentences.</param>
/// <param name="Delivered">How large the recording is shown in each profile.</param>
internal sealed record CanvasOutcome(
    PictureSize Recorded, PictureSize Canvas, PictureRect From, PictureRect To, double ScalePercent, bool WholeFactor, double LeftOutPercent, double EmptyPercent, IReadOnlyList<string> Notes, IReadOnlyList<DeliveredScale> Delivered);

/// <summary>How large a recording is shown when a profile delivers it.</summary>
internal sealed record DeliveredScale(string Profile, PictureSize Size, double ScalePercent, bool WholeFactor);

/// <param name="Proposed">The size that is proposed; null for the recorded one.</param>
internal sealed record CanvasSizes(IReadOnlyList<PictureSize> Standard, PictureSize? Proposed);

internal static class CanvasEndpoints
{
    internal static void MapCanvas(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/lessons/{id:guid}/canvas/outcome", OutcomeAsync).WithName("CanvasOutcome");
        routes.MapGet("/api/lessons/{id:guid}/canvas/sizes", SizesAsync).WithName("CanvasSizes");
    }

    private static async Task<Results<Ok<CanvasOutcome>, ProblemHttpResult>> OutcomeAsync(Guid id, Canvas canvas, WexelDb db, CancellationToken cancel)
    {
        if (await RecordedAsync(db, id, cancel) is not { } recorded)
            return Problems.NotThere("lesson");
        var wanted = canvas.Within();
        var placed = CanvasPlacement.Of(recorded, wanted, null);
        var delivered = Profiles.All.Select(profile =>
        {
            var made = CanvasPlacement.Of(recorded, wanted, profile.AtMostHeight);
            return new DeliveredScale(profile.Title, made.Canvas, made.ScalePercent, made.WholeFactor);
        });
        return TypedResults.Ok(new CanvasOutcome(
            recorded, placed.Canvas, placed.From, placed.To, placed.ScalePercent, placed.WholeFactor, placed.LeftOutPercent, placed.EmptyPercent, placed.Notes(wanted), [.. delivered]));
    }

    private static async Task<Results<Ok<CanvasSizes>, ProblemHttpResult>> SizesAsync(Guid id, WexelDb db, CancellationToken cancel) =>
        await RecordedAsync(db, id, cancel) is { } recorded ? TypedResults.Ok(new CanvasSizes(Canvas.Standard, Canvas.Proposed(recorded))) : Problems.NotThere("lesson");

    private static async Task<PictureSize?> RecordedAsync(WexelDb db, Guid id, CancellationToken cancel) =>
        await db.Lessons.Where(l => l.Id == id).Select(l => l.Recording!.Facts).FirstOrDefaultAsync(cancel) is { } facts ? Json.Read<RecordingFacts>(facts).Picture!.ShownSize : null;
}
