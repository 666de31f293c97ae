using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Searching;

namespace Wexel.Server.Lessons;

/// <summary>A lesson in which something was found.</summary>
/// <param name="LessonId">The lesson.</param>
/// <param name="Title">Its title; may be empty.</param>
/// <param name="Course">The course that it is in.</param>
/// <param name="Hits">Where; at least one.</param>
internal sealed record LessonFound(Guid LessonId, string Title, string Course, IReadOnlyList<TextHit> Hits);

/// <param name="Lessons">Those in which it was found, the best first.</param>
/// <param name="More">Whether there are more than are shown.</param>
internal sealed record SearchAnswer(IReadOnlyList<LessonFound> Lessons, bool More);

internal static class SearchEndpoints
{
    internal static void MapSearch(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/search", async (string words, LessonSearch search, CancellationToken cancel) =>
                TypedResults.Ok(await search.FindAsync(words, cancel))
            )
            .WithName("Search");
}
