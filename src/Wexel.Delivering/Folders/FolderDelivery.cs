using Wexel.Core;

namespace Wexel.Delivering.Folders;

/// <summary>A folder that this server sees, such as one of a web server, or a share.</summary>
/// <param name="under">Only in these folders and below them may anything be put.</param>
public sealed class FolderDelivery(IReadOnlyList<string> under) : IDelivery
{
    /// <inheritdoc/>
    public string Code => "folder";

    /// <inheritdoc/>
    public string Name => "Put it into a folder of this server";

    /// <inheritdoc/>
    public string? AskedFor => "Folder, as a whole path";

    /// <inheritdoc/>
    public Problem? Unusable(string? to) =>
        to switch
        {
            null or "" => new Problem("delivery-without-folder", "Write the folder’s whole path, such as /srv/www/lessons.", "deliverTo"),
            _ when !Path.IsPathFullyQualified(to) => new Problem(
                "delivery-folder-unusable",
                $"“{to}” is no whole path; write one such as /srv/www/lessons.",
                "deliverTo"
            ),
            _ when under.Count == 0 => new Problem(
                "delivery-no-folders",
                "Whoever looks after the server has named no folder for outlets (Wexel__OutletFolders). Ask them, or choose another way.",
                "deliverTo"
            ),
            _ when !under.Any(root => IsWithin(root, to)) => new Problem(
                "delivery-folder-elsewhere",
                $"Outlets may have folders in {string.Join(" and ", under)}, and “{to}” is none of them.",
                "deliverTo"
            ),
            _ when !Directory.Exists(to) => new Problem(
                "delivery-folder-missing",
                $"There is no folder “{to}” on this server. Make it, or choose another.",
                "deliverTo"
            ),
            _ => null,
        };

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
                var path = Within(root, file.File.Path);
                Directory.CreateDirectory(Path.GetDirectoryName(path)!);
                // Others read here: a file is whole or not there.
                var temporary = Path.Combine(Path.GetDirectoryName(path)!, $".wexel-{Guid.NewGuid():N}");
                try
                {
                    await using (var target = File.Create(temporary))
                    await using (var source = file.Open())
                    {
                        await source.CopyToAsync(target, cancel);
                        target.Flush(flushToDisk: true);
                    }

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
                var path = Within(root, gone);
                if (File.Exists(path))
                    File.Delete(path);
                RemoveEmpty(Path.GetDirectoryName(path)!, root);
                done.Report(new DeliveryStep(gone, null));
            }

            return new Delivered(null);
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
        {
            return new Problem(
                "delivery-failed",
                $"“{parcel.Outlet}” could not be written in “{to}”: {failed.Message} Look whether this server may write there, then try again; "
                    + $"what is there already is not put again."
            );
        }
    }

    private static bool IsWithin(string root, string path) =>
        (Path.GetFullPath(path) + "/").StartsWith(Path.GetFullPath(root).TrimEnd('/') + "/", StringComparison.Ordinal);

    private static string Within(string root, string path)
    {
        var whole = Path.GetFullPath(path, root);
        return whole.StartsWith(root.TrimEnd('/') + "/", StringComparison.Ordinal) ? whole : throw new IOException($"“{path}” would lie outside the folder.");
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
