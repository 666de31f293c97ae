using Microsoft.EntityFrameworkCore;
using Wexel.Data;

namespace Wexel.Server.Outcomes;

/// <summary>What came of all lessons of a course.</summary>
/// <param name="Id">The course.</param>
/// <param name="Title">Its title.</param>
/// <param name="Learners">How many learners took a lesson of it.</param>
/// <param name="Whole">How many of them completed every lesson that anybody took.</param>
/// <param name="Lessons">Its lessons that somebody took, in teaching order.</param>
internal sealed record CourseOutcome(Guid Id, string Title, int Learners, int Whole, IReadOnlyList<LessonOutcome> Lessons);

/// <summary>What came of a lesson, in figures.</summary>
/// <param name="Id">The lesson.</param>
/// <param name="Title">Its title.</param>
/// <param name="Learners">How many took it.</param>
/// <param name="Completed">How many completed it.</param>
/// <param name="SeenShare">How much of it they saw on average, 0 to 1.</param>
/// <param name="Score">The share of its points that they reached on average, 0 to 1; null where there are none.</param>
/// <param name="Replies">How many said what they think of it.</param>
/// <param name="SeenLastAt">When somebody was there last.</param>
internal sealed record LessonOutcome(
    Guid Id,
    string Title,
    int Learners,
    int Completed,
    double SeenShare,
    double? Score,
    int Replies,
    DateTimeOffset SeenLastAt
);

/// <summary>Reads what came of everything, course by course: the database counts.</summary>
internal sealed class ResultsOverview(WexelDb db)
{
    internal async Task<IReadOnlyList<CourseOutcome>> ReadAsync(CancellationToken cancel)
    {
        var lessons = await db
            .Database.SqlQuery<LessonRow>(
                $"""
                SELECT l."CourseId", l."Id", l."Title", l."Position", COUNT(*)::int AS "Learners", COUNT(r."CompletedAt")::int AS "Completed",
                    AVG(r."SeenShare") AS "SeenShare", MAX(r."SeenLastAt") AS "SeenLastAt",
                    AVG((r."State" #>> ARRAY['score', 'raw'])::float8 / NULLIF((r."State" #>> ARRAY['score', 'max'])::float8, 0)) AS "Score",
                    (SELECT COUNT(*)::int FROM "SurveyReplies" s WHERE s."LessonId" = l."Id") AS "Replies"
                FROM "LearnerRecords" r JOIN "Lessons" l ON l."Id" = r."LessonId"
                WHERE l."BinnedAt" IS NULL
                GROUP BY l."Id"
                """
            )
            .ToListAsync(cancel);
        var learners = await db
            .Database.SqlQuery<CourseRow>(
                $"""
                SELECT "CourseId", COUNT(*)::int AS "Learners", COUNT(*) FILTER (WHERE "Done" = "All")::int AS "Whole"
                FROM (
                    SELECT l."CourseId", r."LearnerKey", COUNT(r."CompletedAt") AS "Done",
                        (SELECT COUNT(DISTINCT o."LessonId") FROM "LearnerRecords" o JOIN "Lessons" ol ON ol."Id" = o."LessonId"
                            WHERE ol."CourseId" = l."CourseId" AND ol."BinnedAt" IS NULL) AS "All"
                    FROM "LearnerRecords" r JOIN "Lessons" l ON l."Id" = r."LessonId"
                    WHERE l."BinnedAt" IS NULL
                    GROUP BY l."CourseId", r."LearnerKey"
                ) each GROUP BY "CourseId"
                """
            )
            .ToDictionaryAsync(c => c.CourseId, cancel);
        var courses = await db.Courses.AsNoTracking().OrderBy(c => c.Position).Select(c => new { c.Id, c.Title }).ToListAsync(cancel);
        return
        [
            .. courses
                .Where(c => learners.ContainsKey(c.Id))
                .Select(c => new CourseOutcome(
                    c.Id,
                    c.Title,
                    learners[c.Id].Learners,
                    learners[c.Id].Whole,
                    [
                        .. lessons
                            .Where(l => l.CourseId == c.Id)
                            .OrderBy(l => l.Position)
                            .Select(l => new LessonOutcome(l.Id, l.Title, l.Learners, l.Completed, l.SeenShare, l.Score, l.Replies, l.SeenLastAt)),
                    ]
                )),
        ];
    }

    private sealed record LessonRow(
        Guid CourseId,
        Guid Id,
        string Title,
        int Position,
        int Learners,
        int Completed,
        double SeenShare,
        DateTimeOffset SeenLastAt,
        double? Score,
        int Replies
    );

    private sealed record CourseRow(Guid CourseId, int Learners, int Whole);
}
