using Wexel.Core.Cameras;
using Wexel.Core.Editing;
using Wexel.Core.Keys;
using Wexel.Core.Mixing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Encoding;

/// <summary>What of a plan makes a difference to what is made: every field of it, declared one by one.</summary>
internal static class PlanFields
{
    internal static void Declare(KeyFields key, PicturePlan picture) =>
        key.Each("parts", picture.Parts, Declare)
            .Add(picture.Size)
            .Part("mark", picture.Mark, (k, mark) => k.Add("of", mark.Key).Add(mark.Box).Add("opacity", mark.Opacity))
            .Add("captions", picture.Captions)
            .Part("timing", picture.Timing, Declare)
            .Add("codec", (PictureCodec?)picture.Coding.Codec)
            .Part("h264", picture.Coding.H264, Declare)
            .Part("rate", picture.Rate, Declare)
            .Add("effort", (Effort?)picture.Effort)
            .Each("copy", picture.Copy?.Runs, Declare)
            .Each("cameras", picture.Cameras, Declare);

    internal static void Declare(KeyFields key, SoundPlan sound) =>
        key.Each("mixes", sound.Mixes, (k, mix) => k.Add("is", mix))
            .Add("channels", sound.Channels)
            .Add("codec", (SoundCodec?)sound.Codec)
            .Add("rate", sound.SampleRate)
            .Add("bits", sound.BitsPerSecond)
            .Add("loudness", sound.TargetLufs)
            .Add("copy", sound.Copy)
            .Each("tracks", sound.Tracks, (k, tracks) => k.Each("of", [.. tracks.Select(t => (long)t)]))
            .Part("under", sound.Under, Declare);

    internal static void Declare(KeyFields key, UnderPlan under) => key.Each("beds", under.Beds, Declare).Add("gain", under.Gain);

    internal static void Declare(KeyFields key, FilePlan file) =>
        key.Add("container", (Container?)file.Container)
            .Add("captions", file.CaptionTracks)
            .Add("chapters", file.Chapters)
            .Add("front", file.IndexAtFront)
            .Add("most", file.Bytes);

    internal static void Declare(KeyFields key, KeptStretch kept) => key.Add("first", kept.First).Add("count", kept.Count).Add("at", kept.At);

    private static void Declare(KeyFields key, PartPlan part) =>
        key.Add("recording", part.Recording)
            .Each("kept", part.Kept, Declare)
            .Add("square", part.SquarePixels)
            .Part("placement", part.Placement, Declare)
            .Each("moves", part.Moves, Declare)
            .Part("colour", part.Colour, Declare)
            .Part("prepared", part.Prepared, Declare);

    private static void Declare(KeyFields key, CameraPlan camera) =>
        key.Add("recording", camera.Recording)
            .Add("starts", camera.Clock.Starts)
            .Add("drift", camera.Clock.Drift)
            .Each("kept", camera.Kept, Declare)
            .Each("recorded", [camera.Recorded], (k, size) => k.Add(size))
            .Add("square", camera.SquarePixels)
            .Part("colour", camera.Colour, Declare)
            .Part("prepared", camera.Prepared, Declare)
            .Each("views", camera.Views, (k, view) =>
                k.Each("from", [view.From], (f, rect) => f.Add(rect))
                    .Each("size", [view.Size], (f, size) => f.Add(size))
                    .Add("radius", view.Radius)
                    .Each("places", view.Places, (f, p) => f.Add("first", p.Run.First).Add("count", p.Run.Count).Add("x", p.X).Add("y", p.Y))
            );

    // What is apart from scaling was done by the scaler once, and came out a little otherwise.
    private static void Declare(KeyFields key, ColourConversion colour) =>
        key.Add("matrix", colour.FromMatrix).Add("full", colour.FromFullRange).Add("apart", colour.FromMatrix is not null);

    private static void Declare(KeyFields key, BedPlan bed) =>
        key.Add("sound", bed.Sound)
            .Add("channels", bed.Channels)
            .Each("pieces", bed.Pieces, (k, piece) =>
                k.Add("at", piece.At).Add("from", piece.From).Add("length", piece.Length).Add("comes", piece.Comes).Add("goes", piece.Goes)
            )
            .Each("gains", bed.Gains, (k, point) => k.Add("at", point.At).Add("gain", point.Gain));

    private static void Declare(KeyFields key, CanvasPlacement placement) =>
        key.Each("is", [placement.Canvas, placement.Recorded], (k, size) => k.Add(size)).Each("goes", [placement.From, placement.To], (k, rect) => k.Add(rect));

    private static void Declare(KeyFields key, ViewMove move) =>
        key.Add("first", move.First).Add("frames", move.Frames).Each("goes", [move.From, move.To], (k, rect) => k.Add(rect));

    private static void Declare(KeyFields key, PicturePreparation prepared) =>
        key.Add("fields", prepared.Fields)
            .Part("colour", prepared.Colour, (k, c) =>
                k.Add("matrix", c.Matrix).Add("primaries", c.Primaries).Add("transfer", c.Transfer).Add("full", c.FullRange)
            );

    private static void Declare(KeyFields key, FrameTiming timing) =>
        key.Add("grid", timing.Grid)
            .Add("leaves", timing.MostRepeatsLeftOut)
            .Add("every", timing.KeyFrameEvery)
            .Each("sections", timing.SectionFrames)
            .Add("last", timing.LastFrame)
            .Each("moving", timing.Moving, (k, run) => k.Add("first", run.First).Add("count", run.Count))
            .Each("changing", timing.Changing)
            .Add("constant", timing.Constant)
            .Add("pieces", timing.InPieces);

    private static void Declare(KeyFields key, H264Plan h264) =>
        key.Add("profile", (H264Profile?)h264.Profile)
            .Add("level", h264.Level)
            .Add("references", h264.ReferenceFrames)
            .Add("most", h264.MaxBitsPerSecond)
            .Add("buffer", h264.BufferBits);

    private static void Declare(KeyFields key, RatePlan rate) =>
        key.Add("rule", (RateRule?)rate.Rule).Add("quality", rate.Quality).Add("bits", rate.BitsPerSecond).Add("passes", rate.Passes);

    private static void Declare(KeyFields key, CopyRun run) =>
        key.Add("first", run.First).Add("count", run.Count).Add("at", run.At).Add("encoded", run.Encoded).Add("lead", run.LeadIn);
}
