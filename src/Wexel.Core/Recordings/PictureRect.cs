namespace Wexel.Core.Recordings;

/// <summary>A part of a picture, in pixels from its top left corner.</summary>
/// <param name="X">From the left.</param>
/// <param name="Y">From the top.</param>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
public readonly record struct PictureRect(int X, int Y, int Width, int Height);
