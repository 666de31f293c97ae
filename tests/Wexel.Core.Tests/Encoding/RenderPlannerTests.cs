using CsCheck;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Encoding;

public class RenderPlannerTests
{
    private static RenderPlan Plan(
        RecordingFacts facts,
        SoundSides? sides = SoundSides.Stereo,
        IReadOnlyList<Section>? sections = null,
        Profile? profile = null
    ) => RenderPlanner.Plan(Reel.Of(facts, sides), Reel.Of(facts).Map([]), profile ?? Profiles.Web, new LessonLook(sections));

    private static (SoundMix? Mix, int Channels, int Rate, int Bits, double? Target) Sound(RenderPlan plan) =>
        (plan.Sound!.Mixes.Single(), plan.Sound.Channels, plan.Sound.SampleRate, plan.Sound.BitsPerSecond, plan.Sound.TargetLufs);

    [Fact]
    public void A_usual_recording_is_neither_scaled_nor_converted()
    {
        var plan = Plan(Sample.Facts());
        var part = plan.Picture!.Parts.Single();
        part.SquarePixels.ShouldBeTrue();
        part.Placement.From.ShouldBe(part.Placement.To);
        part.Moves.ShouldBeEmpty();
        part.Colour.ShouldBeNull();
        plan.Picture!.Coding.H264!.Level.ShouldBe(31);
        Sound(plan).ShouldBe((SoundMix.Stereo, 2, 48000, 128000, -16));
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
        Sound(plan).ShouldBe((mix, made, 48000, rate, -16));
    }

    [Fact]
    public void No_sound_is_no_sound_track() => Plan(Sample.Facts() with { Sounds = [] }, null).Sound.ShouldBeNull();

    [Fact]
    public void Key_frames_stand_at_sections_and_as_close_as_a_profile_asks() =>
        Gen.Select(Pick.From(new FrameRate(30, 1), new FrameRate(30000, 1001), new FrameRate(24, 1), new FrameRate(10, 1)), Gen.Long[0, 65_000].Array[0, 8])
            .Sample(
                (rate, starts) =>
                {
                    var facts = Sample.Facts();
                    facts = facts with { Picture = facts.Picture! with { Rate = rate, NominalRate = rate } };
                    IReadOnlyList<Section> sections = [.. starts.Select((s, i) => new Section($"{i}", Ms.Of(s), "x"))];
                    var timing = Plan(
                        facts,
                        sections: sections,
                        profile: Profiles.Web with
                        {
                            Picture = Profiles.Web.Picture! with { KeyFrameSeconds = 10 },
                        }
                    ).Picture!.Timing;
                    var keys = timing.KeyFrames().ToList();
                    var apart = keys.Append(timing.LastFrame + 1).Zip(keys.Skip(1).Append(timing.LastFrame + 1), (a, b) => b - a).Max();
                    return keys[0] == 0
                        && rate.TimeOf(apart) <= TimeSpan.FromSeconds(10)
                        && starts.All(s => rate.FrameAt(Ms.Of(s)) is var frame && (frame > timing.LastFrame || keys.Contains(frame)))
                        && (timing.MostRepeatsLeftOut + 1) / rate.PerSecond <= 1.0000001;
                }
            );

    /// <summary>What a jump costs is the frames that are decoded from the key frame on: where little happens they may lie far apart.</summary>
    [Fact]
    public void Where_a_profile_does_not_ask_key_frames_come_by_what_happens()
    {
        var timing = Plan(Sample.Facts(), sections: [new("a", TimeSpan.Zero, "A"), new("b", TimeSpan.FromSeconds(12.5), "B")]).Picture!.Timing;
        timing.KeyFrames().ShouldBe([0, 375]);
        (timing.KeyFrameEvery, timing.BetweenKeyFrames, timing.MostBetweenKeyFrames, timing.KeyFrameDistance).ShouldBe(
            (null, 165, 300, TimeSpan.FromSeconds(60))
        );
    }

