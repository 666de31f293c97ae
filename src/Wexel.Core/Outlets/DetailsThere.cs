using Wexel.Core.Details;

namespace Wexel.Core.Outlets;

/// <summary>Details that several kinds have in common.</summary>
public static class DetailsThere
{
    /// <summary>What a learner's page shows of a lesson, wherever it stands; a title must be there.</summary>
    public static IReadOnlyList<DetailRule> OnPage { get; } =
    [
        new(DetailFields.Title, Required: true),
        new(DetailFields.Description),
        new(DetailFields.Tags),
        new(DetailFields.Category),
        new(DetailFields.Language),
        new(DetailFields.ForChildren),
        new(DetailFields.FromAge),
        new(DetailFields.Licence),
        new(DetailFields.ThirdParty),
        new(DetailFields.Author),
        new(DetailFields.MayDownload),
        new(DetailFields.MayWrite),
    ];
}
