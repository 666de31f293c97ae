using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Releasing;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Makes one package of a whole course, its lessons in the trainer's order.</summary>
internal sealed class CourseReleaser(WexelDb db, ProfileShelf shelf, ReadyLessons lessons, Packer packer, StandingReader standings, TimeProvider clock)
{
    internal static string Identifier(CourseRelease release) => $"course-{release.CourseId:N}";

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
        ReleaseSteps.Note(release, await packer.PackAsync(outlet.Terms.Package(packer.Sources(Identifier(release), course.Title, ready))!, cancel), key);
        await db.SaveChangesAsync(cancel);
        return release;
    }
}
