using System.Security.Cryptography;
using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Lessons;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Probing;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Recordings;

/// <summary>What came of bringing in a file.</summary>
internal sealed record BroughtIn(string Hash, RecordingFacts Facts, bool KnownBefore, Guid LessonId, string? ProposedTitle);

/// <summary>
/// Brings in recordings that have come: probed, kept under their hash, and made a lesson, or a recording of a lesson that there is. It may die at
/// any line and be run again: everything is written down first and moved after, and it goes on from wherever the bytes are.
/// </summary>
internal sealed class BringIn(
    WexelDb db,
    FileStore store,
    NewLessons lessons,
    LessonImport import,
    IOptions<WexelOptions> options,
    IBackgroundJobClient jobs,
    TimeProvider clock
)
{
    /// <summary>The name of the work on what has come.</summary>
    internal static string WorkOn(Guid upload) => $"upload {upload}";

    /// <summary>Brings in what has come, or finds what came of it before.</summary>
    /// <param name="id">The upload; all of it has come.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<Result<BroughtIn>> TakeAsync(Guid id, CancellationToken cancel)
    {
        await using var hold = await WorkHold.WaitAsync(db, WorkOn(id), cancel);
        if (await db.Uploads.FirstOrDefaultAsync(u => u.Id == id, cancel) is not { } upload)
            return new Problem("upload-stopped", "Bringing it in was stopped.", "file");
        await db.Entry(upload).ReloadAsync(cancel);
        if (!upload.Settled)
        {
            var problem = await WhereAsync(upload, cancel) is { } path
                ? LessonFile.IsName(upload.FileName)
                    ? await import.TakeAsync(upload, path, cancel)
                    : await TakeAsync(upload, path, upload.RecordingHash!, cancel)
                : new Problem("upload-gone", $"“{upload.FileName}” is no longer on the server’s disk. Bring it in again.", "file");
            if (problem is not null)
            {
                upload.Problem = WexelJson.Write(problem);
                await db.SaveChangesAsync(cancel);
            }
        }

        File.Delete(store.Uploading(id));
        if (upload.Problem is { } refused)
            return WexelJson.Read<Problem>(refused);
        var recording = await db.Recordings.FirstAsync(r => r.Hash == upload.RecordingHash, cancel);
        var title = upload.KnownBefore ? null : await db.Lessons.Where(l => l.Id == upload.LessonId).Select(l => l.Title).FirstOrDefaultAsync(cancel);
        return new BroughtIn(recording.Hash, WexelJson.Read<RecordingFacts>(recording.Facts), upload.KnownBefore, upload.LessonId!.Value, title);
    }

    /// <summary>Where the bytes are: where they came, or already where recordings lie; null where neither is so. Their hash is written down before
    /// they move.</summary>
    private async Task<string?> WhereAsync(Upload upload, CancellationToken cancel)
    {
        var coming = store.Uploading(upload.Id);
        if (new FileInfo(coming) is not { Exists: true } file)
            return upload.RecordingHash is { } hash && store.Recording(hash) is var kept && File.Exists(kept) ? kept : null;
        if (file.Length != upload.Bytes)
            throw new InvalidOperationException($"Of {upload.Bytes} bytes {file.Length} have come.");
        upload.RecordingHash ??= await HashAsync(coming, cancel);
        await db.SaveChangesAsync(cancel);
        return coming;
    }

    /// <summary>The same bytes make one lesson, however often and at once they come. The upload learns of the lesson in the same step in which there
    /// is one.</summary>
    /// <returns>Why they cannot be used; null where they can.</returns>
    private async Task<Problem?> TakeAsync(Upload upload, string path, string hash, CancellationToken cancel)
    {
        await using var one = await WorkHold.WaitAsync(db, $"bringing in {hash}", cancel);
        var known = await db.Recordings.FindAsync([hash], cancel);
        var lesson = upload.ForLesson ?? (known is null ? null : await FindLessonAsync(hash, cancel));
        if (known is not null && lesson is { } there)
        {
            upload.Became(there, knownBefore: true);
            await AgainAsync(known, path, cancel);
            return null;
        }

        if (!(await Prober.ProbeAsync(path, upload.FileName, cancel)).Is(out var facts, out var problem))
            return problem;
        store.Keep(path, hash);
        if (known is null)
            db.Recordings.Add(
                new Recording
                {
                    Hash = hash,
                    FileName = upload.FileName,
                    Facts = WexelJson.Write(facts),
                    BroughtInAt = clock.GetUtcNow(),
                }
            );
        if (lesson is { } its)
        {
            upload.Became(its, knownBefore: false);
            await db.SaveChangesAsync(cancel);
        }
        else
        {
            await lessons.AddAsync(
                upload,
                null,
                facts.Length,
                typed => new LessonDocument(typed ?? TitleProposal.From(upload.FileName) ?? "", "", options.Value.Language, hash, [], [], []),
                "brought in",
                cancel
            );
        }

        jobs.Enqueue<AnalysisJob>(job => job.RunAsync(hash, CancellationToken.None));
        return null;
    }

    /// <summary>Bytes that are here came again: where the file is lost it is here again, and what failed with it is tried again.</summary>
    private async Task AgainAsync(Recording known, string path, CancellationToken cancel)
    {
        store.Keep(path, known.Hash);
        var failed = known.AnalysisFailure is not null;
        if (failed)
            AnalysisJob.BeginAnew(known);
        await db.SaveChangesAsync(cancel);
        if (failed)
            jobs.Enqueue<AnalysisJob>(job => job.RunAsync(known.Hash, CancellationToken.None));
    }

    private Task<Guid?> FindLessonAsync(string hash, CancellationToken cancel) =>
        db.Lessons.Where(l => l.RecordingHash == hash).OrderBy(l => l.Id).Select(l => (Guid?)l.Id).FirstOrDefaultAsync(cancel);

    /// <summary>The SHA-256 of a file.</summary>
    internal static async Task<string> HashAsync(string path, CancellationToken cancel)
    {
        await using var file = new FileStream(path, new FileStreamOptions { Options = FileOptions.Asynchronous | FileOptions.SequentialScan, BufferSize = 0 });
        return Convert.ToHexStringLower(await SHA256.HashDataAsync(file, cancel));
    }
}
