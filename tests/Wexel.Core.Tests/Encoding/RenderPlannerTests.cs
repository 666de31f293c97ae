using CsCheck;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Encoding;

public class RenderPlannerTests
{
    private static RenderPlan Plan(RecordingFacts facts, SoundSides? sides = SoundSides.Stereo, IReadOnlyList<Section>? sections = null, Profile? profile = null) =>
        RenderPlanner.Plan(facts, sides, RenderPlanner.Map(facts, []), sections ?? [], profile ?? Profiles.Web);

    [Fact]
    public void A_usual_recording_is_neither_scaled_nor_converted()
    {
        var plan = Plan(Sample.Facts());
        plan.Picture.SquarePixels.ShouldBeTrue();
        plan.Picture.Placement.From.ShouldBe(plan.Picture.Placement.To);
        plan.Picture.Moves.ShouldBeEmpty();
        plan.Picture.Colour.ShouldBeNull();
        plan.Picture.Level.ShouldBe(31);
        plan.Sound.ShouldBe(new SoundPlan(SoundMix.Stereo, 48000, 128000, -16));
    }

    [Theory]
    [InlineData(1, null, SoundMix.Mono, 1, 72_000)]
    [InlineData(2, SoundSides.Same, SoundMix.MonoFromBoth, 1, 72_000)]
    [InlineData(2, SoundSides.LeftOnly, SoundMix.MonoFromLeft, 1, 72_000)]
    [InlineData(2, SoundSides.RightOnly, SoundMix.MonoFromRight, 1, 72_000)]
    [InlineData(2, SoundSides.Stereo, SoundMix.Stereo, 2, 128_000)]
    [InlineData(2, null, SoundMix.Stereo, 2, 128_000)]
    [InlineData(6, SoundSides.Stereo, SoundMix.StereoFromSurround, 2, 128_000)]
    public void Sound_gets_the_channels_that_it_has(int channels, SoundSides? sides, SoundMix mix, int made, int rate)
    {
        var plan = Plan(Sample.Facts() with { Sounds = [new("aac", channels, null, 44100)] }, sides);
        plan.Sound.ShouldBe(new SoundPlan(mix, 48000, rate, -16));
        plan.Sound!.Channels.ShouldBe(made);
    }

    [Fact]
    public void No_sound_is_no_sound_track() => Plan(Sample.Facts() with { Sounds = [] }, null).Sound.ShouldBeNull();

    [Fact]
    public void Key_frames_stand_at_sections_and_at_most_ten_seconds_apart() =>
        Gen.Select(Pick.From(new FrameRate(30, 1), new FrameRate(30000, 1001), new FrameRate(24, 1), new FrameRate(10, 1)), Gen.Long[0, 65_000].Array[0, 8]).Sample((rate, starts) =>
        {
            var facts = Sample.Facts();
            facts = facts with { Picture = facts.Picture! with { Rate = rate, NominalRate = rate } };
            var timing = Plan(facts, sections: [.. starts.Select((s, i) => new Section($"{i}", Ms.Of(s), "x"))]).Picture.Timing;
            var keys = timing.KeyFrames().ToList();
            var apart = keys.Append(timing.LastFrame + 1).Zip(keys.Skip(1).Append(timing.LastFrame + 1), (a, b) => b - a).Max();
            return keys[0] == 0
                && rate.TimeOf(apart) <= TimeSpan.FromSeconds(10)
                && starts.All(s => rate.FrameAt(Ms.Of(s)) is var frame && (frame > timing.LastFrame || keys.Contains(frame)))
                && (timing.MostRepeatsLeftOut + 1) / rate.PerSecond <= 1.0000001;
        });

    [Theory]
    [InlineData(144, false, 60)]
    [InlineData(5, false, 10)]
    [InlineData(25, false, 25)]
    [InlineData(17, true, 30)]
    [InlineData(48, true, 60)]
    public void Frames_lie_on_a_grid(int rate, bool varies, int grid)
    {
        var facts = Sample.Facts();
        facts = facts with { Picture = facts.Picture! with { Rate = new(rate, 1), NominalRate = new(rate, 1), RateVaries = varies } };
        Plan(facts).Picture.Timing.Grid.ShouldBe(new FrameRate(grid, 1));
    }

    [Fact]
    public void Colours_are_converted_only_where_they_differ()
    {
        var usual = Sample.Facts();
        RecordingFacts With(string format, string? matrix, bool? full, int height = 720) =>
            usual with { Picture = usual.Picture! with { PixelFormat = format, Height = height, Colour = new(matrix, null, null, full) } };
        Plan(With("yuv420p", "bt709", false)).Picture.Colour.ShouldBeNull();
        Plan(With("yuv420p", null, null)).Picture.Colour.ShouldBeNull();
        Plan(With("yuv420p", null, null, 480)).Picture.Colour.ShouldBe(new ColourConversion("smpte170m", false));
        Plan(With("yuvj420p", "bt709", null)).Picture.Colour.ShouldBe(new ColourConversion("bt709", true));
        Plan(With("yuv444p", "bt709", false)).Picture.Colour.ShouldBe(new ColourConversion("bt709", false));
        Plan(With("gbrp", "gbr", true)).Picture.Colour.ShouldBe(new ColourConversion(null, true));
    }

    [Fact]
    public void A_plan_never_makes_an_odd_side_and_the_level_always_holds_it() =>
        Gen.Select(Gen.Int[16, 8192], Gen.Int[16, 8192], Pick.From<Profile>([.. Profiles.All]), Pick.From(24, 30, 60, 144)).Sample((width, height, profile, rate) =>
        {
            var facts = Sample.Sized(width, height);
            facts = facts with { Picture = facts.Picture! with { Rate = new(rate, 1), NominalRate = new(rate, 1) } };
            var picture = Plan(facts, profile: profile).Picture;
            var level = H264Level.All.First(l => l.Number == picture.Level);
            return picture.Size.Width % 2 == 0 && picture.Size.Height % 2 == 0 && picture.ReferenceFrames <= Math.Max(1, level.MaxReferenceFrames(picture.Size));
        });

    [Fact]
    public void Equal_work_has_equal_keys_and_a_moved_section_has_not()
    {
        string Key(long at) => DerivedKey.Of("encode/1", "hash", Plan(Sample.Facts(), sections: [new("a", Ms.Of(at), "A")]));
        Key(5000).ShouldBe(Key(5000));
        Key(5000).ShouldNotBe(Key(6000));
        DerivedKey.Of("a", "b", "c").ShouldNotBe(DerivedKey.Of("a", "bc"));
    }

    [Fact]
    public void A_renamed_section_leaves_the_encode_as_it_is()
    {
        string Key(string title) => DerivedKey.Of("encode/1", Plan(Sample.Facts(), sections: [new("a", Ms.Of(5000), title)]));
        Key("Before").ShouldBe(Key("After"));
    }

    [Fact]
    public void An_estimate_grows_with_length_change_and_size()
    {
        var facts = Sample.Facts();
        RenderEstimate Of(double changed, Profile profile) => RenderEstimator.Of(Plan(facts, profile: profile), facts.Picture!, changed, MachineSpeed.Small);
        Of(0.5, Profiles.Web).Bytes.ShouldBeGreaterThan(Of(0.1, Profiles.Web).Bytes);
        Of(0.2, Profiles.Small480).Bytes.ShouldBeLessThan(Of(0.2, Profiles.Web).Bytes);
        Of(0.2, Profiles.Web).Time.ShouldBeGreaterThan(TimeSpan.FromSeconds(1));
    }
}
