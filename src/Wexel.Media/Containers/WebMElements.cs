namespace Wexel.Media.Containers;

/// <summary>Walks the elements of a WebM file (RFC 8794, EBML; RFC 9559, Matroska).</summary>
internal static class WebMElements
{
    private const uint Segment = 0x18538067;
    private const uint Cues = 0x1C53BB6B;
    private const uint Cluster = 0x1F43B675;

    /// <summary>Of a file whose writing was not finished, the size is still unknown: all bits are set (RFC 8794, section 6.2), written with eight
    /// bytes.</summary>
    private const ulong UnknownSize = 0x00FFFFFFFFFFFFFF;

    /// <summary>Whether the segment ends where the file does.</summary>
    internal static bool IsWhole(Stream file)
    {
        file.Position = 0;
        while (file.Position < file.Length)
        {
            var (id, size) = (Number(file, keepMarker: true), Number(file, keepMarker: false));
            if (id == Segment)
                return size != UnknownSize && file.Position + (long)size == file.Length;
            file.Position += (long)size;
        }

        return false;
    }

    /// <summary>Whether the index (Cues) stands before the media data (the first Cluster).</summary>
    internal static bool IndexAtFront(Stream file)
    {
        file.Position = 0;
        while (file.Position < file.Length)
        {
            var (id, size) = (Number(file, keepMarker: true), Number(file, keepMarker: false));
            if (id == Cues)
                return true;
            if (id == Cluster)
                return false;
            if (id != Segment)
                file.Position += (long)size;
        }

        return false;
    }

    /// <summary>A number of variable length (RFC 8794, section 4): the first byte's leading zeros say how many bytes follow.</summary>
    private static ulong Number(Stream file, bool keepMarker)
    {
        var first = file.ReadByte();
        if (first <= 0)
            throw new InvalidDataException("An element of the WebM file cannot be read.");
        var more = System.Numerics.BitOperations.LeadingZeroCount((uint)first) - 24;
        var value = keepMarker ? (ulong)first : (ulong)(first & (0x7F >> more));
        for (var i = 0; i < more; i++)
            value = (value << 8) | (byte)file.ReadByte();
        return value;
    }
}
