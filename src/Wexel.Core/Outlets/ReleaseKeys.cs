using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Keys;

namespace Wexel.Core.Outlets;

/// <summary>What the house gives to what it makes.</summary>
/// <param name="Mark">The key of its mark and of where that stands; null where it is not put on lessons.</param>
/// <param name="Player">The hash of the learner's player.</param>
/// <param name="Details">What it says about everything that it makes.</param>
/// <param name="Profiles">The profiles that it has.</param>
public sealed record HouseKeys(string? Mark, string Player, DetailSet Details, IReadOnlyList<Profile> Profiles)
{
    /// <summary>The key of all profiles as they are.</summary>
    internal string ProfilesKey() =>
        MadeKey.Hash(Makers.Release, k =>
            k.Each("profiles", Profiles, (each, profile) => each.Add("id", profile.Id).Add("profile", ProfileKeys.ProfileKey(profile)))
        );

    /// <summary>The key of the house's mark on what is made with a profile; null for none, and where the profile brings its own.</summary>
    /// <param name="profile">The profile.</param>
    public string? MarkOn(Profile profile) => profile.Picture is { HouseMark: true, OwnMark: null } ? Mark : null;
}

/// <summary>What a lesson is, as far as a release goes by it.</summary>
/// <param name="Key">The key of what it says, see <see cref="Lessons.LessonKeys"/>.</param>
/// <param name="WantsMark">Whether the house's mark stands on it.</param>
/// <param name="Said">What is said about it, wherever it goes.</param>
public readonly record struct LessonAtHand(string Key, bool WantsMark, DetailSet Said);

/// <summary>An outlet, as far as a release goes by it.</summary>
/// <param name="Terms">What holds there.</param>
/// <param name="Rules">Which details it has.</param>
/// <param name="Details">What is said about everything there.</param>
/// <param name="Artwork">The key of its artwork; null where it has none.</param>
public sealed record OutletAtHand(OutletTerms Terms, IReadOnlyList<DetailRule> Rules, DetailSet Details, string? Artwork);

/// <summary>
/// The key of what stands, or would stand, at an outlet. A release is behind where the key that is wanted now is another than the one that it
/// was made under: there is no other meaning of the word.
/// </summary>
public static class ReleaseKeys
{
    /// <summary>The key that is wanted of a course as a whole.</summary>
    /// <param name="title">The course's title.</param>
    /// <param name="description">What it is about.</param>
    /// <param name="lessons">The keys that are wanted of its lessons, in their order.</param>
    public static string WantedOfCourse(string title, string description, IReadOnlyList<string> lessons) =>
        MadeKey.Hash(Makers.Release, k => k.Add("course", title).Add("description", description.Length > 0 ? description : null).Each("lessons", lessons));
}
