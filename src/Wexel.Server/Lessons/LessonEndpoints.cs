using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Contents;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Placing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Releases;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

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

internal static class LessonEndpoints
{
    internal static void MapLessons(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons");
        group.MapGet("", ListAsync).WithName("Lessons");
        group.MapGet("{id:guid}", GetAsync).WithName("Lesson");
        group.MapPut("{id:guid}/document", SaveAsync).WithName("SaveLesson");
        routes.MapPost("/api/contents/read", ReadContents).WithName("ReadContents");
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

    private static Ok<ContentsReading> ReadContents(ContentsRequest request) => TypedResults.Ok(ContentsFormats.Read(request.Text));
}
