using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Placing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;
using Wexel.Server.Releases;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.Uploads;

namespace Wexel.Server.Lessons;

internal sealed record CourseView(Guid Id, string Title, string Description, IReadOnlyList<LessonRow> Lessons);

internal sealed record LessonRow(
    Guid Id,
    int Position,
    string Title,
    string FileName,
    TimeSpan Length,
    int Revision,
    string Stage,
    NextStep Next,
    string? ShortTitle,
    string? Author,
    IReadOnlyList<ReleaseMark> Releases,
    int Learners,
    int Completed
);

internal sealed record LessonView(
    Guid Id,
    string Course,
    int Position,
    int LessonsInCourse,
    int Revision,
    DateTimeOffset SavedAt,
    TimeSpan Length,
    RevisionHistory History,
    LessonDocument Document
);

/// <param name="RestoredFrom">The number of the earlier revision that is brought back; null where something new was changed.</param>
internal sealed record SaveRequest(int BasedOn, LessonDocument Document, int? RestoredFrom = null);

internal sealed record ContentsRequest(string Text);

internal sealed record CaptionsRead(CaptionTrack? Track, IReadOnlyList<Problem> Problems);

/// <param name="Recordings">The hashes of the lesson's recordings, in their order.</param>
/// <param name="Place">Which of their subtitle tracks, from 0.</param>
/// <param name="Language">The lesson's, for a track that does not say its own.</param>
internal sealed record CaptionsInsideRequest(IReadOnlyList<string> Recordings, int Place, string Language);

internal sealed record LearnerRow(string Name, double SeenShare, DateTimeOffset? CompletedAt, DateTimeOffset SeenLastAt);

internal static class LessonEndpoints
{
    internal static void MapLessons(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons");
        group.MapGet("", ListAsync).WithName("Lessons");
        group.MapGet("{id:guid}", GetAsync).WithName("Lesson");
        group.MapPut("{id:guid}/document", SaveAsync).WithName("SaveLesson");
        group.MapGet("{id:guid}/learners", LearnersAsync).WithName("Learners");
        routes.MapPost("/api/contents/read", ReadContents).WithName("ReadContents");
        routes.MapPut("/api/captions", AddCaptionsAsync).WithName("AddCaptions").Accepts<Stream>("application/octet-stream");
        routes.MapPost("/api/captions/inside", TakeInsideAsync).WithName("TakeCaptionsInside");
        routes.MapGet("/api/captions/{hash}", CuesAsync).WithName("Cues");
    }

    private static async Task<Ok<List<CourseView>>> ListAsync(WexelDb db, StandingReader reader, CancellationToken cancel)
    {
        var courses = await db
            .Courses.OrderBy(c => c.Position)
            .ThenBy(c => c.Id)
            .Select(c => new
            {
                c.Id,
                c.Title,
                c.Description,
            })
            .ToListAsync(cancel);
        var lessons = (
            await db
                .Lessons.OrderBy(l => l.Position)
                .Select(l => new
                {
                    l.Id,
                    l.CourseId,
                    l.Position,
                    l.Title,
                    l.Recording!.FileName,
                    l.Length,
                    l.Revision,
                    l.ContentKey,
                    l.WantsMark,
                    l.Said,
                    InWork = l.Renditions.Any(r => r.State == RenditionState.Waiting || r.State == RenditionState.Working),
                    Rendered = l.Renditions.Any(r => r.State == RenditionState.Done),
                    LookedThrough = l.Recording.Analysis != null || l.Recording.AnalysisFailure != null,
                })
                .ToListAsync(cancel)
        ).ToLookup(l => l.CourseId);
        var learners = await db
            .LearnerRecords.GroupBy(r => r.LessonId)
            .Select(g => new
            {
                g.Key,
                All = g.Count(),
                Done = g.Count(r => r.CompletedAt != null),
            })
            .ToDictionaryAsync(g => g.Key, cancel);
        var standing = await reader.ReadAsync(cancel);
        var stands = await reader.StandsAsync(standing, cancel);
        return TypedResults.Ok(
            courses
                .Select(c => new CourseView(
                    c.Id,
                    c.Title,
                    c.Description,
                    [
                        .. lessons[c.Id]
                            .Select(l =>
                            {
                                var said = DetailShelf.Read(l.Said);
                                var marks = standing.MarksOf(new LessonHere(l.ContentKey, l.WantsMark, l.Said), stands[l.Id]).ToList();
                                var progress = new LessonProgress(
                                    l.Title.Length > 0,
                                    l.LookedThrough,
                                    l.Revision > 1,
                                    l.InWork,
                                    l.Rendered,
                                    marks.Count > 0,
                                    marks.Exists(m => m.Behind)
                                );
                                return new LessonRow(
                                    l.Id,
                                    l.Position,
                                    l.Title,
                                    l.FileName,
                                    l.Length,
                                    l.Revision,
                                    Stage(progress),
                                    NextStep.Of(progress),
                                    said.ShortTitle,
                                    (said.Author ?? standing.House.Details.Author)?.Name,
                                    marks,
                                    learners.GetValueOrDefault(l.Id)?.All ?? 0,
                                    learners.GetValueOrDefault(l.Id)?.Done ?? 0
                                );
                            }),
                    ]
                ))
                .ToList()
        );
    }

