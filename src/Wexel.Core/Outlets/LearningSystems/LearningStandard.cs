using Wexel.Core.Packages;

namespace Wexel.Core.Outlets.LearningSystems;

/// <summary>A standard by which learning systems take packages.</summary>
/// <param name="Code">A name for programs.</param>
/// <param name="Name">Its name.</param>
/// <param name="Plan">The files of a package.</param>
/// <param name="LongestTitle">The most characters of a title there.</param>
public sealed record LearningStandard(string Code, string Name, Func<PackageSources, IReadOnlyList<PackageFile>> Plan, int LongestTitle)
{
    /// <summary>SCORM 1.2.</summary>
    public static LearningStandard Scorm12 { get; } =
        new(
            Scorm12Package.Runtime,
            "SCORM 1.2",
            s => Scorm12Package.Plan(new Scorm12Sources(s.Identifier, s.Title, s.Lessons, s.Player)),
            Scorm12Manifest.LongestTitle
        );

    /// <summary>All that there are.</summary>
    public static IReadOnlyList<LearningStandard> All { get; } = [Scorm12];
}
