using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Naming;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Releasing;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Makes one package of a whole course, its lessons in the trainer's order.</summary>
internal sealed class CourseReleaser(
    WexelDb db,
    ProfileShelf shelf,
    ReadyLessons lessons,
    Packer packer,
    PackageDeliverer deliverer,
    StandingReader standings,
    TimeProvider clock
)
{
    private static string Identifier(CourseRelease release) => $"course-{release.CourseId:N}";

    /// <summary>Puts a course's package at its outlet.</summary>
    internal async Task<Problem?> SendAsync(CourseRelease release, KnownOutlet outlet, CancellationToken cancel) =>
        await deliverer.DeliverAsync(release, outlet, await NameThereAsync(release, outlet, cancel), cancel);

    /// <summary>Takes a course down: what was put there goes where that can be, and its package is handed on no more.</summary>
    internal async Task<Problem?> TakeDownAsync(CourseRelease release, KnownOutlet outlet, CancellationToken cancel)
    {
        if (await deliverer.TakeBackAsync(release, outlet, cancel) is { } problem)
            return problem;
        db.CourseReleases.Remove(release);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>The name of what is put at the outlet: one that was put there keeps the name that it has.</summary>
    private async Task<string> NameThereAsync(CourseRelease release, KnownOutlet outlet, CancellationToken cancel)
    {
        if (!outlet.Kind.IsNamedAfterLesson)
            return Identifier(release);
        if (PackageDeliverer.FolderThere(release) is { } now)
            return now;
        var lessonsThere = await db.Releases.IgnoreQueryFilters().AsNoTracking().Where(r => r.OutletId == outlet.Row.Id && r.There != null).ToListAsync(cancel);
        return deliverer.Unused(
            outlet,
            FileName.Safe(release.Course!.Title, "course"),
            [.. lessonsThere.Select(PackageDeliverer.FolderThere).OfType<string>()]
        );
    }

    internal async Task<Result<CourseRelease>> ReleaseAsync(Course course, KnownOutlet outlet, string profileId, CancellationToken cancel)
    {
        if (await shelf.FindAsync(profileId, cancel) is not { } profile)
            return new Problem("profile-unknown", "Choose a profile that the lessons were rendered with.", "profileId");
        if (outlet.Refusal(profile) is { } refusal)
            return refusal;
        if (course.Lessons.Count == 0)
            return new Problem("course-empty", $"“{course.Title}” has no lessons yet. Bring in a recording first.");
        var standing = await standings.ReadAsync(cancel);
        var ready = new List<LessonSources>();
        var missing = new List<string>();
        foreach (var lesson in course.Lessons.OrderBy(l => l.Position))
        {
            if ((await lessons.EncodedAsync(lesson, profile, cancel)).Is(out var planned, out var problem))
                problem = await lessons.BlockedAsync(outlet, planned, cancel);
            if (planned is not null && problem is null)
                ready.Add(await lessons.PackedAsync(lesson.Id, planned, standing.Details(outlet, planned.Lesson.Document.Said, DetailSet.None).Values, cancel));
            else
                missing.Add(
                    $"{lesson.Position} {(lesson.Title.Length > 0 ? $"“{lesson.Title}”" : "(needs a title)")}"
                        + $"{(problem!.Code == "render-first" ? "" : $": {problem.Sentence}")}"
                );
        }

        if (missing.Count > 0)
            return new Problem(
                "course-not-rendered",
                $"These lessons are not rendered with “{profile.Title}” as they stand now: {string.Join(", ", missing)}. Render them, then make the package."
            );

        var release = await db.CourseReleases.FirstOrDefaultAsync(r => r.CourseId == course.Id && r.OutletId == outlet.Row.Id, cancel);
        if (release is null)
            db.CourseReleases.Add(
                release = new CourseRelease
                {
                    CourseId = course.Id,
                    OutletId = outlet.Row.Id,
                    ProfileId = profile.Id,
                    Profile = "{}",
                    MadeFrom = "",
                }
            );
        var key = standing.Wanted(outlet, course, profile);
        (release.ProfileId, release.Profile, release.MadeFrom, release.ReleasedAt) = (profile.Id, Profile.Format.Write(profile), key, clock.GetUtcNow());
        var files = outlet.Terms.Package(packer.Sources(Identifier(release), course.Title, ready, course.Description))!;
        if (outlet.Kind.DeliversFiles)
            files = PackageFile.Within(files, FileName.Safe(course.Title, "course"));
        ReleaseSteps.Note(release, await packer.PackAsync(files, cancel), key);
        await db.SaveChangesAsync(cancel);
        return release;
    }
}
