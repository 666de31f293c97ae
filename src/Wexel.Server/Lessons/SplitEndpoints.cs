using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Live;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <param name="BasedOn">The number of the revision that is split.</param>
/// <param name="At">Where, in recording time.</param>
internal sealed record SplitRequest(int BasedOn, TimeSpan At);

/// <param name="First">How long what comes before would be.</param>
/// <param name="Second">How long what comes after would be.</param>
internal sealed record SplitOutcome(TimeSpan First, TimeSpan Second);

/// <param name="LessonId">The new lesson, which follows the one that was split.</param>
internal sealed record SplitDone(Guid LessonId, string Title);

internal static class SplitEndpoints
{
    internal static void MapSplitting(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/lessons/{id:guid}/split/outcome", OutcomeAsync).WithName("SplitOutcome");
        routes.MapPost("/api/lessons/{id:guid}/split", SplitAsync).WithName("SplitLesson");
    }

    /// <summary>What splitting would come to, before anybody does it.</summary>
    private static async Task<Results<Ok<SplitOutcome>, ProblemHttpResult>> OutcomeAsync(
        Guid id,
        SplitRequest request,
        WexelDb db,
        LessonSaver saver,
        LessonReels reels,
        CancellationToken cancel
    )
    {
        var lesson = await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        var reel = (await reels.ReadAsync(document, cancel)).Reel;
        var (split, problem) = LessonSplit.At(document, request.At, reel.Map(document.Cuts));
        return split is null
            ? Problems.Answer(problem!)
            : TypedResults.Ok(new SplitOutcome(reel.Map(split.First.Cuts).Length, reel.Map(split.Second.Cuts).Length));
    }

    private static async Task<Results<Ok<SplitDone>, ProblemHttpResult>> SplitAsync(
        Guid id,
        SplitRequest request,
        WexelDb db,
        LessonSaver saver,
        LessonReels reels,
        LiveNews news,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        var lesson = await db.Lessons.FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        var reel = (await reels.ReadAsync(document, cancel)).Reel;
        var (split, problem) = LessonSplit.At(document, request.At, reel.Map(document.Cuts));
        if (split is null)
            return Problems.Answer(problem!);
        // Both or neither: somebody may have saved meanwhile.
        await using var both = await db.Database.BeginTransactionAsync(cancel);
        var (_, refused) = await saver.SaveAsync(id, request.BasedOn, split.First, null, user.Identity!.Name!, cancel);
        if (refused is not null)
            return Problems.Answer(
                refused,
                refused.Code == LessonSaver.SavedByAnother ? StatusCodes.Status409Conflict : StatusCodes.Status422UnprocessableEntity
            );
        await db
            .Lessons.Where(l => l.CourseId == lesson.CourseId && l.Position > lesson.Position)
            .ExecuteUpdateAsync(set => set.SetProperty(l => l.Position, l => l.Position + 1), cancel);
        var second = new Lesson
        {
            CourseId = lesson.CourseId,
            Position = lesson.Position + 1,
            OwnerId = lesson.OwnerId,
            Title = split.Second.Title,
            RecordingHash = lesson.RecordingHash,
            Suggesting = lesson.Suggesting,
            Length = reel.Map(split.Second.Cuts).Length,
        };
        db.Lessons.Add(second);
        saver.AddFirst(second, split.Second, $"split off at {TimeCode.Brief(request.At)}", user.Identity!.Name!);
        await db.SaveChangesAsync(cancel);
        await both.CommitAsync(cancel);
        await news.LessonAsync(second.Id);
        return TypedResults.Ok(new SplitDone(second.Id, second.Title));
    }
}
