using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Data;

namespace Wexel.Server.Audit;

/// <param name="Number">Its number; later ones are higher.</param>
/// <param name="At">When.</param>
/// <param name="Who">Who.</param>
/// <param name="What">What they did, behind their name.</param>
/// <param name="Subject">What they did it to; null for nothing by itself.</param>
/// <param name="LessonId">The lesson that it is about; null where it is none.</param>
/// <param name="From">The machine's address.</param>
/// <param name="With">The browser or program, as it called itself.</param>
internal sealed record AuditView(long Number, DateTimeOffset At, string Who, string What, string? Subject, Guid? LessonId, string From, string With);

/// <summary>What was done, the last of it first.</summary>
internal static class AuditEndpoints
{
    private const int AtOnce = 100;

    internal static void MapAudit(this IEndpointRouteBuilder routes) => routes.MapGet("/api/audit", ListAsync).WithName("Audit");

    /// <param name="before">Only what has a lower number; null for the last.</param>
    /// <param name="words">Words that stand in who did it or in what it was done to; null for all.</param>
    /// <param name="db">The database.</param>
    /// <param name="cancel">Stops it.</param>
    private static async Task<Ok<List<AuditView>>> ListAsync(long? before, string? words, WexelDb db, CancellationToken cancel)
    {
        var entries = db.AuditEntries.AsNoTracking().Where(e => before == null || e.Number < before);
        foreach (var word in (words ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(8))
            entries = entries.Where(e => EF.Functions.ILike(e.Who + " " + (e.Subject ?? ""), $"%{Literally(word)}%", "\\"));
        var found = await entries.OrderByDescending(e => e.Number).Take(AtOnce).ToListAsync(cancel);
        return TypedResults.Ok(
            found
                .Select(e => new AuditView(e.Number, e.At, e.Who, AuditWords.Find(e.Action)?.Words ?? e.Action, e.Subject, e.LessonId, e.From, e.With))
                .ToList()
        );
    }

    private static string Literally(string word) =>
        word.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("%", "\\%", StringComparison.Ordinal).Replace("_", "\\_", StringComparison.Ordinal);
}
