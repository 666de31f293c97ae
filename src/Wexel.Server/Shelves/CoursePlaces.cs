using Microsoft.EntityFrameworkCore;
using Wexel.Data;

namespace Wexel.Server.Shelves;

/// <summary>The places of lessons in their courses, 1 and on without gaps.</summary>
internal static class CoursePlaces
{
    /// <summary>
    /// Waits until nobody else changes them, until the transaction ends: two lessons that come to a course at once stand one behind the other, and no
    /// course goes while one comes.
    /// </summary>
    internal static Task HoldAsync(WexelDb db, CancellationToken cancel) =>
        db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock(hashtextextended('new lesson', 0))", cancel);

    /// <summary>The place behind all lessons of a course.</summary>
    internal static async Task<int> BehindAsync(WexelDb db, Guid course, CancellationToken cancel) =>
        (await db.Lessons.Where(l => l.CourseId == course).MaxAsync(l => (int?)l.Position, cancel) ?? 0) + 1;

    /// <summary>Closes up a course from which lessons went.</summary>
    internal static Task CloseUpAsync(WexelDb db, Guid course, CancellationToken cancel) =>
        db.Database.ExecuteSqlAsync(
            $"""
            update "Lessons" lesson set "Position" = placed.place
            from (select "Id", row_number() over (order by "Position", "Id") as place from "Lessons" where "CourseId" = {course} and "BinnedAt" is null) placed
            where lesson."Id" = placed."Id" and lesson."Position" <> placed.place
            """,
            cancel
        );
}
