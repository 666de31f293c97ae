using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <param name="Changes">What changed, in a few words.</param>
internal sealed record RevisionRow(int Number, string Changes, int? RestoredFrom, string SavedBy, DateTimeOffset SavedAt);

/// <param name="BasedOn">The number of the revision that was changed.</param>
internal sealed record DifferenceRequest(int BasedOn, LessonDocument Document);

/// <summary>What somebody else saved meanwhile, against what one has.</summary>
/// <param name="Revision">The number of their revision.</param>
/// <param name="By">Who saved it.</param>
/// <param name="Theirs">What they changed, in words.</param>
/// <param name="Mine">What one changed oneself, in words.</param>
/// <param name="Clashes">What both changed.</param>
/// <param name="Merged">Theirs, with one's own put on top.</param>
internal sealed record Difference(
    int Revision,
    string By,
    DateTimeOffset At,
    string Theirs,
    string Mine,
    IReadOnlyList<string> Clashes,
    LessonDocument TheirDocument,
    LessonDocument Merged
);

internal static class RevisionEndpoints
{
    private const int MostListed = 500;

    internal static void MapRevisions(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons/{id:guid}");
        group.MapGet("revisions", ListAsync).WithName("Revisions");
        group.MapGet("revisions/{number:int}", GetAsync).WithName("Revision");
        group.MapPost("difference", DifferenceAsync).WithName("Difference");
    }

    /// <summary>Where undo and redo lead from the lesson's last revision.</summary>
    internal static async Task<RevisionHistory> HistoryAsync(WexelDb db, Guid id, CancellationToken cancel) =>
        RevisionHistory.Of(
            await db
                .LessonRevisions.Where(r => r.LessonId == id)
                .OrderBy(r => r.Number)
                .Select(r => new RevisionStep(r.Number, r.RestoredFrom))
                .ToListAsync(cancel)
        );

    private static async Task<Ok<List<RevisionRow>>> ListAsync(Guid id, WexelDb db, CancellationToken cancel)
    {
        var rows = await db
            .LessonRevisions.Where(r => r.LessonId == id)
            .OrderByDescending(r => r.Number)
            .Take(MostListed)
            .Select(r => new RevisionRow(r.Number, r.Changes, r.RestoredFrom, r.SavedBy, r.SavedAt))
            .ToListAsync(cancel);
        var names = new Dictionary<string, string>();
        foreach (var by in rows.Select(r => r.SavedBy).Distinct())
            names[by] = await NameAsync(db, by, cancel);
        return TypedResults.Ok(rows.Select(r => r with { SavedBy = names[r.SavedBy] }).ToList());
    }

    /// <summary>The name for people of whoever saved.</summary>
    private static async Task<string> NameAsync(WexelDb db, string savedBy, CancellationToken cancel) =>
        await db.Users.Where(u => u.UserName == savedBy).Select(u => u.DisplayName).FirstOrDefaultAsync(cancel) ?? savedBy;

    private static async Task<Results<Ok<LessonDocument>, ProblemHttpResult>> GetAsync(Guid id, int number, LessonSaver saver, CancellationToken cancel) =>
        await saver.AtAsync(id, number, cancel) is { } document ? TypedResults.Ok(document) : Problems.NotThere("revision");

    private static async Task<Results<Ok<Difference>, ProblemHttpResult>> DifferenceAsync(
        Guid id,
        DifferenceRequest mine,
        WexelDb db,
        LessonSaver saver,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        var last = await db.LessonRevisions.AsNoTracking().Where(r => r.LessonId == id).OrderByDescending(r => r.Number).FirstOrDefaultAsync(cancel);
        if (last is null || await saver.AtAsync(id, mine.BasedOn, cancel) is not { } before)
            return Problems.NotThere("revision");
        if (captions.Missing(mine.Document.Captions) is { } missing)
            return Problems.Answer(missing);
        var theirs = LessonDocument.Format.Read(last.Document);
        var merge = LessonMerge.Of(
            await captions.ReadAsync(before, cancel),
            await captions.ReadAsync(theirs, cancel),
            await captions.ReadAsync(mine.Document, cancel)
        );
        await captions.KeepAsync(merge.Lesson, cancel);
        return TypedResults.Ok(
            new Difference(
                last.Number,
                await NameAsync(db, last.SavedBy, cancel),
                last.SavedAt,
                LessonRules.Describe(before, theirs),
                LessonRules.Describe(before, mine.Document),
                merge.Clashes,
                theirs,
                merge.Document
            )
        );
    }
}
