using System.Security.Cryptography;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Recordings;
using Wexel.Server.Setup;

namespace Wexel.Server.Uploads;

/// <summary>Takes in recordings that come in one go: to disk as they arrive, hashed on the way, and then as those are brought in that come in pieces.</summary>
internal sealed class Receiver(WexelDb db, FileStore store, DiskRoom room, UploadKeeper uploads, BringIn bringIn, IOptions<WexelOptions> options)
{
    private const int BlockBytes = 128 * 1024;

    /// <summary>Takes one in.</summary>
    /// <param name="body">The recording.</param>
    /// <param name="announcedBytes">How large it is said to be; null where nothing was said.</param>
    /// <param name="fileName">Its name where it comes from.</param>
    /// <param name="by">Who brings it in; empty where nobody in particular does.</param>
    /// <param name="byName">The name of whoever it is, for people.</param>
    /// <param name="cancel">Stops it.</param>
    /// <param name="forLesson">The lesson that it is to become a recording of; null for a lesson of its own.</param>
    internal async Task<Result<BroughtIn>> TakeAsync(
        Stream body,
        long? announcedBytes,
        string fileName,
        Guid by,
        string byName,
        CancellationToken cancel,
        Guid? forLesson = null
    )
    {
        fileName = CleanName(fileName);
        if (TooLarge(announcedBytes ?? 0, fileName, options.Value) is { } tooLarge)
            return tooLarge;
        if (await room.LacksBesideUploadsAsync(announcedBytes ?? 0, $"“{fileName}”", cancel) is { } full)
            return full;
        var arriving = store.Arriving();
        try
        {
            var (hash, bytes) = await WriteAsync(body, arriving, announcedBytes, cancel);
            if (TooLarge(bytes, fileName, options.Value) is { } tooLong)
                return tooLong;
            if (hash is null)
                return DiskRoom.NoMore($"“{fileName}”");
            var upload = new Upload
            {
                FileName = fileName,
                Bytes = bytes,
                RecordingHash = hash,
                ForLesson = forLesson,
                By = by,
                ByName = byName,
                ExpiresAt = uploads.Expires,
            };
            db.Uploads.Add(upload);
            File.Move(arriving, store.Uploading(upload.Id));
            await db.SaveChangesAsync(cancel);
            return await bringIn.TakeAsync(upload.Id, cancel);
        }
        finally
        {
            File.Delete(arriving);
        }
    }

    /// <summary>Why a file of a size cannot be brought in; null when it can.</summary>
    internal static Problem? TooLarge(long bytes, string fileName, WexelOptions options) =>
        bytes > options.LargestRecording
            ? new Problem(
                "recording-over-limit",
                $"“{fileName}” is larger than {options.LargestRecording / 1_000_000_000} GB, the most that one recording may have here.",
                "file"
            )
            : null;

    /// <summary>Writes it to disk.</summary>
    /// <returns>Its hash, and how much was written; no hash where it is too large, or where there is no room for more.</returns>
    private async Task<(string? Hash, long Bytes)> WriteAsync(Stream body, string path, long? announcedBytes, CancellationToken cancel)
    {
        using var sha = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        await using var file = new FileStream(
            path,
            new FileStreamOptions
            {
                Mode = FileMode.CreateNew,
                Access = FileAccess.Write,
                Options = FileOptions.Asynchronous,
                BufferSize = 0,
            }
        );
        var block = new byte[BlockBytes];
        long written = 0;
        int read;
        while ((read = await body.ReadAsync(block, cancel)) > 0)
        {
            if ((written += read) > options.Value.LargestRecording || (announcedBytes is null && room.Usable < read))
                return (null, written);
            sha.AppendData(block, 0, read);
            await file.WriteAsync(block.AsMemory(0, read), cancel);
        }

        if (announcedBytes is { } expected && written != expected)
            throw new IOException($"The upload broke off after {written} of {expected} bytes.");
        file.Flush(flushToDisk: true);
        return (Convert.ToHexStringLower(sha.GetHashAndReset()), written);
    }

    /// <summary>The name is only ever shown: without its folder and control characters, and not endless.</summary>
    internal static string CleanName(string fileName)
    {
        var name = fileName.Replace('\\', '/');
        name = new string([.. name[(name.LastIndexOf('/') + 1)..].Where(c => !char.IsControl(c))]).Trim();
        return name.Length == 0 ? "recording"
            : name.Length <= 200 ? name
            : name[^200..];
    }
}
