using Hangfire;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Naming;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Releasing;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Takes what people want of whole courses, and does the steps: one package of a course's lessons in the trainer's order, put at its outlet.</summary>
internal sealed class CourseReleaser(
    WexelDb db,
    ProfileShelf shelf,
    OutletShelf outlets,
    ReadyLessons lessons,
    Packer packer,
    PackageDeliverer deliverer,
    StandingReader standings,
    WantedRenders renders,
    FileStore store,
    IBackgroundJobClient jobs,
    TimeProvider clock
) : IRenderCare
{
    private static string Identifier(CourseRelease release) => $"course-{release.CourseId:N}";

    /// <summary>Wants a course at an outlet; what keeps it from going there is said at once.</summary>
    internal Task<Result<Guid>> WantAsync(Guid courseId, Guid outletId, string profileId, Guid person, CancellationToken cancel) =>
        LastSaysAsync(() => WantOnceAsync(courseId, outletId, profileId, person, cancel));

    /// <summary>Has a course taken down, in the background: what was put there goes where that can be, and its package is handed on no more.</summary>
    /// <returns>Whether there was such a release.</returns>
    internal Task<bool> TakeDownAsync(Guid id, CancellationToken cancel) =>
        LastSaysAsync(async () =>
        {
            if (await db.CourseReleases.FirstOrDefaultAsync(r => r.Id == id, cancel) is not { } release)
                return false;
            await SayAsync(release, wantsDown: true, cancel);
            return true;
        });

    /// <summary>Says something of a course; where somebody else said something a moment before, the last who speaks has it.</summary>
    private async Task<T> LastSaysAsync<T>(Func<Task<T>> say)
    {
        while (true)
        {
            try
            {
                return await say();
            }
            catch (DbUpdateException failed)
                when (failed is DbUpdateConcurrencyException || failed.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
            {
                db.ChangeTracker.Clear();
            }
        }
    }

    private async Task<Result<Guid>> WantOnceAsync(Guid courseId, Guid outletId, string profileId, Guid person, CancellationToken cancel)
    {
        var course = await db.Courses.Include(c => c.Lessons).FirstAsync(c => c.Id == courseId, cancel);
        var outlet = (await outlets.FindAsync(outletId, cancel))!;
        if (!(await ProfileAsync(outlet, profileId, cancel)).Is(out var profile, out var problem))
            return problem;
        if (!(await PlannedAsync(course, profile, cancel)).Is(out _, out var refused))
            return refused;
        var release = await db.CourseReleases.FirstOrDefaultAsync(r => r.CourseId == courseId && r.OutletId == outletId, cancel);
        if (release is null)
            db.CourseReleases.Add(
                release = new CourseRelease
                {
                    CourseId = courseId,
                    OutletId = outletId,
                    ProfileId = "",
                    Profile = "{}",
                    MadeFrom = "",
                }
            );
        (release.WantedProfileId, release.AskedBy, release.AskedAt) = (profileId, person, clock.GetUtcNow());
        await SayAsync(release, wantsDown: false, cancel);
        return release.Id;
    }

    private async Task SayAsync(CourseRelease release, bool wantsDown, CancellationToken cancel)
    {
        (release.WantsDown, release.Problem, release.SentBytes, release.BytesToSend) = (wantsDown, null, 0, null);
        release.Go(ReleasePhase.Planned, clock.GetUtcNow());
        db.Say(release, SaidOfReleases.Wanting);
        await db.SaveChangesAsync(cancel);
        Call(release.Id);
    }

    /// <summary>Tells a worker that something may be to do for a course.</summary>
    internal void Call(Guid id) => jobs.Enqueue<CourseReleaseJob>(job => job.RunAsync(id, CancellationToken.None));

    /// <summary>Whether its package is another than the one that is wanted.</summary>
    internal async Task<bool> IsToPackAsync(CourseRelease release, CancellationToken cancel) =>
        release.PackageKey is null
        || release.ProfileId != release.WantedProfileId
        || (await standings.ReadAsync(cancel)).IsBehind(outlets.Known(release.Outlet!), release, release.Course!);

    /// <summary>Whether some of its lessons must be encoded before it can be packed.</summary>
    internal async Task<bool> IsToRenderAsync(CourseRelease release, CancellationToken cancel) =>
        await shelf.FindAsync(release.WantedProfileId, cancel) is { } profile
        && (await PlannedAsync(release.Course!, profile, cancel)).Is(out var planned, out _)
        && planned.Any(p => !p.Planned.IsEncoded(store));

    /// <summary>Has those of its lessons encoded that are not, unless that is under way.</summary>
    /// <returns>Why one of them will not be encoded; null where all are waited for.</returns>
    internal async Task<Problem?> RenderAsync(CourseRelease release, CancellationToken cancel)
    {
        if (!(await ProfileAsync(outlets.Known(release.Outlet!), release.WantedProfileId, cancel)).Is(out var profile, out var problem))
            return problem;
        if (!(await PlannedAsync(release.Course!, profile, cancel)).Is(out var planned, out var refused))
            return refused;
        var failed = new List<string>();
        foreach (var (lesson, rendition) in planned.Where(p => !p.Planned.IsEncoded(store)))
        {
            var why = await renders.AskAsync(lesson, rendition, profile, release.AskedBy ?? Guid.Empty, release.AskedAt, NoOthers, cancel);
            if (why is not null)
                failed.Add(Named(lesson, why));
        }

        return failed.Count == 0 ? null : new Problem("course-not-rendered", $"The course waits for {string.Join(' ', failed)}");
    }

    /// <inheritdoc/>
    public async Task EndedAsync(IReadOnlyCollection<Guid> lessons, CancellationToken cancel)
    {
        var waiting = db.CourseReleases.Where(r => r.Phase == ReleasePhase.Rendering && r.Course!.Lessons.Any(l => lessons.Contains(l.Id))).Select(r => r.Id);
        foreach (var id in await waiting.ToListAsync(cancel))
            Call(id);
    }

    /// <summary>Makes the package.</summary>
    /// <returns>What stood in the way, or null.</returns>
    internal async Task<Problem?> PackAsync(CourseRelease release, CancellationToken cancel)
    {
        var (course, outlet) = (release.Course!, outlets.Known(release.Outlet!));
        if (!(await ProfileAsync(outlet, release.WantedProfileId, cancel)).Is(out var profile, out var problem))
            return problem;
        if (!(await PlannedAsync(course, profile, cancel)).Is(out var planned, out var refused))
            return refused;
        if (await BlockedAsync(outlet, planned, cancel) is { } blocked)
            return blocked;
        var standing = await standings.ReadAsync(cancel);
        var key = standing.Wanted(outlet, course, profile);
        var ready = new List<LessonSources>();
        foreach (var (lesson, rendition) in planned)
            ready.Add(await lessons.PackedAsync(lesson.Id, rendition, standing.Details(outlet, rendition.Lesson.Document.Said, DetailSet.None).Values, cancel));
        var files = outlet.Terms.Package(packer.Sources(Identifier(release), course.Title, ready, course.Description))!;
        if (outlet.Kind.DeliversFiles)
            files = PackageFile.Within(files, FileName.Safe(course.Title, "course"));
        ReleaseSteps.Note(release, await packer.PackAsync(files, cancel), key);
        (release.ProfileId, release.Profile, release.MadeFrom, release.ReleasedAt) = (profile.Id, Profile.Format.Write(profile), key, clock.GetUtcNow());
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Puts a course's package at its outlet.</summary>
    internal async Task<Problem?> SendAsync(CourseRelease release, CancellationToken cancel)
    {
        var outlet = outlets.Known(release.Outlet!);
        return await deliverer.DeliverAsync(release, outlet, await NameThereAsync(release, outlet, cancel), cancel);
    }

    /// <summary>Takes away what was put at the outlet, where that can be done from here.</summary>
    internal Task<Problem?> TakeBackAsync(CourseRelease release, CancellationToken cancel) =>
        deliverer.TakeBackAsync(release, outlets.Known(release.Outlet!), cancel);

    private async Task<Result<Profile>> ProfileAsync(KnownOutlet outlet, string profileId, CancellationToken cancel)
    {
        if (await shelf.FindAsync(profileId, cancel) is not { } profile)
            return new Problem("profile-unknown", "Choose a profile that the lessons were rendered with.", "profileId");
        return outlet.Refusal(profile) is { } refusal ? refusal : profile;
    }

    /// <summary>A course's lessons as they stand, planned with a profile; or what keeps some of them from being made.</summary>
    private async Task<Result<IReadOnlyList<(Lesson Lesson, PlannedRendition Planned)>>> PlannedAsync(Course course, Profile profile, CancellationToken cancel)
    {
        if (course.Lessons.Count == 0)
            return new Problem("course-empty", $"“{course.Title}” has no lessons yet. Bring in a recording first.");
        var (ready, missing) = (new List<(Lesson, PlannedRendition)>(), new List<string>());
        foreach (var lesson in course.Lessons.OrderBy(l => l.Position))
        {
            if ((await lessons.PlannedAsync(lesson, profile, cancel)).Is(out var planned, out var problem))
                ready.Add((lesson, planned));
            else
                missing.Add(Named(lesson, problem));
        }

        return missing.Count == 0 ? ready : new Problem("course-not-ready", $"The course waits for {string.Join(' ', missing)}");
    }

    /// <summary>What of its finished files keeps a course from an outlet, or null; they are finished and checked where they were not.</summary>
    private async Task<Problem?> BlockedAsync(KnownOutlet outlet, IReadOnlyList<(Lesson Lesson, PlannedRendition Planned)> planned, CancellationToken cancel)
    {
        var blocked = new List<string>();
        foreach (var (lesson, rendition) in planned)
        {
            if (await lessons.BlockedAsync(outlet, rendition, cancel) is { } problem)
                blocked.Add(Named(lesson, problem));
        }

        return blocked.Count == 0 ? null : new Problem("course-blocked", $"The course waits for {string.Join(' ', blocked)}");
    }

    private static string Named(Lesson lesson, Problem why) =>
        $"lesson {lesson.Position}{(lesson.Title.Length > 0 ? $" “{lesson.Title}”" : "")}: {why.Sentence}";

    private static Task<IReadOnlyList<Profile>> NoOthers() => Task.FromResult<IReadOnlyList<Profile>>([]);

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
}
