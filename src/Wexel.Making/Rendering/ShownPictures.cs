using Wexel.Core.Lessons;
using Wexel.Core.Recordings;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Making.Rendering;

/// <summary>Makes the pictures that stand with questions and notes, of what somebody gave.</summary>
/// <param name="store">Where both lie.</param>
public sealed class ShownPictures(FileStore store)
{
    /// <summary>Makes one; nothing where it is there.</summary>
    /// <param name="key">The key of what was given.</param>
    /// <returns>Where it lies.</returns>
    /// <exception cref="InvalidDataException">What was given cannot be read as a picture.</exception>
    public async Task<string> MakeAsync(string key)
    {
        var path = store.Derived(key, MadeNames.Shown);
        if (!Wholeness.IsWhole(path))
            await GivenPicture.MakeAsync(store.Derived(key, MadeNames.GivenPicture), ShownPicture.SizeOf, Whole, path);
        return path;
    }

    private static PictureRect Whole(PictureSize given, PictureSize wanted) => new(0, 0, given.Width, given.Height);
}
