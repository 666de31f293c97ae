using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Storage;
using Wexel.Server.Live;
using Wexel.Server.Recordings;
using Wexel.Server.Setup;

namespace Wexel.Server.Uploads;

/// <summary>Brings in what has come in pieces.</summary>
internal sealed class UploadJob(WexelDb db, FileStore store, BringIn bringIn, LiveNews news)
{
    [AutomaticRetry(Attempts = 3)]
    [Queue("default")]
    public async Task RunAsync(Guid id, CancellationToken cancel)
    {
        await using var hold = await WorkHold.TryAsync(db, $"upload {id}", cancel);
        if (hold is null || await db.Uploads.FirstOrDefaultAsync(u => u.Id == id, cancel) is not { LessonId: null, Problem: null } upload)
            return;
        var path = store.Uploading(id);
        if (!File.Exists(path))
            return;
        var hash = await BringIn.HashAsync(path, cancel);
        // A title may have been typed meanwhile.
        await db.Entry(upload).ReloadAsync(cancel);
        if (upload.ForLesson is { } lesson)
        {
            var (known, refused) = await bringIn.TakeForLessonAsync(path, hash, upload.FileName, cancel);
            (upload.LessonId, upload.KnownBefore, upload.Problem) = (refused is null ? lesson : null, known, refused is null ? null : Json.Write(refused));
        }
        else
        {
            var (done, problem) = await bringIn.TakeFileAsync(path, hash, upload.FileName, upload.Title, upload.ByName, cancel);
            (upload.LessonId, upload.KnownBefore, upload.Problem) = (done?.LessonId, done?.KnownBefore ?? false, problem is null ? null : Json.Write(problem));
        }

        upload.RecordingHash = upload.Problem is null ? hash : null;
        await db.SaveChangesAsync(cancel);
        File.Delete(path);
        await news.UploadAsync(id);
    }
}
