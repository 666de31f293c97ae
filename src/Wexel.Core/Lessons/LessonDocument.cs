using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Wexel.Core.Cameras;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Questions;
using Wexel.Core.Scoring;
using Wexel.Core.Surveys;
using Wexel.Core.Timing;
using Wexel.Core.Translating;

namespace Wexel.Core.Lessons;

/// <summary>A lesson as one revision has it. A saved one is never changed.</summary>
public record LessonDocument : PlacedThings
{
    /// <param name="title">The title; empty while nobody has given one.</param>
    /// <param name="description">A sentence or more for learners; may be empty.</param>
    /// <param name="language">The language spoken, as a BCP 47 tag.</param>
    /// <param name="recordingHash">The first recording's SHA-256.</param>
    /// <param name="cuts">What is left out of the recording, in recording time, in order and apart.</param>
    /// <param name="sections">The contents, in recording time.</param>
    /// <param name="captions">The caption tracks, the one that is shown first at the front.</param>
    /// <param name="houseMark">Whether the house's mark stands on its picture, where the house puts it on lessons.</param>
    /// <param name="canvas">What its picture is made on; null for all of the recording in its own size.</param>
    /// <param name="moveIns">Where a part of the picture is seen large, in recording time, in order and apart.</param>
    /// <param name="following">The hashes of the recordings that follow the first one, in order.</param>
    /// <param name="frames">How single recordings are brought onto the canvas, where there are several; at most one each.</param>
    /// <param name="details">What else is said about it, wherever it goes; never title, description and language.</param>
    /// <param name="picture">The picture by which it is known; null for the first that is proposed.</param>
    /// <param name="translations">What it says of itself in other languages, at most once in each.</param>
    /// <param name="goal">By what it is done; null for what is usual.</param>
    /// <param name="draws">Of which questions each learner is asked only some.</param>
    /// <param name="survey">What learners are asked about it at its end; null for nothing.</param>
    public LessonDocument(
        string title,
        string description,
        string language,
        string recordingHash,
        IReadOnlyList<TimeRange> cuts,
        IReadOnlyList<Section> sections,
        IReadOnlyList<CaptionTrack> captions,
        bool houseMark = true,
        Canvas? canvas = null,
        IReadOnlyList<MoveIn>? moveIns = null,
        IReadOnlyList<string>? following = null,
        IReadOnlyList<RecordingFrame>? frames = null,
        DetailSet? details = null,
        LessonPicture? picture = null,
        IReadOnlyList<LessonTranslation>? translations = null,
        LessonGoal? goal = null,
        IReadOnlyList<QuestionDraw>? draws = null,
        Survey? survey = null
    )
    {
        (Title, Description, Language, RecordingHash, HouseMark, Canvas) = (title, description, language, recordingHash, houseMark, canvas);
        (Cuts, Sections, Captions, MoveIns, Following, Frames) = (cuts ?? [], sections ?? [], captions ?? [], moveIns ?? [], following ?? [], frames ?? []);
        (Details, Picture, Translations, Goal) = (details ?? DetailSet.None, picture, translations ?? [], goal ?? new LessonGoal());
        (Draws, Survey) = (draws ?? [], survey);
    }

    /// <summary>How it is kept.</summary>
    public static DocumentFormat<LessonDocument> Format { get; } =
        new("lesson", TracksInAList, NoDetails, NoPicture, NoTranslations, NoQuestions, NothingOverIt, NothingUnderIt, NoCamera);

    /// <summary>The title; empty while nobody has given one.</summary>
    public string Title { get; init; }

    /// <summary>A sentence or more for learners; may be empty.</summary>
    public string Description { get; init; }

    /// <summary>The language spoken, as a BCP 47 tag.</summary>
    public string Language { get; init; }

    /// <summary>The first recording's SHA-256.</summary>
    public string RecordingHash { get; init; }

    /// <summary>What is left out of the recording, in recording time, in order and apart.</summary>
    public IReadOnlyList<TimeRange> Cuts { get; init; }

    /// <summary>The caption tracks, the one that is shown first at the front.</summary>
    public IReadOnlyList<CaptionTrack> Captions { get; init; }

    /// <summary>Whether the house's mark stands on its picture, where the house puts it on lessons.</summary>
    public bool HouseMark { get; init; }

    /// <summary>What its picture is made on; null for all of the recording in its own size.</summary>
    public Canvas? Canvas { get; init; }

    /// <summary>The hashes of the recordings that follow the first one, in order.</summary>
    public IReadOnlyList<string> Following { get; init; }

    /// <summary>How single recordings are brought onto the canvas, where there are several; at most one each.</summary>
    public IReadOnlyList<RecordingFrame> Frames { get; init; }

    /// <summary>What else is said about it, wherever it goes; never title, description and language.</summary>
    public DetailSet Details { get; init; }

