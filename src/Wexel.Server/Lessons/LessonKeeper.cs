using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Live;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Lessons;

/// <summary>A lesson in the bin.</summary>
/// <param name="Id">The lesson.</param>
/// <param name="Title">Its title; may be empty.</param>
/// <param name="Course">The course that it was in.</param>
/// <param name="Length">How long it is.</param>
/// <param name="BinnedAt">Since when it is there.</param>
/// <param name="GoneAt">When it is deleted for good.</param>
/// <param name="Learners">How many learners have watched it; what is known of that goes with it.</param>
internal sealed record BinnedLesson(Guid Id, string Title, string Course, TimeSpan Length, DateTimeOffset BinnedAt, DateTimeOffset GoneAt, int Learners);

/// <summary>Moves lessons between courses, copies them, puts them into the bin, and takes them out; what lies there long enough is deleted for good.</summary>
internal sealed class LessonKeeper(WexelDb db, LessonSaver saver, FileStore store, LiveNews news, IOptions<WexelOptions> options, TimeProvider clock) : IUpkeep
{
    public TimeSpan Every => TimeSpan.FromHours(1);

    /// <summary>Deletes for good what has lain in the bin long enough.</summary>
    public async Task DoAsync(CancellationToken cancel)
    {
        var before = clock.GetUtcNow() - options.Value.BinKeeps;
        foreach (var id in await InBin.Where(l => l.BinnedAt < before).Select(l => l.Id).ToListAsync(cancel))
            await DeleteAsync(id, cancel);
    }

    private IQueryable<Lesson> InBin => db.Lessons.IgnoreQueryFilters().Where(l => l.BinnedAt != null);

    /// <summary>Moves lessons behind those of a course, in the order in which they are named.</summary>
    internal async Task<Problem?> MoveAsync(IReadOnlyList<Guid> lessons, Guid course, CancellationToken cancel)
    {
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        await CoursePlaces.HoldAsync(db, cancel);
        if (!await db.Courses.AnyAsync(c => c.Id == course, cancel))
            return new Problem("course-gone", "The course was deleted meanwhile. Choose another.", "courseId");
        var rows = await db.Lessons.Where(l => lessons.Contains(l.Id)).ToDictionaryAsync(l => l.Id, cancel);
        if (lessons.FirstOrDefault(id => !rows.ContainsKey(id)) is var gone && gone != Guid.Empty)
            return new Problem("lesson-gone", "One of the lessons was deleted meanwhile. Look at them again.", "lessons");
        var position = await CoursePlaces.BehindAsync(db, course, cancel);
        var left = rows.Values.Select(l => l.CourseId).Where(c => c != course).Distinct().ToList();
        foreach (var lesson in lessons.Distinct().Select(id => rows[id]).Where(l => l.CourseId != course))
            (lesson.CourseId, lesson.Position) = (course, position++);
        await db.SaveChangesAsync(cancel);
        foreach (var from in left)
            await CoursePlaces.CloseUpAsync(db, from, cancel);
        await all.CommitAsync(cancel);
        await news.LessonAsync(Guid.Empty);
        return null;
    }

