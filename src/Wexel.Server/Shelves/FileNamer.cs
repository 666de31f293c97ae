using Microsoft.EntityFrameworkCore;
using Wexel.Core.Naming;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Shelves;

/// <summary>Names what is made and downloaded after its lesson, as the house says.</summary>
internal sealed class FileNamer(WexelDb db, TimeProvider clock)
{
    private readonly Dictionary<Guid, string?> _courses = [];
    private NamePattern? _pattern;

    /// <summary>The name of a file of a lesson, without its ending.</summary>
    /// <param name="lesson">The lesson; its course is read where it is not there.</param>
    /// <param name="profile">What it was made with, in words; null where that is not told apart.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<string> NameAsync(Lesson lesson, string? profile, CancellationToken cancel)
    {
        _pattern ??= HouseShelf.Pattern(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel));
        if (!_courses.TryGetValue(lesson.CourseId, out var course))
            _courses[lesson.CourseId] = course = lesson.Course?.Title
                ?? await db.Courses.Where(c => c.Id == lesson.CourseId).Select(c => c.Title).FirstOrDefaultAsync(cancel);
        return _pattern.Name(
            new NameParts(
                lesson.Title,
                DetailShelf.Said(lesson).ShortTitle,
                course,
                lesson.Position,
                profile,
                DateOnly.FromDateTime(clock.GetLocalNow().DateTime)
            )
        );
    }

    /// <summary>The same of a lesson by its number; null where there is no such lesson.</summary>
    internal async Task<string?> NameAsync(Guid lesson, CancellationToken cancel) =>
        await db.Lessons.AsNoTracking().Include(l => l.Course).FirstOrDefaultAsync(l => l.Id == lesson, cancel) is { } found
            ? await NameAsync(found, null, cancel)
            : null;
}
