using System.Security.Cryptography;
using System.Text;
using Wexel.Media.Tools;

namespace Wexel.Server.Library;

/// <summary>The SHA-256 of made files, reckoned once: a file under a key does not change.</summary>
internal static class FileSums
{
    private const string Name = "SHA256SUMS";

    /// <summary>The sums of a file, or of all pieces of a folder, one a line as the tool <c>sha256sum</c> writes and checks them.</summary>
    /// <param name="folder">The folder of the key; the sums are kept there.</param>
    /// <param name="files">The files, relative to the folder, with slashes.</param>
    /// <param name="cancel">Stops it.</param>
    internal static async Task<string> ListAsync(string folder, IReadOnlyList<string> files, CancellationToken cancel)
    {
        var kept = Path.Combine(folder, Name);
        if (File.Exists(kept))
            return await File.ReadAllTextAsync(kept, cancel);
        var sums = new StringBuilder();
        foreach (var file in files)
        {
            await using var bytes = File.OpenRead(Path.Combine(folder, file));
            sums.Append(Convert.ToHexStringLower(await SHA256.HashDataAsync(bytes, cancel))).Append("  ").Append(file).Append('\n');
        }

        await WholeFile.MakeAsync(kept, temporary => File.WriteAllTextAsync(temporary, sums.ToString(), cancel));
        return sums.ToString();
    }

    /// <summary>The one number that stands for it: the file's own sum, or for a folder that of the list of its sums.</summary>
    internal static string One(string sums) =>
        sums.IndexOf('\n', StringComparison.Ordinal) == sums.Length - 1 ? sums[..64] : Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(sums)));
}
