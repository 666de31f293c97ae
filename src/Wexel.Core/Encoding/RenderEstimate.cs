using Wexel.Core.Recordings;

namespace Wexel.Core.Encoding;

/// <summary>What a rendition will come to, before it is made.</summary>
/// <param name="Bytes">The size of the file.</param>
/// <param name="Time">How long the making takes.</param>
public readonly record struct RenderEstimate(long Bytes, TimeSpan Time);

/// <summary>How fast a machine works, in source pixels decoded and in pixels encoded a second.</summary>
/// <param name="DecodedPixelsPerSecond">Decoding and comparing frames.</param>
/// <param name="EncodedPixelsPerSecond">Scaling and encoding frames.</param>
public readonly record struct MachineSpeed(double DecodedPixelsPerSecond, double EncodedPixelsPerSecond)
{
    /// <summary>A small server of two cores; what earlier work on the machine showed corrects it.</summary>
    public static MachineSpeed Small { get; } = new(350e6, 35e6);
}

/// <summary>Estimates size and time from what the analysis found.</summary>
public static class RenderEstimator
{
    // Measured on quiet screen lessons with the shipped profiles; bytes for a pixel of a key frame, of a frame with a change, at factor 20.
    private const double KeyFrameBytesPerPixel = 0.018;
    private const double ChangedBytesPerPixel = 0.0005;
    private const double QualityHalving = 6;
    private const double RepeatedFrameBytes = 41;
    private const double ContainerBytesPerFrame = 12;

    /// <summary>Estimates a plan's outcome.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="changedShare">The share of samples in which the picture changed, 0 to 1; 0.3 where nothing is known yet.</param>
    /// <param name="speed">The machine.</param>
    public static RenderEstimate Of(RenderPlan plan, Reel reel, double changedShare, MachineSpeed speed)
    {
        var seconds = plan.Length.TotalSeconds;
        var grid = plan.Picture.Timing.Grid.PerSecond;
        var changedFrames = seconds * grid * changedShare;
        var keyFrames = plan.Picture.Timing.KeyFrames().Count();
        var pixels = (double)plan.Picture.Size.Width * plan.Picture.Size.Height;
        // A picture scaled down carries the same strokes on fewer pixels, so bytes shrink less than the area does.
        var recorded = reel.Parts.Sum(p => (double)p.Frames * p.Picture.Width * p.Picture.Height) / reel.Frames;
        var density = Math.Pow(recorded / pixels, 0.3);
        var quality = Math.Pow(2, (20 - plan.Picture.Quality) / QualityHalving);
        var picture = pixels * density * quality * ((keyFrames * KeyFrameBytesPerPixel) + (changedFrames * ChangedBytesPerPixel));
        var sound = seconds * (plan.Sound?.BitsPerSecond ?? 0) / 8;
        // Of the frames that repeat the one before, one a second is made, or all where the rate is constant.
        var repeated = plan.Picture.Timing.MostRepeatsLeftOut == 0 ? seconds * grid - changedFrames : seconds;
        var container = (changedFrames + repeated) * ContainerBytesPerFrame + repeated * RepeatedFrameBytes + (seconds * (plan.Sound is null ? 0 : 200));

        var decode = reel.Parts.Sum(p => p.Facts.Length.TotalSeconds * p.Picture.Rate.PerSecond * p.Picture.Width * p.Picture.Height) / speed.DecodedPixelsPerSecond;
        var encode = (changedFrames + repeated + keyFrames) * pixels / speed.EncodedPixelsPerSecond;
        return new RenderEstimate((long)(picture + sound + container), TimeSpan.FromSeconds(1 + decode + encode));
    }
}
