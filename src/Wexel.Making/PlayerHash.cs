using Wexel.Core.Keys;
using Wexel.Media.Packaging;

namespace Wexel.Making;

/// <summary>The hash of the learner's player as it was built, by the bytes of its files.</summary>
/// <param name="folders">Where it lies.</param>
public sealed class PlayerHash(MakingFolders folders)
{
    private readonly Lazy<string> _value = new(() =>
        MadeKey.Hash(Makers.Package, k =>
            k.Each("player", PlayerFiles.In(folders.PlayerFolder), (f, file) => f.Add("path", file.Path).Add("bytes", file.Source.Key))
        )
    );

    /// <summary>The hash; the player does not change while a server runs.</summary>
    public string Value => _value.Value;
}
