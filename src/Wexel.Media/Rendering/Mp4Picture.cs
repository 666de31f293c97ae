using System.Buffers.Binary;
using System.Text;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Containers;

namespace Wexel.Media.Rendering;

/// <summary>A coded frame that goes into a file.</summary>
/// <param name="From">The file that it is read from.</param>
/// <param name="Position">Where it starts there.</param>
/// <param name="Bytes">How long it is.</param>
/// <param name="Frame">When it is shown: the number of its tick, below 0 for what is passed over at the start.</param>
/// <param name="IsKey">Whether decoding can begin at it.</param>
internal readonly record struct CopiedFrame(string From, long Position, int Bytes, long Frame, bool IsKey);

/// <summary>
/// Writes coded frames of H.264 as the one track of an MP4 file (ISO/IEC 14496-12 and -15), each at its tick. What stands before the
/// first tick is passed over by an edit list.
/// </summary>
/// <param name="frames">The frames in the order in which they are decoded; each is shown up to the next one's tick.</param>
/// <param name="rate">The ticks.</param>
/// <param name="length">How many ticks are shown.</param>
/// <param name="size">The picture's size; pixels are square.</param>
/// <param name="configuration">The parameter sets of all frames.</param>
internal sealed class Mp4Picture(IReadOnlyList<CopiedFrame> frames, FrameRate rate, long length, PictureSize size, AvcConfiguration configuration)
{
    /// <summary>Units of time a tick: the usual number, which divides well.</summary>
    private const uint Tick = 512;

    /// <summary>ITU-R BT.709 in ITU-T H.273, for primaries, transfer and matrix.</summary>
    private const ushort Bt709 = 1;

    private static readonly uint[] Unity = [0x10000, 0, 0, 0, 0x10000, 0, 0, 0, 0x40000000];

    private readonly uint _timescale = (uint)rate.Numerator * Tick;
    private readonly uint _delta = (uint)rate.Denominator * Tick;

    /// <summary>Writes the file, the index behind the frames.</summary>
    /// <exception cref="IOException">A source is shorter than it was, or the disk is full.</exception>
    internal async Task WriteAsync(string path, IProgress<TimeSpan>? progress, CancellationToken cancel)
    {
        await using var file = File.Create(path);
        await file.WriteAsync(Box("ftyp", Text("isom"), U32(0x200), Text("isomiso2avc1mp41")), cancel);
        var start = file.Position;
        // The length of the media data is put in when it is known; it may pass four gigabytes.
        await file.WriteAsync(new byte[] { 0, 0, 0, 1, (byte)'m', (byte)'d', (byte)'a', (byte)'t', 0, 0, 0, 0, 0, 0, 0, 0 }, cancel);
        var offsets = new List<long>();
        var sources = new Dictionary<string, FileStream>();
        try
        {
            var buffer = Array.Empty<byte>();
            foreach (var frame in frames)
            {
                if (!sources.TryGetValue(frame.From, out var source))
                    sources[frame.From] = source = new FileStream(
                        frame.From,
                        FileMode.Open,
                        FileAccess.Read,
                        FileShare.Read,
                        1 << 20,
                        FileOptions.SequentialScan
                    );
                if (buffer.Length < frame.Bytes)
                    buffer = new byte[frame.Bytes];
                source.Position = frame.Position;
                await source.ReadExactlyAsync(buffer.AsMemory(0, frame.Bytes), cancel);
                offsets.Add(file.Position);
                await file.WriteAsync(buffer.AsMemory(0, frame.Bytes), cancel);
                if (frame.IsKey && frame.Frame > 0)
                    progress?.Report(rate.TimeOf(frame.Frame));
            }
        }
        finally
        {
            foreach (var source in sources.Values)
                await source.DisposeAsync();
        }

        var end = file.Position;
        await file.WriteAsync(Index(offsets), cancel);
        file.Position = start + 8;
        await file.WriteAsync(U64((ulong)(end - start)), cancel);
    }

