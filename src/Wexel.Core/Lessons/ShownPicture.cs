using Wexel.Core.Kit;
using Wexel.Core.Recordings;

namespace Wexel.Core.Lessons;

/// <summary>Pictures that stand with a question or a note of a lesson: of any shape, and small enough for a page.</summary>
public static class ShownPicture
{
    /// <summary>The longest side that one is shown with, in pixels: twice what there is room for beside a question, for fine screens.</summary>
    public const int LongestSide = 800;

    /// <summary>The field of problems with one.</summary>
    public const string Field = "picture";

    /// <summary>Each thing that is wrong with a given picture, in a sentence that says what to do; empty when it can be used.</summary>
    public static IReadOnlyList<Problem> Wrong(ImageFacts facts) =>
        facts.Format is not ("mjpeg" or "png" or "webp")
            ? [new Problem("picture-format", "The picture is neither PNG, JPEG nor WebP; save it as one of them.", Field)]
        : Math.Max(facts.Width, facts.Height) > LessonPicture.LongestSide || (long)facts.Width * facts.Height > LessonPicture.MostPixels
            ?
            [
                new Problem(
                    "picture-too-large",
                    $"The picture is {facts.Width} × {facts.Height} pixels; save it smaller, {LongestSide} for the longer side is plenty.",
                    Field
                ),
            ]
        : [];

    /// <summary>The size with which one is shown: its own, or as large as <see cref="LongestSide"/> allows.</summary>
    /// <param name="given">The size of what was given.</param>
    public static PictureSize SizeOf(PictureSize given)
    {
        var scale = Math.Min(1, (double)LongestSide / Math.Max(given.Width, given.Height));
        return new PictureSize(Math.Max(1, (int)Math.Round(given.Width * scale)), Math.Max(1, (int)Math.Round(given.Height * scale)));
    }
}
