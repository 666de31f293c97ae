namespace Wexel.Core.Encoding;

/// <summary>The profiles that ship with Wexel. They cannot be changed; a copy can.</summary>
public static class Profiles
{
    /// <summary>The recorded size, for the web.</summary>
    public static Profile Web { get; } =
        new("web", "Web, as recorded", "The recorded size, sharpest text. Right for most screens.", Container.Mp4, Screen(SizeSettings.AsCanvas, 20), Voice);

    /// <summary>At most 720 lines, for the web.</summary>
    public static Profile Web720 { get; } =
        new(
            "web-720p",
            "Web 720p",
            "At most 1280 × 720: smaller, quicker to load, and still clear.",
            Container.Mp4,
            Screen(SizeSettings.AtMost(720), 20),
            Voice
        );

    /// <summary>At most 480 lines, small.</summary>
    public static Profile Small480 { get; } =
        new("small-480p", "Small 480p", "At most 480 lines: for slow lines and plain talks.", Container.Mp4, Screen(SizeSettings.AtMost(480), 23), Voice);

    /// <summary>At most 1080 lines.</summary>
    public static Profile FullHd { get; } =
        new("full-hd", "Full HD", "At most 1920 × 1080: for large screens in a room.", Container.Mp4, Screen(SizeSettings.AtMost(1080), 20), Voice);

    /// <summary>Several heights from which a player takes what its line can carry.</summary>
    public static Profile Adaptive { get; } =
        new(
            "adaptive",
            "Adaptive",
            "Several sizes in small pieces: each learner gets what their line can carry, and it starts at once.",
            Container.Hls,
            Screen(SizeSettings.AtMost(1080), 21) with
            {
                FurtherHeights = [720, 480, 360],
            },
            Voice,
            Chapters: false
        );

    /// <summary>Visually lossless, for keeping.</summary>
    public static Profile Master { get; } =
        new(
            "master",
            "Master copy",
            "Visually lossless, every frame, sound as recorded: to keep, and to make everything else from later.",
            Container.Mov,
            Screen(SizeSettings.AsCanvas, 12) with
            {
                Timing = TimingSettings.AsRecorded,
                HouseMark = false,
            },
            Voice with
            {
                BitsPerSecond = 256_000,
                TargetLufs = null,
            }
        );

    /// <summary>At most 720 lines at a constant frame rate, as podcast apps take it.</summary>
    public static Profile Podcast720 { get; } =
        new(
            "podcast-720p",
            "Podcast 720p",
            "At most 1280 × 720 at a constant frame rate, which podcast apps want.",
            Container.M4v,
            Screen(SizeSettings.AtMost(720), 20) with
            {
                Timing = TimingSettings.AsRecorded,
            },
            Voice
        );

    /// <summary>Sound alone, for podcast apps.</summary>
    public static Profile PodcastSound { get; } =
        new(
            "podcast-sound",
            "Podcast, sound only",
            "The sound alone with chapters: to listen to on the way.",
            Container.M4a,
            null,
            Voice with
            {
                BitsPerSecond = 96_000,
            },
            CaptionPlace.None
        );

    /// <summary>The recorded size at high quality, for services that encode it once more.</summary>
    public static Profile VideoService { get; } =
        new(
            "video-service",
            "Video service",
            "The recorded size at high quality, every frame: services make their own sizes of it.",
            Container.Mp4,
            Screen(SizeSettings.AsCanvas, 16) with
            {
                Timing = TimingSettings.AsRecorded,
            },
            Voice with
            {
                BitsPerSecond = 192_000,
            },
            CaptionPlace.None,
            Chapters: false
        );

    /// <summary>Open codecs.</summary>
    public static Profile Open { get; } =
        new(
            "open-formats",
            "Open formats",
            "WebM with AV1 and Opus: no licence is needed, and files are small.",
            Container.Webm,
            Screen(SizeSettings.AsCanvas, 32) with
            {
                Codec = PictureCodec.Av1,
            },
            new SoundSettings(SoundCodec.Opus)
        );

    /// <summary>All of them, in the order in which they are offered.</summary>
    public static IReadOnlyList<Profile> All { get; } = [Web, Web720, Small480, FullHd, Adaptive, Master, Podcast720, PodcastSound, VideoService, Open];

    /// <summary>The profile of a name, or null.</summary>
    public static Profile? Find(string id) => All.FirstOrDefault(p => p.Id == id);

    private static SoundSettings Voice => new(SoundCodec.Aac);

    private static PictureSettings Screen(SizeSettings size, int quality) => new(PictureCodec.H264, size, TimingSettings.AsDrawn, RateSettings.Of(quality));
}
