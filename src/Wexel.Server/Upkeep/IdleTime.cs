using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Upkeep;

/// <summary>Says when the machine has nothing better to do than what nobody waits for.</summary>
internal sealed class IdleTime(WexelDb db)
{
    /// <summary>Whether somebody waits for something that the machine has to do: a rendition or a look-through.</summary>
    internal async Task<bool> IsBusyAsync(CancellationToken cancel) =>
        await db.Renditions.AnyAsync(r => r.State == RenditionState.Waiting || r.State == RenditionState.Working, cancel)
        || await db.Recordings.AnyAsync(r => (r.Analysis == null || !r.Viewable) && r.AnalysisFailure == null, cancel);
}
