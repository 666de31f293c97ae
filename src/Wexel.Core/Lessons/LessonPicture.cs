using Wexel.Core.Keys;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;

namespace Wexel.Core.Lessons;

/// <summary>The picture by which a lesson is known before it plays: one of its own frames, or one that somebody gives.</summary>
/// <param name="At">Which frame, in recording time; null where it is no frame. One that is cut becomes the next that is kept.</param>
/// <param name="Own">The key of a picture that somebody gave, see <see cref="ImageFacts.Key"/>; null where it is a frame.</param>
public sealed record LessonPicture(TimeSpan? At = null, string? Own = null)
{
    /// <summary>How wide it is made of a picture that somebody gave, in pixels.</summary>
    public const int Width = 1280;

    /// <summary>The shortest that a given one may be across, in pixels: less would be soft where lists and previews show it large.</summary>
    public const int SmallestAcross = 1280;

    /// <summary>The longest that a side of a given one may be, in pixels: what has more is no picture for a page, and takes memory to read.</summary>
    public const int LongestSide = 12_000;

    /// <summary>The most pixels that a given one may have.</summary>
    public const int MostPixels = 50_000_000;

    /// <summary>The largest file that is taken, in bytes.</summary>
    public const long MostBytes = 20 * 1024 * 1024;

    /// <summary>Each thing that is wrong with a given picture, in a sentence that says what to do; empty when it can be used.</summary>
    public static IReadOnlyList<Problem> Wrong(ImageFacts facts)
    {
        var wrong = new List<Problem>();
        void Say(string code, string sentence) => wrong.Add(new Problem(code, sentence, Field));
        if (facts.Format is not ("mjpeg" or "png" or "webp"))
            Say("picture-format", "The picture is neither PNG, JPEG nor WebP; save it as one of them.");
        if (facts.Width < SmallestAcross)
            Say(
                "picture-too-small",
                $"The picture is {facts.Width} × {facts.Height} pixels; take one of at least {SmallestAcross} across, since enlarging makes it soft."
            );
        if (Math.Max(facts.Width, facts.Height) > LongestSide || (long)facts.Width * facts.Height > MostPixels)
            Say(
                "picture-too-large",
                $"The picture is {facts.Width} × {facts.Height} pixels; {LongestSide} for a side and "
                    + $"{MostPixels / 1_000_000} million in all are the most. Save it smaller, 1920 across is plenty."
            );
        return wrong;
    }

    /// <summary>The field of problems with it.</summary>
    public const string Field = "picture";

    /// <summary>What a given picture becomes for a lesson: as wide as <see cref="Width"/>, of the lesson's shape, in even pixels.</summary>
    /// <param name="lesson">The size of the lesson's picture; null for sound alone.</param>
    public static PictureSize SizeOfOwn(PictureSize? lesson)
    {
        var shape = lesson ?? new PictureSize(16, 9);
        return new PictureSize(Width, Math.Max(2, (int)Math.Round(Width * (double)shape.Height / shape.Width / 2) * 2));
    }

    /// <summary>Which part of a given picture is seen: as much of its middle as has the shape that is wanted.</summary>
    /// <param name="given">The size of what was given.</param>
    /// <param name="wanted">The size that it becomes.</param>
    public static PictureRect Seen(PictureSize given, PictureSize wanted)
    {
        var isWider = (long)given.Width * wanted.Height > (long)given.Height * wanted.Width;
        var width = isWider ? Math.Max(1, (int)Math.Round((double)given.Height * wanted.Width / wanted.Height)) : given.Width;
        var height = isWider ? given.Height : Math.Max(1, (int)Math.Round((double)given.Width * wanted.Height / wanted.Width));
        return new PictureRect((given.Width - width) / 2, (given.Height - height) / 2, width, height);
    }

    /// <summary>The key of a lesson's picture that is a frame.</summary>
    /// <param name="picture">The key of what the frame is taken from.</param>
    /// <param name="frame">Which frame of the lesson.</param>
    public static string FrameKey(string picture, long frame) => MadeKey.Hash(Makers.LessonPicture, k => k.Add("of", picture).Add("frame", frame));

    /// <summary>The key of a lesson's picture that somebody gave.</summary>
    /// <param name="own">The key of what was given.</param>
    /// <param name="size">What it becomes.</param>
    public static string OwnKey(string own, PictureSize size) => MadeKey.Hash(Makers.LessonPicture, k => k.Add("own", own).Add(size));

    internal static void Declare(KeyFields key, LessonPicture picture) => key.Add("at", picture.At).Add("own", picture.Own);
}
