using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Timing;

namespace Wexel.Core.Lessons;

/// <summary>A lesson as one revision has it. A saved one is never changed.</summary>
/// <param name="Title">The title; empty while nobody has given one.</param>
/// <param name="Description">A sentence or more for learners; may be empty.</param>
/// <param name="Language">The language spoken, as a BCP 47 tag.</param>
/// <param name="RecordingHash">The first recording's SHA-256.</param>
/// <param name="Cuts">What is left out of the recording, in recording time, in order and apart.</param>
/// <param name="Sections">The contents, in recording time.</param>
/// <param name="Captions">The captions, or null where there are none.</param>
/// <param name="Canvas">What its picture is made on; null for all of the recording in its own size.</param>
/// <param name="HouseMark">Whether the house's mark stands on its picture, where the house puts it on lessons.</param>
/// <param name="MoveIns">Where a part of the picture is seen large, in recording time, in order and apart.</param>
/// <param name="Following">The hashes of the recordings that follow the first one, in order.</param>
/// <param name="Frames">How single recordings are brought onto the canvas, where there are several; at most one each.</param>
public sealed record LessonDocument(
    string Title,
    string Description,
    string Language,
    string RecordingHash,
    IReadOnlyList<TimeRange> Cuts,
    IReadOnlyList<Section> Sections,
    CaptionTrack? Captions,
    bool HouseMark = true,
    Canvas? Canvas = null,
    IReadOnlyList<MoveIn>? MoveIns = null,
    IReadOnlyList<string>? Following = null,
    IReadOnlyList<RecordingFrame>? Frames = null)
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<LessonDocument> Format { get; } = new("lesson");

    /// <summary>What is left out of the recording; a document that was saved before there were cuts has none.</summary>
    public IReadOnlyList<TimeRange> Cuts { get; init; } = Cuts ?? [];

    /// <summary>Where a part of the picture is seen large; a document that was saved before there were move-ins has none.</summary>
    public IReadOnlyList<MoveIn> MoveIns { get; init; } = MoveIns ?? [];

    /// <summary>The recordings that follow the first one.</summary>
    public IReadOnlyList<string> Following { get; init; } = Following ?? [];

    /// <summary>How single recordings are brought onto the canvas.</summary>
    public IReadOnlyList<RecordingFrame> Frames { get; init; } = Frames ?? [];

    /// <summary>The hashes of all recordings in their order; recording time is the time of their reel.</summary>
    [JsonIgnore]
    public IReadOnlyList<string> Recordings => [RecordingHash, .. Following];
}

/// <summary>Captions that a lesson has; the cues lie in a file of their own, named by its hash.</summary>
/// <param name="Hash">SHA-256 of the WebVTT text.</param>
/// <param name="Language">As a BCP 47 tag.</param>
/// <param name="FileName">The file that was added.</param>
/// <param name="CueCount">How many captions there are.</param>
public sealed record CaptionTrack(string Hash, string Language, string FileName, int CueCount);
