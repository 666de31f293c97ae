using Wexel.Core.Cameras;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Kit;
using Wexel.Core.Mixing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Encoding;

/// <summary>What is planned of a lesson besides its recordings and cuts; all of it may be left out.</summary>
/// <param name="Sections">The contents, in lesson time.</param>
/// <param name="Mark">The house's mark that the lesson wants; a profile may leave it away, or bring another.</param>
/// <param name="Canvas">The lesson's canvas; null for all of the recording in its own size.</param>
/// <param name="MoveIns">The move-ins, in the reel's time, in order and apart.</param>
/// <param name="Frames">For each recording how it is brought onto the canvas, null for as the canvas says.</param>
/// <param name="Captions">The cues of each caption track, in lesson time, in order; the track that is shown first at the front.</param>
/// <param name="Under">What is mixed with the voice; null for nothing.</param>
/// <param name="Camera">The cameras over the screen; null for none.</param>
/// <param name="WantsMark">Whether a mark may stand on it: where not, no profile brings one.</param>
public sealed record LessonLook(
    IReadOnlyList<Section>? Sections = null,
    MarkOnPicture? Mark = null,
    Canvas? Canvas = null,
    IReadOnlyList<MoveIn>? MoveIns = null,
    IReadOnlyList<RecordingFrame?>? Frames = null,
    IReadOnlyList<IReadOnlyList<Cue>>? Captions = null,
    UnderPlan? Under = null,
    CamerasOnPicture? Camera = null,
    bool WantsMark = true
);

/// <summary>Cameras over a lesson's screen.</summary>
/// <param name="Look">How they stand on the picture.</param>
/// <param name="Cameras">The cameras.</param>
/// <param name="Path">When each is seen, and in which corner.</param>
public sealed record CamerasOnPicture(CameraLook Look, IReadOnlyList<LaidCamera> Cameras, CameraPath Path);

/// <summary>Plans the making of a rendition: what is decided here is only done elsewhere.</summary>
public static class RenderPlanner
{
    /// <summary>The least rate of a picture that is planned, in bits a second.</summary>
    public const long LeastBitsPerSecond = 16_000;

    /// <summary>How long the pieces are into which a file is cut: that long is usual (common practice, no source).</summary>
    public static readonly TimeSpan UsualPiece = TimeSpan.FromSeconds(6);

    private const int UsualReferenceFrames = 3;

    /// <summary>How much of a size that must not be passed is aimed at; the rest is what muxing adds and an encoder misses.</summary>
    internal const double AimedAt = 0.99;

    /// <summary>Plans a rendition of recordings that were accepted (see <see cref="RecordingCheck"/>) by a profile without <see
    /// cref="ProfileRules">faults</see>.</summary>
    /// <param name="reel">The recordings.</param>
    /// <param name="map">What is kept of them, see <see cref="Reel.Map"/>.</param>
    /// <param name="profile">The settings.</param>
    /// <param name="look">What the lesson wants besides.</param>
    /// <exception cref="ArgumentException">Nothing is kept.</exception>
    public static RenderPlan Plan(Reel reel, TimeMap map, Profile profile, LessonLook look)
    {
        if (map.Frames == 0)
            throw new ArgumentException("A lesson of which everything is cut cannot be rendered.", nameof(map));
        var sound = profile.Sound is null ? null : Sound(reel, map, profile, profile.Sound, look.Under);
        var pictures = profile.Picture is null ? [] : Pictures(reel, map, profile, profile.Picture, look, sound);
        var bytes = profile.Picture?.Rate is { Rule: RateRule.FileSize, Bytes: { } most } ? most : (long?)null;
        return new RenderPlan(
            map.Length,
            pictures,
            sound,
            new FilePlan(
                profile.Container,
                HasCaptions(profile) ? look.Captions?.Count ?? 0 : 0,
                profile.Chapters && profile.Container != Container.Hls,
                profile.IndexAtFront,
                bytes
            )
        );
    }

    /// <summary>What lies beside a single file lies inside a folder of pieces.</summary>
    private static bool HasCaptions(Profile profile) =>
        profile.Captions == CaptionPlace.Inside || (profile is { Captions: CaptionPlace.Beside, Container: Container.Hls });

