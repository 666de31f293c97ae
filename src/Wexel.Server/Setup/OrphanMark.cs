using System.Diagnostics;
using System.Globalization;
using Wexel.Data.Storage;

namespace Wexel.Server.Setup;

/// <summary>
/// Notes an encoder's process number beside the store while it works. A server that was killed leaves the note and the encoder
/// behind; the next one ends that encoder before it starts anew.
/// </summary>
internal sealed class OrphanMark : IDisposable
{
    private readonly string _path;

    /// <param name="store">Where the note lies.</param>
    /// <param name="work">What is worked on; a file name, the same when it is done again.</param>
    internal OrphanMark(FileStore store, string work)
    {
        _path = Path.Combine(Folder(store), work);
        End(_path, store);
    }

    internal void Note(int processId) => File.WriteAllText(_path, processId.ToString(CultureInfo.InvariantCulture));

    public void Dispose() => File.Delete(_path);

    private static string Folder(FileStore store) => Directory.CreateDirectory(Path.Combine(store.Root, "working")).FullName;

    private static void End(string note, FileStore store)
    {
        if (!File.Exists(note) || !int.TryParse(File.ReadAllText(note), CultureInfo.InvariantCulture, out var id))
            return;
        // The number may belong to another program by now: only one that works on this store's files is ended.
        var commandLine = $"/proc/{id}/cmdline";
        if (File.Exists(commandLine) && File.ReadAllText(commandLine) is var command && command.StartsWith("ffmpeg", StringComparison.Ordinal) && command.Contains(store.Root, StringComparison.Ordinal))
            Process.GetProcessById(id).Kill();
        File.Delete(note);
    }
}
