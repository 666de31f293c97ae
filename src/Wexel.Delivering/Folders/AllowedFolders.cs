using Wexel.Core;

namespace Wexel.Delivering.Folders;

/// <summary>The folders in which outlets may have theirs, as whoever looks after the server allows.</summary>
/// <param name="under">Only in these folders and below them may anything be put.</param>
internal sealed class AllowedFolders(IReadOnlyList<string> under)
{
    /// <summary>Where they may be; null where nowhere.</summary>
    internal string? Hint => under.Count == 0 ? null : $"It may lie in {string.Join(" or ", under)}, or below.";

    /// <summary>Why a folder cannot be used, or null.</summary>
    internal Problem? Unusable(string? to) =>
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

    /// <summary>Where a path lies in a folder.</summary>
    /// <exception cref="IOException">It would lie outside.</exception>
    internal static string Within(string root, string path)
    {
        var whole = Path.GetFullPath(path, root);
        return whole.StartsWith(root.TrimEnd('/') + "/", StringComparison.Ordinal) ? whole : throw new IOException($"“{path}” would lie outside the folder.");
    }

    /// <summary>What stood in the way of writing.</summary>
    internal static Problem Failed(Parcel parcel, string to, Exception failed, string rest) =>
        new(
            "delivery-failed",
            $"“{parcel.Outlet}” could not be written in “{to}”: {failed.Message} Look whether this server may write there and whether its disk is full, "
                + $"then try again; {rest}"
        );

    /// <summary>Writes a file to its end, also onto the disk.</summary>
    internal static async Task WriteAsync(ParcelFile file, string path, CancellationToken cancel)
    {
        await using var target = File.Create(path);
        await using var source = file.Open();
        await source.CopyToAsync(target, cancel);
        target.Flush(flushToDisk: true);
    }

    private static bool IsWithin(string root, string path) =>
        (Path.GetFullPath(path) + "/").StartsWith(Path.GetFullPath(root).TrimEnd('/') + "/", StringComparison.Ordinal);
}