    /// <summary>The picture and, where the container has several, the smaller ones.</summary>
    private static List<PicturePlan> Pictures(Reel reel, TimeMap map, Profile profile, PictureSettings settings, LessonLook look, SoundPlan? sound)
    {
        List<PicturePlan> pictures = [Picture(reel, map, profile, settings, look, sound)];
        if (profile.Container != Container.Hls)
            return pictures;
        foreach (var height in (settings.FurtherHeights ?? []).OrderDescending())
        {
            var smaller = Picture(reel, map, profile, settings with { Size = SizeSettings.AtMost(height) }, look, sound);
            if (smaller.Size.Height < pictures[^1].Size.Height)
                pictures.Add(smaller);
        }

        return pictures;
    }

    private static PicturePlan Picture(Reel reel, TimeMap map, Profile profile, PictureSettings settings, LessonLook look, SoundPlan? sound)
    {
        var parts = Enumerable
            .Range(0, reel.Parts.Count)
            .Select(i => Part(reel, i, map, settings, Canvas.Under(reel, look.Canvas, look.Frames?[i]), look.MoveIns ?? []))
            .OfType<PartPlan>()
            .ToList();
        var size = parts[0].Placement.Canvas;
        var mark = Mark(settings, look) is { } put
            ? new MarkPlan(put.Key, put.Placement.On(size, put.Size), put.Placement.Within().OpacityPercent / 100)
            : null;
        var burnt = profile.Captions == CaptionPlace.BurntIn && look.Captions is [var first, ..] ? first : [];
        var cameras = look.Camera is { Path.Shots.Count: > 0 } over ? Cameras(over, parts, size) : null;
        var timing = Timing(map, look.Sections ?? [], parts, cameras ?? [], settings, burnt, profile.Container == Container.Hls);
        var rate = Rate(settings, map.Length, sound);
        return Copied(
            reel,
            profile,
            settings,
            new PicturePlan(
                parts,
                size,
                mark,
                burnt.Count == 0 ? null : BurntCaptions.Script(burnt, size, mark?.Box, SmallCameras(cameras ?? [], size)),
                timing,
                new CodingPlan(settings.Codec, settings.Codec == PictureCodec.H264 ? H264(settings, size, timing.Made, rate) : null),
                rate,
                settings.Effort,
                Cameras: cameras
            )
        );
    }

    /// <summary>The mark that stands on what is made: the profile's own, or the house's.</summary>
    private static MarkOnPicture? Mark(PictureSettings settings, LessonLook look) =>
        !look.WantsMark ? null
        : settings.OwnMark is { } own ? own
        : settings.HouseMark ? look.Mark
        : null;

    /// <summary>The cameras on a picture of a size; each is read once, however often it comes and goes.</summary>
    private static List<CameraPlan> Cameras(CamerasOnPicture over, IReadOnlyList<PartPlan> parts, PictureSize size) =>
        [
            .. over
                .Path.Shots.GroupBy(s => s.Camera)
                .OrderBy(g => g.Key)
                .Select(shots =>
                {
                    var camera = over.Cameras[shots.Key];
                    var (picture, kept) = (camera.Facts.Picture!, parts.First(p => p.Recording == camera.Part).Kept);
                    return new CameraPlan(
                        camera.Take.Recording,
                        camera.Take.Clock.Within(),
                        [.. FrameRun.Union(shots.Select(s => new FrameRun(s.First, s.Count))).SelectMany(run => run.Within(kept))],
                        picture.ShownSize,
                        picture.PictureRate,
                        picture.PixelAspect is >= 0.999 and <= 1.001,
                        Conversion(picture),
                        [
                            .. shots
                                .Select(s => (Shot: s, Box: Box(over.Look, s, size, picture.ShownSize)))
                                .GroupBy(s => (s.Box.From, Size: new PictureSize(s.Box.To.Width, s.Box.To.Height), s.Box.Radius))
                                .Select(view => new CameraView(
                                    view.Key.From,
                                    view.Key.Size,
                                    view.Key.Radius,
                                    [.. view.Select(s => new CameraPlace(new FrameRun(s.Shot.First, s.Shot.Count), s.Box.To.X, s.Box.To.Y))]
                                )),
                        ],
                        picture.Preparation
                    );
                }),
        ];

