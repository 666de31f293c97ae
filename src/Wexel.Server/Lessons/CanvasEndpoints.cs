using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <summary>How a recording stands on a canvas, at the canvas's own size.</summary>
/// <param name="Notes">What somebody should know of it, in sentences.</param>
/// <param name="Delivered">How large the recording is shown in each profile.</param>
internal sealed record CanvasOutcome(
    PictureSize Recorded,
    PictureSize Canvas,
    PictureRect From,
    PictureRect To,
    double ScalePercent,
    bool WholeFactor,
    double LeftOutPercent,
    double EmptyPercent,
    IReadOnlyList<string> Notes,
    IReadOnlyList<DeliveredScale> Delivered
);

/// <summary>How large a recording is shown when a profile delivers it.</summary>
internal sealed record DeliveredScale(string Profile, PictureSize Size, double ScalePercent, bool WholeFactor);

/// <param name="Recorded">The size of the largest recording.</param>
/// <param name="Proposed">The size that is proposed; null for the recorded one.</param>
internal sealed record CanvasSizes(PictureSize Recorded, IReadOnlyList<PictureSize> Standard, PictureSize? Proposed);

/// <param name="Recordings">The recordings' hashes in their order.</param>
/// <param name="Recording">Which of them is placed, from 0.</param>
/// <param name="Canvas">The canvas; null for as recorded.</param>
/// <param name="Frames">How single recordings are brought onto it.</param>
internal sealed record CanvasRequest(IReadOnlyList<string> Recordings, int Recording, Canvas? Canvas, IReadOnlyList<RecordingFrame>? Frames);

internal static class CanvasEndpoints
{
    internal static void MapCanvas(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/canvas/outcome", OutcomeAsync).WithName("CanvasOutcome");
        routes.MapPost("/api/canvas/sizes", SizesAsync).WithName("CanvasSizes");
    }

    private static async Task<Results<Ok<CanvasOutcome>, ProblemHttpResult>> OutcomeAsync(
        CanvasRequest request,
        LessonReels reels,
        ProfileShelf shelf,
        CancellationToken cancel
    )
    {
        if (await reels.FindAsync(request.Recordings, cancel) is not { } found || request.Recording < 0 || request.Recording >= found.Reel.Parts.Count)
            return Problems.NotThere("recording");
        var reel = found.Reel;
        var recorded = reel.Parts[request.Recording].Picture.ShownSize;
        var wanted = Canvas.Under(reel, request.Canvas, found.Frames(request.Frames ?? [])[request.Recording]).Within();
        var placed = CanvasPlacement.Of(recorded, wanted, null);
        var delivered = (await shelf.AllAsync(cancel))
            .Where(profile => profile.Picture is not null)
            .Select(profile =>
            {
                var made = profile.Picture!.Size.Place(recorded, wanted);
                return new DeliveredScale(profile.Title, made.Canvas, made.ScalePercent, made.WholeFactor);
            });
        return TypedResults.Ok(
            new CanvasOutcome(
                recorded,
                placed.Canvas,
                placed.From,
                placed.To,
                placed.ScalePercent,
                placed.WholeFactor,
                placed.LeftOutPercent,
                placed.EmptyPercent,
                placed.Notes(wanted),
                [.. delivered]
            )
        );
    }

    private static async Task<Results<Ok<CanvasSizes>, ProblemHttpResult>> SizesAsync(
        IReadOnlyList<string> recordings,
        LessonReels reels,
        CancellationToken cancel
    ) =>
        await reels.FindAsync(recordings, cancel) is { Reel: var reel }
            ? TypedResults.Ok(new CanvasSizes(reel.Largest, Canvas.Standard, Canvas.Proposed(reel.Largest)))
            : Problems.NotThere("recording");
}
