using System.Text;
using System.Xml;

namespace Wexel.Core;

/// <summary>Texts for XML 1.0.</summary>
public static class XmlText
{
    /// <summary>The text with a space in place of each character that XML 1.0 (section 2.2) has no way to write.</summary>
    public static string Printable(string text)
    {
        // Nearly every text is: XML has no way to write some controls, halves of pairs, and U+FFFE and U+FFFF.
        if (text.AsSpan().IndexOfAnyExceptInRange(' ', '\uD7FF') < 0)
            return text;
        var kept = new StringBuilder(text.Length);
        // What is no whole character (half of a surrogate pair) comes as the replacement character, which says nothing to a reader.
        foreach (var rune in text.EnumerateRunes())
            kept.Append((rune.IsBmp && !XmlConvert.IsXmlChar((char)rune.Value)) || rune == Rune.ReplacementChar ? " " : rune.ToString());
        return kept.ToString();
    }
}
