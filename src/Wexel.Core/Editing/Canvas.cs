using System.Text.Json.Serialization;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Editing;

/// <summary>How a recording's picture is brought onto the canvas.</summary>
public enum FitMode
{
    /// <summary>All of it is seen; what is left of the canvas is black.</summary>
    Whole,

    /// <summary>The canvas is filled; what does not fit is left out, the same at both sides.</summary>
    Fill,

    /// <summary>A chosen part is seen, with as much around it as the canvas has room for.</summary>
    Part,
}

/// <summary>A part of a picture as shares of its sides, so that it stays the same part at any size.</summary>
/// <param name="X">From the left, 0 to 1.</param>
/// <param name="Y">From the top, 0 to 1.</param>
/// <param name="Width">Across, over 0 to 1.</param>
/// <param name="Height">Down, over 0 to 1.</param>
public readonly record struct PicturePart(double X, double Y, double Width, double Height)
{
    /// <summary>The smallest part that can be chosen, as a share of each side.</summary>
    public const double Smallest = 0.05;

    /// <summary>All of it.</summary>
    public static PicturePart All { get; } = new(0, 0, 1, 1);

    /// <summary>The nearest part that lies on the picture.</summary>
    public PicturePart Within()
    {
        static double Clamp(double value, double least, double most) => double.IsNaN(value) ? least : Math.Clamp(value, least, most);
        var (width, height) = (Clamp(Width, Smallest, 1), Clamp(Height, Smallest, 1));
        return new PicturePart(Clamp(X, 0, 1 - width), Clamp(Y, 0, 1 - height), width, height);
    }
}

/// <summary>How one of several recordings is brought onto the lesson's canvas, where it is brought otherwise than the rest.</summary>
/// <param name="Recording">Its hash.</param>
/// <param name="Fit">How it is brought onto the canvas.</param>
/// <param name="Part">The part that is seen with <see cref="FitMode.Part"/>.</param>
public sealed record RecordingFrame(string Recording, FitMode Fit, PicturePart Part);

/// <summary>What a lesson's picture is made on.</summary>
/// <param name="Size">The canvas; null for the recorded size.</param>
/// <param name="Fit">How the recording is brought onto it.</param>
/// <param name="Part">The part that is seen with <see cref="FitMode.Part"/>.</param>
public sealed record Canvas(PictureSize? Size, FitMode Fit, PicturePart Part)
{
    /// <summary>The least that a side may have, in pixels.</summary>
    public const int ShortestSide = 64;

    /// <summary>All of the recording in its own size.</summary>
    public static Canvas AsRecorded { get; } = new(null, FitMode.Whole, PicturePart.All);

    /// <summary>The sizes that are offered: 16:9, 4:3 and upright 9:16 (common practice, no source).</summary>
    public static IReadOnlyList<PictureSize> Standard { get; } =
    [new(1920, 1080), new(1280, 720), new(854, 480), new(640, 360), new(1440, 1080), new(640, 480), new(1080, 1920), new(720, 1280)];

    /// <summary>Whether it is nothing but all of the recording in its own size.</summary>
    [JsonIgnore]
    public bool IsAsRecorded => Size is null && Fit != FitMode.Part;

    /// <summary>The nearest canvas that can be made: sides even, within what players take.</summary>
    public Canvas Within()
    {
        static int Side(int side) => Math.Clamp(side, ShortestSide, CanvasFit.LongestSide) & ~1;
        return new Canvas(
            Size is { } size ? new PictureSize(Side(size.Width), Side(size.Height)) : null,
            Enum.IsDefined(Fit) ? Fit : FitMode.Whole,
            Part.Within()
        );
    }

    /// <summary>The canvas that a recording of a reel comes onto: in their own size, it is that of the largest of several.</summary>
    /// <param name="reel">The recordings.</param>
    /// <param name="chosen">The lesson's canvas; null where nobody chose.</param>
    /// <param name="own">How the recording is brought onto it; null for as the canvas says.</param>
    public static Canvas Under(Reel reel, Canvas? chosen, RecordingFrame? own)
    {
        var canvas = chosen ?? AsRecorded;
        if (canvas.Size is null && reel.Parts.Count > 1)
            canvas = canvas with { Size = reel.Largest };
        return own is null ? canvas : canvas with { Fit = own.Fit, Part = own.Part };
    }

    /// <summary>What is proposed for a recording: its own size where the web takes it well, else the largest standard size of its shape that is not
    /// larger.</summary>
    /// <param name="recorded">The recording's size as it is shown.</param>
    public static PictureSize? Proposed(PictureSize recorded)
    {
        if (Math.Max(recorded.Width, recorded.Height) <= 1920 && recorded is { Width: >= 320, Height: >= 180 })
            return null;
        var shape = (double)recorded.Width / recorded.Height;
        var alike = Standard.Where(s => Math.Abs((double)s.Width / s.Height / shape - 1) < 0.02 && s.Width <= recorded.Width).ToList();
        return alike.Count > 0 ? alike[0] : null;
    }
}
