using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Encoding;

public sealed class SoundCopyRuleTests
{
    private static readonly SoundFacts Recorded = new("aac", 2, "stereo", 48_000, TimeSpan.Zero, 160_000);

    /// <summary>Nothing is levelled, and both sides of the recording carry something of their own.</summary>
    private static readonly Profile AsLoudAsRecorded = Profiles.Web with { Sound = Profiles.Web.Sound! with { TargetLufs = null } };

    private static TimeRange Cut(double from, double to) => new(TimeSpan.FromSeconds(from), TimeSpan.FromSeconds(to));

    private static SoundPlan Plan(SoundFacts sound, Profile profile, params TimeRange[] cuts) =>
        Plan(Reel.Of([(Sample.Facts() with { Sounds = [sound] }, SoundSides.Stereo)]), profile, cuts);

    private static SoundPlan Plan(Reel reel, Profile profile, params TimeRange[] cuts) =>
        RenderPlanner.Plan(reel, reel.Map(cuts), profile, new LessonLook([new Section("a", TimeSpan.FromSeconds(20), "A")])).Sound!;

    private static Profile With(Func<SoundSettings, SoundSettings> change) => AsLoudAsRecorded with { Sound = change(AsLoudAsRecorded.Sound!) };

    [Fact]
    public void Sound_that_nothing_is_done_to_is_copied_between_the_cuts_at_its_ends()
    {
        var plan = Plan(Recorded, AsLoudAsRecorded);
        plan.Copy.ShouldBe(Cut(0, 65));
        plan.EncodedSince.ShouldBeNull();
        Plan(Recorded, AsLoudAsRecorded, Cut(0, 12), Cut(60, 65)).Copy.ShouldBe(Cut(12, 60));
        // Two sides that are alike stay two: made one, they would have to be encoded.
        var alike = Plan(Reel.Of([(Sample.Facts() with { Sounds = [Recorded with { BitsPerSecond = 128_000 }] }, SoundSides.Same)]), AsLoudAsRecorded);
        (alike.Copy, alike.Channels, alike.Mixes.Single()).ShouldBe((Cut(0, 65), 2, SoundMix.Stereo));
        var heavy = Plan(Reel.Of([(Sample.Facts() with { Sounds = [Recorded] }, SoundSides.Same)]), AsLoudAsRecorded);
        (heavy.Copy, heavy.Channels, heavy.Mixes.Single()).ShouldBe(
            (null, 1, SoundMix.MonoFromBoth),
            "at 160 kbit/s it is too much for what one channel takes"
        );
        // Alone, or beside a picture that is encoded.
        Plan(Recorded, AsLoudAsRecorded with { Picture = null, Container = Container.M4a }).Copy.ShouldBe(Cut(0, 65));
        Plan(Recorded with { Channels = 1, Layout = "mono", BitsPerSecond = 64_000 }, AsLoudAsRecorded).Copy.ShouldNotBeNull();
    }

    [Theory]
    [InlineData("profile", "the profile says so")]
    [InlineData("loudness", "it is brought to −16 LUFS")]
    [InlineData("codec", "something else than AAC")]
    [InlineData("hls", "something else than AAC")]
    [InlineData("size", "must not pass a size")]
    [InlineData("several", "several recordings")]
    [InlineData("cut", "cuts inside")]
    [InlineData("mp3", "no AAC in MP4")]
    [InlineData("unknown", "no AAC in MP4")]
    [InlineData("late", "begins later")]
    [InlineData("mono", "channels are brought together")]
    [InlineData("one-side", "channels are brought together")]
    [InlineData("rate", "44100 samples a second")]
    [InlineData("heavy", "takes 320 kbit/s, and more than 256")]
    public void Where_it_is_encoded_the_reason_is_said(string what, string reason)
    {
        var facts = Sample.Facts() with { Sounds = [Recorded] };
        var plan = what switch
        {
            "profile" => Plan(Recorded, AsLoudAsRecorded with { Picture = AsLoudAsRecorded.Picture! with { Copy = false } }),
            "loudness" => Plan(Recorded, With(s => s with { TargetLufs = -16 })),
            "codec" => Plan(
                Recorded,
                AsLoudAsRecorded with
                {
                    Container = Container.Opus,
                    Picture = null,
                    Sound = AsLoudAsRecorded.Sound! with { Codec = SoundCodec.Opus },
                }
            ),
            "hls" => Plan(Recorded, AsLoudAsRecorded with { Container = Container.Hls }),
            "size" => Plan(
                Recorded,
                AsLoudAsRecorded with
                {
                    Picture = AsLoudAsRecorded.Picture! with { Rate = new RateSettings(RateRule.FileSize, Bytes: 5_000_000) },
                }
            ),
            "several" => Plan(Reel.Of([(facts, SoundSides.Stereo), (facts, SoundSides.Stereo)]), AsLoudAsRecorded),
            "cut" => Plan(Recorded, AsLoudAsRecorded, Cut(10, 12)),
            "mp3" => Plan(Recorded with { Codec = "mp3" }, AsLoudAsRecorded),
            "unknown" => Plan(Recorded with { Start = null }, AsLoudAsRecorded),
            "late" => Plan(Recorded with { Start = TimeSpan.FromMilliseconds(40) }, AsLoudAsRecorded),
            "mono" => Plan(Reel.Of([(facts, SoundSides.Same)]), With(s => s with { Channels = SoundChannels.Mono })),
            "one-side" => Plan(Reel.Of([(facts, SoundSides.LeftOnly)]), With(s => s with { Channels = SoundChannels.Stereo })),
            "rate" => Plan(Recorded with { SampleRate = 44_100 }, AsLoudAsRecorded),
            _ => Plan(Recorded with { BitsPerSecond = 320_000 }, AsLoudAsRecorded),
        };
        plan.Copy.ShouldBeNull();
        plan.EncodedSince!.ShouldContain(reason);
    }

    [Fact]
    public void What_is_copied_has_a_key_of_its_own_and_why_not_has_none()
    {
        Sample.Key(Plan(Recorded, AsLoudAsRecorded)).ShouldNotBe(Sample.Key(Plan(Recorded with { Start = null }, AsLoudAsRecorded)));
        Sample.Key(Plan(Recorded with { Start = null }, AsLoudAsRecorded)).ShouldBe(Sample.Key(Plan(Recorded with { SampleRate = 44_100 }, AsLoudAsRecorded)));
    }
}
