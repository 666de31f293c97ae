using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Encoding;

/// <summary>Worked examples: a lesson of 100 s, 1280x720, 30 frames a second, on a machine that decodes 100 such frames a second and encodes 20. A tenth
/// of its picture changes: 300 frames, with one a second that repeats and the first, 401 are made.</summary>
public class RenderEstimateTests
{
    private const double Near = 1e-6;
    private const double SoundBytes = 100 * ((128_000 / 8) + 200);
    private const double Fixed = 1 + (100 / 60.0);
    private const double Heard = 100 / 300.0;

    private static readonly MachineSpeed Speed = new(100 * 1280 * 720, 20 * 1280 * 720);
    private static readonly FrameRate Thirty = new(30, 1);
    private static readonly EvenFrames Even = new(Thirty, 3000, [0, 300, 500], 3_000_000, "High", 31);
    private static readonly Reel Reel = Recorded(null);
    private static readonly TimeMap Map = Reel.Map([]);

    private static Reel Recorded(EvenFrames? even)
    {
        var facts = Sample.Facts() with { Length = TimeSpan.FromSeconds(100) };
        return Reel.Of(facts with { Picture = facts.Picture! with { FrameCount = 3000, Even = even } });
    }

    private static PicturePlan Picture(int width = 1280, int height = 720, RatePlan? rate = null, Effort effort = Effort.Faster) =>
        RenderPlanner.Plan(Reel, Map, Profiles.Web, new LessonLook()).Picture! with
        {
            Size = new PictureSize(width, height),
            Timing = new FrameTiming(Thirty, 29, null, [], 2999, [], [], null),
            Rate = rate ?? new RatePlan(RateRule.Average, 0, 800_000, 1),
            Effort = effort,
            Copy = null,
        };

    private static RenderPlan Plan(bool sound, params PicturePlan[] pictures)
    {
        var plan = RenderPlanner.Plan(Reel, Map, Profiles.Web, new LessonLook());
        return plan with { Pictures = pictures, Sound = sound ? plan.Sound! with { BitsPerSecond = 128_000, Copy = null } : null };
    }

    private static RenderEstimate Estimate(RenderPlan plan, double changed = 0.1) => RenderEstimator.Estimate(plan, Reel, changed, Speed);

    [Fact]
    public void A_rate_is_what_the_picture_takes_and_time_goes_by_frames()
    {
        var estimate = Estimate(Plan(true, Picture()));
        estimate.Size.Value.ShouldBe(10_000_000 + SoundBytes, Near);
        estimate.Size.Least.ShouldBe(5_000_000 + SoundBytes, Near);
        estimate.Size.Most.ShouldBe(20_000_000 + SoundBytes, Near);
        var seconds = Fixed + 30 + (401 / 20.0) + (401 / 100.0) + Heard;
        estimate.Seconds.Value.ShouldBe(seconds, Near);
        estimate.Seconds.Least.ShouldBe(seconds / 2, Near);
        estimate.Seconds.Most.ShouldBe(seconds * 2, Near);
        estimate.Sampled.ShouldBeFalse();
    }

    [Fact]
    public void Without_sound_nothing_is_put_together_and_nothing_listened_to()
    {
        var estimate = Estimate(Plan(false, Picture()));
        estimate.Size.Value.ShouldBe(10_000_000, Near);
        estimate.Seconds.Value.ShouldBe(1 + 30 + (401 / 20.0) + (401 / 100.0), Near);
    }

    [Fact]
    public void Sound_alone_is_quick()
    {
        var estimate = Estimate(Plan(true));
        estimate.Size.Value.ShouldBe(SoundBytes, Near);
        estimate.Seconds.Value.ShouldBe(Fixed + Heard, Near);
    }

    [Fact]
    public void Several_pictures_are_decoded_once_and_each_encoded_and_checked()
    {
        var estimate = Estimate(Plan(false, Picture(), Picture(640, 360)));
        estimate.Size.Value.ShouldBe(20_000_000, Near);
        estimate.Seconds.Value.ShouldBe(1 + 30 + ((401 + (401 / 4.0)) / 20.0) + ((401 + (401 / 4.0)) / 100.0), Near);
    }

