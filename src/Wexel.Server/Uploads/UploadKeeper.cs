using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Recordings;

namespace Wexel.Server.Uploads;

/// <summary>Uploads that are coming, have come, or were given up.</summary>
internal sealed class UploadKeeper(WexelDb db, FileStore store, PieceWriter pieces, IBackgroundJobClient jobs, TimeProvider clock)
{
    /// <summary>How long one waits for its next piece, and how long what came of it can be asked for.</summary>
    private static readonly TimeSpan KeptFor = TimeSpan.FromDays(7);

    /// <summary>When an upload expires of which something happens now.</summary>
    internal DateTimeOffset Expires => clock.GetUtcNow() + KeptFor;

    /// <summary>Somebody's own upload that has not expired, or null.</summary>
    internal Task<Upload?> FindAsync(Guid id, Guid by, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        return db.Uploads.FirstOrDefaultAsync(u => u.Id == id && u.By == by && u.ExpiresAt > now, cancel);
    }

    /// <summary>How many uploads of somebody's have not come to their end.</summary>
    internal Task<int> UnderWayAsync(Guid by, CancellationToken cancel) =>
        db.Uploads.CountAsync(u => u.By == by && u.LessonId == null && u.Problem == null, cancel);

    /// <summary>Whether all of it has come, so that it is where recordings lie or on its way there.</summary>
    internal static bool AllCame(Upload upload) => upload.Settled || upload.RecordingHash is not null;

    /// <summary>How many bytes of it have come; never fewer than were said before.</summary>
    internal async Task<long> ArrivedAsync(Upload upload, CancellationToken cancel)
    {
        if (AllCame(upload))
            return upload.Bytes;
        var path = store.Uploading(upload.Id);
        if (new FileInfo(path) is { Exists: true } file)
            return pieces.Unchecked(path) is { } from ? from : file.Length;
        // It was moved after this row was read: then the row says more by now.
        return await db.Uploads.AsNoTracking().FirstOrDefaultAsync(u => u.Id == upload.Id, cancel) is { } now && AllCame(now) ? now.Bytes : 0;
    }

    /// <summary>A piece has come: it lasts longer, and once it is whole it is brought in.</summary>
    /// <returns>How many bytes have come, and when it expires; null where somebody stopped it meanwhile.</returns>
    internal async Task<(long Arrived, DateTimeOffset Expires)?> KeptAsync(Upload upload)
    {
        // Nothing stops this: the bytes are here.
        var (arrived, expires) = (await ArrivedAsync(upload, CancellationToken.None), Expires);
        if (await db.Uploads.Where(u => u.Id == upload.Id).ExecuteUpdateAsync(set => set.SetProperty(u => u.ExpiresAt, expires)) == 0)
            return null;
        if (arrived == upload.Bytes)
            Enqueue(upload.Id);
        return (arrived, expires);
    }

    /// <summary>Has brought in what has come and is not being brought in: a server went down, or could not reach its database.</summary>
    internal async Task TakeUpAsync(CancellationToken cancel)
    {
        foreach (var upload in await db.Uploads.AsNoTracking().Where(u => u.LessonId == null && u.Problem == null).ToListAsync(cancel))
        {
            if (await ArrivedAsync(upload, cancel) == upload.Bytes && await WorkHold.IsFreeAsync(db, BringIn.WorkOn(upload.Id), cancel))
                Enqueue(upload.Id);
        }
    }

    /// <summary>Removes what has expired.</summary>
    internal async Task RemoveExpiredAsync(CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        foreach (var expired in await db.Uploads.Where(u => u.ExpiresAt <= now).ToListAsync(cancel))
            await RemoveAsync(expired, cancel);
    }

    internal async Task RemoveAsync(Upload upload, CancellationToken cancel)
    {
        await db.Uploads.Where(u => u.Id == upload.Id).ExecuteDeleteAsync(cancel);
        File.Delete(store.Uploading(upload.Id));
    }

    private void Enqueue(Guid id) => jobs.Enqueue<UploadJob>(job => job.RunAsync(id, CancellationToken.None));
}
