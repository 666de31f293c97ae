using System.Globalization;

namespace Wexel.Core.Encoding;

/// <summary>The codecs parameter of a media type (RFC 6381, section 3.3 and 3.4).</summary>
public static class CodecsString
{
    /// <summary><c>avc1.PPCCLL</c>: the profile, the constraint flags and the level of H.264 in hexadecimal, <c>avc1.64001F</c> for High at 3.1.</summary>
    public static string Avc(byte profileIdc, byte constraintFlags, byte levelIdc) =>
        string.Create(CultureInfo.InvariantCulture, $"avc1.{profileIdc:X2}{constraintFlags:X2}{levelIdc:X2}");

    /// <summary>AAC-LC: MPEG-4 audio (object type indication 40) of audio object type 2.</summary>
    public const string AacLc = "mp4a.40.2";
}