    private static string Stage(LessonProgress lesson) =>
        lesson switch
        {
            { HasTitle: false } => "needs a title",
            { Released: true } => "released",
            { Rendering: true } => "rendering",
            { Rendered: true } => "rendered",
            { LookedThrough: false } => "being looked through",
            { Changed: true } => "being marked up",
            _ => "brought in",
        };

    private static async Task<Results<Ok<LessonView>, ProblemHttpResult>> GetAsync(Guid id, WexelDb db, CancellationToken cancel)
    {
        var lesson = await db.Lessons.AsNoTracking().Include(l => l.Course).FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        var revision = await db.LessonRevisions.AsNoTracking().FirstAsync(r => r.LessonId == id && r.Number == lesson.Revision, cancel);
        var count = await db.Lessons.CountAsync(l => l.CourseId == lesson.CourseId, cancel);
        return TypedResults.Ok(
            new LessonView(
                id,
                lesson.Course!.Title,
                lesson.Position,
                count,
                lesson.Revision,
                revision.SavedAt,
                lesson.Length,
                await RevisionEndpoints.HistoryAsync(db, id, cancel),
                LessonDocument.Format.Read(revision.Document)
            )
        );
    }

    private static async Task<Results<Ok<Saved>, ProblemHttpResult>> SaveAsync(
        Guid id,
        SaveRequest request,
        WexelDb db,
        LessonSaver saver,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (!await db.Lessons.AnyAsync(l => l.Id == id, cancel))
            return Problems.NotThere("lesson");
        var (saved, problem) = await saver.SaveAsync(id, request.BasedOn, request.Document, request.RestoredFrom, user.Identity!.Name!, cancel);
        return problem is not null
            ? Problems.Answer(problem, problem.Code == LessonSaver.SavedByAnother ? StatusCodes.Status409Conflict : StatusCodes.Status422UnprocessableEntity)
            : TypedResults.Ok(saved);
    }

    private static Ok<ContentsReading> ReadContents(ContentsRequest request) => TypedResults.Ok(ContentsText.Read(request.Text));

    private static async Task<Results<Ok<CaptionsRead>, ProblemHttpResult>> AddCaptionsAsync(
        string fileName,
        string language,
        HttpRequest request,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        if (LanguageTag.Parse(language) is not { } known)
            return Problems.Answer(new Problem("captions-no-language", $"“{Problem.Shown(language)}” is no language; write it such as en-GB.", "language"));
        request.TakeAtMost(CaptionFile.LargestBytes);
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancel);
        var reading = CaptionFile.Read(bytes.ToArray());
        if (reading.Cues.Count == 0)
            return TypedResults.Ok(new CaptionsRead(null, reading.Problems));
        var track = await captions.AddAsync(reading.Cues, known, Receiver.CleanName(fileName), cancel);
        return TypedResults.Ok(new CaptionsRead(track, reading.Problems));
    }

    /// <summary>Takes the captions that stand inside recordings, along the time of their reel; one that has no such track has none.</summary>
    private static async Task<Results<Ok<CaptionsRead>, ProblemHttpResult>> TakeInsideAsync(
        CaptionsInsideRequest request,
        LessonReels reels,
        FileStore store,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        if (await reels.FindAsync(request.Recordings, cancel) is not { } reel)
            return Problems.NotThere("recording");
        var (cues, problems) = (new List<Cue>(), new List<Problem>());
        var found = reel.Reel.Parts.Select(p => p.Facts.Subtitles?.FirstOrDefault(s => s.Place == request.Place)).ToList();
        try
        {
            foreach (var (index, track) in found.Index().Where(f => f.Item is not null))
            {
                var reading = await SubtitleReader.ReadAsync(store.Recording(reel.Hashes[index]), track!.Place, cancel);
                cues.AddRange(SubtitleReader.Later(reading.Cues, reel.Reel.SpanOf(index).Start));
                problems.AddRange(reading.Problems);
            }
        }
        catch (ToolFailedException failed)
        {
            return Problems.Answer(new Problem("captions-inside", $"The captions could not be taken out: {failed.Said}"));
        }

        if (cues.Count == 0)
            return TypedResults.Ok(new CaptionsRead(null, problems.Count > 0 ? problems : [new Problem("captions-none", "There is no caption inside.")]));
        var language = found.Select(f => f?.Language).FirstOrDefault(l => l is not null) ?? request.Language;
        // A file that says only "English" is of the lesson's region.
        if (request.Language.StartsWith(language + "-", StringComparison.OrdinalIgnoreCase))
            language = request.Language;
        return TypedResults.Ok(new CaptionsRead(await captions.AddAsync(cues, language, "From the recording", cancel), problems));
    }

    private static async Task<Results<Ok<IReadOnlyList<Cue>>, ProblemHttpResult>> CuesAsync(string hash, CaptionStore captions, CancellationToken cancel) =>
        await captions.ReadAsync(hash, cancel) is { } cues ? TypedResults.Ok(cues) : Problems.NotThere("caption file");

    private static async Task<Ok<List<LearnerRow>>> LearnersAsync(Guid id, WexelDb db, CancellationToken cancel) =>
        TypedResults.Ok(
            await db
                .LearnerRecords.Where(r => r.LessonId == id)
                .OrderByDescending(r => r.SeenLastAt)
                .Select(r => new LearnerRow(r.Name ?? "Somebody with the link", r.SeenShare, r.CompletedAt, r.SeenLastAt))
                .ToListAsync(cancel)
        );
}
