using Microsoft.EntityFrameworkCore;
using Wexel.Core.Learning;
using Wexel.Data;

namespace Wexel.Server.Learning;

/// <summary>Reads what the log comes to.</summary>
internal sealed class LogReader(WexelDb db, TakenRevisions revisions)
{
    /// <summary>What is known of a learner by the log alone.</summary>
    internal async Task<LearnerState> ReadAsync(Guid lesson, string learnerKey, CancellationToken cancel)
    {
        var entries = await db
            .LearningLog.AsNoTracking()
            .Where(e => e.LessonId == lesson && e.LearnerKey == learnerKey)
            .OrderBy(e => e.Number)
            .ToListAsync(cancel);
        var taken = new Dictionary<int, LessonTaken>();
        foreach (var revision in entries.Select(e => e.Revision).Distinct())
            taken[revision] = (await revisions.ReadAsync(lesson, revision, cancel)).For(learnerKey);
        return LearnerState.Of(
            entries.Select(e => new LearningEvent(e.EventId, e.Revision, e.Attempt, e.At, e.Name, LearningActs.Read(e.Kind, e.Data))),
            revision => taken[revision]
        );
    }
}
