using Wexel.Core.Encoding;

namespace Wexel.Media.Containers;

/// <summary>Reads what an MP4 file says of its codecs, as the codecs parameter of RFC 6381.</summary>
internal static class Mp4Codecs
{
    private const string Description = "mdia/minf/stbl/stsd";

    /// <summary>The parameter, empty where there is none.</summary>
    internal static string Read(Stream file)
    {
        var moov = Mp4Boxes.Children(file, 0, file.Length).FirstOrDefault(b => b.Type == "moov");
        if (moov.Type is null)
            return "";
        var tracks = Mp4Boxes.Children(file, moov.Start, moov.End).Where(b => b.Type == "trak");
        return string.Join(", ", tracks.Select(track => OfTrack(file, track)).OfType<string>());
    }

    private static string? OfTrack(Stream file, Mp4Box track)
    {
        if (Mp4Boxes.Find(file, track, $"{Description}/avc1/avcC") is { } avc)
        {
            // AVCDecoderConfigurationRecord (ISO/IEC 14496-15): version, profile, constraint flags, level.
            var record = Read(file, avc, 4);
            return CodecsString.Avc(record[1], record[2], record[3]);
        }

        if (Mp4Boxes.Find(file, track, $"{Description}/av01/av1C") is { } av1)
        {
            // AV1 Codec ISO Media File Format Binding, section 2.3.3: marker and version; profile (3 bits) and level (5); tier and depth.
            var record = Read(file, av1, 3);
            return CodecsString.Av1(record[1] >> 5, record[1] & 0x1F, record[2] >> 7 == 1, (record[2] & 0x40) != 0 ? 10 : 8);
        }

        if (Mp4Boxes.Find(file, track, $"{Description}/vp09/vpcC") is { } vp9)
        {
            // VP Codec ISO Media File Format Binding: a full box of profile, level, and the depth in the upper four bits.
            var record = Read(file, vp9, 7);
            return CodecsString.Vp9(record[4], record[5], record[6] >> 4);
        }

        if (Mp4Boxes.Find(file, track, Description) is not { } sounds)
            return null;
        return Mp4Boxes.Children(file, sounds.Start + 8, sounds.End).Select(b => b.Type).FirstOrDefault() switch
        {
            "mp4a" => CodecsString.AacLc,
            "Opus" => CodecsString.Opus,
            _ => null,
        };
    }

    private static byte[] Read(Stream file, Mp4Box box, int length)
    {
        var bytes = new byte[length];
        file.Position = box.Start;
        file.ReadExactly(bytes);
        return bytes;
    }
}
