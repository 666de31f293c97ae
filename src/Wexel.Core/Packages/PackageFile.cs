using Wexel.Core.Keys;

namespace Wexel.Core.Packages;

/// <summary>A file in a package: where it lies, what it is for, and what it is made of.</summary>
/// <param name="Path">Its path in the package, with slashes.</param>
/// <param name="Purpose">What it is for, in one sentence for the person who hands it on.</param>
/// <param name="Content">What stands in it.</param>
/// <param name="IsThePageToLink">Whether this is the one to link.</param>
public sealed record PackageFile(string Path, string Purpose, PackageContent Content, bool IsThePageToLink = false)
{
    /// <summary>Files in one folder: two of such packages unpacked into one place lie beside each other.</summary>
    /// <param name="files">The files.</param>
    /// <param name="folder">The folder's name, which is safe.</param>
    public static IReadOnlyList<PackageFile> Within(IEnumerable<PackageFile> files, string folder) =>
        [.. files.Select(f => f with { Path = $"{folder}/{f.Path}" })];

    /// <summary>The path of a file in the one folder of its package.</summary>
    /// <param name="path">The path in the package, see <see cref="Within"/>.</param>
    public static string InFolder(string path) => path[(path.IndexOf('/', StringComparison.Ordinal) + 1)..];
}

/// <summary>What stands in a file of a package.</summary>
public abstract record PackageContent
{
    /// <summary>A text, written as UTF-8 without a byte order mark.</summary>
    /// <param name="Value">The text.</param>
    public sealed record Text(string Value) : PackageContent;

    /// <summary>A copy of a file that was made before.</summary>
    /// <param name="Source">That file.</param>
    /// <param name="AlreadyCompressed">Whether packing it tighter would gain nothing.</param>
    public sealed record Copy(KeyedFile Source, bool AlreadyCompressed) : PackageContent;
}
