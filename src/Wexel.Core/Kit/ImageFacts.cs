using Wexel.Core.Keys;

namespace Wexel.Core.Kit;

/// <summary>How a picture's colours are kept.</summary>
public enum ImageColour
{
    /// <summary>Red, green and blue.</summary>
    Rgb,

    /// <summary>Shades of grey alone.</summary>
    Grey,

    /// <summary>Printing inks.</summary>
    Cmyk,
}

/// <summary>What was measured of a picture that somebody gives: a mark, or a feed's artwork.</summary>
/// <param name="Format">The codec's name: <c>mjpeg</c> for JPEG, <c>png</c>, or another.</param>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Colour">How its colours are kept.</param>
/// <param name="Transparent">Whether it has an alpha channel.</param>
/// <param name="Bytes">Its size, in bytes.</param>
public sealed record ImageFacts(string Format, int Width, int Height, ImageColour Colour, bool Transparent, long Bytes)
{
    /// <summary>The key of a picture that somebody gave.</summary>
    /// <param name="hash">The SHA-256 of its bytes.</param>
    public static string Key(string hash) => MadeKey.Hash(Makers.Image, k => k.Add("bytes", hash));

    /// <summary>Whether a text could be such a key.</summary>
    public static bool IsKey(string text) => text.Length == 64 && text.All(char.IsAsciiHexDigitLower);
}
