using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making;
using Wexel.Server.Kit;
using Wexel.Server.Outlets;
using Wexel.Server.Profiles;
using Wexel.Server.Setup;

namespace Wexel.Server.Releases;

/// <summary>All by which it is judged what stands at outlets and what is wanted there, read once for as many lessons as are looked at.</summary>
internal sealed class Standing(IReadOnlyList<OutletPlace> outlets, IReadOnlyList<Profile> profiles, HouseKeys house, WexelOptions options)
{
    private readonly Dictionary<string, Profile> _profiles = profiles.ToDictionary(p => p.Id);
    private readonly Dictionary<Guid, IReadOnlyList<ProfileRefusal>> _refused = [];

    internal IReadOnlyList<OutletPlace> Outlets => outlets;

    internal WexelOptions Options => options;

    /// <summary>The profiles that an outlet does not take.</summary>
    internal IReadOnlyList<ProfileRefusal> Refused(OutletPlace outlet) =>
        _refused.TryGetValue(outlet.Row.Id, out var known) ? known : _refused[outlet.Row.Id] = OutletEndpoints.Refused(outlet, profiles);

    /// <summary>The key that is wanted of a lesson at an outlet, with a profile.</summary>
    internal string Wanted(OutletPlace outlet, Lesson lesson, Profile profile) =>
        ReleaseKeys.Wanted(outlet.Terms, new LessonAtHand(lesson.ContentKey, lesson.WantsMark), profile, house, outlet.Row.Feed?.ArtworkKey);

    /// <summary>Whether another key is wanted of a lesson at an outlet than the one that stands there.</summary>
    internal bool IsBehind(OutletPlace outlet, Release release, Lesson lesson) => release.MadeFrom != Wanted(outlet, lesson, ProfileOf(release, release.ProfileId));

    /// <summary>Whether another key is wanted of a course than the one of its package.</summary>
    internal bool IsBehind(OutletPlace outlet, CourseRelease release, Course course) => release.MadeFrom != Wanted(outlet, course, ProfileOf(release, release.ProfileId));

    /// <summary>The profile as it is now; one that is gone as it was.</summary>
    private Profile ProfileOf(PackagedRelease release, string id) => _profiles.GetValueOrDefault(id) ?? Profile.Format.Read(release.Profile);

    /// <summary>Where a lesson stands, and whether what stands there is behind.</summary>
    internal IEnumerable<ReleaseMark> MarksOf(Lesson lesson) => outlets.OrderBy(o => o.Row.Name, StringComparer.CurrentCulture)
        .Select(o => (Outlet: o, Release: lesson.Releases.FirstOrDefault(r => r.OutletId == o.Row.Id))).Where(o => o.Release is not null)
        .Select(o => new ReleaseMark(o.Outlet.Row.Name, IsBehind(o.Outlet, o.Release!, lesson)));

    /// <summary>The key that is wanted of a whole course at an outlet.</summary>
    internal string Wanted(OutletPlace outlet, Course course, Profile profile) =>
        ReleaseKeys.WantedOfCourse(course.Title, [.. course.Lessons.OrderBy(l => l.Position).Select(l => Wanted(outlet, l, profile))]);
}

/// <summary>A release in a list of lessons.</summary>
internal sealed record ReleaseMark(string Outlet, bool Behind);

/// <summary>Reads what is judged by.</summary>
internal sealed class StandingReader(WexelDb db, OutletShelf outlets, ProfileShelf shelf, PlayerHash player, IOptions<WexelOptions> options)
{
    internal async Task<Standing> ReadAsync(CancellationToken cancel) => new(
        await outlets.AllAsync(cancel), await shelf.AllAsync(cancel),
        new HouseKeys(HouseKeeper.OnPictures(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel))?.WholeKey, player.Value), options.Value);
}
