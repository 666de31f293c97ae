using Wexel.Core.Encoding;
using Wexel.Core.Keys;

namespace Wexel.Core.Outlets;

/// <summary>What the house gives to what it makes.</summary>
/// <param name="Mark">The key of its mark and of where that stands; null where it is not put on lessons.</param>
/// <param name="Player">The hash of the learner's player.</param>
public sealed record HouseKeys(string? Mark, string Player);

/// <summary>What a lesson is, as far as a release goes by it.</summary>
/// <param name="Key">The key of what it says, see <see cref="Lessons.LessonKeys"/>.</param>
/// <param name="WantsMark">Whether the house's mark stands on it.</param>
public readonly record struct LessonAtHand(string Key, bool WantsMark);

/// <summary>
/// The key of what stands, or would stand, at an outlet. A release is behind where the key that is wanted now is another than the one that it
/// was made under: there is no other meaning of the word.
/// </summary>
public static class ReleaseKeys
{
    /// <summary>The key that is wanted of a lesson at an outlet.</summary>
    /// <param name="terms">What holds there.</param>
    /// <param name="lesson">The lesson.</param>
    /// <param name="profile">The profile that it is made with.</param>
    /// <param name="house">What the house gives.</param>
    /// <param name="artwork">The key of the outlet's artwork; null where it has none.</param>
    public static string Wanted(OutletTerms terms, LessonAtHand lesson, Profile profile, HouseKeys house, string? artwork) =>
        Wanted(terms, profile, house, artwork)(lesson);

    /// <summary>The same for many lessons, of which each is reckoned at once.</summary>
    /// <inheritdoc cref="Wanted(OutletTerms, LessonAtHand, Profile, HouseKeys, string?)"/>
    public static Func<LessonAtHand, string> Wanted(OutletTerms terms, Profile profile, HouseKeys house, string? artwork)
    {
        var (termsKey, profileKey) = (terms.Key, ProfileKeys.ProfileKey(profile));
        return lesson =>
            MadeKey.Hash(Makers.Release, k =>
                k.Add("terms", termsKey)
                    .Add("lesson", lesson.Key)
                    .Add("profile", profileKey)
                    .Add("mark", lesson.WantsMark && profile.Picture is { HouseMark: true } ? house.Mark : null)
                    .Add("player", terms.TakesPlayer ? house.Player : null)
                    .Add("artwork", terms.Copy == Feeds.FeedMedia.Sound ? artwork : null)
                    .Each(
                        "makers",
                        [
                            Makers.Picture,
                            Makers.Sound,
                            Makers.Finish,
                            .. terms.Copy is null ? [] : new[] { Makers.Episode },
                            .. terms.TakesPlayer ? new[] { Makers.Package } : [],
                        ]
                    )
            );
    }

    /// <summary>The key that is wanted of a course as a whole.</summary>
    /// <param name="title">The course's title.</param>
    /// <param name="lessons">The keys that are wanted of its lessons, in their order.</param>
    public static string WantedOfCourse(string title, IReadOnlyList<string> lessons) =>
        MadeKey.Hash(Makers.Release, k => k.Add("course", title).Each("lessons", lessons));
}
