using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Encoding;

/// <summary>What a rendition will come to, before it is made.</summary>
/// <param name="Size">The size of the file, in bytes.</param>
/// <param name="Seconds">How long the making takes, in seconds.</param>
/// <param name="Sampled">Whether samples of the lesson were encoded for it; otherwise it follows from what was seen of the recording.</param>
public readonly record struct RenderEstimate(Estimated Size, Estimated Seconds, bool Sampled)
{
    /// <summary>The size of the file, in bytes.</summary>
    public long Bytes => (long)Size.Value;

    /// <summary>How long the making takes.</summary>
    public TimeSpan Time => TimeSpan.FromSeconds(Seconds.Value);
}

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
    private const double SoundContainerBytesPerSecond = 200;
    private const double SoundSecondsATime = 60;
    private const double HeardSecondsATime = 300;
    private const double CopiedBytesPerSecond = 100e6;

    /// <summary>Bytes for a pixel of a camera, a frame, at the usual quality: a person who sits and speaks (measured by <c>./wexel bench camera</c>).</summary>
    private const double CameraBytesPerPixel = 0.006;

    /// <summary>What runs before the first frame of a sample comes.</summary>
    private const double StartSeconds = 0.25;

    /// <summary>What an index, titles and sections add to what is encoded, at most.</summary>
    private const double MostContainer = 1.02;

    /// <summary>Without samples an estimate may be off by this factor, either way.</summary>
    private const double RoughFactor = 2;

    /// <summary>With samples, the time may be off by this factor, either way: what else the machine does is not known.</summary>
    private const double TimeFactor = 1.4;

    /// <summary>Estimates a plan's outcome from what was seen of the recordings.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="changedShare">The share of samples in which the picture changed, 0 to 1; 0.3 where nothing is known yet.</param>
    /// <param name="speed">The machine.</param>
    public static RenderEstimate Estimate(RenderPlan plan, Reel reel, double changedShare, MachineSpeed speed)
    {
        if (plan.Picture is { Copy: { } copy })
            return Copied(plan, copy, reel, new Estimated(SoundBytes(plan), SoundBytes(plan), SoundBytes(plan)), speed, sampled: false);
        var seconds = plan.Length.TotalSeconds;
        var made = plan.Pictures.Select(picture => FramesOf(picture, seconds, changedShare).Made).ToList();
        var time = Fixed(plan) + PictureSeconds(plan, reel, made, speed) + Checking(plan, made, speed);
        var bytes = plan.Pictures.Sum(picture => PictureBytes(picture, plan.Length, reel, changedShare));
        return new RenderEstimate(
            new Estimated(bytes, bytes / RoughFactor, bytes * RoughFactor).Plus(SoundBytes(plan)),
            new Estimated(time, time / RoughFactor, time * RoughFactor),
            false
        );
    }

    /// <summary>What a plan comes to whose picture and sound are encoded already: they are put together and checked.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="bytes">What is encoded, in bytes.</param>
    /// <param name="changedShare">The share of samples in which the picture changed, 0 to 1.</param>
    /// <param name="speed">The machine.</param>
    public static RenderEstimate Encoded(RenderPlan plan, long bytes, double changedShare, MachineSpeed speed)
    {
        var time = 1 + Checking(plan, [.. plan.Pictures.Select(picture => FramesOf(picture, plan.Length.TotalSeconds, changedShare).Made)], speed);
        return new RenderEstimate(new Estimated(bytes, bytes, bytes * MostContainer), new Estimated(time, time / RoughFactor, time * RoughFactor), true);
    }

    /// <summary>Estimates a plan's outcome from samples of its pictures.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="map">What is kept of them.</param>
    /// <param name="still">The stretches of the lesson in which its picture stands still, as they were when the samples were chosen.</param>
    /// <param name="samples">What the samples came to.</param>
    /// <param name="speed">The machine as it is thought of; what the samples took corrects it.</param>
    public static RenderEstimate FromSamples(
        RenderPlan plan,
        Reel reel,
        TimeMap map,
        IReadOnlyList<TimeRange>? still,
        LessonSamples samples,
        MachineSpeed speed
    )
    {
        var size =
            samples.SoundBytesPerSecond.Count > 0
                ? Samples.SoundBytes(plan.Length, samples.SoundBytesPerSecond).Plus(plan.Length.TotalSeconds * SoundContainerBytesPerSecond)
                : default;
        if (plan.Picture is { Copy: { } copy })
            return Copied(plan, copy, reel, size, speed, sampled: true);
        var made = new List<double>();
        var (took, thought) = (0.0, 0.0);
        foreach (var (picture, measured) in plan.Pictures.Zip(samples.Pictures))
        {
            var frames = Samples.Frames(map, still, picture.Timing, measured);
            made.Add(frames);
            var bytes =
                picture.Rate.Rule == RateRule.Quality
                    ? Samples.Bytes(map, still, picture.Timing, measured).Plus(frames * ContainerBytesPerFrame)
                    : AtRate(picture, plan);
            size = new Estimated(size.Value + bytes.Value, size.Least + bytes.Least, size.Most + bytes.Most);
            thought += measured.Sum(m => Encoding(picture, m.Frames, speed));
        }

        // The pictures of a sample are encoded in one pass, and its frames decoded once.
        var first = samples.Pictures.Count > 0 ? samples.Pictures[0] : [];
        took += first.Sum(m => Math.Max(0.01, m.Took.TotalSeconds - StartSeconds));
        thought += first.Sum(m => m.Decoded * AveragePixels(reel) / speed.DecodedPixelsPerSecond);

        var time =
            Fixed(plan) + (PictureSeconds(plan, reel, made, speed) * (thought > 0 ? Math.Clamp(took / thought, 0.1, 10) : 1)) + Checking(plan, made, speed);
        return new RenderEstimate(size, new Estimated(time, time / TimeFactor, time * TimeFactor), true);
    }

    /// <summary>What is copied comes to what it took in the recording; what is encoded between costs more, by how much is not known.</summary>
    private static RenderEstimate Copied(RenderPlan plan, CopyPlan copy, Reel reel, Estimated sound, MachineSpeed speed, bool sampled)
    {
        var even = reel.Parts[0].Picture.Even!;
        var frame = (double)even.Bytes / even.Frames;
        double frames = copy.Runs.Sum(r => r.Count + r.LeadIn);
        var all = frames * (frame + ContainerBytesPerFrame);
        var size = new Estimated(sound.Value + all, sound.Least + (all * 0.7), sound.Most + (all * 1.4));
        // To encode a piece, its frames are decoded from the key frame before.
        var pixels = (double)plan.Picture!.Size.Width * plan.Picture.Size.Height;
        var pieces = copy.Runs.Count(r => r.Encoded);
        var seconds =
            Fixed(plan)
            + (all / CopiedBytesPerSecond)
            + (pieces * StartSeconds)
            + ((copy.EncodedFrames + (pieces * even.LongestDistance / 2.0)) * pixels / speed.DecodedPixelsPerSecond)
            + Encoding(plan.Picture, copy.EncodedFrames, speed)
            + Checking(plan, [frames], speed);
        return new RenderEstimate(size, new Estimated(seconds, seconds / RoughFactor, seconds * RoughFactor), sampled);
    }

    /// <summary>A rate is met, and how nearly is known.</summary>
    private static Estimated AtRate(PicturePlan picture, RenderPlan plan)
    {
        var bytes = picture.Rate.BitsPerSecond * plan.Length.TotalSeconds / 8;
        return new Estimated(bytes, bytes * 0.9, bytes * 1.05);
    }

    private static double SoundBytes(RenderPlan plan) =>
        plan.Sound is { } sound ? plan.Length.TotalSeconds * ((sound.BitsPerSecond / 8.0) + SoundContainerBytesPerSecond) : 0;

    private static double Fixed(RenderPlan plan) => 1 + (plan.Sound is null ? 0 : plan.Length.TotalSeconds / SoundSecondsATime);

    /// <summary>Every picture that was made is decoded once, and the sound listened to.</summary>
    private static double Checking(RenderPlan plan, IReadOnlyList<double> made, MachineSpeed speed) =>
        (plan.Pictures.Zip(made).Sum(pair => pair.Second * pair.First.Size.Width * pair.First.Size.Height) / speed.DecodedPixelsPerSecond)
        + (plan.Sound is null ? 0 : plan.Length.TotalSeconds / HeardSecondsATime);

    private static double AveragePixels(Reel reel) => reel.Parts.Sum(p => (double)p.Frames * p.Picture.Width * p.Picture.Height) / reel.Frames;

    /// <summary>However many pictures there are, the recordings are decoded once a pass.</summary>
    private static double PictureSeconds(RenderPlan plan, Reel reel, IReadOnlyList<double> made, MachineSpeed speed) =>
        plan.Pictures.Count == 0
            ? 0
            : (
                (
                    reel.Parts.Sum(p => p.Facts.Length.TotalSeconds * p.Picture.Rate.PerSecond * p.Picture.Width * p.Picture.Height)
                    + (plan.Picture!.Cameras ?? []).Sum(c =>
                        plan.Picture.Timing.Grid.TimeOf(c.Kept[^1].End - c.Kept[0].First).TotalSeconds * c.Rate.PerSecond * c.Recorded.Width * c.Recorded.Height
                    )
                )
                / speed.DecodedPixelsPerSecond
                * plan.Pictures.Max(p => p.Rate.Passes)
            ) + plan.Pictures.Zip(made).Sum(pair => Encoding(pair.First, pair.Second, speed) * pair.First.Rate.Passes);

    /// <summary>How many pixels of cameras there are in all frames together that are another.</summary>
    private static double CameraPixels(PicturePlan picture) =>
        (picture.Cameras ?? []).Sum(c => OfGrid(c, picture.Timing) * c.Views.Sum(v => (double)v.Size.Width * v.Size.Height * v.Places.Sum(p => p.Run.Count)));

    /// <summary>Of the grid's frames in which a camera is seen, the share in which its own is another.</summary>
    private static double OfGrid(CameraPlan camera, FrameTiming timing) => Math.Min(1, camera.Rate.PerSecond / timing.Grid.PerSecond);

    private static double Encoding(PicturePlan picture, double frames, MachineSpeed speed) =>
        frames * picture.Size.Width * picture.Size.Height / speed.EncodedPixelsPerSecond * Slowness(picture);

    /// <summary>Estimates what a picture comes to, in bytes.</summary>
    /// <param name="picture">The picture's plan.</param>
    /// <param name="length">How long it is.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="changedShare">The share of samples in which the picture changed, 0 to 1.</param>
    public static long PictureBytes(PicturePlan picture, TimeSpan length, Reel reel, double changedShare)
    {
        var seconds = length.TotalSeconds;
        if (picture.Rate.Rule != RateRule.Quality)
            return (long)(picture.Rate.BitsPerSecond * seconds / 8);
        var frames = FramesOf(picture, seconds, changedShare);
        var pixels = (double)picture.Size.Width * picture.Size.Height;
        // A picture scaled down carries the same strokes on fewer pixels, so bytes shrink less than the area does.
        var recorded = reel.Parts.Sum(p => (double)p.Frames * p.Picture.Width * p.Picture.Height) / reel.Frames;
        var density = Math.Pow(recorded / pixels, 0.3);
        var scale = QualityScale.Of(picture.Coding.Codec);
        var quality = Math.Pow(2, (scale.Usual - picture.Rate.Quality) / scale.Halving);
        var camera = CameraPixels(picture) * CameraBytesPerPixel;
        var drawn = quality * ((pixels * density * ((frames.Key * KeyFrameBytesPerPixel) + (frames.Changed * ChangedBytesPerPixel))) + camera);
        var most = picture.Rate.BitsPerSecond > 0 ? picture.Rate.BitsPerSecond * seconds / 8 : double.MaxValue;
        return (long)Math.Min(most, drawn + ((frames.Changed + frames.Repeated) * ContainerBytesPerFrame) + (frames.Repeated * RepeatedFrameBytes));
    }

    /// <summary>Of the frames that repeat the one before, one a second is made, or all where the rate is constant.</summary>
    private static (double Changed, double Repeated, double Key, double Made) FramesOf(PicturePlan picture, double seconds, double changedShare)
    {
        var timing = picture.Timing;
        // Where a camera is seen, every frame of its own is another.
        var seen = Math.Min(1, picture.CameraSeen.Sum(run => run.Count) / (double)(timing.LastFrame + 1));
        var filmed = (picture.Cameras ?? []).Select(c => OfGrid(c, timing)).DefaultIfEmpty().Max();
        var changed = seconds * timing.Made.PerSecond * (changedShare + (seen * Math.Max(0, filmed - changedShare)));
        var repeated = timing.MostRepeatsLeftOut == 0 ? (seconds * timing.Made.PerSecond) - changed : seconds;
        var key = timing.ExpectedKeyFrames(changed + repeated);
        return (changed, repeated, key, changed + repeated + timing.KeyFrames().Count());
    }

    /// <summary>How much longer a codec and an effort take than H.264 with little; measured on demo lessons.</summary>
    private static double Slowness(PicturePlan picture)
    {
        var effort = picture.Effort switch
        {
            Effort.Fastest => 0.7,
            Effort.Faster => 1,
            Effort.Balanced => 1.4,
            Effort.Smaller => 2.2,
            _ => 5,
        };
        return effort
            * picture.Coding.Codec switch
            {
                PictureCodec.H264 => 1,
                PictureCodec.Vp9 => 4,
                _ => 3,
            };
    }
}
