using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Data;

namespace Wexel.Server.VideoServices;

/// <summary>How often a lesson was watched at a video service.</summary>
/// <param name="Outlet">The outlet's name.</param>
/// <param name="Views">How often it was begun, on all days that are known.</param>
/// <param name="Watched">For how long it was watched, by all together.</param>
/// <param name="Days">Day by day, the last 90 at most; days on which nobody came are left out.</param>
internal sealed record VideoFigures(Guid LessonId, string Title, string Outlet, int Views, TimeSpan Watched, IReadOnlyList<DayFigures> Days);

/// <summary>A day's figures.</summary>
internal sealed record DayFigures(DateOnly Day, int Views, TimeSpan Watched);

/// <summary>What video services say of how often lessons were watched there.</summary>
internal static class FigureEndpoints
{
    internal static void MapVideoFigures(this IEndpointRouteBuilder routes) => routes.MapGet("/api/video-figures", ReadAsync).WithName("VideoFigures");

    private static async Task<Ok<List<VideoFigures>>> ReadAsync(Guid? lesson, WexelDb db, CancellationToken cancel)
    {
        var days = await db
            .VideoDays.AsNoTracking()
            .Where(d => (lesson == null || d.Release!.LessonId == lesson) && d.Release!.Lesson!.BinnedAt == null)
            .OrderBy(d => d.Day)
            .Select(d => new
            {
                d.Release!.LessonId,
                d.Release.Lesson!.Title,
                Outlet = d.Release.Outlet!.Name,
                Figures = new DayFigures(d.Day, d.Views, d.Watched),
            })
            .ToListAsync(cancel);
        return TypedResults.Ok(
            days.GroupBy(d => (d.LessonId, d.Title, d.Outlet))
                .Select(g => new VideoFigures(
                    g.Key.LessonId,
                    g.Key.Title,
                    g.Key.Outlet,
                    g.Sum(d => d.Figures.Views),
                    g.Aggregate(TimeSpan.Zero, (sum, d) => sum + d.Figures.Watched),
                    [.. g.Select(d => d.Figures).Where(d => d.Views > 0).TakeLast(90)]
                ))
                .OrderByDescending(f => f.Views)
                .ToList()
        );
    }
}
