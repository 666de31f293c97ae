using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Packages;

namespace Wexel.Core.Outlets;

/// <summary>What holds at one outlet, by its kind and its settings.</summary>
public abstract class OutletTerms
{
    /// <summary>The profile that is taken where nobody chose one.</summary>
    public abstract Profile Usual { get; }

    /// <summary>Why what a profile makes would be refused there; null where it is taken.</summary>
    public abstract Problem? Refusal(Profile profile);

    /// <summary>Why a lesson cannot stand there as it would be made; null where it can.</summary>
    /// <param name="title">The lesson's title.</param>
    /// <param name="plan">How it would be made.</param>
    public virtual Problem? Unfit(string title, RenderPlan plan) => null;

    /// <summary>As what a rendition is copied for it; null where it is taken as it is.</summary>
    public virtual FeedMedia? Copy => null;

    /// <summary>The files of the package that is made for it; null where none is.</summary>
    /// <param name="sources">What it is made from.</param>
    public virtual IReadOnlyList<PackageFile>? Package(PackageSources sources) => null;

    /// <summary>Whether the learner's player stands in what is made for it.</summary>
    public virtual bool TakesPlayer => false;

    /// <summary>Under which address learners find a package that was put there; null where it is not known.</summary>
    /// <param name="identifier">The package's name.</param>
    /// <param name="page">The file in it that is linked; null for none.</param>
    public virtual Uri? PageAt(string identifier, string? page) => null;

    /// <summary>What of its settings makes a difference to what stands there, for the key of a release.</summary>
    public virtual string Key => "";
}

/// <summary>What a package is made from.</summary>
/// <param name="Identifier">A name that stays the same whenever it is made again.</param>
/// <param name="Title">The course's title, or the lesson's where it stands alone.</param>
/// <param name="Lessons">The lessons in the trainer's order; at least one.</param>
/// <param name="Player">The learner's player: paths relative to its folder, and the files.</param>
/// <param name="IsCourse">Whether it is a whole course.</param>
/// <param name="Description">What a course is about; may be empty.</param>
public sealed record PackageSources(
    string Identifier,
    string Title,
    IReadOnlyList<LessonSources> Lessons,
    IReadOnlyList<(string Path, Keys.KeyedFile Source)> Player,
    bool IsCourse = false,
    string Description = ""
)
{
    /// <summary>A folder for any web server: of the course, or of the one lesson.</summary>
    internal IReadOnlyList<PackageFile> AsFolder() =>
        IsCourse ? CourseFolder.Plan(Title, Description, Lessons, Player) : WebFolder.Plan(Lessons.Single(), Player);
}

/// <summary>Refusals that several kinds have in common.</summary>
internal static class Refusals
{
    internal static Problem ForProfile(string code, string sentence) => new(code, sentence, "profileId");

    /// <summary>What a learner's page cannot show.</summary>
    internal static Problem? OnPage(Profile profile) =>
        profile switch
        {
            { Picture: null } => ForProfile(
                "outlet-wants-picture",
                $"“{profile.Title}” makes sound alone, and the learner’s page shows a picture. Take a profile with a picture, or release the sound "
                    + $"to a podcast feed."
            ),
            { Container: Container.Mov } => ForProfile(
                "outlet-wants-web-file",
                $"“{profile.Title}” makes a MOV file, which not every browser plays. Take a profile that makes MP4, such as “{Profiles.Web.Title}”."
            ),
            _ => null,
        };
}
