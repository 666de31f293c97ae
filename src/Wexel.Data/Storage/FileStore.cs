namespace Wexel.Data.Storage;

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
    public string Derived(string key, string name) => Path.Combine(_derived, key[..2], key, name);

    /// <summary>Whether a made file is there.</summary>
    public bool Has(string key, string name) => File.Exists(Derived(key, name));

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
