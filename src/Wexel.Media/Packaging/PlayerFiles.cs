using System.Security.Cryptography;
using Wexel.Core.Keys;

namespace Wexel.Media.Packaging;

/// <summary>Finds the learner's player as it was built.</summary>
public static class PlayerFiles
{
    /// <summary>Every file of the player, as a path with slashes and where it lies with the hash of its bytes, in order of the path.</summary>
    /// <exception cref="DirectoryNotFoundException">The player was not built.</exception>
    public static IReadOnlyList<(string Path, KeyedFile Source)> In(string folder) =>
        [
            .. Directory
                .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
                // The smaller forms are for a web server that knows them.
                .Where(file => Path.GetExtension(file) is not (".br" or ".gz"))
                .Select(file =>
                    (
                        Path.GetRelativePath(folder, file).Replace('\\', '/'),
                        new KeyedFile(file, Convert.ToHexStringLower(SHA256.HashData(File.ReadAllBytes(file))))
                    )
                )
                .OrderBy(f => f.Item1, StringComparer.Ordinal),
        ];

    /// <summary>The folder <c>artifacts/player</c> above a folder, or null where there is none.</summary>
    public static string? FolderAbove(string start)
    {
        for (var folder = new DirectoryInfo(start); folder is not null; folder = folder.Parent)
        {
            var player = Path.Combine(folder.FullName, "artifacts", "player");
            if (File.Exists(Path.Combine(player, Core.Packages.PlayerPage.Script)))
                return player;
        }

        return null;
    }
}
