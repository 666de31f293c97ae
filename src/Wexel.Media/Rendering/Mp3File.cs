using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>
/// Puts a tag in front of an MP3. Copying by a muxer would write a new first frame without the encoder's delay, and players would then
/// play silence at the start; so the sound's bytes stay as they are.
/// </summary>
internal static class Mp3File
{
    private const int HeaderLength = 10;

    /// <param name="soundPath">The encoded sound without a tag.</param>
    /// <param name="outputPath">Where the file goes.</param>
    /// <param name="tagged">Makes any MP3 with the tag at a path and gives back its bytes.</param>
    /// <param name="cancel">Stops it.</param>
    internal static Task FinishAsync(string soundPath, string outputPath, Func<string, Task<byte[]>> tagged, CancellationToken cancel) =>
        WholeFile.MakeAsync(outputPath, async temporary =>
        {
            var bytes = await tagged(temporary + ".tag.mp3");
            await using var output = File.Create(temporary);
            await output.WriteAsync(bytes.AsMemory(0, TagLength(bytes)), cancel);
            await using var sound = File.OpenRead(soundPath);
            await sound.CopyToAsync(output, cancel);
        });

    /// <summary>The length of the tag at the start: ID3v2.3, section 3.1; seven bits of each byte of its size count.</summary>
    private static int TagLength(ReadOnlySpan<byte> file) =>
        file.Length > HeaderLength && file[..3].SequenceEqual("ID3"u8)
            ? HeaderLength + (file[6] << 21) + (file[7] << 14) + (file[8] << 7) + file[9]
            : throw new InvalidDataException("The muxer wrote no ID3 tag.");
}
