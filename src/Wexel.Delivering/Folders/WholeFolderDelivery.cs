using Wexel.Core;

namespace Wexel.Delivering.Folders;

/// <summary>
/// A folder of its own for each parcel, written whole beside where it goes, and only then put in the place of the earlier one: who looks there
/// sees the one or the other, and nothing half.
/// </summary>
/// <param name="under">Only in these folders and below them may anything be put.</param>
public sealed class WholeFolderDelivery(IReadOnlyList<string> under) : IDelivery
{
    private readonly AllowedFolders _allowed = new(under);

    /// <inheritdoc/>
    public string Code => "wholeFolder";

    /// <inheritdoc/>
    public string Name => "Put it into a folder, whole";

    /// <inheritdoc/>
    public string? AskedFor => "Folder, as a whole path";

    /// <inheritdoc/>
    public string? Hint => _allowed.Hint;

    /// <inheritdoc/>
    public Problem? Unusable(string? to) => _allowed.Unusable(to);

    /// <inheritdoc/>
    public IReadOnlyList<string> Names(string to) =>
        Unusable(to) is null ? [.. Directory.EnumerateFileSystemEntries(to).Select(Path.GetFileName).OfType<string>()] : [];

    /// <inheritdoc/>
    public async Task<Result<Delivered>> DeliverAsync(Parcel parcel, string to, IProgress<DeliveryStep> done, CancellationToken cancel)
    {
        if (Unusable(to) is { } unusable)
            return unusable;
        var root = Path.GetFullPath(to);
        try
        {
            foreach (var folder in parcel.Put.Select(f => f.File.Path).Concat(parcel.Remove).Select(Top).Distinct().ToList())
            {
                var (put, remove) = (parcel.Put.Where(f => Top(f.File.Path) == folder).ToList(), parcel.Remove.Where(p => Top(p) == folder).ToHashSet());
                await ReplaceAsync(root, folder, put, remove, cancel);
                foreach (var file in put)
                    done.Report(new DeliveryStep(file.File.Path, file.File.Key));
                foreach (var gone in remove)
                    done.Report(new DeliveryStep(gone, null));
            }

            return new Delivered(parcel.Put.Count == 0 ? null : Path.Combine(root, Top(parcel.Put[0].File.Path)));
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
        {
            return AllowedFolders.Failed(parcel, to, failed, "what stood there stands there still.");
        }
    }

    private static async Task ReplaceAsync(string root, string folder, List<ParcelFile> put, HashSet<string> remove, CancellationToken cancel)
    {
        var there = AllowedFolders.Within(root, folder);
        var (next, last) = (Path.Combine(root, $".wexel-next {folder}"), Path.Combine(root, $".wexel-last {folder}"));
        // Whoever died between the two moves left the earlier one aside.
        if (Directory.Exists(last) && !Directory.Exists(there))
            Directory.Move(last, there);
        RemoveIfThere(last);
        RemoveIfThere(next);
        try
        {
            Directory.CreateDirectory(next);
            var replaced = put.Select(f => f.File.Path).ToHashSet();
            if (Directory.Exists(there))
            {
                foreach (var file in Directory.EnumerateFiles(there, "*", SearchOption.AllDirectories))
                {
                    cancel.ThrowIfCancellationRequested();
                    var path = $"{folder}/{Path.GetRelativePath(there, file)}";
                    if (!remove.Contains(path) && !replaced.Contains(path))
                        File.Copy(file, Made(next, Path.GetRelativePath(there, file)));
                }
            }

            foreach (var file in put)
                await AllowedFolders.WriteAsync(file, Made(next, file.File.Path[(folder.Length + 1)..]), cancel);
            cancel.ThrowIfCancellationRequested();
            if (!put.All(f => File.Exists(AllowedFolders.Within(next, f.File.Path[(folder.Length + 1)..]))))
                throw new DirectoryNotFoundException("The folder went away while it was written to.");
            if (Directory.Exists(there))
                Directory.Move(there, last);
            try
            {
                if (Directory.EnumerateFileSystemEntries(next).Any())
                    Directory.Move(next, there);
            }
            catch
            {
                if (Directory.Exists(last))
                    Directory.Move(last, there);
                throw;
            }

            RemoveIfThere(last);
        }
        finally
        {
            RemoveIfThere(next);
        }
    }

    private static string Top(string path) => path.Split('/')[0];

    /// <summary>Where a file is written, with its folder.</summary>
    private static string Made(string next, string path)
    {
        // A share that went away would be made anew on this machine's own disk, with what is left to write.
        if (!Directory.Exists(next))
            throw new DirectoryNotFoundException("The folder went away while it was written to.");
        var whole = AllowedFolders.Within(next, path);
        Directory.CreateDirectory(Path.GetDirectoryName(whole)!);
        return whole;
    }

    private static void RemoveIfThere(string folder)
    {
        if (Directory.Exists(folder))
            Directory.Delete(folder, recursive: true);
    }
}
