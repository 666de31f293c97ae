using Hangfire;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Legibility;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Making.Storage;
using Wexel.Server.Recordings;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <param name="Recordings">The recordings' hashes in their order.</param>
/// <param name="Cuts">All that is cut, in recording time.</param>
/// <param name="Canvas">The canvas; null for as recorded.</param>
/// <param name="Frames">How single recordings are brought onto it.</param>
/// <param name="MoveIns">All move-ins.</param>
internal sealed record ViewPathRequest(
    IReadOnlyList<string> Recordings,
    IReadOnlyList<TimeRange> Cuts,
    Canvas? Canvas,
    IReadOnlyList<RecordingFrame>? Frames,
    IReadOnlyList<MoveIn> MoveIns
);

/// <summary>What is seen, frame by frame; see <see cref="ViewPath"/>.</summary>
/// <param name="Grid">The rate of the frames that are counted.</param>
/// <param name="Kept">What is kept of the reel, in frames.</param>
/// <param name="Parts">For each recording its page and how what is seen of it moves.</param>
internal sealed record ViewPathView(FrameRate Grid, IReadOnlyList<KeptStretch> Kept, IReadOnlyList<ViewPath> Parts);

/// <param name="Waiting">Whether it is still being looked for.</param>
/// <param name="Delivered">The size in which the lesson is delivered.</param>
/// <param name="EasyFrom">From which height on small letters are easy to read, in delivered pixels.</param>
/// <param name="Smallest">How high the smallest letters are, in delivered pixels; null where there is no text, or it is still being looked for.</param>
/// <param name="Stretches">Where something is hard to read, the worst first.</param>
internal sealed record DetailView(bool Waiting, PictureSize Delivered, double EasyFrom, double? Smallest, IReadOnlyList<HardStretch> Stretches);

internal static class MoveInEndpoints
{
    internal static void MapMoveIns(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/view-path", PathAsync).WithName("ViewPath");
        routes.MapGet("/api/lessons/{id:guid}/detail", DetailAsync).WithName("Detail");
    }

    private static async Task<Results<Ok<ViewPathView>, ProblemHttpResult>> PathAsync(ViewPathRequest request, LessonReels reels, CancellationToken cancel)
    {
        if (await reels.FindAsync(request.Recordings, cancel) is not { } found)
            return Problems.NotThere("recording");
        var (reel, frames) = (found.Reel, found.Frames(request.Frames ?? []));
        var map = reel.Map(request.Cuts);
        var moveIns = MoveIn.Kind.Tidy(request.MoveIns.Take(MoveIn.Kind.Most), reel.Length);
        return TypedResults.Ok(
            new ViewPathView(
                map.Grid,
                map.Kept,
                [
                    .. reel.Parts.Select(
                        (part, i) =>
                            ViewPath.Of(
                                moveIns,
                                map,
                                CanvasPlacement.Of(part.Picture.ShownSize, Canvas.Under(reel, request.Canvas, frames[i]), null),
                                reel.SpanOf(i)
                            )
                    ),
                ]
            )
        );
    }

    private static async Task<Results<Ok<DetailView>, ProblemHttpResult>> DetailAsync(
        Guid id,
        string profile,
        int? height,
        WexelDb db,
        LessonSaver saver,
        LessonReels reels,
        ProfileShelf shelf,
        FileStore store,
        IBackgroundJobClient jobs,
        CancellationToken cancel
    )
    {
        var lesson = await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        var sizes = (await shelf.AllAsync(cancel)).Where(p => p.Picture is not null).ToList();
        if (sizes.Find(p => p.Id == profile) is not { Picture: { } settings })
            return Problems.NotThere("profile");
        if (height is { } lines)
            settings = settings with { Size = SizeSettings.AtMost(Math.Clamp(lines, 2, 4320)) };
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        var found = await reels.ReadAsync(document, cancel);
        var (reel, map) = (found.Reel, found.Reel.Map(document.Cuts));
        var frames = found.Frames(document.Frames);
        CanvasPlacement Placed(int index, PictureSettings delivered) =>
            delivered.Size.Place(reel.Parts[index].Picture.ShownSize, Canvas.Under(reel, document.Canvas, frames[index]));
        var (stretches, smallest, waiting) = (new List<HardStretch>(), new List<double?>(), false);
        for (var i = 0; i < reel.Parts.Count; i++)
        {
            var (recording, start, shown) = (found.Recordings[i], reel.SpanOf(i).Start, reel.Parts[i].Picture.ShownSize);
            var smaller = sizes.Select(p => Placed(i, p.Picture!).WholeDelivered).Where(s => s.Width < shown.Width).Distinct().ToList();
            var seen = recording.Analysis is null ? null : await DetailJob.FindAsync(recording.Hash, smaller, store, jobs, cancel);
            waiting |= seen is null;
            List<SeenPicture> along = [.. (seen ?? []).Select(s => s with { Span = new TimeRange(s.Span.Start + start, s.Span.End + start) })];
            stretches.AddRange(HardToRead.In(along, Placed(i, settings), map, document.MoveIns));
            smallest.Add(HardToRead.Smallest(along, Placed(i, settings), map, document.MoveIns));
        }

        return TypedResults.Ok(
            new DetailView(waiting, Placed(0, settings).Canvas, HardToRead.EasyFrom, smallest.Min(), [.. stretches.OrderBy(s => s.Smallest)])
        );
    }
}
