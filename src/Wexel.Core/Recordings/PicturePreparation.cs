using System.Text.Json.Serialization;

namespace Wexel.Core.Recordings;

/// <summary>Which of the two fields of an interlaced picture was taken first.</summary>
public enum FieldOrder
{
    /// <summary>The one with the topmost line.</summary>
    TopFirst,

    /// <summary>The other.</summary>
    BottomFirst,
}

/// <summary>
/// What is done to a recording's picture before anything else looks at it: its fields become whole pictures, and colours that a usual
/// screen cannot show become ones that it can.
/// </summary>
/// <param name="Fields">How the picture is interlaced; null where it is not.</param>
/// <param name="Colour">What its colours are brought to BT.709 from; null where nothing is done.</param>
public sealed record PicturePreparation(
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] FieldOrder? Fields,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] WideColour? Colour
);

/// <summary>Colours beyond BT.709, in the code points' names of ITU-T H.273.</summary>
/// <param name="Matrix">bt2020nc, bt2020c …; null for red, green and blue.</param>
/// <param name="Primaries">bt2020, smpte432 …</param>
/// <param name="Transfer">smpte2084 for PQ, arib-std-b67 for HLG (both ITU-R BT.2100); others are of usual range.</param>
/// <param name="FullRange">Whether the numbers use all codes.</param>
public sealed record WideColour(string? Matrix, string Primaries, string Transfer, bool FullRange)
{
    /// <summary>The white of pages and programs in high dynamic range, in cd/m² (ITU-R BT.2408-7, Table 1).</summary>
    public const int White = 203;

    /// <summary>The brightest that programs are usually graded for, in cd/m² (ITU-R BT.2408-7, section 2.1: 1000 for HLG; common practice for PQ).</summary>
    public const int Brightest = 1000;

    /// <summary>Whether it is brighter than a usual screen can be.</summary>
    [JsonIgnore]
    public bool IsHighRange => Transfer is "smpte2084" or "arib-std-b67";

    /// <summary>Its name for people.</summary>
    [JsonIgnore]
    public string Name =>
        (Transfer, Primaries) switch
        {
            ("smpte2084", _) => "high dynamic range (PQ)",
            ("arib-std-b67", _) => "high dynamic range (HLG)",
            (_, "bt2020") => "BT.2020",
            _ => "Display P3",
        };

    /// <summary>Reads the colours of a picture; null where a usual screen shows them, or the file does not say.</summary>
    public static WideColour? Of(PictureFacts picture)
    {
        var colour = picture.Colour;
        var high = colour.Transfer is "smpte2084" or "arib-std-b67";
        var primaries = colour.Primaries ?? (high || colour.Matrix is "bt2020nc" or "bt2020c" ? "bt2020" : null);
        if (!high && primaries is not ("bt2020" or "smpte431" or "smpte432"))
            return null;
        var matrix =
            picture.IsRgb ? null
            : colour.Matrix is { } said and not "gbr" ? said
            : primaries == "bt2020" ? "bt2020nc"
            : "bt709";
        // Where only the primaries are told, the transfer is BT.709's, which that of BT.2020 is at 8 and 10 bits.
        return new WideColour(
            matrix,
            primaries ?? "bt709",
            colour.Transfer is { } transfer and not ("bt2020-10" or "bt2020-12") ? transfer : "bt709",
            colour.FullRange ?? picture.IsRgb
        );
    }
}
