using UtfUnknown;
using TextEncoding = System.Text.Encoding;

namespace Wexel.Core;

/// <summary>Text files as people have them: in any usual encoding, or not text at all.</summary>
public static class PlainText
{
    private const double MostControls = 0.01;

    static PlainText() => TextEncoding.RegisterProvider(System.Text.CodePagesEncodingProvider.Instance);

    /// <summary>
    /// A file's bytes as text: byte order marks first, then UTF-16 without one, which every second byte tells, then valid UTF-8, then the
    /// most likely older encoding.
    /// </summary>
    /// <param name="bytes">The file's bytes.</param>
    /// <returns>The text; null for what is no text.</returns>
    public static string? Decode(byte[] bytes)
    {
        var text = (
            bytes switch
            {
                [0xFF, 0xFE, ..] => TextEncoding.Unicode,
                [0xFE, 0xFF, ..] => TextEncoding.BigEndianUnicode,
                _ when HalfIsZero(bytes, odd: true) => TextEncoding.Unicode,
                _ when HalfIsZero(bytes, odd: false) => TextEncoding.BigEndianUnicode,
                _ => OfBytes(bytes),
            }
        )
            .GetString(bytes)
            .TrimStart('\uFEFF');
        return
            text.Contains('\0', StringComparison.Ordinal)
            || text.Count(c => char.IsControl(c) && c is not ('\n' or '\r' or '\t' or '\f')) > text.Length * MostControls
            ? null
            : text;
    }

    /// <summary>A text as it is kept: nothing around it, and no longer than it may be. Lines stay.</summary>
    /// <param name="text">The text; null for none.</param>
    /// <param name="most">The most characters.</param>
    public static string Within(string? text, int most)
    {
        var trimmed = (text ?? "").Trim();
        return trimmed.Length <= most ? trimmed : trimmed[..most].TrimEnd();
    }

    /// <summary>In UTF-16, letters of western writings have a zero in one of their two bytes, always the same one.</summary>
    private static bool HalfIsZero(byte[] bytes, bool odd)
    {
        if (bytes.Length < 4 || bytes.Length % 2 != 0)
            return false;
        var (these, others) = (0, 0);
        for (var i = 0; i < bytes.Length; i++)
        {
            if (bytes[i] != 0)
                continue;
            if (i % 2 != 0 == odd)
                these++;
            else
                others++;
        }

        return these > bytes.Length / 4 && others < bytes.Length / 40;
    }

    private static TextEncoding OfBytes(byte[] bytes)
    {
        try
        {
            var utf8 = new System.Text.UTF8Encoding(false, throwOnInvalidBytes: true);
            utf8.GetCharCount(bytes);
            return utf8;
        }
        catch (System.Text.DecoderFallbackException)
        {
            // A few accented letters are too little for a statistical guess; Windows-1252 is what such files mostly are.
            return CharsetDetector.DetectFromBytes(bytes).Detected is { Confidence: > 0.8f, Encoding: { } found } ? found : TextEncoding.GetEncoding(1252);
        }
    }
}
