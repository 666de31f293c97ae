using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Learning;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Learning;

/// <summary>Reckons again what the log comes to, wherever that is not there or was reckoned by an earlier rule.</summary>
internal sealed class Projections(WexelDb db, LogReader reader, ILogger<Projections> log) : IUpkeep
{
    private const int AtATime = 200;

    public TimeSpan Every => TimeSpan.FromHours(1);

    public async Task DoAsync(CancellationToken cancel)
    {
        while (true)
        {
            var missing = await db
                .LearningLog.Where(e =>
                    !db.LearnerRecords.Any(r => r.LessonId == e.LessonId && r.LearnerKey == e.LearnerKey && r.Version == LearnerState.Version)
                )
                .Select(e => new { e.LessonId, e.LearnerKey })
                .Distinct()
                .Take(AtATime)
                .ToListAsync(cancel);
            if (missing.Count == 0)
                return;
            foreach (var learner in missing)
                await ReckonAsync(learner.LessonId, learner.LearnerKey, cancel);
            log.LogInformation("What {Count} learners did was reckoned again", missing.Count);
        }
    }

    /// <summary>Writes down what is known of a learner.</summary>
    /// <param name="record">What is kept of them.</param>
    /// <param name="state">What is known.</param>
    /// <param name="outlet">Where they took the lesson last; null where nobody knows.</param>
    internal static void Set(LearnerRecord record, LearnerState state, Guid? outlet) =>
        (record.OutletId, record.Name, record.State, record.Version, record.SeenShare, record.CompletedAt, record.SeenLastAt) = (
            outlet ?? record.OutletId,
            state.Name,
            WexelJson.Write(state),
            LearnerState.Version,
            state.SeenShare,
            state.CompletedAt,
            state.SeenLastAt ?? default
        );

    private async Task ReckonAsync(Guid lesson, string learnerKey, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock(hashtextextended({lesson + learnerKey}, 0))", cancel);
        var state = await reader.ReadAsync(lesson, learnerKey, cancel);
        var record = await db.LearnerRecords.FirstOrDefaultAsync(r => r.LessonId == lesson && r.LearnerKey == learnerKey, cancel);
        if (record is null)
            db.LearnerRecords.Add(
                record = new LearnerRecord
                {
                    LessonId = lesson,
                    LearnerKey = learnerKey,
                    State = "",
                }
            );
        var outlet = await db
            .LearningLog.Where(e => e.LessonId == lesson && e.LearnerKey == learnerKey && e.OutletId != null)
            .OrderByDescending(e => e.Number)
            .Select(e => e.OutletId)
            .FirstOrDefaultAsync(cancel);
        Set(record, state, outlet);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        db.ChangeTracker.Clear();
    }
}
