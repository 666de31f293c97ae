using Wexel.Core.Keys;

namespace Wexel.Core.Packages;

/// <summary>The key of a package: what lies in it, and where.</summary>
public static class PackageKeys
{
    /// <summary>The key of a package of some files, in their order.</summary>
    public static string PackageKey(IReadOnlyList<PackageFile> files) =>
        MadeKey.Hash(Makers.Package, k => k.Each("files", files, (f, file) => Declare(f.Add("path", file.Path), file.Content)));

    /// <summary>The key of what is in a file, wherever it lies.</summary>
    public static string OfFile(PackageFile file) => MadeKey.Hash(Makers.Package, k => Declare(k, file.Content));

    private static void Declare(KeyFields key, PackageContent content) =>
        key.Add("text", (content as PackageContent.Text)?.Value).Add("copy", (content as PackageContent.Copy)?.Source.Key);
}
