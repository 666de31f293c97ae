using Wexel.Core.Cameras;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Making.Lessons;

/// <summary>The recordings that a lesson is made of, with what was found of them.</summary>
/// <param name="Hashes">In their order.</param>
/// <param name="Reel">They one after the other.</param>
/// <param name="Analyses">What looking each through has found, also so far; null where nobody looked.</param>
/// <param name="IsReady">Whether all is known that a render needs.</param>
/// <param name="Failure">Why one of them could not be looked through; null where none failed.</param>
/// <param name="Cameras">What a probe found of the cameras that lie over them, by their hashes; null for none.</param>
/// <param name="Changed">What changed on the screen of each, where nobody looked; null for what looking through found.</param>
/// <param name="Listened">What listening to each has found, where nobody looked; null for what looking through found.</param>
public sealed record LessonReel(
    IReadOnlyList<string> Hashes,
    Reel Reel,
    IReadOnlyList<RecordingAnalysis?> Analyses,
    bool IsReady,
    string? Failure = null,
    IReadOnlyList<RecordingAnalysis?>? Listened = null,
    IReadOnlyDictionary<string, RecordingFacts>? Cameras = null,
    IReadOnlyList<byte[]?>? Changed = null
)
{
    /// <summary>How much of a lesson's picture changes where nobody has looked it through (see <see cref="Core.Encoding.RenderEstimator"/>).</summary>
    private const double UnknownChange = 0.3;

    /// <summary>What was found, along the reel's time; null where nobody looked.</summary>
    public RecordingAnalysis? Analysis => ReelAnalysis.Join(Reel, Analyses);

    /// <summary>How much of the picture changes, 0 to 1.</summary>
    public double ChangedShare => Analysis?.ChangedShare ?? UnknownChange;

    /// <summary>The cameras over a lesson's screen; null for none.</summary>
    /// <param name="document">The lesson.</param>
    /// <param name="map">Its times.</param>
    public CamerasOnPicture? CamerasOn(LessonDocument document, TimeMap map)
    {
        List<LaidCamera> laid =
        [
            .. Hashes
                .Index()
                .SelectMany(h => document.Cameras.Where(c => c.Over == h.Item).Select(c => (h.Index, Take: c)))
                .Where(c => Cameras?.ContainsKey(c.Take.Recording) == true)
                .Select(c => new LaidCamera(c.Index, c.Take, Cameras![c.Take.Recording])),
        ];
        if (laid.Count == 0)
            return null;
        var look = document.CameraLook ?? CameraLook.Usual;
        var frames = Frames(document.Frames);
        ScreenOnPicture? screen = look.KeepsClear
            ? new ScreenOnPicture(
                Reel,
                [.. Hashes.Select((_, i) => (Changed?[i] ?? Analyses[i]?.Changed) is { } packed ? ChangedFields.Unpack(packed) : null)],
                [.. Reel.Parts.Select((part, i) => CanvasPlacement.Of(part.Picture.ShownSize, Canvas.Under(Reel, document.Canvas, frames[i]), null))],
                document.MoveIns
            )
            : null;
        return new CamerasOnPicture(look, laid, CameraPath.Of(look, document.CameraStretches, laid, Reel, map, screen));
    }

    /// <summary>For each recording how a lesson brings it onto its canvas; null for as the canvas says.</summary>
    public IReadOnlyList<RecordingFrame?> Frames(IReadOnlyList<RecordingFrame> frames) =>
        [.. Hashes.Select(hash => frames.FirstOrDefault(f => f.Recording == hash))];
}
