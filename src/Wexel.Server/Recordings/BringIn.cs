using System.Security.Cryptography;
using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Lessons;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Probing;
using Wexel.Server.Lessons;
using Wexel.Server.Setup;

namespace Wexel.Server.Recordings;

/// <summary>What came of bringing in a file.</summary>
internal sealed record BroughtIn(string Hash, RecordingFacts Facts, bool KnownBefore, Guid LessonId, string? ProposedTitle);

/// <summary>Brings in recordings: to disk as they arrive, hashed on the way, probed, and made a lesson.</summary>
internal sealed class BringIn(WexelDb db, FileStore store, DiskRoom room, LessonSaver saver, IOptions<WexelOptions> options, IBackgroundJobClient jobs, TimeProvider clock)
{
    private const int BlockBytes = 128 * 1024;

    internal async Task<(BroughtIn? Done, Problem? Problem)> TakeAsync(Stream body, long? announcedBytes, string fileName, string by, CancellationToken cancel)
    {
        fileName = CleanName(fileName);
        if (TooLarge(announcedBytes ?? 0, fileName, options.Value) is { } tooLarge)
            return (null, tooLarge);
        if (room.Lacks(announcedBytes ?? 0, $"“{fileName}”") is { } full)
            return (null, full);
        var arriving = store.Arriving();
        try
        {
            var hash = await WriteAsync(body, arriving, announcedBytes, cancel);
            return await TakeFileAsync(arriving, hash, fileName, null, by, cancel);
        }
        finally
        {
            File.Delete(arriving);
        }
    }

    /// <summary>Takes a file that is here already: probed, kept under its hash and made a lesson; what cannot be used stays where it is.</summary>
    /// <param name="path">The file, on the store's disk.</param>
    /// <param name="hash">Its SHA-256.</param>
    /// <param name="fileName">Its name where it came from.</param>
    /// <param name="title">The lesson's title; without one it is proposed from the name.</param>
    /// <param name="by">Who brings it in.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<(BroughtIn? Done, Problem? Problem)> TakeFileAsync(string path, string hash, string fileName, string? title, string by, CancellationToken cancel)
    {
        var known = await db.Recordings.FindAsync([hash], cancel);
        if (known is not null && await LessonOfAsync(hash, cancel) is { } lessonId)
            return (new BroughtIn(hash, Json.Read<RecordingFacts>(known.Facts), true, lessonId, null), null);
        var (facts, problem) = await KeepAsync(path, hash, fileName, cancel);
        if (facts is null)
            return (null, problem);
        title = string.IsNullOrWhiteSpace(title) ? TitleProposal.From(fileName) : title;
        var lesson = await AddAsync(hash, facts, title, by, cancel);
        jobs.Enqueue<AnalysisJob>(job => job.RunAsync(hash, CancellationToken.None));
        return (new BroughtIn(hash, facts, false, lesson, title), null);
    }

    /// <summary>Takes a file that is to become a recording of a lesson that there is: kept and looked through, but no lesson of its own.</summary>
    internal async Task<(bool KnownBefore, Problem? Problem)> TakeForLessonAsync(string path, string hash, string fileName, CancellationToken cancel)
    {
        if (await db.Recordings.AnyAsync(r => r.Hash == hash, cancel))
            return (true, null);
        var (facts, problem) = await KeepAsync(path, hash, fileName, cancel);
        if (facts is null)
            return (false, problem);
        await db.SaveChangesAsync(cancel);
        jobs.Enqueue<AnalysisJob>(job => job.RunAsync(hash, CancellationToken.None));
        return (false, null);
    }

    /// <summary>Probes a file and keeps it under its hash; the caller saves.</summary>
    private async Task<(RecordingFacts? Facts, Problem? Problem)> KeepAsync(string path, string hash, string fileName, CancellationToken cancel)
    {
        var probed = await Prober.ProbeAsync(path, fileName, cancel);
        if (probed.Facts is not { } facts)
            return (null, probed.Problem);
        store.Keep(path, hash);
        if (await db.Recordings.FindAsync([hash], cancel) is null)
            db.Recordings.Add(new Recording { Hash = hash, FileName = fileName, Facts = Json.Write(facts), BroughtInAt = clock.GetUtcNow() });
        return (facts, null);
    }

    /// <summary>Why a file of a size cannot be brought in; null when it can.</summary>
    internal static Problem? TooLarge(long bytes, string fileName, WexelOptions options) => bytes > options.LargestRecording
        ? new Problem("recording-over-limit", $"“{fileName}” is larger than {options.LargestRecording / 1_000_000_000} GB, the most that one recording may have here.", "file")
        : null;

    /// <summary>The SHA-256 of a file.</summary>
    internal static async Task<string> HashAsync(string path, CancellationToken cancel)
    {
        await using var file = new FileStream(path, new FileStreamOptions { Options = FileOptions.Asynchronous | FileOptions.SequentialScan, BufferSize = 0 });
        return Convert.ToHexStringLower(await SHA256.HashDataAsync(file, cancel));
    }

    private Task<Guid?> LessonOfAsync(string hash, CancellationToken cancel) =>
        db.Lessons.Where(l => l.RecordingHash == hash).OrderBy(l => l.Id).Select(l => (Guid?)l.Id).FirstOrDefaultAsync(cancel);

    private async Task<Guid> AddAsync(string hash, RecordingFacts facts, string? title, string by, CancellationToken cancel)
    {
        var course = await db.Courses.OrderBy(c => c.Id).FirstOrDefaultAsync(cancel);
        if (course is null)
            db.Courses.Add(course = new Course { Title = "Lessons" });
        var position = await db.Lessons.Where(l => l.CourseId == course.Id).MaxAsync(l => (int?)l.Position, cancel) ?? 0;
        var lesson = new Lesson { CourseId = course.Id, Position = position + 1, Title = title ?? "", RecordingHash = hash, Length = facts.Length };
        db.Lessons.Add(lesson);
        saver.AddFirst(lesson, new LessonDocument(title ?? "", "", options.Value.Language, hash, [], [], null), "brought in", by);
        await db.SaveChangesAsync(cancel);
        return lesson.Id;
    }

    private static async Task<string> WriteAsync(Stream body, string path, long? announcedBytes, CancellationToken cancel)
    {
        using var sha = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        await using var file = new FileStream(path, new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write, Options = FileOptions.Asynchronous, BufferSize = 0 });
        var block = new byte[BlockBytes];
        long written = 0;
        int read;
        while ((read = await body.ReadAsync(block, cancel)) > 0)
        {
            sha.AppendData(block, 0, read);
            await file.WriteAsync(block.AsMemory(0, read), cancel);
            written += read;
        }

        if (announcedBytes is { } expected && written != expected)
            throw new IOException($"The upload broke off after {written} of {expected} bytes.");
        file.Flush(flushToDisk: true);
        return Convert.ToHexStringLower(sha.GetHashAndReset());
    }

    /// <summary>The name is only ever shown: without its folder and control characters, and not endless.</summary>
    internal static string CleanName(string fileName)
    {
        var name = fileName.Replace('\\', '/');
        name = new string([.. name[(name.LastIndexOf('/') + 1)..].Where(c => !char.IsControl(c))]).Trim();
        return name.Length == 0 ? "recording" : name.Length <= 200 ? name : name[^200..];
    }
}
