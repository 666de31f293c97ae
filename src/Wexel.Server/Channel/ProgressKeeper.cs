using Microsoft.EntityFrameworkCore;
using Wexel.Core.Learning;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Channel;

/// <summary>Keeps what learners watched: what is reported is added to what was, and judged by the core's rule.</summary>
internal sealed class ProgressKeeper(WexelDb db, TimeProvider clock)
{
    internal async Task<LearnerRecord> AddAsync(Guid lessonId, string learnerKey, string? name, TimeSpan length, IReadOnlyList<IReadOnlyList<long>> watched, long position, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        // One learner may have two windows open: each adds to what the other sent.
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock(hashtext({lessonId + learnerKey}))", cancel);
        var record = await db.LearnerRecords.FirstOrDefaultAsync(r => r.LessonId == lessonId && r.LearnerKey == learnerKey, cancel);
        if (record is null)
            db.LearnerRecords.Add(record = new LearnerRecord { LessonId = lessonId, LearnerKey = learnerKey, Watched = "[]" });
        var attendance = Completion.Judge(Ranges(Json.Read<IReadOnlyList<IReadOnlyList<long>>>(record.Watched)).Concat(Ranges(watched)), length);
        record.Watched = Json.Write(attendance.Watched.Select(r => new[] { (long)r.Start.TotalMilliseconds, (long)r.End.TotalMilliseconds }));
        record.Position = TimeSpan.FromMilliseconds(Math.Clamp(position, 0, (long)length.TotalMilliseconds));
        record.Name = name;
        record.SeenShare = attendance.SeenShare;
        record.CompletedAt ??= attendance.Complete ? now : null;
        record.SeenLastAt = now;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return record;
    }

    private static IEnumerable<TimeRange> Ranges(IEnumerable<IReadOnlyList<long>> pairs) =>
        pairs.Select(p => new TimeRange(TimeSpan.FromMilliseconds(Math.Clamp(p[0], 0, int.MaxValue)), TimeSpan.FromMilliseconds(Math.Clamp(p[1], 0, int.MaxValue))));
}
