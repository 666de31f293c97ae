using Wexel.Core.Keys;

namespace Wexel.Core.Packages;

/// <summary>The key of a package: what lies in it, and where.</summary>
public static class PackageKeys
{
    /// <summary>The key of a package of some files, in their order.</summary>
    public static string Of(IReadOnlyList<PackageFile> files) => MadeKey.Of(Makers.Package, k => k.Each("files", files, (f, file) => f
        .Add("path", file.Path).Add("text", (file.Content as PackageContent.Text)?.Value).Add("copy", (file.Content as PackageContent.Copy)?.Source.Key)));
}
