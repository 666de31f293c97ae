using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Packages;

namespace Wexel.Core.Outlets;

/// <summary>What holds at one outlet, by its kind and its settings.</summary>
public abstract class OutletTerms
{
    /// <summary>The profile that is taken where nobody chose one.</summary>
    public abstract Profile Usual { get; }

    /// <summary>What it takes.</summary>
    public abstract Takes Takes { get; }

    /// <summary>Why what a profile makes would be refused there; null where it is taken.</summary>
    public Problem? Refusal(Profile profile) => Takes.Refusal(profile, Usual);

    /// <summary>As what a rendition is copied for it, the first as what it shows; empty where it is taken as it is.</summary>
    public virtual IReadOnlyList<FeedMedia> Copies => [];

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
