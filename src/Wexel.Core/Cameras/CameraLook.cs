using Wexel.Core.Editing;
using Wexel.Core.Keys;
using Wexel.Core.Recordings;

namespace Wexel.Core.Cameras;

/// <summary>A corner of the picture.</summary>
public enum CameraCorner
{
    /// <summary>At the top, at the left.</summary>
    TopLeft,

    /// <summary>At the top, at the right.</summary>
    TopRight,

    /// <summary>At the bottom, at the left.</summary>
    BottomLeft,

    /// <summary>At the bottom, at the right.</summary>
    BottomRight,
}

/// <summary>How a camera is shown.</summary>
public enum CameraShown
{
    /// <summary>Small, in a corner over the screen.</summary>
    Small,

    /// <summary>Over the whole picture.</summary>
    Large,

    /// <summary>Not at all.</summary>
    Hidden,
}

/// <summary>How cameras stand on a lesson's picture; once for all of it. The usual values are common practice, no source.</summary>
/// <param name="Corner">Where it stands small, as far as it keeps clear of nothing there.</param>
/// <param name="WidthPercent">Its width then as a share of the picture's, <see cref="LeastWidth"/> to <see cref="MostWidth"/>.</param>
/// <param name="DistancePercent">How far it stands from both edges, as a share of the picture's width, 0 to <see cref="MostDistance"/>.</param>
/// <param name="RoundedPercent">How round its corners are: 0 for square ones, 100 for as round as the shorter side allows.</param>
/// <param name="Part">What of the camera's picture is seen.</param>
/// <param name="KeepsClear">Whether it goes out of the way of what happens on the screen.</param>
/// <param name="Usually">How it is shown where nothing else is said.</param>
public sealed record CameraLook(
    CameraCorner Corner,
    double WidthPercent,
    double DistancePercent,
    double RoundedPercent,
    PicturePart Part,
    bool KeepsClear,
    CameraShown Usually
)
{
    /// <summary>The least width, as a share of the picture's in per cent.</summary>
    public const double LeastWidth = 8;

    /// <summary>The most width, as a share of the picture's in per cent.</summary>
    public const double MostWidth = 50;

    /// <summary>The farthest from the edges, as a share of the picture's width in per cent.</summary>
    public const double MostDistance = 15;

    /// <summary>However tall what is seen of it is, it takes no more of the picture's height.</summary>
    private const double MostHeight = 0.6;

    /// <summary>At the bottom right, a fifth as wide as the picture, a little rounded, out of the way of what happens.</summary>
    public static CameraLook Usual { get; } = new(CameraCorner.BottomRight, 20, 2, 20, PicturePart.All, true, CameraShown.Small);

    /// <summary>The nearest look that can be made.</summary>
    public CameraLook Within()
    {
        static double Clamp(double value, double least, double most) => double.IsNaN(value) ? least : Math.Clamp(value, least, most);
        return new CameraLook(
            Enum.IsDefined(Corner) ? Corner : CameraCorner.BottomRight,
            Clamp(WidthPercent, LeastWidth, MostWidth),
            Clamp(DistancePercent, 0, MostDistance),
            Clamp(RoundedPercent, 0, 100),
            Part.Within(),
            KeepsClear,
            Enum.IsDefined(Usually) ? Usually : CameraShown.Small
        );
    }

    /// <summary>Where a camera stands in a corner; all sides even, wholly on the picture, nothing of it black.</summary>
    /// <param name="picture">The picture's size; both sides even.</param>
    /// <param name="camera">The size of the camera's picture as it is shown.</param>
    /// <param name="corner">Which corner.</param>
    public CameraBox Small(PictureSize picture, PictureSize camera, CameraCorner corner)
    {
        var look = Within();
        var from = Seen(camera, look.Part);
        var (distance, shape) = (Even(picture.Width * look.DistancePercent / 100), (double)from.Width / from.Height);
        var most = Math.Min(picture.Width - (2 * distance), (picture.Height * MostHeight) * shape);
        var width = Math.Max(2, Even(Math.Min(picture.Width * look.WidthPercent / 100, most)));
        var height = Math.Clamp(Even(width / shape), 2, picture.Height & ~1);
        var (right, bottom) = (picture.Width - width, picture.Height - height);
        var (x, y) = (
            corner is CameraCorner.TopLeft or CameraCorner.BottomLeft ? Math.Min(distance, right) : Math.Max(0, right - distance),
            corner is CameraCorner.TopLeft or CameraCorner.TopRight ? Math.Min(distance, bottom) : Math.Max(0, bottom - distance)
        );
        var to = new PictureRect(x & ~1, y & ~1, width, height);
        return new CameraBox(from, to, (int)Math.Round(Math.Min(width, height) / 2.0 * look.RoundedPercent / 100));
    }

    /// <summary>A camera over the whole picture: of the part that is seen as much as fills it.</summary>
    /// <param name="picture">The picture's size; both sides even.</param>
    /// <param name="camera">The size of the camera's picture as it is shown.</param>
    public CameraBox Large(PictureSize picture, PictureSize camera)
    {
        var part = Seen(camera, Part.Within());
        var shape = (double)picture.Width / picture.Height;
        var (width, height) = (double)part.Width / part.Height > shape ? (part.Height * shape, (double)part.Height) : (part.Width, part.Width / shape);
        var (w, h) = (Math.Clamp(Even(width), 2, part.Width), Math.Clamp(Even(height), 2, part.Height));
        return new CameraBox(
            new PictureRect(part.X + (((part.Width - w) / 2) & ~1), part.Y + (((part.Height - h) / 2) & ~1), w, h),
            new PictureRect(0, 0, picture.Width, picture.Height),
            0
        );
    }

    /// <summary>What is proposed to be seen of a camera: all but black borders.</summary>
    /// <param name="camera">The size of the camera's picture as it is shown.</param>
    /// <param name="borders">The black borders that stand all the way through; null where there are none.</param>
    public static PicturePart Proposed(PictureSize camera, PictureBorders? borders) =>
        borders is not { } b
            ? PicturePart.All
            : new PicturePart(
                (double)b.Left / camera.Width,
                (double)b.Top / camera.Height,
                1 - ((double)(b.Left + b.Right) / camera.Width),
                1 - ((double)(b.Top + b.Bottom) / camera.Height)
            ).Within();

    internal static void Declare(KeyFields key, CameraLook look) =>
        key.Add("corner", (CameraCorner?)look.Corner)
            .Add("width", look.WidthPercent)
            .Add("distance", look.DistancePercent)
            .Add("rounded", look.RoundedPercent)
            .Add("x", look.Part.X)
            .Add("y", look.Part.Y)
            .Add("w", look.Part.Width)
            .Add("h", look.Part.Height)
            .Add("clear", look.KeepsClear)
            .Add("usually", (CameraShown?)look.Usually);

    /// <summary>The part in the camera's pixels: rounded inwards, so that no black comes in at an edge.</summary>
    private static PictureRect Seen(PictureSize camera, PicturePart part)
    {
        var (x, y) = (
            Math.Min(EvenUp(part.X * camera.Width), EvenDown(camera.Width) - 2),
            Math.Min(EvenUp(part.Y * camera.Height), EvenDown(camera.Height) - 2)
        );
        var (right, bottom) = (EvenDown((part.X + part.Width) * camera.Width), EvenDown((part.Y + part.Height) * camera.Height));
        return new PictureRect(x, y, Math.Max(2, right - x), Math.Max(2, bottom - y));
    }

    private static int EvenUp(double value) => (int)Math.Ceiling((value - 0.001) / 2) * 2;

    private static int EvenDown(double value) => (int)Math.Floor((value + 0.001) / 2) * 2;

    private static int Even(double value) => (int)Math.Round(value / 2, MidpointRounding.AwayFromZero) * 2;
}

/// <summary>What of a camera's picture is seen, and where it stands.</summary>
/// <param name="From">The part that is seen, in the camera's pixels; sides and corner even.</param>
/// <param name="To">Where it stands on the picture that is made; sides and corner even.</param>
/// <param name="Radius">How round its corners are, in the pixels of the picture that is made.</param>
public sealed record CameraBox(PictureRect From, PictureRect To, int Radius);
