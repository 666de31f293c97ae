using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Data.Model;
using Wexel.Delivering.VideoServices;

namespace Wexel.Server.Releases;

/// <summary>What keeps a lesson from an account of a video service, as far as that is known before anything is done.</summary>
internal static class VideoUnfit
{
    /// <param name="account">The account.</param>
    /// <param name="service">What its service is called.</param>
    /// <param name="facts">What the service said of it.</param>
    /// <param name="category">The lesson's category there; null where nobody said.</param>
    /// <param name="length">How long the lesson is.</param>
    /// <returns>The first thing, or null.</returns>
    internal static Problem? Find(VideoAccount account, string service, ServiceAccount facts, string? category, TimeSpan length) =>
        account.WithdrawnAt is not null
            ? new Problem(
                ServiceProblem.Withdrawn,
                $"Wexel may not act for “{account.Name}” any more: somebody withdrew that at {service}. Connect it again, then try again.",
                "videoPlace"
            )
        : facts.MostLength is { } longest && length > longest
            ? new Problem(
                "video-too-long",
                $"“{account.Name}” may publish videos of at most {longest.TotalMinutes:0} minutes at {service}, and this lesson is longer. "
                    + "Split it under Tidy, or choose another account.",
                "videoPlace"
            )
        : facts.Categories is { Count: > 0 } known && Category(known, category) is null
            ? new Problem(
                "video-category-unknown",
                $"{service} knows these categories: {string.Join(", ", known)}. Choose one of them.",
                DetailFields.Category.Code
            )
        : null;

    /// <summary>The service's own word for a category; null where it has none.</summary>
    internal static string? Category(IReadOnlyList<string> known, string? category) =>
        known.FirstOrDefault(c => string.Equals(c, category, StringComparison.CurrentCultureIgnoreCase));
}
