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

    /// <summary>The key that is wanted of a lesson at an outlet, with the profile that it is released with.</summary>
    internal string Wanted(OutletPlace outlet, Lesson lesson, string profileId) =>
        ReleaseKeys.Wanted(outlet.Terms, new LessonAtHand(lesson.ContentKey, lesson.WantsMark), _profiles.GetValueOrDefault(profileId), house, outlet.Row.Feed?.ArtworkKey);

    /// <summary>Whether another key is wanted of a lesson at an outlet than the one that stands there.</summary>
    internal bool IsBehind(OutletPlace outlet, Release release, Lesson lesson) => release.MadeFrom != Wanted(outlet, lesson, release.ProfileId);

    /// <summary>Where a lesson stands, and whether what stands there is behind.</summary>
    internal IEnumerable<ReleaseMark> MarksOf(Lesson lesson) => outlets.OrderBy(o => o.Row.Name, StringComparer.CurrentCulture)
        .Select(o => (Outlet: o, Release: lesson.Releases.FirstOrDefault(r => r.OutletId == o.Row.Id))).Where(o => o.Release is not null)
        .Select(o => new ReleaseMark(o.Outlet.Row.Name, IsBehind(o.Outlet, o.Release!, lesson)));

    /// <summary>The key that is wanted of a whole course at an outlet.</summary>
    internal string Wanted(OutletPlace outlet, Course course, string profileId) =>
        ReleaseKeys.WantedOfCourse(course.Title, [.. course.Lessons.OrderBy(l => l.Position).Select(l => Wanted(outlet, l, profileId))]);
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