    /// <summary>Copies a lesson as it stands, behind it; its releases and what learners did stay with the first.</summary>
    internal async Task<Result<Lesson>> CopyAsync(Guid id, ClaimsPrincipal by, CancellationToken cancel)
    {
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        await CoursePlaces.HoldAsync(db, cancel);
        if (await db.Lessons.FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return new Problem("lesson-gone", "The lesson was deleted meanwhile.");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        await db
            .Lessons.Where(l => l.CourseId == lesson.CourseId && l.Position > lesson.Position)
            .ExecuteUpdateAsync(set => set.SetProperty(l => l.Position, l => l.Position + 1), cancel);
        var title = document.Title.Length == 0 ? "" : $"{document.Title}, copy";
        var copy = new Lesson
        {
            CourseId = lesson.CourseId,
            Position = lesson.Position + 1,
            OwnerId = by.Id(),
            Title = title,
            RecordingHash = lesson.RecordingHash,
            Suggesting = lesson.Suggesting,
            Length = lesson.Length,
        };
        db.Lessons.Add(copy);
        saver.AddFirst(copy, document with { Title = title }, $"copied from “{document.Title}”", by.Identity!.Name!);
        await db.SaveChangesAsync(cancel);
        await all.CommitAsync(cancel);
        await news.LessonAsync(copy.Id);
        return copy;
    }

    /// <summary>Puts lessons into the bin; all of them, or none where one stands at an outlet. What of them was to be rendered is stopped.</summary>
    internal async Task<Problem?> BinAsync(IReadOnlyList<Guid> lessons, CancellationToken cancel)
    {
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        await CoursePlaces.HoldAsync(db, cancel);
        var standing = await db
            .Releases.IgnoreQueryFilters()
            .Where(r => lessons.Contains(r.LessonId) && r.Phase != ReleasePhase.TakenDown)
            .Select(r => new { r.Lesson!.Title, r.Outlet!.Name })
            .ToListAsync(cancel);
        if (standing.Count > 0)
            return new Problem(
                "lesson-released",
                "Take these down first, since learners would find nothing there: "
                    + $"{string.Join("; ", standing.GroupBy(s => s.Title).Select(l => $"“{l.Key}” at {string.Join(", ", l.Select(s => s.Name).Order())}"))}."
            );
        await db
            .Renditions.Where(r =>
                lessons.Contains(r.LessonId) && (r.State == RenditionState.Waiting || r.State == RenditionState.Working || r.State == RenditionState.Held)
            )
            .ExecuteUpdateAsync(
                set => set.SetProperty(r => r.State, RenditionState.Cancelled).SetProperty(r => r.EndedAt, clock.GetUtcNow()).SetProperty(r => r.Progress, 0),
                cancel
            );
        var now = clock.GetUtcNow();
        var courses = await db.Lessons.Where(l => lessons.Contains(l.Id)).Select(l => l.CourseId).Distinct().ToListAsync(cancel);
        await db.Lessons.Where(l => lessons.Contains(l.Id)).ExecuteUpdateAsync(set => set.SetProperty(l => l.BinnedAt, now), cancel);
        foreach (var course in courses)
            await CoursePlaces.CloseUpAsync(db, course, cancel);
        await all.CommitAsync(cancel);
        await news.LessonAsync(Guid.Empty);
        return null;
    }

    /// <summary>What lies in the bin, the last first.</summary>
    internal async Task<IReadOnlyList<BinnedLesson>> BinnedAsync(CancellationToken cancel)
    {
        var keeps = options.Value.BinKeeps;
        var rows = await InBin
            .OrderByDescending(l => l.BinnedAt)
            .Select(l => new
            {
                l.Id,
                l.Title,
                Course = l.Course!.Title,
                l.Length,
                BinnedAt = l.BinnedAt!.Value,
                Learners = db.LearnerRecords.Count(r => r.LessonId == l.Id),
            })
            .ToListAsync(cancel);
        return [.. rows.Select(l => new BinnedLesson(l.Id, l.Title, l.Course, l.Length, l.BinnedAt, l.BinnedAt + keeps, l.Learners))];
    }

    /// <summary>Takes a lesson out of the bin, behind the others of its course.</summary>
    /// <returns>Whether it was there.</returns>
    internal async Task<bool> RestoreAsync(Guid id, CancellationToken cancel)
    {
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        await CoursePlaces.HoldAsync(db, cancel);
        if (await InBin.FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return false;
        (lesson.Position, lesson.BinnedAt) = (await CoursePlaces.BehindAsync(db, lesson.CourseId, cancel), null);
        await db.SaveChangesAsync(cancel);
        await all.CommitAsync(cancel);
        await news.LessonAsync(id);
        return true;
    }

    /// <summary>Deletes a lesson of the bin for good, with what learners did in it, and the recordings that no other lesson is made of.</summary>
    /// <returns>Whether it was there.</returns>
    internal async Task<bool> DeleteAsync(Guid id, CancellationToken cancel)
    {
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        await CoursePlaces.HoldAsync(db, cancel);
        if (await InBin.FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return false;
        var recordings = await RecordingsAsync(id, cancel);
        db.Lessons.Remove(lesson);
        await db.SaveChangesAsync(cancel);
        var unused = new List<Recording>();
        foreach (var recording in await db.Recordings.Where(r => recordings.Contains(r.Hash)).ToListAsync(cancel))
        {
            if (!await IsUsedAsync(recording.Hash, cancel))
                unused.Add(recording);
        }

        db.Recordings.RemoveRange(unused);
        await db.SaveChangesAsync(cancel);
        await all.CommitAsync(cancel);
        foreach (var recording in unused)
            Remove(recording);
        await news.LessonAsync(id);
        return true;
    }

    /// <summary>Whether a lesson is made of a recording, also by an earlier revision, to which somebody may go back.</summary>
    private Task<bool> IsUsedAsync(string hash, CancellationToken cancel) =>
        db
            .Database.SqlQuery<bool>($"select exists (select 1 from \"LessonRevisions\" where strpos(\"Document\"::text, {hash}) > 0) as \"Value\"")
            .SingleAsync(cancel);

    /// <summary>Removes a recording's file, and what was made of it to work with.</summary>
    private void Remove(Recording recording)
    {
        var facts = WexelJson.Read<RecordingFacts>(recording.Facts);
        foreach (
            var key in new[]
            {
                RecordingKeys.Pictures(recording.Hash),
                RecordingKeys.Strips(recording.Hash),
                RecordingKeys.ViewingCopy(recording.Hash, facts.Used),
            }
        )
            store.Remove(key, null);
        store.RemoveRecording(recording.Hash);
    }

    /// <summary>The hashes of all recordings that a lesson was ever made of.</summary>
    private async Task<List<string>> RecordingsAsync(Guid id, CancellationToken cancel) =>
        [
            .. (await db.LessonRevisions.Where(r => r.LessonId == id).Select(r => r.Document).ToListAsync(cancel))
                .SelectMany(text => Core.Lessons.LessonDocument.Format.Read(text).AllRecordings)
                .Distinct(),
        ];
}
