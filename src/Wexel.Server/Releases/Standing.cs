using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making;
using Wexel.Server.Outlets;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>All by which it is judged what stands at outlets and what is wanted there, read once for as many lessons as are looked at.</summary>
internal sealed class Standing(
    IReadOnlyList<KnownOutlet> outlets,
    IReadOnlyList<Profile> profiles,
    HouseKeys house,
    ReckonedKeys reckoned,
    WexelOptions options
)
{
    /// <summary>What the house gives to what it makes.</summary>
    internal HouseKeys House => house;

    private readonly Dictionary<string, Profile> _profiles = profiles.ToDictionary(p => p.Id);
    private readonly Dictionary<Guid, IReadOnlyList<ProfileRefusal>> _refused = [];
    private readonly Dictionary<string, Profile> _gone = [];

    // One of another reading of the shelf may be another profile under the same name.
    private readonly Dictionary<Profile, Dictionary<Guid, WantedAt>> _wanted = new(ReferenceEqualityComparer.Instance);

    internal IReadOnlyList<KnownOutlet> Outlets => outlets;

    internal WexelOptions Options => options;

    internal IReadOnlyList<string> ProfileIds { get; } = [.. profiles.Select(p => p.Id)];

    /// <summary>The profiles that an outlet does not take.</summary>
    internal IReadOnlyList<ProfileRefusal> Refused(KnownOutlet outlet) =>
        _refused.TryGetValue(outlet.Row.Id, out var known) ? known : _refused[outlet.Row.Id] = OutletEndpoints.Refused(outlet, profiles);

    /// <summary>The key that is wanted of a lesson at an outlet, with a profile.</summary>
    /// <param name="outlet">The outlet.</param>
    /// <param name="lesson">The lesson.</param>
    /// <param name="release">What is said about it there alone, as it is kept.</param>
    /// <param name="profile">The profile that it is made with.</param>
    internal string Wanted(KnownOutlet outlet, LessonHere lesson, string? release, Profile profile)
    {
        if (!_wanted.TryGetValue(profile, out var there))
            _wanted[profile] = there = [];
        if (!there.TryGetValue(outlet.Row.Id, out var wanted))
            there[outlet.Row.Id] = wanted = new WantedAt(outlet.AtHand, profile, house);
        return reckoned.Key(wanted, lesson, release);
    }

    /// <summary>Whether another key is wanted of a lesson at an outlet than the one that stands there.</summary>
    internal bool IsBehind(KnownOutlet outlet, Stands stands, LessonHere lesson) => stands.MadeFrom != Wanted(outlet, lesson, stands.Said, ProfileOf(stands));

    /// <summary>Whether another key is wanted of a course than the one of its package.</summary>
    internal bool IsBehind(KnownOutlet outlet, CourseRelease release, Course course) =>
        release.MadeFrom
        != Wanted(
            outlet,
            course,
            ProfileOf(new Stands(default, outlet.Row.Id, release.MadeFrom, release.ProfileId, release.Profile, release.ReleasedAt, null))
        );

    /// <summary>The profile as it is now; one that is gone as it was.</summary>
    private Profile ProfileOf(Stands stands)
    {
        if (_profiles.GetValueOrDefault(stands.ProfileId) is { } there)
            return there;
        if (!_gone.TryGetValue(stands.ProfileThen!, out var gone))
            _gone[stands.ProfileThen!] = gone = Profile.Format.Read(stands.ProfileThen!);
        return gone;
    }

    /// <summary>Where a lesson stands, and whether what stands there is behind.</summary>
    internal IEnumerable<ReleaseMark> MarksOf(LessonHere lesson, IEnumerable<Stands> stands) =>
        stands
            .Join(outlets, s => s.OutletId, o => o.Row.Id, (s, o) => (Outlet: o, Stands: s))
            .OrderBy(s => s.Outlet.Row.Name, StringComparer.CurrentCulture)
            .Select(s => new ReleaseMark(s.Outlet.Row.Name, IsBehind(s.Outlet, s.Stands, lesson)));

    /// <summary>The key that is wanted of a whole course at an outlet.</summary>
    internal string Wanted(KnownOutlet outlet, Course course, Profile profile) =>
        ReleaseKeys.WantedOfCourse(
            course.Title,
            course.Description,
            [.. course.Lessons.OrderBy(l => l.Position).Select(l => Wanted(outlet, l.Here(), null, profile))]
        );

    /// <summary>What holds of a lesson at an outlet, and where each detail comes from.</summary>
    internal ResolvedDetails Details(KnownOutlet outlet, DetailSet lesson, DetailSet release) =>
        new DetailLayers(house.Details, outlet.Details, lesson, release).Resolve();
}

/// <summary>What stands at an outlet, as far as lists of many go by it.</summary>
/// <param name="ProfileThen">The profile that it was made with, where it may be gone since; null where it is there.</param>
/// <param name="Said">What is said about the lesson there alone, as it is kept.</param>
internal sealed record Stands(Guid LessonId, Guid OutletId, string MadeFrom, string ProfileId, string? ProfileThen, DateTimeOffset ReleasedAt, string? Said);

/// <summary>A lesson, as far as a release goes by it.</summary>
/// <param name="Key">The key of what it says.</param>
/// <param name="WantsMark">Whether the house's mark stands on it.</param>
/// <param name="Said">What is said about it, wherever it goes, as it is kept.</param>
internal readonly record struct LessonHere(string Key, bool WantsMark, string? Said);

internal static class LessonsAtHand
{
    /// <summary>What a lesson is, as far as a release goes by it.</summary>
    internal static LessonHere Here(this Lesson lesson) => new(lesson.ContentKey, lesson.WantsMark, lesson.Said);

    /// <summary>What stands, as far as it is judged.</summary>
    internal static Stands Stands(this Release release) =>
        new(release.LessonId, release.OutletId, release.MadeFrom, release.ProfileId, release.Profile, release.ReleasedAt, release.Details);
}

/// <summary>A release in a list of lessons.</summary>
internal sealed record ReleaseMark(string Outlet, bool Behind);

/// <summary>Reads what is judged by.</summary>
internal sealed class StandingReader(WexelDb db, OutletShelf outlets, ProfileShelf shelf, PlayerHash player, ReckonedKeys keys, IOptions<WexelOptions> options)
{
    /// <summary>What stands everywhere, by its lesson: a few columns of each release.</summary>
    internal async Task<ILookup<Guid, Stands>> StandsAsync(Standing standing, CancellationToken cancel)
    {
        var known = standing.ProfileIds;
        return (
            await db
                .Releases.Select(r => new Stands(
                    r.LessonId,
                    r.OutletId,
                    r.MadeFrom,
                    r.ProfileId,
                    known.Contains(r.ProfileId) ? null : r.Profile,
                    r.ReleasedAt,
                    r.Details
                ))
                .ToListAsync(cancel)
        ).ToLookup(s => s.LessonId);
    }

    internal async Task<Standing> ReadAsync(CancellationToken cancel)
    {
        var house = await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel);
        var profiles = await shelf.AllAsync(cancel);
        return new(
            await outlets.AllAsync(cancel),
            profiles,
            new HouseKeys(HouseShelf.OnPictures(house)?.WholeKey, player.Value, DetailShelf.Said(house), profiles),
            keys,
            options.Value
        );
    }
}
