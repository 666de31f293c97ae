using System.IO.Compression;

namespace Wexel.StandIns;

/// <summary>Why an upload was not taken.</summary>
internal sealed class RefusedException(string why) : Exception(why);

/// <summary>Unpacks what strangers send: within limits, and never outside the folder.</summary>
internal static class Archive
{
    private const long MostBytes = 4L * 1024 * 1024 * 1024;
    private const int MostFiles = 10_000;
    private const long HarmlessBytes = 20_000_000;
    private const int MostSwelling = 100;

    /// <summary>Unpacks to a new folder beside the target and then puts it in the target's place, so that a refused one changes nothing.</summary>
    /// <param name="zip">The archive; it can be sought.</param>
    /// <param name="target">The folder.</param>
    /// <param name="check">Looks at the unpacked folder before it is taken.</param>
    /// <exception cref="RefusedException">The archive is not taken.</exception>
    internal static void Unpack(Stream zip, string target, Action<string>? check = null)
    {
        var fresh = target + ".new-" + Guid.NewGuid().ToString("N");
        try
        {
            using var archive = new ZipArchive(zip, ZipArchiveMode.Read);
            if (archive.Entries.Count > MostFiles)
                throw new RefusedException("The archive has more files than are taken here.");
            long unpacked = 0;
            foreach (var entry in archive.Entries.Where(e => e.Name.Length > 0))
            {
                var path = Path.GetFullPath(Path.Combine(fresh, entry.FullName));
                if (!path.StartsWith(fresh + Path.DirectorySeparatorChar, StringComparison.Ordinal))
                    throw new RefusedException($"“{entry.FullName}” points outside the folder.");
                Directory.CreateDirectory(Path.GetDirectoryName(path)!);
                using var from = entry.Open();
                using var to = File.Create(path);
                unpacked = Copy(from, to, unpacked, zip.Length);
            }

            Directory.CreateDirectory(fresh);
            check?.Invoke(fresh);
            if (Directory.Exists(target))
                Directory.Delete(target, recursive: true);
            Directory.Move(fresh, target);
        }
        catch (InvalidDataException)
        {
            throw new RefusedException("That is not a ZIP file, or it is damaged.");
        }
        finally
        {
            if (Directory.Exists(fresh))
                Directory.Delete(fresh, recursive: true);
        }
    }

    /// <summary>Counts what really comes out: what an archive says of itself may be a lie.</summary>
    private static long Copy(Stream from, Stream to, long unpacked, long packed)
    {
        var block = new byte[128 * 1024];
        int read;
        while ((read = from.Read(block)) > 0)
        {
            unpacked += read;
            if (unpacked > MostBytes || (unpacked > HarmlessBytes && unpacked / MostSwelling > packed))
                throw new RefusedException("The archive unpacks to far more than it holds, as a zip bomb does.");
            to.Write(block, 0, read);
        }

        return unpacked;
    }

    /// <summary>Runs an action on a request's body as a file that can be sought.</summary>
    internal static async Task<T> WithBodyAsync<T>(HttpRequest request, Func<Stream, T> use)
    {
        var temporary = Path.GetTempFileName();
        try
        {
            await using var file = File.Open(temporary, FileMode.Create, FileAccess.ReadWrite);
            await request.Body.CopyToAsync(file);
            file.Position = 0;
            return use(file);
        }
        finally
        {
            File.Delete(temporary);
        }
    }

    /// <summary>A file in an unpacked folder, or null when there is none or it lies outside.</summary>
    internal static string? Find(string folder, string path)
    {
        var file = Path.GetFullPath(Path.Combine(folder, path));
        return file.StartsWith(folder + Path.DirectorySeparatorChar, StringComparison.Ordinal) && File.Exists(file) ? file : null;
    }

    /// <summary>Whether a text will do as a folder's name and a part of an address.</summary>
    internal static bool IsPlainName(string name) =>
        name.Length is > 0 and <= 60 && name.All(c => char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c == '-');
}