    /// <summary>Where cameras stand small, whose pictures captions must not cover.</summary>
    private static List<PictureRect> SmallCameras(IEnumerable<CameraPlan> cameras, PictureSize size) =>
        [
            .. cameras
                .SelectMany(c => c.Views)
                .Where(v => v.Size != size)
                .SelectMany(v => v.Places.Select(p => new PictureRect(p.X, p.Y, v.Size.Width, v.Size.Height)))
                .Distinct(),
        ];

    private static CameraBox Box(CameraLook look, CameraShot shot, PictureSize size, PictureSize camera) =>
        shot.Shown == CameraShown.Large ? look.Large(size, camera) : look.Small(size, camera, shot.Corner);

    /// <summary>What is copied declares what the recording does.</summary>
    private static PicturePlan Copied(Reel reel, Profile profile, PictureSettings settings, PicturePlan plan)
    {
        var (copy, since) = CopyRule.Judge(plan, reel, settings, profile.Container);
        if (copy is null)
            return plan with { EncodedSince = since };
        var even = reel.Parts[0].Picture.Even!;
        return plan with
        {
            Copy = copy,
            Coding = plan.Coding with { H264 = plan.Coding.H264! with { Profile = CopyRule.ProfileOf(even)!.Value, Level = even.Level } },
        };
    }

    /// <summary>What is made of one recording; null where nothing of it is kept.</summary>
    private static PartPlan? Part(Reel reel, int index, TimeMap map, PictureSettings settings, Canvas canvas, IReadOnlyList<MoveIn> moveIns)
    {
        var part = reel.Parts[index];
        var kept = map.Within(part.First, part.Frames);
        if (kept.Count == 0)
            return null;
        var placement = settings.Size.Place(part.Picture.ShownSize, canvas);
        return new PartPlan(
            index,
            [.. kept.Select(k => k with { First = k.First - part.First })],
            part.Picture.PixelAspect is >= 0.999 and <= 1.001,
            placement,
            ViewPath.Of(moveIns, map, placement, reel.SpanOf(index)).Moves,
            Conversion(part.Picture),
            part.Picture.Preparation
        );
    }

    private static FrameTiming Timing(
        TimeMap map,
        IReadOnlyList<Section> sections,
        IReadOnlyList<PartPlan> parts,
        IReadOnlyList<CameraPlan> cameras,
        PictureSettings settings,
        IReadOnlyList<Cue> burnt,
        bool inPieces
    )
    {
        var (grid, last) = (map.Grid, map.Frames - 1);
        List<long> Within(IEnumerable<TimeSpan> times) => [.. times.Select(t => grid.FrameAt(t)).Where(f => f > 0 && f <= last).Distinct().Order()];
        // Behind the frames of a camera one must be made in which it is gone.
        var filmed = FrameRun.Union(cameras.SelectMany(c => c.Views).SelectMany(v => v.Places).Select(p => p.Run));
        var distance = settings.KeyFrameSeconds ?? (inPieces ? UsualPiece.TotalSeconds : null);
        var every = distance is { } seconds ? Math.Max(1, (int)(grid.PerSecond * seconds)) : (int?)null;
        var constant =
            settings.Timing is { Rule: TimingRule.Constant, FramesPerSecond: { } wanted } && new FrameRate(wanted, 1) != grid
                ? new FrameRate(wanted, 1)
                : (FrameRate?)null;
        return new FrameTiming(
            grid,
            settings.Timing.Rule == TimingRule.AsDrawn ? (int)grid.PerSecond - 1 : 0,
            every,
            Within(sections.Select(s => s.At)),
            last,
            FrameRun.Union(parts.SelectMany(p => p.Moves).Select(m => new FrameRun(m.First + 1, m.Frames))),
            [
                .. Within(burnt.SelectMany(c => new[] { c.Span.Start, c.Span.End }))
                    .Concat(filmed.Select(run => run.End).Where(f => f <= last))
                    .Distinct()
                    .Order(),
            ],
            constant,
            inPieces
        );
    }