    [Theory]
    [InlineData(60, 0, 1)]
    [InlineData(61, 0, 2)]
    [InlineData(600, 600, 10)]
    [InlineData(600, 16_500, 100)]
    [InlineData(9, 270, 2)]
    public void How_many_key_frames_there_will_be_follows_from_time_and_frames(int seconds, double coded, double keys)
    {
        var facts = Sample.Facts();
        var timing = Plan(
            facts with
            {
                Length = TimeSpan.FromSeconds(seconds),
                Picture = facts.Picture! with { Rate = new FrameRate(30, 1), NominalRate = new FrameRate(30, 1) },
            }
        ).Picture!.Timing;
        timing.ExpectedKeyFrames(coded).ShouldBe(keys);
    }

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
        Plan(facts).Picture!.Timing.Grid.ShouldBe(new FrameRate(grid, 1));
    }

    [Fact]
    public void Colours_are_converted_only_where_they_differ()
    {
        var usual = Sample.Facts();
        RecordingFacts With(string format, string? matrix, bool? full, int height = 720) =>
            usual with
            {
                Picture = usual.Picture! with { PixelFormat = format, Height = height, Colour = new(matrix, null, null, full) },
            };
        Plan(With("yuv420p", "bt709", false)).Picture!.Parts[0].Colour.ShouldBeNull();
        Plan(With("yuv420p", null, null)).Picture!.Parts[0].Colour.ShouldBeNull();
        Plan(With("yuv420p", null, null, 480)).Picture!.Parts[0].Colour.ShouldBe(new ColourConversion("smpte170m", false));
        Plan(With("yuvj420p", "bt709", null)).Picture!.Parts[0].Colour.ShouldBe(new ColourConversion("bt709", true));
        Plan(With("yuv444p", "bt709", false)).Picture!.Parts[0].Colour.ShouldBe(new ColourConversion("bt709", false));
        Plan(With("gbrp", "gbr", true)).Picture!.Parts[0].Colour.ShouldBe(new ColourConversion(null, true));
    }

    [Fact]
    public void A_plan_never_makes_an_odd_side_and_the_level_always_holds_it() =>
        Gen.Select(Gen.Int[16, 8192], Gen.Int[16, 8192], Pick.From<Profile>([.. Profiles.All.Where(p => p.Picture is not null)]), Pick.From(24, 30, 60, 144))
            .Sample(
                (width, height, profile, rate) =>
                {
                    var facts = Sample.Sized(width, height);
                    facts = facts with { Picture = facts.Picture! with { Rate = new(rate, 1), NominalRate = new(rate, 1) } };
                    var picture = Plan(facts, profile: profile).Picture!;
                    return picture.Size.Width % 2 == 0
                        && picture.Size.Height % 2 == 0
                        && (
                            picture.Coding.H264 is not { } h264
                            || (
                                h264.ReferenceFrames <= Math.Max(1, H264Level.Find(h264.Level)!.MaxReferenceFrames(picture.Size))
                                && H264Level.Find(h264.Level)!.Takes(picture.Size, picture.Timing.Made)
                            )
                        );
                }
            );

    [Fact]
    public void Equal_work_has_equal_keys_and_a_moved_section_has_not()
    {
        string Key(long at) => Sample.Keys(Plan(Sample.Facts(), sections: [new("a", Ms.Of(at), "A")])).Encodes;
        Key(5000).ShouldBe(Key(5000));
        Key(5000).ShouldNotBe(Key(6000));
    }

    [Fact]
    public void A_renamed_section_leaves_the_encode_as_it_is()
    {
        string Key(string title) => Sample.Keys(Plan(Sample.Facts(), sections: [new("a", Ms.Of(5000), title)])).Encodes;
        Key("Before").ShouldBe(Key("After"));
    }

    [Fact]
    public void An_estimate_grows_with_length_change_and_size()
    {
        var facts = Sample.Facts();
        RenderEstimate Of(double changed, Profile profile) =>
            RenderEstimator.Estimate(Plan(facts, profile: profile), Reel.Of(facts), changed, MachineSpeed.Small);
        Of(0.5, Profiles.Web).Bytes.ShouldBeGreaterThan(Of(0.1, Profiles.Web).Bytes);
        Of(0.2, Profiles.Small480).Bytes.ShouldBeLessThan(Of(0.2, Profiles.Web).Bytes);
        Of(0.2, Profiles.Web).Time.ShouldBeGreaterThan(TimeSpan.FromSeconds(1));
    }

    [Fact]
    public void What_is_encoded_already_comes_to_its_size_and_is_only_put_together_and_checked()
    {
        var facts = Sample.Facts();
        var plan = Plan(facts, profile: Profiles.Web);
        var encoded = RenderEstimator.Encoded(plan, 1_000_000, 0.2, MachineSpeed.Small);
        encoded.Bytes.ShouldBe(1_000_000);
        encoded.Time.ShouldBeLessThan(RenderEstimator.Estimate(plan, Reel.Of(facts), 0.2, MachineSpeed.Small).Time);
        // The check decodes every frame that was made.
        encoded.Time.ShouldBeGreaterThan(RenderEstimator.Encoded(Plan(facts, profile: Profiles.Small480), 1_000_000, 0.2, MachineSpeed.Small).Time);
        encoded.Time.ShouldBeGreaterThan(TimeSpan.FromSeconds(1));
    }

    private static RecordingFacts Recording(double seconds, FrameRate rate, PictureSize size, params SoundFacts[] sounds)
    {
        var facts = Sample.Sized(size.Width, size.Height);
        return facts with { Length = TimeSpan.FromSeconds(seconds), Picture = facts.Picture! with { Rate = rate, NominalRate = rate }, Sounds = sounds };
    }

    private static readonly Reel Three = Reel.Of([
        (Recording(10.01, new FrameRate(25, 1), new(1280, 720), new SoundFacts("aac", 1, "mono", 44100)), null),
        (Recording(4, new FrameRate(30, 1), new(1920, 1080), new SoundFacts("aac", 6, "5.1", 48000)), null),
        (Recording(6, new FrameRate(15, 1), new(640, 480)), null),
    ]);

    [Fact]
    public void Recordings_lie_one_after_the_other_in_whole_frames_of_the_fastest()
    {
        Three.Grid.ShouldBe(new FrameRate(30, 1));
        Three.Parts.Select(p => (p.First, p.Frames)).ShouldBe([(0, 301), (301, 120), (421, 180)]);
        Three.Length.ShouldBe(Three.Grid.TimeOf(601));
        Three.SpanOf(1).ShouldBe(new TimeRange(Three.Grid.TimeOf(301), Three.Grid.TimeOf(421)));
        Should.Throw<ArgumentException>(() => Reel.Of([]));
        Should.Throw<ArgumentException>(() => Reel.Of(Sample.Facts() with { Picture = null }));
    }

    [Fact]
    public void Each_comes_onto_the_canvas_of_all_and_its_sound_into_as_many_channels()
    {
        var plan = RenderPlanner.Plan(Three, Three.Map([]), Profiles.Web, new LessonLook());
        plan.Picture!.Size.ShouldBe(new PictureSize(1920, 1080));
        plan.Picture!.Parts.ShouldAllBe(p => p.Placement.Canvas == plan.Picture!.Size);
        plan.Picture!.Parts[2].Placement.To.Width.ShouldBe(1440);
        plan.Picture!.Parts.Select(p => (p.Kept.Single().First, p.Kept.Single().Count, p.Kept.Single().At))
            .ShouldBe([(0, 301, 0), (0, 120, 301), (0, 180, 421)]);
        plan.Sound!.Mixes.ShouldBe([SoundMix.Mono, SoundMix.StereoFromSurround, null]);
        plan.Sound.Channels.ShouldBe(2);
    }

    [Fact]
    public void One_of_them_may_come_onto_it_in_its_own_way()
    {
        var plan = RenderPlanner.Plan(Three, Three.Map([]), Profiles.Web, new LessonLook(Frames: [null, null, new("c", FitMode.Fill, PicturePart.All)]));
        plan.Picture!.Parts[2].Placement.To.ShouldBe(new PictureRect(0, 0, 1920, 1080));
        plan.Picture!.Parts[2].Placement.From.Height.ShouldBe(360);
        plan.Picture!.Parts[0].Placement.From.ShouldBe(new PictureRect(0, 0, 1280, 720));
    }

    [Fact]
    public void A_cut_over_a_joint_takes_from_both_and_one_over_a_recording_takes_it_away()
    {
        var over = RenderPlanner.Plan(Three, Three.Map([new(TimeSpan.FromSeconds(9), TimeSpan.FromSeconds(11))]), Profiles.Web, new LessonLook());
        over.Picture!.Parts.Select(p => (p.Kept.Single().First, p.Kept.Single().Count, p.Kept.Single().At))
            .ShouldBe([(0, 270, 0), (29, 91, 270), (0, 180, 361)]);
        var away = RenderPlanner.Plan(Three, Three.Map([Three.SpanOf(1)]), Profiles.Web, new LessonLook());
        away.Picture!.Parts.Select(p => p.Recording).ShouldBe([0, 2]);
        away.Picture.Size.ShouldBe(new PictureSize(1920, 1080));
    }

    [Fact]
    public void What_is_kept_of_the_recordings_is_what_is_kept_of_the_reel() =>
        Gen.Select(Gen.Double[0, 20], Gen.Double[0.01, 8])
            .Array[0, 8]
            .Sample(cuts =>
            {
                var map = Three.Map([.. cuts.Select(c => new TimeRange(TimeSpan.FromSeconds(c.Item1), TimeSpan.FromSeconds(c.Item1 + c.Item2)))]);
                if (map.Frames == 0)
                    return true;
                var pieces = RenderPlanner
                    .Plan(Three, map, Profiles.Web, new LessonLook())
                    .Picture!.Parts.SelectMany(p => p.Kept.Select(k => (First: k.First + Three.Parts[p.Recording].First, k.Count, k.At)))
                    .ToList();
                return pieces.Sum(p => p.Count) == map.Frames
                    && pieces.Zip(pieces.Skip(1)).All(pair => pair.First.At + pair.First.Count == pair.Second.At)
                    && pieces.All(p => map.ToRecording(p.At) == p.First && map.ToRecording(p.At + p.Count - 1) == p.First + p.Count - 1);
            });

    [Fact]
    public void A_move_in_over_a_joint_is_seen_on_both_sides_without_moving_there()
    {
        var moveIn = new MoveIn("a", new TimeRange(TimeSpan.FromSeconds(8), TimeSpan.FromSeconds(12)), new PicturePart(0.25, 0.25, 0.5, 0.5), MoveIn.UsualEase);
        var plan = RenderPlanner.Plan(Three, Three.Map([]), Profiles.Web, new LessonLook(MoveIns: [moveIn]));
        plan.Picture!.Parts[0].Moves.Select(m => (m.First, m.Frames)).ShouldBe([(240, 15)]);
        plan.Picture!.Parts[1].Moves.Select(m => (m.First, m.Frames)).ShouldBe([(300, 1), (345, 15)]);
        plan.Picture!.Parts[2].Moves.ShouldBeEmpty();
    }

    [Fact]
    public void Each_recording_has_its_own_sound_track_where_one_was_chosen()
    {
        var two = Sample.Facts() with { Sounds = [new("aac", 2, "stereo", 48_000), new("aac", 1, "mono", 48_000)], UsedSounds = [1] };
        SoundPlan Sound(params RecordingFacts[] facts)
        {
            var reel = Reel.Of([.. facts.Select(f => (f, (SoundSides?)SoundSides.Same))]);
            return RenderPlanner.Plan(reel, reel.Map([]), Profiles.Web, new LessonLook([])).Sound!;
        }

        Sound(Sample.Facts(), two)
            .Tracks.ShouldBe([
                [0],
                [1],
            ]);
        Sound(two, two)
            .Tracks.ShouldBe([
                [1],
                [1],
            ]);
        Sound(Sample.Facts(), Sample.Facts()).Tracks.ShouldBeNull();
    }

    [Fact]
    public void Each_frame_of_a_lesson_is_one_of_a_recording_and_back()
    {
        var reel = Reel.Of([(Sample.Facts(), null), (Sample.Facts(), null)]);
        var map = reel.Map([
            new TimeRange(TimeSpan.FromSeconds(10), TimeSpan.FromSeconds(20)),
            new TimeRange(TimeSpan.FromSeconds(60), TimeSpan.FromSeconds(70)),
        ]);
        var picture = RenderPlanner.Plan(reel, map, Profiles.Web, new LessonLook([])).Picture!;
        picture.Parts.Count.ShouldBe(2);
        for (var frame = 0L; frame < map.Frames; frame += 7)
        {
            var (part, recorded) = picture.Recorded(frame);
            part.Lesson(recorded).ShouldBe(frame);
        }

        foreach (var kept in picture.Parts.SelectMany(p => p.Kept))
        {
            picture.Recorded(kept.At).Frame.ShouldBe(kept.First);
            picture.Recorded(kept.At + kept.Count - 1).Frame.ShouldBe(kept.End - 1);
        }

        picture.Parts[0].Lesson(300).ShouldBeNull("it is cut");
        picture.Parts[0].Lesson(599).ShouldBeNull("it is cut");
        picture.Parts[0].Lesson(600).ShouldBe(300);
        Should.Throw<ArgumentOutOfRangeException>(() => picture.Recorded(map.Frames));
        Should.Throw<ArgumentOutOfRangeException>(() => picture.Recorded(-1));
    }

    [Fact]
    public void A_run_holds_its_frames_and_no_other()
    {
        var run = new FrameRun(10, 3);
        Enumerable.Range(0, 20).Where(f => run.Holds(f)).ShouldBe([10, 11, 12]);
    }

    [Theory]
    [InlineData(RateRule.Average, 2)]
    [InlineData(RateRule.Constant, 1)]
    public void Only_an_average_is_met_in_two_passes(RateRule rule, int passes)
    {
        var profile = Profiles.Web with
        {
            Picture = Profiles.Web.Picture! with
            {
                Rate = new RateSettings(rule) { BitsPerSecond = 800_000, Passes = 2 },
            },
        };
        RenderPlanner.Plan(Reel.Of(Sample.Facts()), Reel.Of(Sample.Facts()).Map([]), profile, new LessonLook([])).Picture!.Rate.Passes.ShouldBe(passes);
    }
}
