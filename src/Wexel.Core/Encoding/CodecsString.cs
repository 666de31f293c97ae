using System.Globalization;

namespace Wexel.Core.Encoding;

/// <summary>The codecs parameter of a media type (RFC 6381, section 3.3 and 3.4).</summary>
public static class CodecsString
{
    /// <summary>AAC-LC: MPEG-4 audio (object type indication 40) of audio object type 2.</summary>
    public const string AacLc = "mp4a.40.2";

    /// <summary>Opus in MP4.</summary>
    public const string Opus = "Opus";

    /// <summary><c>avc1.PPCCLL</c>: the profile, the constraint flags and the level of H.264 in hexadecimal, <c>avc1.64001F</c> for High at 3.1.</summary>
    public static string Avc(byte profileIdc, byte constraintFlags, byte levelIdc) =>
        string.Create(CultureInfo.InvariantCulture, $"avc1.{profileIdc:X2}{constraintFlags:X2}{levelIdc:X2}");

    /// <summary><c>av01.P.LLT.DD</c>: profile, level and tier, bit depth (AV1 Codec ISO Media File Format Binding, section 5).</summary>
    public static string Av1(int profile, int level, bool highTier, int depth) =>
        string.Create(CultureInfo.InvariantCulture, $"av01.{profile}.{level:00}{(highTier ? 'H' : 'M')}.{depth:00}");

    /// <summary><c>vp09.PP.LL.DD</c>: profile, level, bit depth (VP Codec ISO Media File Format Binding, “Codecs Parameter String”).</summary>
    public static string Vp9(int profile, int level, int depth) => string.Create(CultureInfo.InvariantCulture, $"vp09.{profile:00}.{level:00}.{depth:00}");
}