    [Fact]
    public void Two_passes_decode_and_encode_twice_and_check_once() =>
        Estimate(Plan(false, Picture(rate: new RatePlan(RateRule.Average, 0, 800_000, 2)))).Seconds.Value.ShouldBe(1 + 60 + (802 / 20.0) + (401 / 100.0), Near);

    [Theory]
    [InlineData(Effort.Fastest, PictureCodec.H264, 0.7)]
    [InlineData(Effort.Faster, PictureCodec.H264, 1)]
    [InlineData(Effort.Balanced, PictureCodec.H264, 1.4)]
    [InlineData(Effort.Smaller, PictureCodec.H264, 2.2)]
    [InlineData(Effort.Smallest, PictureCodec.H264, 5)]
    [InlineData(Effort.Faster, PictureCodec.Vp9, 4)]
    [InlineData(Effort.Balanced, PictureCodec.Av1, 4.2)]
    public void An_effort_and_a_codec_take_their_time(Effort effort, PictureCodec codec, double times) =>
        Estimate(Plan(false, Picture(effort: effort) with { Coding = new CodingPlan(codec, null) }))
            .Seconds.Value.ShouldBe(1 + 30 + (times * 401 / 20.0) + (401 / 100.0), Near);

    [Fact]
    public void At_a_constant_rate_every_frame_is_made()
    {
        var constant = Picture() with { Timing = Picture().Timing with { MostRepeatsLeftOut = 0, Constant = new FrameRate(10, 1) } };
        Estimate(Plan(false, constant)).Seconds.Value.ShouldBe(1 + 30 + (1001 / 20.0) + (1001 / 100.0), Near);
    }

    [Theory]
    [InlineData(20, 1)]
    [InlineData(26, 0.5)]
    [InlineData(14, 2)]
    public void A_quality_takes_what_key_frames_and_changes_take(int quality, double drawn)
    {
        // 0.018 bytes a pixel of a key frame, of which one stands at the start and one after each 165 of the 400 others; 0.0005 of 300 that change;
        // 12 around each of 400 frames, 41 for each of 100 that repeat.
        var bytes = drawn * 1280 * 720 * ((3 * 0.018) + (300 * 0.0005));
        Estimate(Plan(false, Picture(rate: new RatePlan(RateRule.Quality, quality, 0, 1)))).Size.Value.ShouldBe(bytes + 4800 + 4100, 1);
    }

    [Fact]
    public void Strokes_stay_when_a_picture_is_scaled_down_and_a_ceiling_is_kept()
    {
        var bytes = 640 * 360 * Math.Pow(4, 0.3) * ((3 * 0.018) + (300 * 0.0005));
        Estimate(Plan(false, Picture(640, 360, new RatePlan(RateRule.Quality, 20, 0, 1)))).Size.Value.ShouldBe(bytes + 4800 + 4100, 1);
        Estimate(Plan(false, Picture(rate: new RatePlan(RateRule.Quality, 20, 8_000, 1)))).Size.Value.ShouldBe(100_000, 1);
    }

    [Fact]
    public void What_is_encoded_already_is_put_together_and_checked()
    {
        var estimate = RenderEstimator.Encoded(Plan(true, Picture()), 1_000_000, 0.1, Speed);
        estimate.Size.ShouldBe(new Estimated(1_000_000, 1_000_000, 1_020_000));
        var seconds = 1 + (401 / 100.0) + Heard;
        estimate.Seconds.Value.ShouldBe(seconds, Near);
        estimate.Seconds.Least.ShouldBe(seconds / 2, Near);
        estimate.Seconds.Most.ShouldBe(seconds * 2, Near);
        estimate.Sampled.ShouldBeTrue();
    }

