using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Cameras;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Analysing;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <param name="Over">The hash of the screen's recording.</param>
/// <param name="Camera">The hash of the camera's.</param>
internal sealed record FindCameraRequest(string Over, string Camera);

/// <summary>How a camera lies over a screen, as its sound says.</summary>
/// <param name="Sentence">The same in a sentence.</param>
internal sealed record FoundCameraView(CameraClock Clock, string Sentence);

/// <param name="Document">The lesson as it stands.</param>
internal sealed record CamerasRequest(LessonDocument Document);

/// <summary>A camera of a lesson.</summary>
/// <param name="Over">Over which recording of the reel it lies, from 0.</param>
/// <param name="Size">The size of its picture as it is shown.</param>
/// <param name="Proposed">What of it is proposed to be seen.</param>
/// <param name="Notes">What somebody should know of it, in sentences.</param>
internal sealed record CameraView(
    int Over,
    string Recording,
    string FileName,
    CameraClock Clock,
    PictureSize Size,
    TimeSpan Length,
    PicturePart Proposed,
    bool HasSound,
    bool Viewable,
    string? Failure,
    IReadOnlyList<string> Notes
);

/// <summary>A stretch in which a camera is seen, one way.</summary>
/// <param name="Camera">Which camera, from 0.</param>
/// <param name="Span">In recording time.</param>
internal sealed record CameraSeenView(int Camera, TimeRange Span, CameraShown Shown, CameraBox Box);

/// <summary>Where the cameras of a lesson are seen, as it will be rendered.</summary>
/// <param name="Canvas">The picture on which they stand.</param>
/// <param name="Seen">In order and apart.</param>
/// <param name="InTheWay">Where none is seen since something happens in all four corners, in recording time.</param>
/// <param name="NotLookedAt">The recordings of which nobody knows yet where things happen, by their hashes.</param>
internal sealed record CamerasView(
    IReadOnlyList<CameraView> Cameras,
    CameraLook Look,
    PictureSize Canvas,
    IReadOnlyList<CameraSeenView> Seen,
    IReadOnlyList<TimeRange> InTheWay,
    IReadOnlyList<string> NotLookedAt
);

/// <summary>Cameras over the screen: found by their sound, and where they are seen.</summary>
internal static class CameraEndpoints
{
    internal static void MapCameras(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/cameras/find", FindAsync).WithName("FindCamera");
        routes.MapPost("/api/cameras", SeenAsync).WithName("Cameras");
    }

    /// <summary>Listens to both; whoever goes away stops it.</summary>
    private static async Task<Results<Ok<FoundCameraView>, ProblemHttpResult>> FindAsync(
        FindCameraRequest request,
        WexelDb db,
        FileStore store,
        CancellationToken cancel
    )
    {
        var (over, camera) = (await ListenedAsync(request.Over), await ListenedAsync(request.Camera));
        if (over is null || camera is null)
            return Problems.NotThere("recording");
        return (await CameraAligner.FindAsync(over, camera, cancel)).Is(out var found, out var problem)
            ? TypedResults.Ok(new FoundCameraView(found.Clock, CameraWords.Found(found)))
            : Problems.Answer(problem);

        async Task<Listened?> ListenedAsync(string hash) =>
            await db.Recordings.AsNoTracking().FirstOrDefaultAsync(r => r.Hash == hash, cancel) is { } row
                ? new Listened(store.Recording(hash), WexelJson.Read<RecordingFacts>(row.Facts))
                : null;
    }

    private static async Task<Results<Ok<CamerasView>, ProblemHttpResult>> SeenAsync(
        CamerasRequest request,
        LessonReels reels,
        WexelDb db,
        CancellationToken cancel
    )
    {
        if (await reels.FindAsync(request.Document.Recordings, cancel) is not { } alone)
            return Problems.NotThere("recording");
        var document = LessonRules.Tidy(request.Document, alone.Reel.Length, alone.Reel.Grid);
        var found = (await reels.FindAsync(document, cancel))!;
        var (reel, map) = (found.Reel, found.Reel.Map(document.Cuts));
        var size = CanvasPlacement.Of(reel.Parts[0].Picture.ShownSize, Canvas.Under(reel, document.Canvas, found.Frames(document.Frames)[0]), null).Canvas;
        var look = document.CameraLook ?? CameraLook.Usual;
        if (found.ToMake.CamerasOn(document, map) is not { } on)
            return TypedResults.Ok(new CamerasView([], look, size, [], [], []));
        List<string> hashes = [.. on.Cameras.Select(c => c.Take.Recording)];
        var rows = await db.Recordings.AsNoTracking().Where(r => hashes.Contains(r.Hash)).ToDictionaryAsync(r => r.Hash, cancel);
        return TypedResults.Ok(
            new CamerasView(
                [.. on.Cameras.Select(c => ViewOf(c, rows[c.Take.Recording], reel))],
                look,
                size,
                [.. on.Path.Shots.SelectMany(shot => Seen(shot, on, size, map))],
                [.. on.Path.InTheWay.Select(r => new TimeRange(map.ToRecording(r.Start), map.ToRecording(r.End)))],
                look.KeepsClear
                    ?
                    [
                        .. on
                            .Cameras.Select(c => c.Part)
                            .Where(part => found.Analyses[part] is { LookedUntil: null, Changed: null })
                            .Select(part => found.Hashes[part])
                            .Distinct(),
                    ]
                    : []
            )
        );
    }

    private static CameraView ViewOf(LaidCamera camera, Recording row, Reel reel)
    {
        var analysis = (row.Analysis ?? row.AnalysisSoFar) is { } text ? WexelJson.Read<RecordingAnalysis>(text) : null;
        var size = camera.Facts.Picture!.ShownSize;
        return new CameraView(
            camera.Part,
            row.Hash,
            row.FileName,
            camera.Take.Clock,
            size,
            camera.Facts.Length,
            CameraLook.Proposed(size, analysis?.Borders),
            camera.Facts.Sounds.Count > 0,
            row.Viewable,
            row.AnalysisFailure,
            CameraWords.Notes(camera, reel)
        );
    }

    /// <summary>A shot in recording time: over a cut it is in pieces.</summary>
    private static IEnumerable<CameraSeenView> Seen(CameraShot shot, CamerasOnPicture on, PictureSize size, TimeMap map)
    {
        var camera = on.Cameras[shot.Camera].Facts.Picture!.ShownSize;
        var box = shot.Shown == CameraShown.Large ? on.Look.Large(size, camera) : on.Look.Small(size, camera, shot.Corner);
        return new FrameRun(shot.First, shot.Count)
            .Within(map.Kept)
            .Select(k => new CameraSeenView(shot.Camera, new TimeRange(map.Grid.TimeOf(k.First), map.Grid.TimeOf(k.End)), shot.Shown, box));
    }
}
