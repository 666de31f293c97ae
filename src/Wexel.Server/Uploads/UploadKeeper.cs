using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;

namespace Wexel.Server.Uploads;

/// <summary>Uploads that are coming, have come, or were given up.</summary>
internal static class UploadKeeper
{
    /// <summary>How long one waits for its next piece, and how long what came of it can be asked for.</summary>
    internal static readonly TimeSpan KeptFor = TimeSpan.FromDays(7);

    /// <summary>Somebody's own upload that has not expired, or null.</summary>
    internal static Task<Upload?> FindAsync(WexelDb db, Guid id, Guid by, TimeProvider clock, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        return db.Uploads.FirstOrDefaultAsync(u => u.Id == id && u.By == by && u.ExpiresAt > now, cancel);
    }

    /// <summary>How many bytes of it have come.</summary>
    internal static long Arrived(Upload upload, FileStore store)
    {
        var file = new FileInfo(store.Uploading(upload.Id));
        // What has become a recording lies elsewhere; all of it had come.
        return upload.LessonId is not null || upload.Problem is not null ? upload.Bytes : file.Exists ? file.Length : 0;
    }

    /// <summary>Removes what has expired, and has brought in what had come when a server went down.</summary>
    internal static async Task TidyAsync(WexelDb db, FileStore store, IBackgroundJobClient jobs, TimeProvider clock, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        foreach (var upload in await db.Uploads.ToListAsync(cancel))
        {
            if (upload.ExpiresAt <= now)
            {
                File.Delete(store.Uploading(upload.Id));
                db.Uploads.Remove(upload);
            }
            else if (upload is { LessonId: null, Problem: null } && Arrived(upload, store) == upload.Bytes)
            {
                jobs.Enqueue<UploadJob>(job => job.RunAsync(upload.Id, CancellationToken.None));
            }
        }

        await db.SaveChangesAsync(cancel);
    }
}
