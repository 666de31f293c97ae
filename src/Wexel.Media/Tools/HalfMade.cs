namespace Wexel.Media.Tools;

/// <summary>
/// The names of files and folders that are being made: they say who makes them, so that what a process that was killed left behind is told
/// from what is being made.
/// </summary>
public static class HalfMade
{
    /// <summary>How the names begin of what becomes a file or folder of another name, in the folder where that will lie.</summary>
    public const string Beginning = ".making-";

    private const string WorkBeginning = "wexel-work-";

    /// <summary>A new name in the folder of what is made; the ending stays last, since tools tell the format by it.</summary>
    /// <param name="path">What it will become.</param>
    public static string Beside(string path) =>
        Path.Combine(Path.GetDirectoryName(Path.GetFullPath(path))!, $"{Beginning}{Owner.Mine}-{Guid.NewGuid():N}" + Path.GetExtension(path));

    /// <summary>A new, empty folder among the system's temporary ones, for what is needed while something is made. Nobody else can look into it.</summary>
    public static string Folder() => Directory.CreateTempSubdirectory($"{WorkBeginning}{Owner.Mine}-").FullName;

    /// <summary>
    /// Whether nobody makes it any more: its owner has ended. Where its owner is another machine's, or its name says none, whether nothing of it was
    /// written to since a time.
    /// </summary>
    /// <param name="entry">The file or folder.</param>
    /// <param name="notWrittenSince">That time.</param>
    public static bool IsAbandoned(FileSystemInfo entry, DateTimeOffset notWrittenSince)
    {
        var parts = entry.Name.TrimStart('.').Split('-');
        return (parts.Length > 2 ? Owner.Lives(parts[^2]) : null) is { } lives ? !lives : LastWritten(entry) < notWrittenSince.UtcDateTime;
    }

    /// <summary>Removes the folders of <see cref="Folder"/> that nobody works in any more.</summary>
    /// <param name="notWrittenSince">See <see cref="IsAbandoned"/>.</param>
    public static void SweepFolders(DateTimeOffset notWrittenSince)
    {
        foreach (
            var folder in new DirectoryInfo(Path.GetTempPath())
                .EnumerateDirectories(WorkBeginning + "*")
                .Where(folder => IsAbandoned(folder, notWrittenSince))
                .ToList()
        )
        {
            try
            {
                folder.Delete(recursive: true);
            }
            catch (Exception left) when (left is IOException or UnauthorizedAccessException)
            {
                // It is another user's, or another process sweeps it in this moment.
            }
        }
    }

    private static DateTime LastWritten(FileSystemInfo entry) =>
        entry is DirectoryInfo folder
            ? folder.EnumerateFileSystemInfos("*", SearchOption.AllDirectories).Select(e => e.LastWriteTimeUtc).Append(folder.LastWriteTimeUtc).Max()
            : entry.LastWriteTimeUtc;
}
