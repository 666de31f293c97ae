namespace Wexel.Data.Storage;

/// <summary>A made file on disk.</summary>
/// <param name="Key">The key under which it lies.</param>
/// <param name="Name">Its path in the key's folder, with slashes.</param>
/// <param name="Bytes">How large it is.</param>
/// <param name="WrittenAt">When it was written.</param>
public sealed record StoredFile(string Key, string Name, long Bytes, DateTimeOffset WrittenAt);

/// <summary>The files on disk: recordings by their hash, and everything that is made from them by its key.</summary>
public sealed class FileStore
{
    private readonly string _recordings;
    private readonly string _derived;
    private readonly string _arriving;
    private readonly string _uploads;

    public FileStore(string root)
    {
        Root = Path.GetFullPath(root);
        _recordings = Directory.CreateDirectory(Path.Combine(Root, "recordings")).FullName;
        _derived = Directory.CreateDirectory(Path.Combine(Root, "derived")).FullName;
        _arriving = Directory.CreateDirectory(Path.Combine(Root, "arriving")).FullName;
        _uploads = Directory.CreateDirectory(Path.Combine(Root, "uploads")).FullName;
    }

    /// <summary>The folder in which everything lies.</summary>
    public string Root { get; }

    /// <summary>How many bytes are free on the disk.</summary>
    public long FreeBytes => new DriveInfo(Root).AvailableFreeSpace;

    /// <summary>Where a recording lies. It has no ending: what it is was probed, not guessed from a name.</summary>
    public string Recording(string hash) => Path.Combine(_recordings, hash);

    /// <summary>A new place for a file that is still arriving, on the same disk.</summary>
    public string Arriving() => Path.Combine(_arriving, Guid.NewGuid().ToString("N"));

    /// <summary>Where a file lies that comes in pieces; it stays through restarts.</summary>
    public string Uploading(Guid upload) => Path.Combine(_uploads, upload.ToString("N"));

    /// <summary>Where a made file lies or will lie: one folder a key, so that what a key stands for can be several files.</summary>
    public string Derived(string key, string name) => Path.Combine(Folder(key), name);

    /// <summary>The folder of a key.</summary>
    public string Folder(string key) => Path.Combine(_derived, key[..2], key);

    /// <summary>Whether a made file is there.</summary>
    public bool Has(string key, string name) => File.Exists(Derived(key, name));

    /// <summary>All made files, each with the key under which it lies and its path within that folder, with slashes.</summary>
    public IEnumerable<StoredFile> Made()
    {
        foreach (var file in new DirectoryInfo(_derived).EnumerateFiles("*", new EnumerationOptions { RecurseSubdirectories = true, AttributesToSkip = FileAttributes.ReparsePoint }))
        {
            // Two letters, the key, then the file's name or path.
            if (Path.GetRelativePath(_derived, file.FullName).Split('/', 3) is [_, var key, var name])
                yield return new StoredFile(key, name, file.Length, file.LastWriteTimeUtc);
        }
    }

    /// <summary>What all recordings take, in bytes, and how many they are.</summary>
    public (int Files, long Bytes) Recordings() => new DirectoryInfo(_recordings).EnumerateFiles().Aggregate((Files: 0, Bytes: 0L), (sum, f) => (sum.Files + 1, sum.Bytes + f.Length));

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

    /// <summary>Removes what was half-made or half-arrived when a server died: files that nobody has written to since then.</summary>
    public void RemoveAbandoned(DateTimeOffset notWrittenSince)
    {
        var halfMade = new DirectoryInfo(_derived).EnumerateFileSystemInfos(".making-*", SearchOption.AllDirectories);
        foreach (var abandoned in new DirectoryInfo(_arriving).EnumerateFiles().Concat(halfMade).Where(f => f.LastWriteTimeUtc < notWrittenSince.UtcDateTime).ToList())
        {
            if (abandoned is DirectoryInfo folder)
                folder.Delete(recursive: true);
            else
                abandoned.Delete();
        }
    }

    /// <summary>Takes a file that has arrived in as a recording; the same bytes brought in before stay as they are.</summary>
    public void Keep(string arrived, string hash)
    {
        if (File.Exists(Recording(hash)))
            File.Delete(arrived);
        else
            File.Move(arrived, Recording(hash));
    }
}