    private static RatePlan Rate(PictureSettings settings, TimeSpan length, SoundPlan? sound)
    {
        var rate = settings.Rate;
        return rate.Rule switch
        {
            RateRule.Quality => new RatePlan(rate.Rule, rate.Quality ?? QualityScale.Of(settings.Codec).Usual, rate.CeilingBitsPerSecond ?? 0, 1),
            RateRule.FileSize => new RatePlan(
                rate.Rule,
                0,
                Math.Max(LeastBitsPerSecond, (long)(((rate.Bytes ?? 0) * 8 * AimedAt / length.TotalSeconds) - (sound?.BitsPerSecond ?? 0))),
                settings.Codec == PictureCodec.Av1 ? 1 : 2
            ),
            _ => new RatePlan(rate.Rule, 0, rate.BitsPerSecond ?? LeastBitsPerSecond, rate.Rule == RateRule.Average ? rate.Passes : 1),
        };
    }

    private static H264Plan H264(PictureSettings settings, PictureSize size, FrameRate made, RatePlan rate)
    {
        // The fit never passes 3840 pixels a side and the grid never 60 a second, which level 5.2 takes.
        var level = settings.Level is { } number
            ? H264Level.Find(number)!
            : H264Level.LowestFor(size, made, settings.H264Profile, rate.BitsPerSecond) ?? H264Level.All[^1];
        var most = level.MaxBitsPerSecond(settings.H264Profile);
        return new H264Plan(
            settings.H264Profile,
            level.Number,
            Math.Clamp(level.MaxReferenceFrames(size), 1, UsualReferenceFrames),
            rate is { Rule: RateRule.Quality, BitsPerSecond: > 0 } ? Math.Min(most, rate.BitsPerSecond) : most,
            level.MaxBufferBits(settings.H264Profile)
        );
    }

    private static ColourConversion? Conversion(PictureFacts source)
    {
        // Colours beyond BT.709 are brought to it first.
        if (WideColour.Of(source) is not null)
            return null;
        if (source.IsRgb)
            return new ColourConversion(null, true);
        // A file that does not say: 720 lines or more are BT.709, fewer BT.601 (common practice, no source).
        var matrix = source.Colour.Matrix ?? (Math.Min(source.Width, source.Height) >= 720 ? "bt709" : "smpte170m");
        var full = source.Colour.FullRange ?? source.PixelFormat.StartsWith("yuvj", StringComparison.Ordinal);
        return matrix == "bt709" && !full && source.PixelFormat == "yuv420p" ? null : new ColourConversion(matrix, full);
    }

    private static SoundPlan? Sound(Reel reel, TimeMap map, Profile profile, SoundSettings settings, UnderPlan? under)
    {
        var mixes = reel.Parts.Select(p => p.Facts.Sound is { } heard ? Mix(heard, p.Sides) : (SoundMix?)null).ToList();
        if (under is null && mixes.All(m => m is null))
            return null;
        var channels = settings.Channels switch
        {
            SoundChannels.Mono => 1,
            SoundChannels.Stereo => 2,
            _ => mixes.Any(m => m is SoundMix.Stereo or SoundMix.StereoFromSurround) || under?.Beds.Any(b => b.Channels > 1) == true ? 2 : 1,
        };
        if (channels == 1)
            mixes =
            [
                .. mixes.Select(m =>
                    m switch
                    {
                        SoundMix.Stereo => SoundMix.MonoFromBoth,
                        SoundMix.StereoFromSurround => SoundMix.MonoFromSurround,
                        _ => m,
                    }
                ),
            ];
        var plan = new SoundPlan(
            mixes,
            channels,
            settings.Codec,
            settings.SampleRate,
            settings.BitsPerSecond ?? SoundRates.Usual(settings.Codec, channels),
            settings.TargetLufs,
            Tracks: reel.Parts.Any(p => p.Facts.Used is not ([] or [0])) ? [.. reel.Parts.Select(p => p.Facts.Used)] : null,
            Under: under
        );
        return SoundCopyRule.Decided(plan, reel, map, profile);
    }

    private static SoundMix Mix(SoundFacts sound, SoundSides? sides) =>
        sound.Channels switch
        {
            1 => SoundMix.Mono,
            > 2 => SoundMix.StereoFromSurround,
            _ => sides switch
            {
                SoundSides.Same or SoundSides.Silent => SoundMix.MonoFromBoth,
                SoundSides.LeftOnly => SoundMix.MonoFromLeft,
                SoundSides.RightOnly => SoundMix.MonoFromRight,
                _ => SoundMix.Stereo,
            },
        };
}
