using Microsoft.EntityFrameworkCore;
using Wexel.Core.Encoding;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Shelves;

/// <summary>The profiles that can be chosen: those that ship, then the house's own.</summary>
internal sealed class ProfileShelf(WexelDb db)
{
    internal async Task<IReadOnlyList<Profile>> AllAsync(CancellationToken cancel) =>
        [
            .. Core.Encoding.Profiles.All,
            .. (await db.Profiles.AsNoTracking().ToListAsync(cancel)).Select(Read).OrderBy(p => p.Title, StringComparer.OrdinalIgnoreCase),
        ];

    internal async Task<Profile?> FindAsync(string id, CancellationToken cancel) =>
        Core.Encoding.Profiles.Find(id) ?? (await db.Profiles.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, cancel) is { } own ? Read(own) : null);

    private static Profile Read(OwnProfile own) => Profile.Format.Read(own.Document);
}
