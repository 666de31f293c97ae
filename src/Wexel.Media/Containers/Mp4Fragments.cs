using System.Buffers.Binary;

namespace Wexel.Media.Containers;

/// <summary>A fragment of an MP4 file (ISO/IEC 14496-12, section 8.8): a moof with its mdat.</summary>
/// <param name="Start">Where it starts in the file.</param>
/// <param name="Bytes">How long it is in bytes.</param>
/// <param name="Duration">How long it lasts.</param>
internal readonly record struct Mp4Fragment(long Start, long Bytes, TimeSpan Duration);

/// <summary>Reads where the fragments of an MP4 file lie, from its segment index (ISO/IEC 14496-12, section 8.16.3).</summary>
internal static class Mp4Fragments
{
    /// <summary>How much of the file stands before the index: what a player is given first.</summary>
    /// <param name="file">A file with one segment index over all its fragments.</param>
    /// <exception cref="InvalidDataException">It has none.</exception>
    internal static (long HeaderBytes, IReadOnlyList<Mp4Fragment> Fragments) Read(Stream file)
    {
        var boxes = Mp4Boxes.Children(file, 0, file.Length);
        var at = boxes.FindIndex(b => b.Type == "sidx");
        if (at < 0)
            throw new InvalidDataException("The file has no index of its fragments.");
        var index = new byte[boxes[at].End - boxes[at].Start];
        file.Position = boxes[at].Start;
        file.ReadExactly(index);
        var timescale = BinaryPrimitives.ReadUInt32BigEndian(index.AsSpan(8));
        var wide = index[0] != 0;
        var next = 12 + (wide ? 16 : 8) + 2;
        var count = BinaryPrimitives.ReadUInt16BigEndian(index.AsSpan(next));
        next += 2;
        var start = boxes[at].End;
        var fragments = new List<Mp4Fragment>();
        for (var i = 0; i < count; i++, next += 12)
        {
            var bytes = BinaryPrimitives.ReadUInt32BigEndian(index.AsSpan(next)) & 0x7FFF_FFFF;
            fragments.Add(
                new Mp4Fragment(start, bytes, TimeSpan.FromSeconds((double)BinaryPrimitives.ReadUInt32BigEndian(index.AsSpan(next + 4)) / timescale))
            );
            start += bytes;
        }

        return (boxes[at - 1].End, fragments);
    }

    /// <summary>Whether every track fragment says when it is decoded, as RFC 8216, section 3.3, wants of a segment.</summary>
    internal static bool SaysWhen(Stream segment) =>
        Mp4Boxes
            .Children(segment, 0, segment.Length)
            .Where(b => b.Type == "moof")
            .All(moof =>
                Mp4Boxes.Children(segment, moof.Start, moof.End).Where(b => b.Type == "traf").All(traf => Mp4Boxes.Find(segment, traf, "tfdt") is not null)
            );
}
