using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Questions;
using Wexel.Core.Scoring;
using Wexel.Core.Surveys;
using Wexel.Core.Translating;

namespace Wexel.Core.Packages;

/// <summary>All that the learner's player is told about a lesson: the same on watch pages, in embeds and in packages.</summary>
/// <param name="Key">A name under which a browser remembers the place.</param>
/// <param name="Title">The title.</param>
/// <param name="Description">The description; may be empty.</param>
/// <param name="Language">The language, as a BCP 47 tag.</param>
/// <param name="Length">The length of the lesson.</param>
/// <param name="Width">The picture's width in pixels.</param>
/// <param name="Height">The picture's height in pixels.</param>
/// <param name="Video">Where the video lies, relative to the page.</param>
/// <param name="Poster">The picture by which it is known, or null.</param>
/// <param name="Sections">The contents, in lesson time.</param>
/// <param name="Captions">The caption tracks, the one that is shown first at the front.</param>
/// <param name="CompletePercent">The share that must be watched, in per cent.</param>
/// <param name="ReportTo">Where watched ranges are sent, or null where only the browser keeps them.</param>
/// <param name="Embedded">Whether the page stands inside another one.</param>
/// <param name="Runtime">The run-time of the learning system that the page is made for, or null.</param>
/// <param name="Details">What else is said about it.</param>
/// <param name="Translations">What it says of itself in other languages.</param>
/// <param name="Questions">What is asked, in the order in which it is.</param>
/// <param name="Goal">By what it is done.</param>
/// <param name="Draws">From which questions so many are asked of each learner.</param>
/// <param name="Areas">What can be clicked on the picture, those above last.</param>
/// <param name="Notes">What is to be read over the picture.</param>
/// <param name="Survey">What is asked about it at its end; null for nothing.</param>
public sealed record PlayerLesson(
    string Key,
    string Title,
    string Description,
    string Language,
    TimeSpan Length,
    int Width,
    int Height,
    string Video,
    PlayerPoster? Poster,
    IReadOnlyList<Section> Sections,
    IReadOnlyList<PlayerCaptions> Captions,
    int CompletePercent = PlayerLesson.UsualCompletePercent,
    string? ReportTo = null,
    bool Embedded = false,
    string? Runtime = null,
    PlayerDetails? Details = null,
    IReadOnlyList<PlayerTranslation>? Translations = null,
    IReadOnlyList<PlayerQuestion>? Questions = null,
    LessonGoal? Goal = null,
    IReadOnlyList<DrawnFrom>? Draws = null,
    IReadOnlyList<PlayerArea>? Areas = null,
    IReadOnlyList<PlayerNote>? Notes = null,
    Survey? Survey = null
)
{
    /// <summary>What it says of itself in other languages.</summary>
    public IReadOnlyList<PlayerTranslation> Translations { get; init; } = Translations ?? [];

    /// <summary>What is asked, in the order in which it is.</summary>
    public IReadOnlyList<PlayerQuestion> Questions { get; init; } = Questions ?? [];

    /// <summary>From which questions so many are asked of each learner.</summary>
    public IReadOnlyList<DrawnFrom> Draws { get; init; } = Draws ?? [];

    /// <summary>What can be clicked on the picture, those above last.</summary>
    public IReadOnlyList<PlayerArea> Areas { get; init; } = Areas ?? [];

    /// <summary>What is to be read over the picture.</summary>
    public IReadOnlyList<PlayerNote> Notes { get; init; } = Notes ?? [];

    /// <summary>By what it is done.</summary>
    public LessonGoal Goal { get; init; } = Goal ?? new LessonGoal();

    /// <summary>The same where a server judges: what is right stays there.</summary>
    [JsonIgnore]
    public PlayerLesson WithoutKeys => this with { Questions = [.. Questions.Select(q => q with { Key = null })] };

    /// <summary>The same where the files beside the page lie elsewhere.</summary>
    /// <param name="folder">Where, with a slash at its end.</param>
    public PlayerLesson WithFilesIn(string folder) =>
        this with
        {
            Questions = [.. Questions.Select(q => q with { Picture = q.Picture is null ? null : folder + q.Picture })],
            Notes = [.. Notes.Select(n => n with { Picture = n.Picture is null ? null : folder + n.Picture })],
        };

    /// <summary>The same in a package. What learners say about a lesson needs somebody who takes it: a learning system does, and knows who says it.</summary>
    /// <param name="runtime">The run-time of the learning system that the page is made for, or null.</param>
    public PlayerLesson Packed(string? runtime) => this with { Runtime = runtime, Survey = runtime is not null && Survey is { Named: true } ? Survey : null };

    /// <summary>What else is said about it.</summary>
    public PlayerDetails Details { get; init; } = Details ?? PlayerDetails.None;

    /// <summary>How it is kept.</summary>
    public static DocumentFormat<PlayerLesson> Format { get; } =
        new("lesson’s page", TracksInAList, NothingElseSaid, PosterWithSize, LearnersWroteNothing, NoTranslations, NoQuestions, NothingOverIt);

    /// <summary>There was one track or none.</summary>
    private static void TracksInAList(JsonObject page)
    {
        var track = page["captions"]?.AsObject();
        page.Remove("captions");
        page["captions"] = track is null ? new JsonArray() : new JsonArray(track);
    }

    /// <summary>Title and description were all that was said.</summary>
    private static void NothingElseSaid(JsonObject page) => page["details"] = null;

    /// <summary>It was taken from the video, and of its size.</summary>
    private static void PosterWithSize(JsonObject page)
    {
        if (page["poster"] is not JsonValue address)
            return;
        page["poster"] = new JsonObject
        {
            ["address"] = address.DeepClone(),
            ["width"] = page["width"]?.DeepClone(),
            ["height"] = page["height"]?.DeepClone(),
        };
    }

    /// <summary>Nobody was asked whether learners may write and leave notes: what is usual holds.</summary>
    private static void LearnersWroteNothing(JsonObject page)
    {
        if (page["details"] is JsonObject details)
            (details["mayWrite"], details["mayNote"]) = (true, true);
    }

    /// <summary>It was in its own language alone.</summary>
    private static void NoTranslations(JsonObject page) => page["translations"] = new JsonArray();

    /// <summary>Nobody was asked anything.</summary>
    private static void NoQuestions(JsonObject page) => page["questions"] = new JsonArray();

    /// <summary>Nothing lay over the picture, everybody was asked the same, and nobody what they thought of it.</summary>
    private static void NothingOverIt(JsonObject page) =>
        (page["draws"], page["areas"], page["notes"], page["survey"]) = (new JsonArray(), new JsonArray(), new JsonArray(), null);

    /// <summary>The share of a lesson that must have been watched, in per cent.</summary>
    public const int UsualCompletePercent = 90;
}