    [Fact]
    public void What_is_copied_takes_what_it_took_and_what_is_encoded_between_is_led_up_to()
    {
        // 20 frames lead in, 1,400 are copied and 100 encoded, of 1,000 bytes each and 12 around it; 2,500 frames are the longest way from a key frame.
        var picture = Picture() with { Copy = new CopyPlan([new(20, 1000, 0, false, 20), new(1020, 100, 1000, true, 0), new(1120, 400, 1100, false, 0)]) };
        const double bytes = 1520 * 1012;
        var estimate = RenderEstimator.Estimate(Plan(true, picture), Recorded(Even), 0.1, Speed);
        estimate.Size.Value.ShouldBe(bytes + SoundBytes, Near);
        estimate.Size.Least.ShouldBe((bytes * 0.7) + SoundBytes, Near);
        estimate.Size.Most.ShouldBe((bytes * 1.4) + SoundBytes, Near);
        var seconds = Fixed + (bytes / 100e6) + 0.25 + ((100 + 1250) / 100.0) + (100 / 20.0) + (1520 / 100.0) + Heard;
        estimate.Seconds.Value.ShouldBe(seconds, Near);
        estimate.Seconds.Least.ShouldBe(seconds / 2, Near);
        estimate.Seconds.Most.ShouldBe(seconds * 2, Near);
        estimate.Sampled.ShouldBeFalse();
        var sampled = RenderEstimator.FromSamples(Plan(true, picture), Recorded(Even), Map, null, new LessonSamples([], [16_000]), Speed);
        sampled.Size.Value.ShouldBe(bytes + 1_600_000 + 20_000, Near);
        sampled.Sampled.ShouldBeTrue();
    }

    /// <summary>A sample of 4 s came to 25 frames, one of them a key frame: of the whole lesson 601 are made. It was thought to take 1.25 s to encode and
    /// 1.2 s to decode.</summary>
    [Theory]
    [InlineData(2.70, 1)]
    [InlineData(5.15, 2)]
    [InlineData(100, 10)]
    [InlineData(0.1, 0.1)]
    public void What_samples_took_corrects_the_time_that_pictures_take(double took, double times)
    {
        var measured = new SampleMeasured(new SampleWindow(0, 120, 1), 1, 20_000, 12_000, 25, 120, TimeSpan.FromSeconds(took));
        var estimate = RenderEstimator.FromSamples(
            Plan(true, Picture()),
            Reel,
            Map,
            null,
            new LessonSamples(
                [
                    [measured],
                ],
                [16_000]
            ),
            Speed
        );
        var seconds = Fixed + (times * (30 + (601 / 20.0))) + (601 / 100.0) + Heard;
        estimate.Seconds.Value.ShouldBe(seconds, 1e-4);
        estimate.Seconds.Least.ShouldBe(seconds / 1.4, 1e-4);
        estimate.Seconds.Most.ShouldBe(seconds * 1.4, 1e-4);
        estimate.Sampled.ShouldBeTrue();
        // A rate is met within a tenth; sound as its own sample says, with 200 bytes a second around it.
        var sound = Samples.SoundBytes(TimeSpan.FromSeconds(100), [16_000]);
        estimate.Size.Value.ShouldBe(10_000_000 + sound.Value + 20_000, Near);
        estimate.Size.Least.ShouldBe(9_000_000 + sound.Least + 20_000, Near);
        estimate.Size.Most.ShouldBe(10_500_000 + sound.Most + 20_000, Near);
    }

    [Fact]
    public void A_quality_takes_what_its_samples_took_and_what_is_around_each_frame()
    {
        var measured = new SampleMeasured(new SampleWindow(0, 120, 1), 1, 20_000, 12_000, 25, 120, TimeSpan.FromSeconds(2.7));
        var picture = Picture(rate: new RatePlan(RateRule.Quality, 20, 0, 1));
        var estimate = RenderEstimator.FromSamples(
            Plan(false, picture),
            Reel,
            Map,
            null,
            new LessonSamples(
                [
                    [measured],
                ],
                []
            ),
            Speed
        );
        // The first key frame and one after each 165 of the 600 others, and 25 times what else the sample took.
        estimate.Size.Value.ShouldBe((4 * 20_000) + (25 * 12_000) + (601 * 12), 1);
    }
}
