namespace Wexel.Core.Encoding;

/// <summary>Whether devices of a sort play what a profile makes.</summary>
/// <param name="Devices">The devices, as a plural, in small letters.</param>
/// <param name="Plays">Whether nearly all of them that are in use play it.</param>
/// <param name="Words">What there is to say of it, in a sentence; empty for nothing.</param>
public sealed record DevicePlays(string Devices, bool Plays, string Words);

/// <summary>
/// On which devices the files of a profile play, by what is in them and how large they are. What devices in use decode is common practice, without a
/// source; that no more lines are seen than a screen has is what screens are.
/// </summary>
public static class PlaysOn
{
    /// <summary>As many lines as televisions of before ultra high definition decode.</summary>
    private const int FullHdLines = 1080;

    /// <summary>Fewer lines than these are blown up on a large screen.</summary>
    private const int SharpLines = 720;

    /// <summary>Each sort of devices, from the smallest screen to the largest.</summary>
    public static IReadOnlyList<DevicePlays> For(Profile profile)
    {
        var (lines, inPieces) = (Lines(profile), profile.Container == Container.Hls);
        var codec = profile.Picture?.Codec;
        var isOpen = profile.Container == Container.Webm || codec is PictureCodec.Av1 or PictureCodec.Vp9;
        var handheld =
            isOpen ? new DevicePlays("phones and tablets", false, "Those from before about 2023 do not all play it.")
            : lines > FullHdLines ? new("phones and tablets", true, $"They show no more of it than of {FullHdLines} lines, and load more.")
            : new("phones and tablets", true, "");
        var computers =
            inPieces ? new DevicePlays("computers", true, "On a page; as a folder of small files it is opened by nothing else.")
            : profile.Container == Container.Mov ? new("computers", true, "In a player; not every browser plays it on a page.")
            : new("computers", true, "");
        var televisions =
            isOpen ? new DevicePlays("televisions", false, "Hardly any plays it.")
            : inPieces ? new("televisions", false, "In their browser at best, and not from a stick.")
            : lines > FullHdLines ? new("televisions", false, "Only those of ultra high definition.")
            : lines < SharpLines ? new("televisions", true, "Small text is soft on a large screen.")
            : new("televisions", true, "Also from a stick.");
        return profile.Picture is null
            ? [handheld, computers, televisions with { Words = televisions.Plays ? "" : televisions.Words }]
            : [handheld, computers, televisions];
    }

    /// <summary>How many lines its largest picture has, in pixels; null for as many as were recorded.</summary>
    private static int? Lines(Profile profile) => profile.Picture?.Size is { Rule: not SizeRule.AsCanvas, Height: { } height } ? height : null;
}
