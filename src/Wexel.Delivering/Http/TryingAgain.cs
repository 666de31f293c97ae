using Microsoft.Extensions.Http.Resilience;
using Polly;

namespace Wexel.Delivering.Http;

/// <summary>Tries again what may pass by itself: a line that breaks, a server that is busy (RFC 9110, section 15.6; RFC 6585, section 4). The pause that a
/// server asks for is kept (RFC 9110, section 10.2.3).</summary>
internal static class TryingAgain
{
    /// <param name="firstPause">How long is waited at first; each further pause is twice as long. Null for what is usual.</param>
    internal static ResiliencePipeline<HttpResponseMessage> Pipeline(TimeSpan? firstPause) =>
        new ResiliencePipelineBuilder<HttpResponseMessage>()
            .AddRetry(
                new HttpRetryStrategyOptions
                {
                    ShouldHandle = tried =>
                        ValueTask.FromResult(
                            tried.Outcome.Exception is not OutsideOnly.InsideException && HttpClientResiliencePredicates.IsTransient(tried.Outcome)
                        ),
                    MaxRetryAttempts = 3,
                    Delay = firstPause ?? TimeSpan.FromSeconds(1),
                    BackoffType = DelayBackoffType.Exponential,
                    UseJitter = true,
                }
            )
            .Build();
}
