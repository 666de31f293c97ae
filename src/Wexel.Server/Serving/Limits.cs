using System.Globalization;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.RateLimiting;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Serving;

/// <summary>How often things may be asked for that cost more than an answer.</summary>
internal static class Limits
{
    /// <summary>Reports of what a learner has watched: by lesson and address.</summary>
    internal const string Progress = "progress";

    /// <summary>Notes that learners leave: by lesson and address.</summary>
    internal const string Notes = "notes";

    /// <summary>Uploads that are begun: by person.</summary>
    internal const string Uploads = "uploads";

    internal static void AddLimits(this IServiceCollection services)
    {
        services.AddRateLimiter(_ => { });
        services
            .AddOptions<RateLimiterOptions>()
            .Configure<IOptions<WexelOptions>>(
                (limits, options) =>
                {
                    limits.AddPolicy(Progress, http =>
                        Bucket($"{http.Request.RouteValues["token"]} {http.Connection.RemoteIpAddress}", options.Value.ProgressReports)
                    );
                    limits.AddPolicy(Notes, http => Bucket($"{http.Request.RouteValues["token"]} {http.Connection.RemoteIpAddress}", options.Value.NotesLeft));
                    limits.AddPolicy(Uploads, http => Bucket(http.User.Id().ToString(), options.Value.UploadsBegun));
                    limits.OnRejected = async (rejected, _) =>
                    {
                        var wait = rejected.Lease.TryGetMetadata(MetadataName.RetryAfter, out var after) ? after : TimeSpan.FromSeconds(1);
                        rejected.HttpContext.Response.Headers.RetryAfter = Math.Ceiling(wait.TotalSeconds).ToString(CultureInfo.InvariantCulture);
                        await Problems
                            .Answer(
                                new Problem("too-often", "That was asked for too often in a short time. Wait a moment, then try again."),
                                StatusCodes.Status429TooManyRequests
                            )
                            .ExecuteAsync(rejected.HttpContext);
                    };
                }
            );
    }

    /// <summary>So many at once, and as many again over a minute.</summary>
    private static RateLimitPartition<string> Bucket(string who, int most) =>
        RateLimitPartition.GetTokenBucketLimiter(who, _ => new TokenBucketRateLimiterOptions
        {
            TokenLimit = most,
            TokensPerPeriod = Math.Max(1, most / 60),
            ReplenishmentPeriod = TimeSpan.FromSeconds(1),
            QueueLimit = 0,
            AutoReplenishment = true,
        });
}
