using Wexel.Core;

namespace Wexel.Delivering.Folders;

/// <summary>A folder that this server sees, such as one of a web server, or a share. Each file in it is replaced by itself.</summary>
/// <param name="under">Only in these folders and below them may anything be put.</param>
public sealed class FolderDelivery(IReadOnlyList<string> under) : IDelivery
{
    private readonly AllowedFolders _allowed = new(under);

    /// <inheritdoc/>
    public string Code => "folder";

    /// <inheritdoc/>
    public string Name => "Put it into a folder of this server";

    /// <inheritdoc/>
    public string? AskedFor => "Folder, as a whole path";

    /// <inheritdoc/>
    public string? Hint => _allowed.Hint;

    /// <inheritdoc/>
    public Problem? Unusable(string? to) => _allowed.Unusable(to);

    /// <inheritdoc/>
    public async Task<Result<Delivered>> DeliverAsync(Parcel parcel, string to, IProgress<DeliveryStep> done, CancellationToken cancel)
    {
        if (Unusable(to) is { } unusable)
            return unusable;
        var root = Path.GetFullPath(to);
        try
        {
            foreach (var file in parcel.Put)
            {
                var path = AllowedFolders.Within(root, file.File.Path);
                Directory.CreateDirectory(Path.GetDirectoryName(path)!);
                // Others read here: a file is whole or not there.
                var temporary = Path.Combine(Path.GetDirectoryName(path)!, $".wexel-{Guid.NewGuid():N}");
                try
                {
                    await AllowedFolders.WriteAsync(file, temporary, cancel);
                    File.Move(temporary, path, overwrite: true);
                }
                finally
                {
                    File.Delete(temporary);
                }

                done.Report(new DeliveryStep(file.File.Path, file.File.Key));
            }

            foreach (var gone in parcel.Remove)
            {
                cancel.ThrowIfCancellationRequested();
                var path = AllowedFolders.Within(root, gone);
                if (File.Exists(path))
                    File.Delete(path);
                RemoveEmpty(Path.GetDirectoryName(path)!, root);
                done.Report(new DeliveryStep(gone, null));
            }

            return new Delivered(null);
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
        {
            return AllowedFolders.Failed(parcel, to, failed, "what is there already is not put again.");
        }
    }

    private static void RemoveEmpty(string folder, string root)
    {
        for (
            ;
            folder != root
                && folder.StartsWith(root, StringComparison.Ordinal)
                && Directory.Exists(folder)
                && !Directory.EnumerateFileSystemEntries(folder).Any();
            folder = Path.GetDirectoryName(folder)!
        )
            Directory.Delete(folder);
    }
}