    /// <summary>The picture by which it is known before it plays; null for the first that is proposed.</summary>
    public LessonPicture? Picture { get; init; }

    /// <summary>What it says of itself in other languages, at most once in each.</summary>
    public IReadOnlyList<LessonTranslation> Translations { get; init; }

    /// <summary>By what it is done.</summary>
    public LessonGoal Goal { get; init; }

    /// <summary>Of which questions each learner is asked only some.</summary>
    public IReadOnlyList<QuestionDraw> Draws { get; init; }

    /// <summary>What learners are asked about it at its end; null for nothing.</summary>
    public Survey? Survey { get; init; }

    /// <summary>The cameras that are laid over its recordings, at most one over each.</summary>
    public IReadOnlyList<CameraTake> Cameras
    {
        get => _cameras;
        init => _cameras = value ?? [];
    }

    /// <summary>How they stand on its picture; null for what is usual.</summary>
    public CameraLook? CameraLook { get; init; }

    /// <summary>What it says of itself in a language; nothing where nobody translated it.</summary>
    /// <param name="language">As a BCP 47 tag.</param>
    public LessonTranslation In(string language) => Translations.FirstOrDefault(t => t.Language == language) ?? new LessonTranslation(language, []);

    /// <summary>All that is said about it, wherever it goes.</summary>
    [JsonIgnore]
    public DetailSet Said =>
        Details with
        {
            Title = Title.Length > 0 ? Title : null,
            Description = Description.Length > 0 ? Description : null,
            Language = Language,
            Credits = Credits,
        };

    /// <summary>What is said of the sounds under the voice whose licences ask for it, a line each; null for nothing.</summary>
    [JsonIgnore]
    public string? Credits =>
        ShelfSounds.Where(s => s.AsksForCredit).Select(s => s.Credit).Distinct().ToList() is { Count: > 0 } credits ? string.Join('\n', credits) : null;

    /// <summary>Whether it asks something.</summary>
    [JsonIgnore]
    public bool Asks => Questions.Count > 0;

    /// <summary>Whether something that it asks counts points.</summary>
    [JsonIgnore]
    public bool CountsPoints => Questions.Any(q => q.Points > 0);

    /// <summary>Whether something can be clicked or read over its picture.</summary>
    [JsonIgnore]
    public bool HasOverlays => Areas.Count + Notes.Count > 0;

    /// <summary>Whether learners are asked what they think of it.</summary>
    [JsonIgnore]
    public bool HasSurvey => Survey is not null;

    /// <summary>The hashes of all recordings in their order; recording time is the time of their reel.</summary>
    [JsonIgnore]
    public IReadOnlyList<string> Recordings => [RecordingHash, .. Following];

    /// <summary>The hashes of all recordings that it needs: those that its times count along, and those of cameras.</summary>
    [JsonIgnore]
    public IReadOnlyList<string> AllRecordings => [.. Recordings.Concat(Cameras.Select(c => c.Recording)).Distinct()];

    /// <summary>There was one track or none, which had no name.</summary>
    private static void TracksInAList(JsonObject document)
    {
        var track = document["captions"]?.AsObject();
        document.Remove("captions");
        if (track is not null)
            track["id"] = FirstTrack;
        document["captions"] = track is null ? new JsonArray() : new JsonArray(track);
    }

    /// <summary>Nothing else was said.</summary>
    private static void NoDetails(JsonObject document) => document["details"] = new JsonObject();

    /// <summary>Nobody chose a picture.</summary>
    private static void NoPicture(JsonObject document) => document["picture"] = null;

    /// <summary>It was in its own language alone.</summary>
    private static void NoTranslations(JsonObject document) => document["translations"] = new JsonArray();

    /// <summary>Nobody was asked anything, and it was done when enough was watched.</summary>
    private static void NoQuestions(JsonObject document) =>
        (document["questions"], document["goal"]) = (new JsonArray(), JsonSerializer.SerializeToNode(new LessonGoal(), WexelJson.Options));

    /// <summary>Nothing lay over the picture, everybody was asked the same, and nobody what they thought of it.</summary>
    private static void NothingOverIt(JsonObject document) =>
        (document["areas"], document["notes"], document["draws"], document["survey"]) = (new JsonArray(), new JsonArray(), new JsonArray(), null);

    /// <summary>Nothing lay under the voice.</summary>
    private static void NothingUnderIt(JsonObject document) => document["sounds"] = new JsonArray();

    /// <summary>No camera lay over the screen.</summary>
    private static void NoCamera(JsonObject document) =>
        (document["cameras"], document["cameraLook"], document["cameraStretches"]) = (new JsonArray(), null, new JsonArray());

    private readonly IReadOnlyList<CameraTake> _cameras = [];

    private const string FirstTrack = "t1";
}
