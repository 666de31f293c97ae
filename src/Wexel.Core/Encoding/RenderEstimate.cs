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
    // Measured on quiet screen lessons with the shipped profiles; bytes for a pixel of a key frame, of a frame with a change, at the usual quality.
    private const double KeyFrameBytesPerPixel = 0.018;
    private const double ChangedBytesPerPixel = 0.0005;
    private const double RepeatedFrameBytes = 41;
    private const double ContainerBytesPerFrame = 12;
    private const double SoundSecondsATime = 60;

    /// <summary>Estimates a plan's outcome.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="changedShare">The share of samples in which the picture changed, 0 to 1; 0.3 where nothing is known yet.</param>
    /// <param name="speed">The machine.</param>
    public static RenderEstimate Of(RenderPlan plan, Reel reel, double changedShare, MachineSpeed speed)
    {
        var seconds = plan.Length.TotalSeconds;
        var sound = (long)(seconds * ((plan.Sound?.BitsPerSecond ?? 0) / 8.0 + (plan.Sound is null ? 0 : 200)));
        var soundTime = TimeSpan.FromSeconds(plan.Sound is null ? 0 : seconds / SoundSecondsATime);
        if (plan.Picture is not { } picture)
            return new RenderEstimate(sound, TimeSpan.FromSeconds(1) + soundTime);
        var frames = FramesOf(picture, seconds, changedShare);
        var decode = reel.Parts.Sum(p => p.Facts.Length.TotalSeconds * p.Picture.Rate.PerSecond * p.Picture.Width * p.Picture.Height) / speed.DecodedPixelsPerSecond;
        var encode = frames.Made * picture.Size.Width * picture.Size.Height / speed.EncodedPixelsPerSecond * Slowness(picture) * picture.Rate.Passes;
        return new RenderEstimate(PictureBytes(plan, reel, changedShare) + sound, TimeSpan.FromSeconds(1 + (decode * picture.Rate.Passes) + encode) + soundTime);
    }

    /// <summary>Estimates what a plan's picture comes to, in bytes.</summary>
    /// <param name="plan">The plan; it has a picture.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="changedShare">The share of samples in which the picture changed, 0 to 1.</param>
    public static long PictureBytes(RenderPlan plan, Reel reel, double changedShare)
    {
        var (picture, seconds) = (plan.Picture!, plan.Length.TotalSeconds);
        if (picture.Rate.Rule != RateRule.Quality)
            return (long)(picture.Rate.BitsPerSecond * seconds / 8);
        var frames = FramesOf(picture, seconds, changedShare);
        var pixels = (double)picture.Size.Width * picture.Size.Height;
        // A picture scaled down carries the same strokes on fewer pixels, so bytes shrink less than the area does.
        var recorded = reel.Parts.Sum(p => (double)p.Frames * p.Picture.Width * p.Picture.Height) / reel.Frames;
        var density = Math.Pow(recorded / pixels, 0.3);
        var scale = QualityScale.Of(picture.Coding.Codec);
        var quality = Math.Pow(2, (scale.Usual - picture.Rate.Quality) / scale.Halving);
        var drawn = pixels * density * quality * ((frames.Key * KeyFrameBytesPerPixel) + (frames.Changed * ChangedBytesPerPixel));
        var most = picture.Rate.BitsPerSecond > 0 ? picture.Rate.BitsPerSecond * seconds / 8 : double.MaxValue;
        return (long)Math.Min(most, drawn + ((frames.Changed + frames.Repeated) * ContainerBytesPerFrame) + (frames.Repeated * RepeatedFrameBytes));
    }

    /// <summary>Of the frames that repeat the one before, one a second is made, or all where the rate is constant.</summary>
    private static (double Changed, double Repeated, int Key, double Made) FramesOf(PicturePlan picture, double seconds, double changedShare)
    {
        var timing = picture.Timing;
        var changed = seconds * timing.Made.PerSecond * changedShare;
        var repeated = timing.MostRepeatsLeftOut == 0 ? (seconds * timing.Made.PerSecond) - changed : seconds;
        var key = timing.KeyFrames().Count();
        return (changed, repeated, key, changed + repeated + key);
    }

    /// <summary>How much longer a codec and an effort take than H.264 with little; measured on demo lessons.</summary>
    private static double Slowness(PicturePlan picture)
    {
        var effort = picture.Effort switch { Effort.Fastest => 0.7, Effort.Faster => 1, Effort.Balanced => 1.4, Effort.Smaller => 2.2, _ => 5 };
        return effort * picture.Coding.Codec switch { PictureCodec.H264 => 1, PictureCodec.Vp9 => 4, _ => 3 };
    }
}
