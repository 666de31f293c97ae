namespace Wexel.Core.Questions.Qti;

/// <summary>A picture in a package.</summary>
/// <param name="Path">Where it lies in the package; a JPEG.</param>
/// <param name="Width">In pixels.</param>
/// <param name="Height">In pixels.</param>
public sealed record QtiPicture(string Path, int Width, int Height);

/// <summary>The pictures of a question in a package.</summary>
/// <param name="Shown">Where the one lies that stands with it, a JPEG in the package; null for none.</param>
/// <param name="Clicked">The one on which a place is clicked; null where none is.</param>
public sealed record QtiPictures(string? Shown = null, QtiPicture? Clicked = null)
{
    /// <summary>No picture.</summary>
    public static QtiPictures None { get; } = new();

    /// <summary>The files of all that there are.</summary>
    internal IEnumerable<string> Files => new[] { Shown, Clicked?.Path }.OfType<string>();
}
