using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Data;
using Wexel.Making.Storage;

namespace Wexel.Server.Setup;

/// <summary>Notices a full disk before work starts, and while something comes.</summary>
internal sealed class DiskRoom(FileStore store, IDbContextFactory<WexelDb> databases, IOptions<WexelOptions> options)
{
    /// <summary>The code of the problem.</summary>
    internal const string Full = "disk-full";

    /// <summary>How many bytes may be written now, without what must stay free.</summary>
    internal long Usable => store.FreeBytes - options.Value.KeepFree;

    /// <summary>Why there is no room for so many bytes; null when there is.</summary>
    internal Problem? Lacks(long bytes, string what) => Lacks(bytes, Usable, what);

    /// <summary>The same for an upload that is to begin: what others have announced and not sent yet is spoken for.</summary>
    internal async Task<Problem?> LacksBesideUploadsAsync(long bytes, string what, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var coming = await db
            .Uploads.Where(u => u.LessonId == null && u.Problem == null && u.RecordingHash == null)
            .Select(u => new { u.Id, u.Bytes })
            .ToListAsync(cancel);
        var missing = coming.Sum(u => Math.Max(0, u.Bytes - (new FileInfo(store.Uploading(u.Id)) is { Exists: true } file ? file.Length : 0)));
        return Lacks(bytes, Usable - missing, what);
    }

    /// <summary>That the disk has become full while something came.</summary>
    internal static Problem NoMore(string what) => new(Full, $"The server's disk has become full while {what} came. Free some room and try again.");

    private static Problem? Lacks(long bytes, long usable, string what) =>
        bytes <= usable
            ? null
            : new Problem(
                Full,
                $"There is no room for {what}: it needs {Megabytes(bytes)} MB and {Megabytes(Math.Max(0, usable))} MB are free. Free some room on "
                    + $"the server's disk and try again."
            );

    private static string Megabytes(long bytes) => (bytes / 1_000_000).ToString("N0", System.Globalization.CultureInfo.InvariantCulture);
}
