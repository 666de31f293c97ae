using System.Threading.RateLimiting;
using Microsoft.Extensions.Options;
using Wexel.Server.Setup;

namespace Wexel.Server.Learning;

/// <summary>How many learners whom nobody knows may begin a lesson from one address: by a link anybody can say that they are another.</summary>
internal sealed class NewLearners(IOptions<WexelOptions> options) : IDisposable
{
    private readonly PartitionedRateLimiter<string> _limiter = PartitionedRateLimiter.Create<string, string>(who =>
        RateLimitPartition.GetTokenBucketLimiter(who, _ => new TokenBucketRateLimiterOptions
        {
            TokenLimit = options.Value.NewLearners,
            TokensPerPeriod = 1,
            ReplenishmentPeriod = TimeSpan.FromHours(1) / options.Value.NewLearners,
            QueueLimit = 0,
            AutoReplenishment = true,
        })
    );

    internal bool MayCome(Guid lesson, Learner learner)
    {
        if (learner.Name is not null)
            return true;
        using var lease = _limiter.AttemptAcquire($"{lesson} {learner.Address}");
        return lease.IsAcquired;
    }

    public void Dispose() => _limiter.Dispose();
}
