using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Releases;

/// <summary>Keeps whoever asks for one thing waiting for a while; what takes longer goes on without them, and is shown as it goes.</summary>
internal sealed class ReleaseWaiting(WexelDb db, TimeProvider clock)
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    /// <summary>Waits until a release is as it is wanted, has failed, waits for a render or is gone, or until patience ends.</summary>
    /// <returns>Why it failed; null where it did not, or not yet.</returns>
    internal async Task<Problem?> UntilOverAsync<T>(Guid id, CancellationToken cancel)
        where T : PackagedRelease
    {
        for (var until = clock.GetUtcNow() + Patience; clock.GetUtcNow() < until; await Task.Delay(TimeSpan.FromMilliseconds(50), clock, cancel))
        {
            var now = await db.Set<T>()
                .IgnoreQueryFilters()
                .AsNoTracking()
                .Where(r => r.Id == id)
                .Select(r => new { r.Phase, r.Problem })
                .FirstOrDefaultAsync(cancel);
            if (now is { Phase: ReleasePhase.Failed, Problem: { } problem })
                return WexelJson.Read<Problem>(problem);
            if (now is null or { Phase: ReleasePhase.Rendering } || !ReleasePhases.IsUnderWay(now.Phase))
                break;
        }

        return null;
    }
}
