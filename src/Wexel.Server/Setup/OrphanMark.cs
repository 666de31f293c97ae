using System.Diagnostics;
using System.Globalization;
using Wexel.Making.Storage;

namespace Wexel.Server.Setup;

/// <summary>
/// Notes the process numbers of encoders beside the store while they work. A server that was killed leaves the note and the encoders
/// behind; the next one ends those encoders before it starts anew.
/// </summary>
internal sealed class OrphanMark : IDisposable
{
    private readonly string _path;
    private readonly Lock _writing = new();

    /// <param name="store">Where the note lies.</param>
    /// <param name="work">What is worked on; a file name, the same when it is done again.</param>
    internal OrphanMark(FileStore store, string work)
    {
        _path = Path.Combine(Folder(store), work);
        End(_path, store);
    }

    /// <param name="processId">One more encoder; those that have ended stay noted.</param>
    internal void Note(int processId)
    {
        lock (_writing)
            File.AppendAllLines(_path, [processId.ToString(CultureInfo.InvariantCulture)]);
    }

    public void Dispose() => File.Delete(_path);

    private static string Folder(FileStore store) => Directory.CreateDirectory(Path.Combine(store.Root, "working")).FullName;

    private static void End(string note, FileStore store)
    {
        if (!File.Exists(note))
            return;
        foreach (var line in File.ReadLines(note))
        {
            if (int.TryParse(line, CultureInfo.InvariantCulture, out var id) && IsEncoder(id, store))
                Process.GetProcessById(id).Kill();
        }

        File.Delete(note);
    }

    /// <summary>The number may belong to another program by now: only one that works on this store's files is ended.</summary>
    private static bool IsEncoder(int id, FileStore store)
    {
        var commandLine = $"/proc/{id}/cmdline";
        return File.Exists(commandLine)
            && File.ReadAllText(commandLine) is var command
            && command.StartsWith("ffmpeg", StringComparison.Ordinal)
            && command.Contains(store.Root, StringComparison.Ordinal);
    }
}
