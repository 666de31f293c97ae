using System.Buffers.Binary;
using Wexel.Media.Containers;

namespace Wexel.Media.Tools;

/// <summary>
/// Whether a file was written to its end, by what its format says of itself; nothing is decoded. An encoder whose last bytes found no room may
/// well end as if all went right.
/// </summary>
public static class Wholeness
{
    private const byte LastPage = 4;
    private const int PageHeader = 27;

    /// <summary>Whether the file is there and whole; of texts, whether it is there.</summary>
    /// <param name="path">The file; its ending says what it is.</param>
    public static bool IsWhole(string path)
    {
        if (!File.Exists(path))
            return false;
        using var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        try
        {
            return IsWhole(file, path);
        }
        catch (Exception brokenOff) when (brokenOff is EndOfStreamException or InvalidDataException)
        {
            return false;
        }
    }

    private static bool IsWhole(FileStream file, string path) =>
        Path.GetExtension(path) switch
        {
            ".mp4" or ".m4v" or ".m4a" or ".mov" => Mp4Boxes.IsWhole(file),
            ".webm" or ".mka" or ".mkv" => WebMElements.IsWhole(file),
            ".opus" => IsWholeOgg(file),
            ".flac" => IsWholeFlac(file),
            ".wav" => IsWholeWave(file),
            ".jpg" => EndsWith(file, [0xFF, 0xD9]),
            ".mp3" => file.Length > 0,
            ".png" => EndsWith(file, [0x49, 0x45, 0x4E, 0x44, 0xAE, 0x42, 0x60, 0x82]),
            _ => true,
        };

    /// <summary>The last page says that it is the last (RFC 3533, section 6).</summary>
    private static bool IsWholeOgg(FileStream file)
    {
        // A page has at most 255 segments of 255 bytes.
        var end = Tail(file, PageHeader + 255 + (255 * 255));
        var page = end.AsSpan().LastIndexOf("OggS"u8);
        if (page < 0 || page + PageHeader > end.Length || (end[page + 5] & LastPage) == 0)
            return false;
        // The header says how long each of its segments is, and nothing stands behind them.
        var (segments, content) = (end[page + PageHeader - 1], page + PageHeader);
        return content + segments <= end.Length && content + segments + end.AsSpan(content, segments).ToArray().Sum(length => length) == end.Length;
    }

    /// <summary>How many samples there are is written at the front last (RFC 9639, section 8.2).</summary>
    private static bool IsWholeFlac(FileStream file)
    {
        Span<byte> start = stackalloc byte[26];
        return file.ReadAtLeast(start, start.Length, throwOnEndOfStream: false) == start.Length
            && start[..4].SequenceEqual("fLaC"u8)
            && ((start[21] & 0x0F) != 0 || start[22..].ContainsAnyExcept((byte)0));
    }

    /// <summary>The file is as long as its first chunk says (RIFF); one of more than 4 GB says less.</summary>
    private static bool IsWholeWave(FileStream file)
    {
        Span<byte> start = stackalloc byte[8];
        return file.ReadAtLeast(start, start.Length, throwOnEndOfStream: false) == start.Length
            && BinaryPrimitives.ReadUInt32LittleEndian(start[4..]) is var size
            && (size == uint.MaxValue || size + 8L <= file.Length);
    }

    private static bool EndsWith(FileStream file, ReadOnlySpan<byte> end) => Tail(file, end.Length).AsSpan().SequenceEqual(end);

    private static byte[] Tail(FileStream file, int most)
    {
        var tail = new byte[Math.Min(most, file.Length)];
        file.Seek(-tail.Length, SeekOrigin.End);
        file.ReadExactly(tail);
        return tail;
    }
}