    private byte[] Index(List<long> offsets)
    {
        // Frames are decoded at the ticks at which frames are shown, and so far ahead of it as any frame needs.
        List<long> decoded = [.. frames.Select(f => f.Frame).Order()];
        var first = decoded[0];
        var ahead = frames.Index().Max(f => decoded[f.Index] - f.Item.Frame);
        var visible = (ulong)length * _delta;
        var media = (ulong)(length - first) * _delta;
        var table = Box(
            "stbl",
            Full("stsd", 0, 0, U32(1), Entry()),
            Full("stts", 0, 0, Runs([.. decoded.Zip(decoded.Skip(1).Append(length), (at, next) => (uint)(next - at) * _delta)])),
            Full("ctts", 0, 0, Runs([.. frames.Index().Select(f => (uint)(f.Item.Frame + ahead - decoded[f.Index]) * _delta)])),
            Full("stss", 0, 0, Counted([.. frames.Index().Where(f => f.Item.IsKey).Select(f => (uint)f.Index + 1)])),
            Full("stsc", 0, 0, U32(1), U32(1), U32(1), U32(1)),
            Full("stsz", 0, 0, U32(0), Counted([.. frames.Select(f => (uint)f.Bytes)])),
            Full("co64", 0, 0, U32((uint)offsets.Count), [.. offsets.SelectMany(o => U64((ulong)o))])
        );
        return Box(
            "moov",
            Full(
                "mvhd",
                1,
                0,
                U64(0),
                U64(0),
                U32(_timescale),
                U64(visible),
                U32(0x10000),
                U16(0x100),
                new byte[10],
                [.. Unity.SelectMany(U32)],
                new byte[24],
                U32(2)
            ),
            Box(
                "trak",
                Full(
                    "tkhd",
                    1,
                    3,
                    U64(0),
                    U64(0),
                    U32(1),
                    U32(0),
                    U64(visible),
                    new byte[8],
                    new byte[8],
                    [.. Unity.SelectMany(U32)],
                    U32((uint)size.Width << 16),
                    U32((uint)size.Height << 16)
                ),
                Box("edts", Full("elst", 1, 0, U32(1), U64(visible), U64((ulong)(ahead - first) * _delta), U32(0x10000))),
                Box(
                    "mdia",
                    Full("mdhd", 1, 0, U64(0), U64(0), U32(_timescale), U64(media), U16(0x55C4), U16(0)),
                    Full("hdlr", 0, 0, U32(0), Text("vide"), new byte[12], Text("VideoHandler\0")),
                    Box("minf", Full("vmhd", 0, 1, new byte[8]), Box("dinf", Full("dref", 0, 0, U32(1), Full("url ", 0, 1))), table)
                )
            )
        );
    }

    /// <summary>The visual sample entry (ISO/IEC 14496-12, section 12.1.3) with the parameter sets, the colours and the shape of pixels.</summary>
    private byte[] Entry() =>
        Box(
            "avc1",
            new byte[6],
            U16(1),
            new byte[16],
            U16((ushort)size.Width),
            U16((ushort)size.Height),
            U32(0x480000),
            U32(0x480000),
            U32(0),
            U16(1),
            new byte[32],
            U16(24),
            U16(0xFFFF),
            Box("avcC", configuration.Write()),
            Box("colr", Text("nclx"), U16(Bt709), U16(Bt709), U16(Bt709), [0]),
            Box("pasp", U32(1), U32(1))
        );

    /// <summary>Values as runs of the same one.</summary>
    private static byte[] Runs(IReadOnlyList<uint> values)
    {
        var runs = new List<(uint Count, uint Value)>();
        foreach (var value in values)
        {
            if (runs.Count > 0 && runs[^1].Value == value)
                runs[^1] = (runs[^1].Count + 1, value);
            else
                runs.Add((1, value));
        }

        return [.. U32((uint)runs.Count), .. runs.SelectMany(r => U32(r.Count).Concat(U32(r.Value)))];
    }

    private static byte[] Counted(IReadOnlyList<uint> values) => [.. U32((uint)values.Count), .. values.SelectMany(U32)];

    private static byte[] Full(string type, byte version, uint flags, params byte[][] content) => Box(type, [U32(((uint)version << 24) | flags), .. content]);

    private static byte[] Box(string type, params byte[][] content) =>
        [.. U32((uint)(8 + content.Sum(c => c.Length))), .. Text(type), .. content.SelectMany(c => c)];

    private static byte[] Text(string text) => Encoding.Latin1.GetBytes(text);

    private static byte[] U16(ushort value)
    {
        var bytes = new byte[2];
        BinaryPrimitives.WriteUInt16BigEndian(bytes, value);
        return bytes;
    }

    private static byte[] U32(uint value)
    {
        var bytes = new byte[4];
        BinaryPrimitives.WriteUInt32BigEndian(bytes, value);
        return bytes;
    }

    private static byte[] U64(ulong value)
    {
        var bytes = new byte[8];
        BinaryPrimitives.WriteUInt64BigEndian(bytes, value);
        return bytes;
    }
}
