namespace Wexel.Core.Kit;

/// <summary>The house's mark: a picture that stands on what the house makes.</summary>
public static class HouseMark
{
    /// <summary>The shortest that its longer side may be, in pixels: on artwork it stands 900 pixels wide, and less would be soft.</summary>
    public const int Smallest = 400;

    /// <summary>The longest that its longer side may be, in pixels: more is never seen, and costs memory at every render.</summary>
    public const int Largest = 4000;

    /// <summary>The largest file that is taken, in bytes.</summary>
    public const long MostBytes = 10 * 1024 * 1024;

    /// <summary>Each thing that is wrong with a picture, in a sentence that says what to do; empty when it can be the mark.</summary>
    public static IReadOnlyList<Problem> Wrong(ImageFacts facts)
    {
        var wrong = new List<Problem>();
        if (facts.Format is not ("mjpeg" or "png"))
            wrong.Add(
                new Problem(
                    "mark-format",
                    "The picture is neither JPEG, PNG nor SVG; save it as one of them, best as a PNG that is transparent around the mark.",
                    "mark"
                )
            );
        if (Math.Max(facts.Width, facts.Height) < Smallest)
            wrong.Add(
                new Problem(
                    "mark-too-small",
                    $"The picture is {facts.Width} × {facts.Height} pixels; take one whose longer side has at least {Smallest}, since enlarging makes it soft.",
                    "mark"
                )
            );
        if (Math.Max(facts.Width, facts.Height) > Largest)
            wrong.Add(
                new Problem(
                    "mark-too-large",
                    $"The picture is {facts.Width} × {facts.Height} pixels; {Largest} is the most for its longer side. Save it smaller.",
                    "mark"
                )
            );
        if (facts.Colour == ImageColour.Cmyk)
            wrong.Add(new Problem("mark-cmyk", "The picture is in printing colours (CMYK); save it as RGB.", "mark"));
        return wrong;
    }
}
