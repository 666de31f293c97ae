namespace Wexel.Core.Captions;

/// <summary>Reads a caption file as people have it: WebVTT, TTML, SubRip or plain text with times, in any usual encoding.</summary>
public static class CaptionFile
{
    /// <summary>The largest file that is read, in bytes; a day of speech is smaller.</summary>
    public const int LargestBytes = 8 * 1024 * 1024;

    /// <summary>The most captions that are read: a day of speech has fewer.</summary>
    public const int MostCues = 50_000;

    /// <summary>The longest caption that is read, in characters with its tags; a picture has room for far less.</summary>
    public const int LongestCue = 10_000;

    /// <summary>
    /// Reads a file's bytes as <see cref="PlainText"/>. The format is told by the text, not by the file's name. Without a single caption there
    /// is always a problem that says why. Takes time in proportion to the file's length.
    /// </summary>
    public static CaptionReading Read(byte[] bytes)
    {
        if (bytes.Length > LargestBytes)
            return new CaptionReading(
                [],
                [new Problem("captions-too-large", $"The file is larger than 8 MB, so it is no caption file; choose a {CaptionFormats.InWords} file.")]
            );
        if (PlainText.Decode(bytes) is not { } text)
            return new CaptionReading(
                [],
                [new Problem("captions-no-text", $"The file is no text, so it is no caption file; choose a {CaptionFormats.InWords} file.")]
            );
        var reading = CaptionFormats.Read(text);
        if (reading.Cues.Count > 0 || reading.Problems.Count > 0)
            return reading;
        return new CaptionReading(
            [],
            [
                new Problem(
                    "captions-none",
                    $"There is no caption in the file; choose a {CaptionFormats.InWords} file, or a text whose lines begin with times. "
                        + "A text without times is a script."
                ),
            ]
        );
    }
}
