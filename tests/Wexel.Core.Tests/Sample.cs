using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests;

/// <summary>A usual screen recording, from which tests depart in one point.</summary>
internal static class Sample
{
    internal static RecordingFacts Facts() => new(
        "mp4",
        5_000_000,
        TimeSpan.FromSeconds(65),
        new PictureFacts("h264", 1280, 720, 0, 1, new FrameRate(30, 1), new FrameRate(30, 1), false, 1950, "yuv420p", new ColourFacts("bt709", "bt709", "bt709", false)),
        [new SoundFacts("aac", 2, "stereo", 48000)]);

    internal static RecordingAnalysis Analysis() => new(null, [TimeSpan.Zero], 0.1, [], [], null, SoundSides.Same, 10, [], null, new Loudness(-20, 5, -3));

    internal static RecordingFacts Sized(int width, int height)
    {
        var facts = Facts();
        return facts with { Picture = facts.Picture! with { Width = width, Height = height } };
    }
}
