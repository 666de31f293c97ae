using Microsoft.EntityFrameworkCore;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Server.Remembering;
using Wexel.Server.Shelves;

namespace Wexel.Server.Channel;

/// <summary>A channel, and who may see something in it.</summary>
internal sealed record ChannelOpening(Guid Channel, Shown Shown);

/// <summary>
/// Who may see anything in which channel, remembered for some seconds: every page leads to the channels of whoever looks at it, and thousands of
/// releases come to a few different openings.
/// </summary>
internal sealed class KnownOpenings(IDbContextFactory<WexelDb> databases, Changes changes, TimeProvider clock)
{
    private readonly Remembered<IReadOnlyList<ChannelOpening>> _known = new(changes, clock, "Releases", "Outlets", "Lessons");

    /// <summary>All different openings of what is listed in channels.</summary>
    internal async Task<IReadOnlyList<ChannelOpening>> AllAsync(CancellationToken cancel) => await _known.FindAsync("", ReadAsync, cancel) ?? [];

    private async Task<IReadOnlyList<ChannelOpening>?> ReadAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db
            .Releases.Where(r => r.Outlet!.Kind == ChannelKind.Channel && r.Visibility != Visibility.WithLink)
            .Select(r => new
            {
                r.OutletId,
                r.Visibility,
                r.OpensAt,
                r.EndsAt,
                r.Named,
                r.Lesson!.OwnerId,
            })
            .Distinct()
            .ToListAsync(cancel);
        return [.. rows.Select(r => new ChannelOpening(r.OutletId, ShownReleases.From(new Opening(r.Visibility, r.OpensAt, r.EndsAt), r.OwnerId, r.Named)))];
    }
}
