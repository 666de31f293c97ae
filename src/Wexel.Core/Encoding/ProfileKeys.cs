using Wexel.Core.Keys;

namespace Wexel.Core.Encoding;

/// <summary>The key of what a profile makes: its name and its description make no difference.</summary>
public static class ProfileKeys
{
    /// <summary>The key of a profile's settings.</summary>
    public static string ProfileKey(Profile profile) =>
        MadeKey.Hash(Makers.Profile, k =>
            k.Add("container", (Container?)profile.Container)
                .Part("picture", profile.Picture, Declare)
                .Part("sound", profile.Sound, Declare)
                .Add("captions", (CaptionPlace?)profile.Captions)
                .Add("captionLanguage", profile.Captions == CaptionPlace.BurntIn ? profile.CaptionLanguage : null)
                .Add("chapters", profile.Chapters)
                .Add("front", profile.IndexAtFront)
        );

    private static void Declare(KeyFields key, PictureSettings picture) =>
        key.Add("codec", (PictureCodec?)picture.Codec)
            .Add("h264", (H264Profile?)picture.H264Profile)
            .Add("level", picture.Level)
            .Part("size", picture.Size, (k, s) => k.Add("rule", (SizeRule?)s.Rule).Add("width", s.Width).Add("height", s.Height))
            .Part("timing", picture.Timing, (k, t) => k.Add("rule", (TimingRule?)t.Rule).Add("rate", t.FramesPerSecond))
            .Part("rate", picture.Rate, (k, r) =>
                k.Add("rule", (RateRule?)r.Rule)
                    .Add("quality", r.Quality)
                    .Add("ceiling", r.CeilingBitsPerSecond)
                    .Add("bits", r.BitsPerSecond)
                    .Add("passes", r.Passes)
                    .Add("bytes", r.Bytes)
            )
            .Add("every", picture.KeyFrameSeconds)
            .Add("effort", (Effort?)picture.Effort)
            .Add("mark", picture.HouseMark)
            .Add("own mark", picture.OwnMark?.WholeKey)
            .Add("copy", picture.Copy)
            .Each("further", picture.FurtherHeights?.Select(h => (long)h).ToList());

    private static void Declare(KeyFields key, SoundSettings sound) =>
        key.Add("codec", (SoundCodec?)sound.Codec)
            .Add("rate", sound.SampleRate)
            .Add("channels", (SoundChannels?)sound.Channels)
            .Add("bits", sound.BitsPerSecond)
            .Add("loudness", sound.TargetLufs);
}