/// <summary>The picture by which a lesson is known.</summary>
/// <param name="Address">Where it lies, relative to the page.</param>
/// <param name="Width">Its width, in pixels.</param>
/// <param name="Height">Its height, in pixels.</param>
public sealed record PlayerPoster(string Address, int Width, int Height);

/// <summary>Captions for the player, whole, since a page opened from disk cannot load a file beside it.</summary>
/// <param name="Language">As a BCP 47 tag.</param>
/// <param name="Cues">In order of time.</param>
/// <param name="Kind">What they are to the voice.</param>
/// <param name="Draft">Whether a machine made them, and nobody has looked through all of them: learners are told so.</param>
public sealed record PlayerCaptions(
    string Language,
    IReadOnlyList<Cue> Cues,
    TrackKind Kind = TrackKind.Captions,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Draft = false
);

/// <summary>What a lesson says of itself in another language; what is null is shown as it is.</summary>
/// <param name="Language">As a BCP 47 tag.</param>
/// <param name="Title">The title.</param>
/// <param name="Description">The description.</param>
/// <param name="Sections">The titles of the sections, as many as the lesson has.</param>
/// <param name="Draft">Whether a machine wrote one of them, and nobody has looked at it: learners are told so.</param>
public sealed record PlayerTranslation(
    string Language,
    string? Title,
    string? Description,
    IReadOnlyList<string?> Sections,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Draft = false
)
{
    /// <summary>A translation as a page has it; null where learners get none of it.</summary>
    /// <param name="translation">The lesson's.</param>
    /// <param name="sections">The sections that the page shows.</param>
    /// <param name="own">What the lesson says about itself.</param>
    /// <param name="said">What is said about it where the page stands; what is said otherwise there has no translation.</param>
    public static PlayerTranslation? Of(LessonTranslation translation, IReadOnlyList<Section> sections, DetailSet own, DetailSet said)
    {
        // What must be said stands behind the description in every language.
        string? Whole(string? description) => DetailLayers.Merged(own with { Description = description }).Description;
        var shown = new PlayerTranslation(
            translation.Language,
            said.Title == own.Title ? translation.Shown(TextNames.Title) : null,
            said.Description == Whole(own.Description) && translation.Shown(TextNames.Description) is { } description ? Whole(description) : null,
            [.. sections.Select(s => translation.Shown(TextNames.Section(s.Id)))],
            translation.ForLearners.Any(t => t.Draft)
        );
        return shown.Title is null && shown.Description is null && shown.Sections.All(s => s is null) ? null : shown;
    }
}
