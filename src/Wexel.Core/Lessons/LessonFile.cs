using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization.Metadata;
using Wexel.Core.Cameras;
using Wexel.Core.Captions;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Kit;
using Wexel.Core.Placing;
using Wexel.Core.Questions;
using Wexel.Core.Scoring;
using Wexel.Core.Surveys;
using Wexel.Core.Timing;
using Wexel.Core.Translating;

namespace Wexel.Core.Lessons;

/// <summary>
/// A lesson as one open file, <c>*.wexel.json</c>: everything that its document says, with recordings, captions and the house's mark as files
/// beside it, by paths relative to it. A ZIP with all of them is the same lesson, wherever it is opened.
/// </summary>
/// <param name="Title">The title.</param>
/// <param name="Language">The language spoken, as a BCP 47 tag.</param>
/// <param name="Recordings">The recordings in their order; one or more. Times count along them, one after the other, in whole milliseconds.</param>
/// <param name="Description">A sentence or more for learners.</param>
/// <param name="Cuts">What is left out.</param>
/// <param name="Captions">The captions, as files.</param>
/// <param name="Canvas">What its picture is made on; null for all of the recording in its own size.</param>
/// <param name="HouseMark">Whether the house's mark stands on its picture, where the house puts it on lessons.</param>
/// <param name="Mark">The house's mark as it stands on this lesson; null for none.</param>
/// <param name="Id">What names the lesson for good, 32 hexadecimal digits; null for one that has no name yet.</param>
/// <param name="Details">What else is said about it; null for nothing.</param>
/// <param name="Picture">The picture by which it is known; null where nobody chose one.</param>
/// <param name="Proposed">Which frame is proposed for that, along its recordings; null where nobody looked.</param>
/// <param name="Translations">What it says of itself in other languages; null for nothing.</param>
/// <param name="Goal">By what it is done; null for what is usual.</param>
/// <param name="Draws">Of which questions each learner is asked only some; null for none.</param>
/// <param name="Survey">What learners are asked about it at its end; null for nothing.</param>
/// <param name="Cameras">The cameras that are laid over its recordings, at most one over each; null for none.</param>
/// <param name="CameraLook">How they stand on its picture; null for what is usual.</param>
public sealed record LessonFile(
    string Title,
    string Language,
    IReadOnlyList<LessonFile.Recording> Recordings,
    string Description = "",
    IReadOnlyList<TimeRange>? Cuts = null,
    IReadOnlyList<LessonFile.CaptionFile>? Captions = null,
    Canvas? Canvas = null,
    bool HouseMark = true,
    LessonFile.MarkFile? Mark = null,
    string? Id = null,
    DetailSet? Details = null,
    LessonFile.PictureFile? Picture = null,
    TimeSpan? Proposed = null,
    IReadOnlyList<LessonTranslation>? Translations = null,
    LessonGoal? Goal = null,
    IReadOnlyList<QuestionDraw>? Draws = null,
    Survey? Survey = null,
    IReadOnlyList<LessonFile.Camera>? Cameras = null,
    CameraLook? CameraLook = null
) : PlacedThings
{
    /// <summary>Where a picture that stands with a question or a note lies beside the file, as it was given.</summary>
    /// <param name="key">The key by which the lesson names it.</param>
    public static string ShownPicture(string key) => $"pictures/{key}";

    /// <summary>Where a sound that lies under the voice lies beside the file, as it was given.</summary>
    /// <param name="key">The key by which the lesson names it.</param>
    public static string ShelfSound(string key) => $"sounds/{key}";

    /// <summary>What the name of such a file ends in.</summary>
    public const string Ending = ".wexel.json";

    /// <summary>Whether a name is that of a lesson file or of a ZIP of one.</summary>
    public static bool IsName(string name) => name.EndsWith(Ending, StringComparison.OrdinalIgnoreCase) || IsZip(name);

    /// <summary>Whether a name is that of a ZIP.</summary>
    public static bool IsZip(string name) => name.EndsWith(".zip", StringComparison.OrdinalIgnoreCase);

    /// <summary>The file's name in a ZIP.</summary>
    public const string NameInZip = "lesson" + Ending;

    /// <summary>A recording.</summary>
    /// <param name="File">Where it lies, relative to this file.</param>
    /// <param name="Hash">Its SHA-256 in lower-case hexadecimal; null where nobody reckoned it.</param>
    /// <param name="Sounds">Which of its sound tracks are used, from 0; null for the one in which somebody speaks.</param>
    /// <param name="Fit">How it is brought onto the canvas, where that is otherwise than the rest.</param>
    /// <param name="Part">The part of it that is seen then.</param>
    public sealed record Recording(string File, string? Hash = null, IReadOnlyList<int>? Sounds = null, FitMode? Fit = null, PicturePart? Part = null);

    /// <summary>A camera's recording of the same time as one of the screen's.</summary>
    /// <param name="File">Where it lies, relative to this file.</param>
    /// <param name="Over">Over which of the recordings it lies, from 0.</param>
    /// <param name="Clock">How their times go along each other.</param>
    /// <param name="Hash">Its SHA-256 in lower-case hexadecimal; null where nobody reckoned it.</param>
    public sealed record Camera(string File, int Over, CameraClock Clock, string? Hash = null);

    /// <summary>Captions as a WebVTT or SubRip file.</summary>
    /// <param name="File">Where it lies, relative to this file.</param>
    /// <param name="Language">As a BCP 47 tag.</param>
    /// <param name="Name">The name of the file that was added once; null for that of the file itself.</param>
    /// <param name="Id">A name inside the lesson that stays; null for one that has none yet.</param>
    /// <param name="Kind">What they are to the voice.</param>
    /// <param name="State">How far they are; a draft is not shown to learners.</param>
    /// <param name="Hash">What names them where they are kept; null for such as are kept nowhere yet.</param>
    /// <param name="GoesOut">Whether learners get them though they are a draft.</param>
    /// <param name="CheckedBy">Who checked them.</param>
    /// <param name="CheckedAt">When that was.</param>
    public sealed record CaptionFile(
        string File,
        string Language,
        string? Name = null,
        string? Id = null,
        TrackKind Kind = TrackKind.Captions,
        TrackState State = TrackState.Corrected,
        string? Hash = null,
        bool GoesOut = false,
        string? CheckedBy = null,
        DateTimeOffset? CheckedAt = null
    );

    /// <summary>The house's mark.</summary>
    /// <param name="File">Where its picture lies, relative to this file.</param>
    /// <param name="Placement">Where it stands.</param>
    public sealed record MarkFile(string File, MarkPlacement Placement);

    /// <summary>The picture by which the lesson is known: a frame, or a file.</summary>
    /// <param name="At">Which frame, along the recordings.</param>
    /// <param name="File">Where it lies, relative to this file.</param>
    /// <param name="Hash">What names the file where it is kept; null for one that is kept nowhere yet.</param>
    public sealed record PictureFile(TimeSpan? At = null, string? File = null, string? Hash = null);

    /// <summary>How it is kept.</summary>
    public static DocumentFormat<LessonFile> Format { get; } =
        new("lesson file", _ => { }, _ => { }, _ => { }, _ => { }, _ => { }, _ => { }, _ => { }, _ => { });

    private static readonly JsonSerializerOptions Strict = WexelJson.Configure(
        new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            RespectRequiredConstructorParameters = true,
            RespectNullableAnnotations = true,
            WriteIndented = true,
            Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
            TypeInfoResolver = new DefaultJsonTypeInfoResolver(),
        }
    );

    /// <summary>A lesson as a file's text.</summary>
    public string Text() => Format.Node(this).ToJsonString(Strict) + "\n";

    /// <summary>Reads a file's text.</summary>
    public static Result<LessonFile> Read(string text)
    {
        try
        {
            var file = Format.Read(text);
            return file switch
            {
                { Title: null } or { Language: null } or { Recordings: null or { Count: 0 } } => Unreadable("It lacks a title, a language or its recordings."),
                _ when file.Recordings.Any(r => r is not { File.Length: > 0 })
                        || file.Captions?.Any(c => c is not { File.Length: > 0, Language.Length: > 0 }) == true => Unreadable(
                    "A recording or captions name no file."
                ),
                _ when file.Cameras?.Any(c => c is not { File.Length: > 0 } || c.Over < 0 || c.Over >= file.Recordings.Count) == true => Unreadable(
                    "A camera names no file, or no recording over which it lies."
                ),
                _ when file.Translations?.Any(t => t is not { Language.Length: > 0, Texts: not null } || t.Texts.Any(x => x?.Of is null || x.Text is null))
                        == true => Unreadable("A translation names no language, or a text in it says nothing."),
                _ when file.Id is { } id && !Guid.TryParseExact(id, "N", out _) => Unreadable("Its id is not 32 hexadecimal digits."),
                _ => file,
            };
        }
        catch (JsonException failed)
        {
            return Unreadable(
                failed.Path is null && failed.LineNumber is null
                    ? failed.Message
                    : $"It cannot be read at “{failed.Path?.TrimStart('$', '.')}”, line {failed.LineNumber + 1}."
            );
        }
    }

    /// <summary>The JSON Schema (2020-12) of such a file.</summary>
    public static JsonNode Schema()
    {
        var schema = Strict.GetJsonSchemaAsNode(typeof(LessonFile), new JsonSchemaExporterOptions { TreatNullObliviousAsNonNullable = true }).AsObject();
        schema.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.Insert(1, "title", "Wexel lesson");
        schema["properties"]!
            .AsObject()
            .Insert(
                0,
                DocumentFormat.VersionName,
                new JsonObject
                {
                    ["type"] = "integer",
                    ["minimum"] = 1,
                    ["maximum"] = Format.Version,
                }
            );
        return schema;
    }

    /// <summary>A lesson as a file.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="id">What names it for good.</param>
    /// <param name="recordings">Its recordings in their order: where each will lie, and which sound tracks of it are used where somebody chose.</param>
    /// <param name="captions">Where each of its caption tracks will lie.</param>
    /// <param name="mark">The house's mark where it stands on the lesson.</param>
    /// <param name="picture">Where the picture will lie that somebody gave; null where none was.</param>
    /// <param name="proposed">Which frame is proposed for its picture.</param>
    /// <param name="cameras">Where each of its cameras will lie; null where it has none.</param>
    public static LessonFile Of(
        LessonDocument lesson,
        string id,
        IReadOnlyList<(string File, IReadOnlyList<int>? Sounds)> recordings,
        IReadOnlyList<string> captions,
        MarkFile? mark,
        string? picture = null,
        TimeSpan? proposed = null,
        IReadOnlyList<string>? cameras = null
    )
    {
        var file = new LessonFile(
            lesson.Title,
            lesson.Language,
            [
                .. lesson.Recordings.Zip(recordings, (hash, r) =>
                    lesson.Frames.FirstOrDefault(f => f.Recording == hash) is var own ? new Recording(r.File, hash, r.Sounds, own?.Fit, own?.Part) : null!
                ),
            ],
            lesson.Description,
            lesson.Cuts,
            [
                .. lesson.Captions.Zip(captions, (track, path) =>
                    new CaptionFile(
                        path,
                        track.Language,
                        track.FileName,
                        track.Id,
                        track.Kind,
                        track.State,
                        track.Hash,
                        track.GoesOut,
                        track.CheckedBy,
                        track.CheckedAt
                    )
                ),
            ],
            lesson.Canvas,
            lesson.HouseMark,
            mark,
            id,
            lesson.Details == DetailSet.None ? null : lesson.Details,
            lesson.Picture is { } known ? new PictureFile(known.At, known.Own is null ? null : picture, known.Own) : null,
            proposed,
            lesson.Translations.Count > 0 ? lesson.Translations : null,
            lesson.Goal == new LessonGoal() ? null : lesson.Goal,
            lesson.Draws.Count > 0 ? lesson.Draws : null,
            lesson.Survey,
            lesson.Cameras.Count > 0
                ? [.. lesson.Cameras.Zip(cameras ?? [], (c, path) => new Camera(path, lesson.Recordings.ToList().IndexOf(c.Over), c.Clock, c.Recording))]
                : null,
            lesson.CameraLook
        );
        return PlacedLists.Set(file, new Taking(lesson));
    }

    /// <summary>The lesson that a file holds.</summary>
    /// <param name="hashes">The hashes of its recordings, in their order.</param>
    /// <param name="captions">What was read of each of its caption files, in their order.</param>
    /// <param name="picture">The key of the picture that it names; null where it names none.</param>
    /// <param name="cameras">The hashes of its cameras, in their order; null where it has none.</param>
    public LessonWithCues Lesson(
        IReadOnlyList<string> hashes,
        IReadOnlyList<IReadOnlyList<Cue>> captions,
        string? picture = null,
        IReadOnlyList<string>? cameras = null
    )
    {
        var document = new LessonDocument(
            Title,
            Description ?? "",
            Language,
            hashes[0],
            Cuts ?? [],
            [],
            [],
            houseMark: HouseMark,
            canvas: Canvas,
            following: [.. hashes.Skip(1)],
            frames:
            [
                .. Recordings
                    .Zip(hashes, (r, hash) => r.Fit is { } fit ? new RecordingFrame(hash, fit, r.Part ?? PicturePart.All) : null)
                    .OfType<RecordingFrame>()
                    .DistinctBy(f => f.Recording),
            ],
            details: Details,
            picture: (Picture, picture) switch
            {
                ({ At: { } at }, null) => new LessonPicture(at),
                (_, { } own) => new LessonPicture(Own: own),
                _ => null,
            },
            translations: Translations,
            goal: Goal,
            draws: Draws,
            survey: Survey
        )
        {
            Cameras = [.. (Cameras ?? []).Zip(cameras ?? [], (c, hash) => new CameraTake(hashes[c.Over], hash, c.Clock)).DistinctBy(c => c.Over)],
            CameraLook = CameraLook,
        };
        var tracks = (Captions ?? [])
            .Zip(captions, (file, read) =>
            {
                var cues = Cue.Kind.WithNames(read);
                var track = CaptionTrack.Of(file.Id ?? "", cues, LanguageTag.Parse(file.Language) ?? file.Language, file.Name ?? Path.GetFileName(file.File));
                return (
                    Track: track with
                    {
                        Kind = file.Kind,
                        State = file.State,
                        GoesOut = file.GoesOut,
                        CheckedBy = file.CheckedBy,
                        CheckedAt = file.CheckedAt,
                    },
                    Cues: cues
                );
            })
            .ToList();
        var names = CaptionTrack.WithNames([.. tracks.Select(t => t.Track)]);
        return LessonWithCues.Of(PlacedLists.Set(document, new Taking(this)), names.Zip(tracks, (track, t) => (track, t.Cues)));
    }

    private sealed class Taking(object from) : IPlacedWork
    {
        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T> => kind.WithNames(list(from));
    }

    private static Problem Unreadable(string why) => new("lesson-file-unreadable", $"The file is no lesson as the schema describes it. {why}", "file");
}
