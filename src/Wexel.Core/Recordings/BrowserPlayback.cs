namespace Wexel.Core.Recordings;

/// <summary>Says whether browsers in general use can play a recording as it is, or need a viewing copy.</summary>
public static class BrowserPlayback
{
    private static readonly HashSet<string> EightBit420 = ["yuv420p", "yuvj420p"];

    /// <summary>True when the container, the codecs and the sampling are ones that every current browser plays.</summary>
    public static bool CanPlay(RecordingFacts facts)
    {
        if (facts.Picture is not { } picture || facts.Sounds.Count > 1 || Math.Max(picture.Width, picture.Height) > 4096)
            return false;
        // A browser shows both fields at once.
        if (picture.Fields is not null)
            return false;
        var sound = facts.Sound?.Codec;
        return facts.Container switch
        {
            "mp4" or "mov" => picture.Codec == "h264" && EightBit420.Contains(picture.PixelFormat) && sound is null or "aac" or "mp3",
            "webm" => picture.Codec is "vp8" or "vp9" or "av1" && picture.PixelFormat == "yuv420p" && sound is null or "opus" or "vorbis",
            _ => false,
        };
    }
}
