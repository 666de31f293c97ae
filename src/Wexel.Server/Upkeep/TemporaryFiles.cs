using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Data;
using Wexel.Making.Storage;
using Wexel.Media.Tools;
using Wexel.Server.Setup;

namespace Wexel.Server.Upkeep;

/// <summary>Removes what work that was killed has left on the disk.</summary>
internal sealed class TemporaryFiles(WexelDb db, FileStore store, IOptions<WexelOptions> options, TimeProvider clock) : IUpkeep
{
    /// <summary>Whoever writes a file writes more often than this.</summary>
    private static readonly TimeSpan SurelyAbandoned = TimeSpan.FromHours(1);

    public TimeSpan Every => options.Value.TemporaryFilesEvery;

    public async Task DoAsync(CancellationToken cancel)
    {
        var since = clock.GetUtcNow() - SurelyAbandoned;
        HalfMade.SweepFolders(since);
        store.RemoveAbandoned(entry => HalfMade.IsAbandoned(entry, since));
        var uploads = store.Uploads(since).ToList();
        var known = await db.Uploads.Where(u => uploads.Contains(u.Id)).Select(u => u.Id).ToListAsync(cancel);
        foreach (var upload in uploads.Except(known))
            File.Delete(store.Uploading(upload));
    }
}
