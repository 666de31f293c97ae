using System.Buffers.Binary;

namespace Wexel.Media.Containers;

/// <summary>The AVCDecoderConfigurationRecord of an MP4 file (ISO/IEC 14496-15, section 5.3.3.1).</summary>
/// <param name="Profile">profile_idc.</param>
/// <param name="Compatibility">The constraint flags.</param>
/// <param name="Level">The level's number.</param>
/// <param name="LengthBytes">How many bytes tell the length of a unit.</param>
/// <param name="Sequences">The sequence parameter sets.</param>
/// <param name="Pictures">The picture parameter sets.</param>
internal sealed record AvcConfiguration(
    byte Profile,
    byte Compatibility,
    byte Level,
    int LengthBytes,
    IReadOnlyList<byte[]> Sequences,
    IReadOnlyList<byte[]> Pictures
)
{
    private const byte FirstHighProfile = 100;

    /// <summary>The record of the first picture; null where there is none, or where it has several descriptions.</summary>
    internal static AvcConfiguration? Read(Stream file)
    {
        var moov = Mp4Boxes.Children(file, 0, file.Length).FirstOrDefault(b => b.Type == "moov");
        if (moov.Type is null)
            return null;
        foreach (var track in Mp4Boxes.Children(file, moov.Start, moov.End).Where(b => b.Type == "trak"))
        {
            if (Mp4Boxes.Find(file, track, "mdia/minf/stbl/stsd") is not { } description || Mp4Boxes.Find(file, track, "mdia/minf/vmhd") is null)
                continue;
            if (
                Mp4Boxes.Children(file, description.Start + 8, description.End) is not [{ Type: "avc1" }]
                || Mp4Boxes.Find(file, description, "avc1/avcC") is not { } box
            )
                return null;
            var bytes = new byte[box.End - box.Start];
            file.Position = box.Start;
            file.ReadExactly(bytes);
            return Read(bytes);
        }

        return null;
    }

    private static AvcConfiguration? Read(ReadOnlySpan<byte> record)
    {
        if (record.Length < 7 || record[0] != 1)
            return null;
        var (at, sets) = (5, new List<byte[]>[2]);
        for (var kind = 0; kind < 2; kind++)
        {
            // Three bits before the number of sequence sets are reserved.
            var count = kind == 0 ? record[at] & 0x1F : record[at];
            at++;
            sets[kind] = [];
            for (var i = 0; i < count; i++)
            {
                var length = BinaryPrimitives.ReadUInt16BigEndian(record[at..]);
                sets[kind].Add(record.Slice(at + 2, length).ToArray());
                at += 2 + length;
            }
        }

        return new AvcConfiguration(record[1], record[2], record[3], (record[4] & 3) + 1, sets[0], sets[1]);
    }

    /// <summary>One record for units of both; their parameter sets have different numbers.</summary>
    internal AvcConfiguration With(AvcConfiguration other) =>
        new(
            Math.Max(Profile, other.Profile),
            (byte)(Compatibility & other.Compatibility),
            Math.Max(Level, other.Level),
            LengthBytes,
            [.. Sequences, .. other.Sequences],
            [.. Pictures, .. other.Pictures]
        );

    /// <summary>A number of parameter sets that none of it has (ITU-T H.264, section 7.4.2.1.1: 0 to 31).</summary>
    internal int FreeNumber()
    {
        var taken = Sequences.Select(Number).ToHashSet();
        return Enumerable.Range(1, 31).First(n => !taken.Contains(n));
    }

    /// <summary>The record's bytes.</summary>
    internal byte[] Write()
    {
        var bytes = new List<byte> { 1, Profile, Compatibility, Level, (byte)(0xFC | (LengthBytes - 1)), (byte)(0xE0 | Sequences.Count) };
        Sets(Sequences);
        bytes.Add((byte)Pictures.Count);
        Sets(Pictures);
        // The high profiles tell their sampling and depth besides: 4:2:0 in 8 bits, and no further sets.
        if (Profile >= FirstHighProfile)
            bytes.AddRange([0xFC | 1, 0xF8, 0xF8, 0]);
        return [.. bytes];

        void Sets(IReadOnlyList<byte[]> sets)
        {
            foreach (var set in sets)
                bytes.AddRange([(byte)(set.Length >> 8), (byte)set.Length, .. set]);
        }
    }

    /// <summary>The number of a sequence parameter set: an unsigned Exp-Golomb code behind header, profile, flags and level (ITU-T H.264, sections
    /// 7.3.2.1.1 and 9.1).</summary>
    private static int Number(byte[] set)
    {
        var at = 8 * 4;
        int Bit() => (set[at >> 3] >> (7 - (at++ & 7))) & 1;
        var zeros = 0;
        while (Bit() == 0)
            zeros++;
        var value = 1;
        for (var i = 0; i < zeros; i++)
            value = (value << 1) | Bit();
        return value - 1;
    }
}
