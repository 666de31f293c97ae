using Wexel.Core.Keys;

namespace Wexel.Making.Storage;

/// <summary>A made file on disk.</summary>
/// <param name="Key">The key under which it lies.</param>
/// <param name="Name">Its path in the key's folder, with slashes.</param>
/// <param name="Bytes">How large it is.</param>
/// <param name="WrittenAt">When it was written.</param>
public sealed record StoredFile(string Key, string Name, long Bytes, DateTimeOffset WrittenAt);

/// <summary>The files on disk: recordings and captions by their hash, and everything that is made from them by its key.</summary>
public sealed class FileStore
{
    private readonly string _recordings;
    private readonly string _derived;
    private readonly string _arriving;
    private readonly string _uploads;
    private readonly string _captions;
    private readonly Func<string, string> _halfMade;

    /// <param name="root">The folder in which everything lies; it is made where it is not there.</param>
    /// <param name="halfMade">Gives a new name in the folder of a path, for what is half-made.</param>
    public FileStore(string root, Func<string, string> halfMade)
    {
        _halfMade = halfMade;
        Root = Path.GetFullPath(root);
        _recordings = Directory.CreateDirectory(Path.Combine(Root, "recordings")).FullName;
        _derived = Directory.CreateDirectory(Path.Combine(Root, "derived")).FullName;
        _arriving = Directory.CreateDirectory(Path.Combine(Root, "arriving")).FullName;
        _captions = Directory.CreateDirectory(Path.Combine(Root, "captions")).FullName;
        _uploads = Directory.CreateDirectory(Path.Combine(Root, "uploads")).FullName;
    }

    /// <summary>The folder in which everything lies.</summary>
    public string Root { get; }

    /// <summary>Whether files can be written here.</summary>
    public bool CanWrite()
    {
        var trial = Arriving();
        try
        {
            File.WriteAllBytes(trial, []);
            File.Delete(trial);
            return true;
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
        {
            return false;
        }
    }

    /// <summary>How many bytes are free on the disk.</summary>
    public long FreeBytes => new DriveInfo(Root).AvailableFreeSpace;

    /// <summary>Where a recording lies. It has no ending: what it is was probed, not guessed from a name.</summary>
    public string Recording(string hash) => Path.Combine(_recordings, hash);

    /// <summary>Where the captions that somebody added or corrected lie, as WebVTT. They are nothing that can be made again.</summary>
    /// <param name="hash">The file's SHA-256.</param>
    public string Captions(string hash) => Path.Combine(_captions, hash + ".vtt");

    /// <summary>Makes a recording that lies elsewhere one of this store, without copying it.</summary>
    /// <param name="path">Where it lies.</param>
    /// <param name="hash">Its SHA-256.</param>
    public void Lend(string path, string hash)
    {
        if (!File.Exists(Recording(hash)))
            File.CreateSymbolicLink(Recording(hash), path);
    }

    /// <summary>A new place for a file that is still arriving, on the same disk.</summary>
    public string Arriving() => _halfMade(Path.Combine(_arriving, "file"));

    /// <summary>Where a file lies that comes in pieces; it stays through restarts.</summary>
    public string Uploading(Guid upload) => Path.Combine(_uploads, upload.ToString("N"));

    /// <summary>Where a made file lies or will lie: one folder a key, so that what a key stands for can be several files.</summary>
    public string Derived(string key, string name) => Path.Combine(Folder(key), name);

    /// <summary>A made file with what names its content.</summary>
    public KeyedFile Keyed(string key, string name) => new(Derived(key, name), $"{key}/{name}");

    /// <summary>The path of a made file within the folder of all made files, with slashes.</summary>
    public static string Within(string key, string name) => $"{key[..2]}/{key}/{name}";

    /// <summary>The folder of a key.</summary>
    public string Folder(string key) => Path.Combine(_derived, key[..2], key);

    /// <summary>Whether a made file is there.</summary>
    public bool Has(string key, string name) => File.Exists(Derived(key, name));

    /// <summary>All made files, each with the key under which it lies and its path within that folder, with slashes.</summary>
    public IEnumerable<StoredFile> Made()
    {
        foreach (
            var file in new DirectoryInfo(_derived).EnumerateFiles(
                "*",
                new EnumerationOptions { RecurseSubdirectories = true, AttributesToSkip = FileAttributes.ReparsePoint }
            )
        )
        {
            // Two letters, the key, then the file's name or path.
            if (Path.GetRelativePath(_derived, file.FullName).Split('/', 3) is [_, var key, var name])
                yield return new StoredFile(key, name, file.Length, file.LastWriteTimeUtc);
        }
    }

    /// <summary>What all recordings take, in bytes, and how many they are.</summary>
    public (int Files, long Bytes) Recordings() =>
        new DirectoryInfo(_recordings).EnumerateFiles().Aggregate((Files: 0, Bytes: 0L), (sum, f) => (sum.Files + 1, sum.Bytes + f.Length));

    /// <summary>Removes a made file, or all that lies under a key. Nobody ever sees half of it: it is moved away before it is deleted.</summary>
    /// <param name="key">The key.</param>
    /// <param name="name">The file's name; null for everything under the key.</param>
    public void Remove(string key, string? name)
    {
        var folder = Folder(key);
        var away = Arriving();
        if (name is null && Directory.Exists(folder))
        {
            Directory.Move(folder, away);
            Directory.Delete(away, recursive: true);
        }
        else if (name is not null)
        {
            File.Delete(Derived(key, name));
            if (Directory.Exists(folder) && !Directory.EnumerateFileSystemEntries(folder).Any())
                Directory.Delete(folder);
        }
    }

    /// <summary>The files of uploads that nobody has written to since a time.</summary>
    public IEnumerable<Guid> Uploads(DateTimeOffset notWrittenSince) =>
        new DirectoryInfo(_uploads)
            .EnumerateFiles()
            .Where(f => f.LastWriteTimeUtc < notWrittenSince.UtcDateTime)
            .Select(f => Guid.TryParseExact(f.Name, "N", out var id) ? id : default)
            .Where(id => id != default);

    /// <summary>Removes a recording that nothing is made of any more.</summary>
    /// <param name="hash">Its SHA-256.</param>
    public void RemoveRecording(string hash) => File.Delete(Recording(hash));

    /// <summary>Removes what was half-made or half-arrived when a server died.</summary>
    /// <param name="isAbandoned">Whether nobody works on a file or folder any more.</param>
    public void RemoveAbandoned(Predicate<FileSystemInfo> isAbandoned)
    {
        var halfMade = new DirectoryInfo(_derived).EnumerateFileSystemInfos(".making-*", SearchOption.AllDirectories);
        foreach (var abandoned in new DirectoryInfo(_arriving).EnumerateFileSystemInfos().Concat(halfMade).Where(f => isAbandoned(f)).ToList())
        {
            if (abandoned is DirectoryInfo folder)
                folder.Delete(recursive: true);
            else
                abandoned.Delete();
        }
    }

    /// <summary>Takes a file that has arrived in as a recording; the same bytes brought in before stay as they are.</summary>
    /// <param name="arrived">The file; it may lie where the recording lies already, when this is done again.</param>
    /// <param name="hash">Its SHA-256.</param>
    public void Keep(string arrived, string hash)
    {
        if (arrived == Recording(hash))
            return;
        if (File.Exists(Recording(hash)))
            File.Delete(arrived);
        else
            File.Move(arrived, Recording(hash));
    }
}
