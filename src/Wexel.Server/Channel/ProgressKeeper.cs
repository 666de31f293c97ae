using System.Threading.RateLimiting;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Documents;
using Wexel.Core.Learning;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Channel;

/// <summary>A learner, as a report or a question names them.</summary>
/// <param name="Key">By which their record is found.</param>
/// <param name="Name">Their name; null where they came by a link.</param>
/// <param name="Address">Where they ask from.</param>
internal sealed record Learner(string Key, string? Name, string Address);

/// <summary>Keeps what learners watched: what is reported is added to what was, as far as it can have been watched, and judged by the core's rule.</summary>
internal sealed class ProgressKeeper(WexelDb db, NewLearners newcomers, OpenedPages opened, TimeProvider clock)
{
    /// <summary>Adds a report.</summary>
    /// <param name="lessonId">The lesson.</param>
    /// <param name="learner">Who reports.</param>
    /// <param name="length">The lesson's length.</param>
    /// <param name="report">What the player says.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What is known now; null where too many that nobody knows have reported from one address.</returns>
    internal async Task<LearnerRecord?> AddAsync(Guid lessonId, Learner learner, TimeSpan length, ProgressReport report, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        // One learner may have two windows open: each adds to what the other sent.
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock(hashtextextended({lessonId + learner.Key}, 0))", cancel);
        var record = await db.LearnerRecords.FirstOrDefaultAsync(r => r.LessonId == lessonId && r.LearnerKey == learner.Key, cancel);
        var since = opened.Read(report.Opened) ?? now;
        if (record is null)
        {
            if (!newcomers.MayCome(lessonId, learner))
                return null;
            db.LearnerRecords.Add(record = new LearnerRecord { LessonId = lessonId, LearnerKey = learner.Key, Watched = "[]" });
        }
        else if (record.SeenLastAt > since)
        {
            since = record.SeenLastAt;
        }

        var passed = now > since ? now - since : TimeSpan.Zero;
        var attendance = Completion.Judge(WatchPace.After(Ranges(WexelJson.Read<IReadOnlyList<IReadOnlyList<long>>>(record.Watched)), Ranges(report.Watched), passed), length);
        record.Watched = WexelJson.Write(attendance.Watched.Select(r => new[] { (long)r.Start.TotalMilliseconds, (long)r.End.TotalMilliseconds }));
        record.Position = TimeSpan.FromMilliseconds(Math.Clamp(report.Position, 0, (long)length.TotalMilliseconds));
        record.Name = learner.Name;
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

/// <summary>When a learner's page was opened, in a form that only this server can have given out.</summary>
internal sealed class OpenedPages(IDataProtectionProvider protection, TimeProvider clock)
{
    private readonly IDataProtector _protector = protection.CreateProtector("wexel", "opened");

    internal string Now() => At(clock.GetUtcNow());

    internal string At(DateTimeOffset time) => _protector.Protect(time.ToUnixTimeMilliseconds().ToString(System.Globalization.CultureInfo.InvariantCulture));

    /// <summary>The time; null for what this server has not given out.</summary>
    internal DateTimeOffset? Read(string? opened)
    {
        try
        {
            return opened is { Length: > 0 } ? DateTimeOffset.FromUnixTimeMilliseconds(long.Parse(_protector.Unprotect(opened), System.Globalization.CultureInfo.InvariantCulture)) : null;
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return null;
        }
    }
}

/// <summary>How many learners whom nobody knows may begin a lesson from one address: by a link anybody can say that they are another.</summary>
internal sealed class NewLearners(IOptions<WexelOptions> options) : IDisposable
{
    private readonly PartitionedRateLimiter<string> _limiter = PartitionedRateLimiter.Create<string, string>(who => RateLimitPartition.GetTokenBucketLimiter(who, _ => new TokenBucketRateLimiterOptions
    {
        TokenLimit = options.Value.NewLearners,
        TokensPerPeriod = 1,
        ReplenishmentPeriod = TimeSpan.FromHours(1) / options.Value.NewLearners,
        QueueLimit = 0,
        AutoReplenishment = true,
    }));

    internal bool MayCome(Guid lesson, Learner learner)
    {
        if (learner.Name is not null)
            return true;
        using var lease = _limiter.AttemptAcquire($"{lesson} {learner.Address}");
        return lease.IsAcquired;
    }

    public void Dispose() => _limiter.Dispose();
}
