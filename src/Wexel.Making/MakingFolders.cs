using Wexel.Making.Storage;

namespace Wexel.Making;

/// <summary>Where things are made.</summary>
/// <param name="Store">Recordings, and everything that is made of them.</param>
/// <param name="PlayerFolder">The learner's player as it was built.</param>
public sealed record MakingFolders(FileStore Store, string PlayerFolder)
{
    /// <summary>The fonts of captions in the picture and of artwork.</summary>
    public string Fonts => Path.Combine(PlayerFolder, "fonts");
}
