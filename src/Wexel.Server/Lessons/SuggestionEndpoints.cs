using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <summary>How cuts are suggested for a lesson.</summary>
/// <param name="Settings">How they are made.</param>
/// <param name="Left">The suggestions that somebody decided to leave, by their stretch.</param>
internal sealed record Suggesting(SuggestionSettings Settings, IReadOnlyList<TimeRange> Left);

/// <param name="NoiseFloor">The recording's own noise, in dBFS; null without sound.</param>
/// <param name="Threshold">The level from which something counts as heard, in dBFS, as it was used; null without sound.</param>
/// <param name="CarriesSound">Whether anything can be heard at all.</param>
/// <param name="Waiting">Whether the recording is still being looked through.</param>
internal sealed record SuggestionsView(
    Suggesting Suggesting,
    IReadOnlyList<CutSuggestion> Suggestions,
    int? NoiseFloor,
    int? Threshold,
    bool CarriesSound,
    bool Waiting
);

internal static class SuggestionEndpoints
{
    private const int MostLeft = 2000;

    internal static void MapSuggestions(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons/{id:guid}/suggestions");
        group.MapGet("", GetAsync).WithName("Suggestions");
        group.MapPut("", SaveAsync).WithName("SaveSuggesting");
    }

    private static async Task<Results<Ok<SuggestionsView>, ProblemHttpResult>> GetAsync(
        Guid id,
        WexelDb db,
        LessonSaver saver,
        LessonReels reels,
        CancellationToken cancel
    )
    {
        var lesson = await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        var suggesting = lesson.Suggesting is null ? new Suggesting(SuggestionSettings.Default, []) : WexelJson.Read<Suggesting>(lesson.Suggesting);
        var found = await reels.ReadAsync((await saver.CurrentAsync(lesson, cancel))!, cancel);
        if (!found.ToMake.IsReady)
            return TypedResults.Ok(new SuggestionsView(suggesting, [], null, null, true, true));
        // Each recording has its own noise, and its own silence at both ends.
        var suggestions = found.Analyses.SelectMany(
            (analysis, i) =>
            {
                var span = found.Reel.SpanOf(i);
                return CutSuggestions
                    .Find(analysis!, span.Length, suggesting.Settings)
                    .Select(s => s with { Range = new TimeRange(s.Range.Start + span.Start, s.Range.End + span.Start) });
            }
        );
        var levels = found.Analyses.Select(a => a!.Levels).OfType<SoundLevels>().ToList();
        return TypedResults.Ok(
            new SuggestionsView(
                suggesting,
                [.. suggestions],
                levels.Count == 0 ? null : levels.Max(l => l.NoiseFloor),
                suggesting.Settings.Threshold ?? (levels.Count == 0 ? null : levels.Max(l => l.Threshold)),
                levels.Exists(l => l.CarriesSound),
                false
            )
        );
    }

    private static async Task<Results<Ok<SuggestionsView>, ProblemHttpResult>> SaveAsync(
        Guid id,
        Suggesting wanted,
        WexelDb db,
        LessonSaver saver,
        LessonReels reels,
        CancellationToken cancel
    )
    {
        var suggesting = WexelJson.Write(new Suggesting(wanted.Settings.Within(), [.. wanted.Left.Distinct().TakeLast(MostLeft)]));
        await db.Lessons.Where(l => l.Id == id).ExecuteUpdateAsync(set => set.SetProperty(l => l.Suggesting, suggesting), cancel);
        return await GetAsync(id, db, saver, reels, cancel);
    }
}
