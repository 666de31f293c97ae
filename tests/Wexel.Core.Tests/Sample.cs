using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests;

/// <summary>A usual screen recording, from which tests depart in one point.</summary>
internal static class Sample
{
    internal static RecordingFacts Facts() =>
        new(
            "mp4",
            5_000_000,
            TimeSpan.FromSeconds(65),
            new PictureFacts(
                "h264",
                1280,
                720,
                0,
                1,
                new FrameRate(30, 1),
                new FrameRate(30, 1),
                false,
                1950,
                "yuv420p",
                new ColourFacts("bt709", "bt709", "bt709", false)
            ),
            [new SoundFacts("aac", 2, "stereo", 48000)]
        );

    internal static RecordingAnalysis Analysis() => new(null, [TimeSpan.Zero], 0.1, [], [], null, SoundSides.Same, 10, [], null, new Loudness(-20, 5, -3));

    /// <summary>The key of a picture of a recording.</summary>
    internal static string Key(PicturePlan picture) => Keys(new RenderPlan(TimeSpan.FromSeconds(65), [picture], null, Fast)).Pictures[0];

    /// <summary>The key of a sound of a recording.</summary>
    internal static string Key(SoundPlan sound) => Keys(new RenderPlan(TimeSpan.FromSeconds(65), [], sound, Fast)).Sound!;

    /// <summary>The keys of what is made of a recording by a plan.</summary>
    internal static RenditionKeys Keys(RenderPlan plan) => RenditionKeys.Of(plan, Reel.Of(Facts()).Map([]), ["hash"]);

    private static FilePlan Fast => new(Container.Mp4, 0, false, true, null);

    internal static RecordingFacts Sized(int width, int height)
    {
        var facts = Facts();
        return facts with { Picture = facts.Picture! with { Width = width, Height = height } };
    }
}
