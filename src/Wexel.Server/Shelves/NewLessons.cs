using Microsoft.EntityFrameworkCore;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Shelves;

/// <summary>Makes a lesson of what was brought in.</summary>
internal sealed class NewLessons(WexelDb db, LessonSaver saver)
{
    /// <summary>Adds it behind the others; the upload learns of it in the same step in which there is one.</summary>
    /// <param name="upload">What it is made of.</param>
    /// <param name="id">What names it for good; null where nothing does yet, or where a lesson of that name is here.</param>
    /// <param name="length">How long it is.</param>
    /// <param name="document">Gives its first revision, by the title that somebody typed meanwhile; null where nobody did.</param>
    /// <param name="changes">How it came to be, in a few words.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task AddAsync(Upload upload, Guid? id, TimeSpan length, Func<string?, LessonDocument> document, string changes, CancellationToken cancel)
    {
        await using var adding = await db.Database.BeginTransactionAsync(cancel);
        // A title may be typed in this moment: it comes before, or finds the lesson.
        await db.Database.ExecuteSqlAsync($"select 1 from \"Uploads\" where \"Id\" = {upload.Id} for update", cancel);
        await db.Entry(upload).ReloadAsync(cancel);
        await CoursePlaces.HoldAsync(db, cancel);
        var first = document(string.IsNullOrWhiteSpace(upload.Title) ? null : upload.Title);
        var course = await db.Courses.OrderBy(c => c.Position).ThenBy(c => c.Id).FirstOrDefaultAsync(cancel);
        if (course is null)
            db.Courses.Add(course = new Course { Title = "Lessons" });
        var position = await CoursePlaces.BehindAsync(db, course.Id, cancel);
        var isFree = id is { } wanted && !await db.Lessons.IgnoreQueryFilters().AnyAsync(l => l.Id == wanted, cancel);
        var lesson = new Lesson
        {
            Id = isFree ? id!.Value : Guid.CreateVersion7(),
            CourseId = course.Id,
            Position = position,
            // What was handed in by nobody is whoever's who first releases it.
            OwnerId = upload.By == Guid.Empty ? null : upload.By,
            Title = first.Title,
            RecordingHash = first.RecordingHash,
            Length = length,
        };
        db.Lessons.Add(lesson);
        saver.AddFirst(lesson, first, changes, upload.ByName);
        upload.Became(lesson.Id, knownBefore: false);
        upload.RecordingHash = first.RecordingHash;
        await db.SaveChangesAsync(cancel);
        await adding.CommitAsync(cancel);
    }
}
