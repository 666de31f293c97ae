using Microsoft.EntityFrameworkCore;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Making.Lessons;
using Wexel.Server.Shelves;

namespace Wexel.Server.Estimates;

/// <summary>What a rendition will come to, with its range and what follows.</summary>
/// <param name="Sampled">Whether samples of the lesson were encoded for it.</param>
/// <param name="Upload">How long the file takes to go up the house's line.</param>
/// <param name="PlaysAMonth">How often the hosting plan's traffic lets it be played.</param>
/// <param name="Limits">How much of the outlets' limits it takes.</param>
internal sealed record EstimateView(
    long Bytes,
    long LeastBytes,
    long MostBytes,
    TimeSpan Time,
    TimeSpan LeastTime,
    TimeSpan MostTime,
    bool Sampled,
    TimeSpan Upload,
    long PlaysAMonth,
    IReadOnlyList<LimitShare> Limits
);

/// <summary>Says what renditions will come to, corrected by what this machine did before.</summary>
internal sealed class EstimateReader(WexelDb db, OutletShelf outlets, RenditionEstimates estimates, RenderPlans plans)
{
    private readonly Dictionary<bool, double> _slowness = [];
    private HostingPlan? _plan;
    private List<OutletLimits>? _limits;

    internal async Task<EstimateView> EstimateAsync(PlannedRendition planned, CancellationToken cancel) =>
        await EstimateAsync(planned, await estimates.EstimateAsync(planned, cancel), cancel);

    internal async Task<EstimateView> EstimateAsync(PlannedRendition planned, RenderEstimate estimate, CancellationToken cancel)
    {
        if (!_slowness.TryGetValue(estimate.Sampled, out var slowness))
            _slowness[estimate.Sampled] = slowness = await plans.SlownessAsync(estimate.Sampled, cancel);
        _plan ??= HouseShelf.Plan(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel));
        _limits ??= [.. (await outlets.AllAsync(cancel)).Select(o => o.Limits)];
        var (size, seconds) = (estimate.Size, estimate.Seconds.Times(slowness));
        return new EstimateView(
            (long)size.Value,
            (long)size.Least,
            (long)size.Most,
            TimeSpan.FromSeconds(seconds.Value),
            TimeSpan.FromSeconds(seconds.Least),
            TimeSpan.FromSeconds(seconds.Most),
            estimate.Sampled,
            _plan.Upload(size.Value),
            _plan.PlaysAMonth(size.Value),
            [.. _limits.SelectMany(l => l.Shares(size.Value, planned.Plan.Length))]
        );
    }
}
