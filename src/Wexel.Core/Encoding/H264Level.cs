using System.Globalization;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Encoding;

/// <summary>A level of ITU-T H.264 with its limits from Table A-1.</summary>
/// <param name="Number">Ten times the level's number, as <c>level_idc</c>: 31 for level 3.1.</param>
/// <param name="MaxMacroblocksPerSecond">MaxMBPS.</param>
/// <param name="MaxFrameMacroblocks">MaxFS.</param>
/// <param name="MaxDpbMacroblocks">MaxDpbMbs.</param>
/// <param name="MaxBitRateUnits">MaxBR, in units of cpbBrVclFactor bit/s (Table A-2): 1,250 for High profile, 1,000 for the others.</param>
/// <param name="MaxBufferUnits">MaxCPB, in the same units of bits.</param>
public sealed record H264Level(int Number, int MaxMacroblocksPerSecond, int MaxFrameMacroblocks, int MaxDpbMacroblocks, int MaxBitRateUnits, int MaxBufferUnits)
{
    private static int Factor(H264Profile profile) => profile == H264Profile.High ? 1250 : 1000;

    /// <summary>All levels that High profile uses, lowest first (ITU-T H.264, Table A-1). Level 1b is left out: High has no use for it here.</summary>
    public static IReadOnlyList<H264Level> All { get; } =
    [
        new(10, 1_485, 99, 396, 64, 175),
        new(11, 3_000, 396, 900, 192, 500),
        new(12, 6_000, 396, 2_376, 384, 1_000),
        new(13, 11_880, 396, 2_376, 768, 2_000),
        new(20, 11_880, 396, 2_376, 2_000, 2_000),
        new(21, 19_800, 792, 4_752, 4_000, 4_000),
        new(22, 20_250, 1_620, 8_100, 4_000, 4_000),
        new(30, 40_500, 1_620, 8_100, 10_000, 10_000),
        new(31, 108_000, 3_600, 18_000, 14_000, 14_000),
        new(32, 216_000, 5_120, 20_480, 20_000, 20_000),
        new(40, 245_760, 8_192, 32_768, 20_000, 25_000),
        new(41, 245_760, 8_192, 32_768, 50_000, 62_500),
        new(42, 522_240, 8_704, 34_816, 50_000, 62_500),
        new(50, 589_824, 22_080, 110_400, 135_000, 135_000),
        new(51, 983_040, 36_864, 184_320, 240_000, 240_000),
        new(52, 2_073_600, 36_864, 184_320, 240_000, 240_000),
        new(60, 4_177_920, 139_264, 696_320, 240_000, 240_000),
        new(61, 8_355_840, 139_264, 696_320, 480_000, 480_000),
        new(62, 16_711_680, 139_264, 696_320, 800_000, 800_000),
    ];

    /// <summary>The level's name: "3.1", "4".</summary>
    public string Name =>
        Number % 10 == 0 ? (Number / 10).ToString(CultureInfo.InvariantCulture) : string.Create(CultureInfo.InvariantCulture, $"{Number / 10}.{Number % 10}");

    /// <summary>The highest bit rate at this level, in bits a second: MaxBR times cpbBrVclFactor of the profile (Table A-2).</summary>
    public long MaxBitsPerSecond(H264Profile profile) => (long)MaxBitRateUnits * Factor(profile);

    /// <summary>The largest coded picture buffer at this level, in bits.</summary>
    public long MaxBufferBits(H264Profile profile) => (long)MaxBufferUnits * Factor(profile);

    /// <summary>Whether it takes frames of a size at a rate: A.3.1 and A.3.2, clauses on MaxMBPS, on MaxFS and on the sides, each of
    /// which may not pass Sqrt(MaxFS × 8) macroblocks.</summary>
    public bool Takes(PictureSize size, FrameRate rate)
    {
        var (across, down) = Macroblocks(size);
        var frame = (long)across * down;
        return frame <= MaxFrameMacroblocks
            && frame * rate.Numerator <= (long)MaxMacroblocksPerSecond * rate.Denominator
            && (long)across * across <= MaxFrameMacroblocks * 8L
            && (long)down * down <= MaxFrameMacroblocks * 8L;
    }

    /// <summary>The level of a number, or null.</summary>
    public static H264Level? Find(int number) => All.FirstOrDefault(l => l.Number == number);

    /// <summary>The lowest level that takes frames of a size at a rate and a bit rate. Null when even the highest does not.</summary>
    /// <param name="size">The picture's size.</param>
    /// <param name="rate">Frames a second.</param>
    /// <param name="profile">The profile that is declared.</param>
    /// <param name="bitsPerSecond">The bit rate that is aimed at, in bits a second; 0 where it follows from the level.</param>
    public static H264Level? LowestFor(PictureSize size, FrameRate rate, H264Profile profile = H264Profile.High, long bitsPerSecond = 0) =>
        All.FirstOrDefault(level => level.Takes(size, rate) && bitsPerSecond <= level.MaxBitsPerSecond(profile));

    /// <summary>How many reference frames the level's decoded picture buffer holds at a size: Min(MaxDpbMbs / (PicWidthInMbs × FrameHeightInMbs),
    /// 16).</summary>
    public int MaxReferenceFrames(PictureSize size)
    {
        var (across, down) = Macroblocks(size);
        return Math.Min(MaxDpbMacroblocks / (across * down), 16);
    }

    private static (int Across, int Down) Macroblocks(PictureSize size) => ((size.Width + 15) / 16, (size.Height + 15) / 16);
}
