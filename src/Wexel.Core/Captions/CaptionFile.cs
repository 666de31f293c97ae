using UtfUnknown;
using TextEncoding = System.Text.Encoding;

namespace Wexel.Core.Captions;

/// <summary>Reads a caption file as people have it: WebVTT or SubRip, in any usual encoding.</summary>
public static class CaptionFile
{
    /// <summary>The largest file that is read, in bytes; a day of speech is smaller.</summary>
    public const int LargestBytes = 8 * 1024 * 1024;

    static CaptionFile() => TextEncoding.RegisterProvider(System.Text.CodePagesEncodingProvider.Instance);

    /// <summary>
    /// Reads a file's bytes: byte order marks first, then valid UTF-8, then the most likely older encoding. The format is told by the
    /// text, not by the file's name. Without a single caption there is always a problem that says why.
    /// </summary>
    public static CaptionReading Read(byte[] bytes)
    {
        if (bytes.Length > LargestBytes)
            return new CaptionReading([], [new Problem("captions-too-large", "The file is larger than 8 MB, so it is no caption file; choose a WebVTT or SubRip file.")]);
        var text = Decode(bytes);
        var reading = text.TrimStart('\uFEFF').StartsWith("WEBVTT", StringComparison.Ordinal) ? WebVttText.Read(text) : SubRipText.Read(text);
        if (reading.Cues.Count > 0 || reading.Problems.Count > 0)
            return reading;
        return new CaptionReading([], [new Problem("captions-none", "There is no caption in the file; choose a WebVTT or SubRip file.")]);
    }

    private static string Decode(byte[] bytes)
    {
        if (bytes is [0xFF, 0xFE, ..])
            return TextEncoding.Unicode.GetString(bytes, 2, bytes.Length - 2);
        if (bytes is [0xFE, 0xFF, ..])
            return TextEncoding.BigEndianUnicode.GetString(bytes, 2, bytes.Length - 2);
        try
        {
            return new System.Text.UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes);
        }
        catch (System.Text.DecoderFallbackException)
        {
            // A few accented letters are too little for a statistical guess; Windows-1252 is what such files mostly are.
            var guess = CharsetDetector.DetectFromBytes(bytes).Detected;
            var encoding = guess is { Confidence: > 0.8f, Encoding: { } found } ? found : TextEncoding.GetEncoding(1252);
            return encoding.GetString(bytes);
        }
    }
}
