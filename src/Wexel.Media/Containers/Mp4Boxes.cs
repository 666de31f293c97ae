using System.Buffers.Binary;
using System.Text;

namespace Wexel.Media.Containers;

/// <summary>A box of an MP4 file (ISO/IEC 14496-12, section 4.2).</summary>
/// <param name="Type">Its four characters.</param>
/// <param name="Start">Where its content starts in the file.</param>
/// <param name="End">Where it ends.</param>
internal readonly record struct Mp4Box(string Type, long Start, long End);

/// <summary>Walks the boxes of an MP4 file.</summary>
internal static class Mp4Boxes
{
    /// <summary>The boxes that lie directly between two places of a file, in their order.</summary>
    internal static List<Mp4Box> Children(Stream file, long start, long end)
    {
        var boxes = new List<Mp4Box>();
        Span<byte> header = stackalloc byte[16];
        while (start + 8 <= end)
        {
            file.Position = start;
            file.ReadExactly(header[..8]);
            long size = BinaryPrimitives.ReadUInt32BigEndian(header);
            var type = Encoding.Latin1.GetString(header[4..8]);
            var content = start + 8;
            if (size == 1)
            {
                file.ReadExactly(header[8..16]);
                size = (long)BinaryPrimitives.ReadUInt64BigEndian(header[8..]);
                content += 8;
            }
            else if (size == 0)
            {
                size = end - start;
            }

            if (size < content - start || start + size > end)
                break;
            boxes.Add(new Mp4Box(type, content, start + size));
            start += size;
        }

        return boxes;
    }

    /// <summary>The first box under a path such as <c>moov/trak/mdia</c>, or null.</summary>
    internal static Mp4Box? Find(Stream file, Mp4Box parent, string path)
    {
        var at = path.IndexOf('/', StringComparison.Ordinal);
        var first = at < 0 ? path : path[..at];
        foreach (var box in Children(file, parent.Start + Skipped(parent.Type), parent.End).Where(b => b.Type == first))
        {
            if (at < 0)
                return box;
            if (Find(file, box, path[(at + 1)..]) is { } found)
                return found;
        }

        return null;
    }

    /// <summary>Whether boxes fill the file to its end, and the index (moov) is among them.</summary>
    internal static bool IsWhole(Stream file)
    {
        var boxes = Children(file, 0, file.Length);
        return boxes.Exists(b => b.Type == "moov") && boxes[^1].End == file.Length;
    }

    /// <summary>Whether the index (moov) stands before the media data (mdat).</summary>
    internal static bool IndexAtFront(Stream file)
    {
        var boxes = Children(file, 0, file.Length);
        return boxes.FindIndex(b => b.Type == "moov") is var moov and >= 0 && moov < boxes.FindIndex(b => b.Type == "mdat");
    }

    /// <summary>Fields that stand before the boxes inside: a full box with a count, and a visual sample entry (section 12.1.3).</summary>
    private static int Skipped(string type) =>
        type switch
        {
            "stsd" => 8,
            "avc1" or "av01" or "vp09" => 78,
            _ => 0,
        };
}
