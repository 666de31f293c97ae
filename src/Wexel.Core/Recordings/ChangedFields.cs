using System.Buffers.Binary;

namespace Wexel.Core.Recordings;

/// <summary>Where on the screen something changed between two samples: which fields of a grid of <see cref="Across"/> by <see cref="Down"/>.</summary>
/// <param name="At">The moment of the later sample.</param>
/// <param name="Fields">The fields, row after row, a bit each, the first in the highest bit of a byte; 18 bytes.</param>
public sealed record ChangedFields(TimeSpan At, byte[] Fields)
{
    /// <summary>Fields of the grid across.</summary>
    public const int Across = 16;

    /// <summary>Fields of the grid down.</summary>
    public const int Down = 9;

    private const int FieldBytes = ((Across * Down) + 7) / 8;
    private const int PackedBytes = sizeof(int) + FieldBytes;

    /// <summary>A pixel that differs by no more, of 255, is coding noise; the pointer differs by far more (measured on demo recordings).</summary>
    private const int Noise = 12;

    /// <summary>A field counts as changed where the differences beyond noise come to this in sum: two or three pixels of a small picture that change
    /// from dark to light, as under a pointer.</summary>
    private const int Least = 300;

    /// <summary>The share of all fields from which on the whole screen is another: then nothing in particular is pointed at.</summary>
    private const double WholeScreen = 0.5;

    /// <summary>Whether so much changed that it is another screen.</summary>
    public bool IsWholeScreen => Fields.Sum(b => (double)byte.PopCount(b)) >= WholeScreen * Across * Down;

    /// <summary>Whether something changed within a part of the picture.</summary>
    /// <param name="left">From the left, as a share of the picture's width.</param>
    /// <param name="top">From the top, as a share of its height.</param>
    /// <param name="right">Where the part ends at the right, as such a share.</param>
    /// <param name="bottom">Where it ends at the bottom.</param>
    public bool Touches(double left, double top, double right, double bottom)
    {
        var (firstX, lastX) = (Field(left, Across), Field(right - 1e-9, Across));
        var (firstY, lastY) = (Field(top, Down), Field(bottom - 1e-9, Down));
        for (var y = firstY; y <= lastY; y++)
        {
            for (var x = firstX; x <= lastX; x++)
            {
                if (right > 0 && bottom > 0 && left < 1 && top < 1 && Holds((y * Across) + x))
                    return true;
            }
        }

        return false;
    }

    /// <summary>What changed between two pictures; null where nothing did.</summary>
    /// <param name="at">The moment of the later one.</param>
    /// <param name="before">The earlier one: brightness, 0 to 255, row after row.</param>
    /// <param name="now">The later one.</param>
    /// <param name="size">Their size.</param>
    public static ChangedFields? Between(TimeSpan at, ReadOnlySpan<byte> before, ReadOnlySpan<byte> now, PictureSize size)
    {
        Span<int> sums = stackalloc int[Across * Down];
        for (var y = 0; y < size.Height; y++)
        {
            var row = y * Down / size.Height * Across;
            for (var x = 0; x < size.Width; x++)
            {
                var difference = Math.Abs(before[(y * size.Width) + x] - now[(y * size.Width) + x]);
                if (difference > Noise)
                    sums[row + (x * Across / size.Width)] += difference;
            }
        }

        var fields = new byte[FieldBytes];
        for (var i = 0; i < sums.Length; i++)
        {
            if (sums[i] >= Least)
                fields[i / 8] |= (byte)(0x80 >> (i % 8));
        }

        return fields.AsSpan().ContainsAnyExcept((byte)0) ? new ChangedFields(at, fields) : null;
    }

    /// <summary>What changed at several moments as it is kept: for each the moment in whole milliseconds, four bytes, the highest first, and the
    /// fields.</summary>
    public static byte[] Pack(IReadOnlyList<ChangedFields> changes)
    {
        var packed = new byte[changes.Count * PackedBytes];
        foreach (var (index, change) in changes.Index())
        {
            BinaryPrimitives.WriteInt32BigEndian(packed.AsSpan(index * PackedBytes), (int)change.At.TotalMilliseconds);
            change.Fields.CopyTo(packed, (index * PackedBytes) + sizeof(int));
        }

        return packed;
    }

    /// <summary>The opposite of <see cref="Pack"/>; what is left at the end is passed over.</summary>
    public static IReadOnlyList<ChangedFields> Unpack(ReadOnlySpan<byte> packed)
    {
        var changes = new List<ChangedFields>();
        for (; packed.Length >= PackedBytes; packed = packed[PackedBytes..])
            changes.Add(new ChangedFields(TimeSpan.FromMilliseconds(BinaryPrimitives.ReadInt32BigEndian(packed)), packed[sizeof(int)..PackedBytes].ToArray()));
        return changes;
    }

    private bool Holds(int field) => field / 8 < Fields.Length && (Fields[field / 8] & (0x80 >> (field % 8))) != 0;

    private static int Field(double share, int count) => Math.Clamp((int)Math.Floor(share * count), 0, count - 1);
}
