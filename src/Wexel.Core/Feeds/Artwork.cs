using System.Globalization;
using Wexel.Core.Kit;

namespace Wexel.Core.Feeds;

/// <summary>Artwork as podcast directories want it: square, 1400 to 3000 pixels, JPEG or PNG, RGB (iTunes podcast namespace, <c>itunes:image</c>).</summary>
public static class ArtworkRules
{
    /// <summary>The shortest side, in pixels.</summary>
    public const int Smallest = 1400;

    /// <summary>The longest side, in pixels; what Wexel makes.</summary>
    public const int Largest = 3000;

    /// <summary>The largest file that is taken, in bytes. A JPEG of 3000 pixels square is well under it.</summary>
    public const long MostBytes = 10 * 1024 * 1024;

    /// <summary>Each thing that is wrong with a picture, in a sentence that says what to do; empty when it can be used.</summary>
    public static IReadOnlyList<Problem> Wrong(ImageFacts facts)
    {
        var wrong = new List<Problem>();
        void Say(string code, string sentence) => wrong.Add(new Problem(code, sentence, "artwork"));
        if (facts.Format is not ("mjpeg" or "png"))
            Say("artwork-format", "The picture is neither JPEG nor PNG; save it as one of them.");
        if (facts.Width != facts.Height)
            Say("artwork-not-square", $"The picture is {Size(facts)}; directories take square ones. Crop it.");
        if (Math.Min(facts.Width, facts.Height) < Smallest)
            Say(
                "artwork-too-small",
                $"The picture is {Size(facts)}; directories take {Smallest} to {Largest} pixels a side. Make it anew at that size, since enlarging "
                    + $"makes it soft."
            );
        if (Math.Max(facts.Width, facts.Height) > Largest)
            Say("artwork-too-large", $"The picture is {Size(facts)}; directories take {Smallest} to {Largest} pixels a side. Make it smaller.");
        if (facts.Colour == ImageColour.Cmyk)
            Say("artwork-cmyk", "The picture is in printing colours (CMYK); save it as RGB.");
        if (facts.Colour == ImageColour.Grey)
            Say("artwork-grey", "The picture is kept in shades of grey; save it as RGB, even if it shows no colour.");
        if (facts.Transparent)
            Say("artwork-transparent", "The picture is transparent in places, where apps show black; put it on a colour.");
        if (facts.Bytes > MostBytes)
            Say(
                "artwork-too-heavy",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The file has {facts.Bytes / 1e6:0.#} MB; at most {MostBytes / 1024 / 1024} MB are taken. Save it as JPEG."
                )
            );
        return wrong;
    }

    private static string Size(ImageFacts facts) => string.Create(CultureInfo.InvariantCulture, $"{facts.Width} × {facts.Height} pixels");
}

/// <summary>Artwork that Wexel makes: the title and the house's name on a colour.</summary>
/// <param name="Title">The feed's title.</param>
/// <param name="House">The publisher's name.</param>
/// <param name="Colour">The ground, as <c>#RRGGBB</c>.</param>
public sealed record ArtworkPlan(string Title, string House, string Colour)
{
    /// <summary>
    /// Paper or ink, whichever stands out more from the ground, by the contrast ratio of WCAG 2.2. On any ground one of the two has at
    /// least 3:1, which large text needs (success criterion 1.4.3).
    /// </summary>
    public string TextColour => Contrast(Colour, Paper) >= Contrast(Colour, Ink) ? Paper : Ink;

    /// <summary>The height of the title's letters in pixels, for a picture of <see cref="ArtworkRules.Largest"/>: shorter titles stand larger.</summary>
    public int TitleSize =>
        Title.Length switch
        {
            <= 24 => 540,
            <= 45 => 430,
            <= 90 => 310,
            _ => 200,
        };

    private const string Paper = "#FBFAF6";
    private const string Ink = "#1D2129";

    private static double Contrast(string a, string b)
    {
        var (x, y) = (Luminance(a), Luminance(b));
        return (Math.Max(x, y) + 0.05) / (Math.Min(x, y) + 0.05);
    }

    private static double Luminance(string colour)
    {
        double Linear(int at)
        {
            var value = int.Parse(colour.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0;
            return value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
        }

        return 0.2126 * Linear(1) + 0.7152 * Linear(3) + 0.0722 * Linear(5);
    }
}
