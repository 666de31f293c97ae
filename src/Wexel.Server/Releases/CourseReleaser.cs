using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Releasing;
using Wexel.Server.Profiles;

namespace Wexel.Server.Releases;

/// <summary>A lesson in a course's package, as it stood.</summary>
internal sealed record LessonAt(Guid Lesson, int Revision);

/// <summary>Makes one package of a whole course, its lessons in the trainer's order.</summary>
internal sealed class CourseReleaser(WexelDb db, ProfileShelf shelf, Releaser releaser, Packer packer, TimeProvider clock)
{
    internal static string Identifier(CourseRelease release) => $"course-{release.CourseId:N}";

    /// <summary>What a package made now would be made from.</summary>
    internal static IReadOnlyList<LessonAt> MadeFrom(Course course) => [.. course.Lessons.OrderBy(l => l.Position).Select(l => new LessonAt(l.Id, l.Revision))];

    internal async Task<(CourseRelease? Release, Problem? Problem)> ReleaseAsync(Course course, Outlet outlet, string profileId, CancellationToken cancel)
    {
        if (await shelf.FindAsync(profileId, cancel) is not { } profile)
            return (null, new Problem("profile-unknown", "Choose a profile that the lessons were rendered with.", "profileId"));
        if (OutletTakes.Refusal(outlet.Kind, null, profile) is { } refusal)
            return (null, refusal);
        if (course.Lessons.Count == 0)
            return (null, new Problem("course-empty", $"“{course.Title}” has no lessons yet. Bring in a recording first."));
        var ready = new List<LessonSources>();
        var missing = new List<string>();
        foreach (var lesson in course.Lessons.OrderBy(l => l.Position))
        {
            var (found, problem) = await releaser.ReadyAsync(lesson, profile, cancel);
            if (found is not null)
                problem = await releaser.BlockedAsync(found, cancel);
            if (found is not null && problem is null)
                ready.Add(releaser.Packed(lesson.Id, found));
            else
                missing.Add($"{lesson.Position} {(lesson.Title.Length > 0 ? $"“{lesson.Title}”" : "(needs a title)")}{(problem!.Code == "render-first" ? "" : $": {problem.Sentence}")}");
        }

        if (missing.Count > 0)
            return (null, new Problem("course-not-rendered", $"These lessons are not rendered with “{profile.Title}” as they stand now: {string.Join(", ", missing)}. Render them, then make the package."));

        var release = await db.CourseReleases.FirstOrDefaultAsync(r => r.CourseId == course.Id && r.OutletId == outlet.Id, cancel);
        if (release is null)
            db.CourseReleases.Add(release = new CourseRelease { CourseId = course.Id, OutletId = outlet.Id, ProfileId = profile.Id, MadeFrom = "[]" });
        (release.ProfileId, release.MadeFrom, release.ReleasedAt) = (profile.Id, WexelJson.Write(MadeFrom(course)), clock.GetUtcNow());
        Releaser.Note(release, await packer.PackAsync(packer.Plan(outlet.Kind, Identifier(release), course.Title, ready), cancel));
        await db.SaveChangesAsync(cancel);
        return (release, null);
    }
}
