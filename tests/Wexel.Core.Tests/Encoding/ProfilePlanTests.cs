using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Encoding;

public class ProfilePlanTests
{
    private static RenderPlan Plan(Profile profile, LessonLook? look = null, params SoundFacts[] sounds)
    {
        var facts = Sample.Facts() with { Sounds = sounds.Length == 0 ? [new("aac", 1, null, 48_000)] : sounds };
        return RenderPlanner.Plan(Reel.Of(facts, SoundSides.Stereo), Reel.Of(facts).Map([]), profile, look ?? new LessonLook());
    }

    private static Profile With(Func<PictureSettings, PictureSettings> change) => Profiles.Web with { Picture = change(Profiles.Web.Picture!) };

    [Fact]
    public void Sound_alone_has_no_picture()
    {
        var plan = Plan(Profiles.PodcastSound);
        plan.Picture.ShouldBeNull();
        plan.Sound!.BitsPerSecond.ShouldBe(96_000);
        plan.File.ShouldBe(new FilePlan(Container.M4a, 0, true, true, null));
    }

    [Fact]
    public void A_folder_of_pieces_has_every_smaller_height_once_with_its_key_frames_at_the_same_frames()
    {
        // The sample is 1280 × 720, so 1080 lines are not made, and 720 only once.
        var plan = Plan(Profiles.Adaptive, new LessonLook([new Section("a", TimeSpan.FromSeconds(7), "Seven")]));
        plan.Pictures.Select(p => p.Size.ToString()).ShouldBe(["1280 × 720", "854 × 480", "640 × 360"]);
        plan.Pictures.ShouldAllBe(p => p.Timing == plan.Picture!.Timing || p.Timing.KeyFrames().SequenceEqual(plan.Picture.Timing.KeyFrames()));
        plan.Pictures.ShouldAllBe(p => p.Timing.InPieces && p.Timing.KeyFrameEvery == 180);
        plan.Picture!.Timing.KeyFrames().Take(4).ShouldBe([0, 180, 210, 360]);
        plan.File.ShouldBe(new FilePlan(Container.Hls, 0, false, true, null));
        Plan(
            Profiles.Adaptive,
            new LessonLook(
                Captions:
                [
                    [new Cue(new TimeRange(TimeSpan.Zero, TimeSpan.FromSeconds(1)), "Good morning.")],
                ]
            )
        )
            .File.CaptionTracks.ShouldBe(1);
        Plan(Profiles.Web).Picture!.Timing.InPieces.ShouldBeFalse();
    }

    [Fact]
    public void A_size_to_meet_leaves_the_picture_what_the_sound_does_not_take()
    {
        var plan = Plan(With(p => p with { Rate = new RateSettings(RateRule.FileSize, Bytes: 5_000_000) }));
        // 65 s: 5,000,000 bytes less a hundredth are 609,231 bit/s, less 72,000 of sound.
        plan.Picture!.Rate.ShouldBe(new RatePlan(RateRule.FileSize, 0, 537_230, 2));
        plan.File.Bytes.ShouldBe(5_000_000);
        Plan(With(p => p with { Rate = new RateSettings(RateRule.FileSize, Bytes: 50_000) }))
            .Picture!.Rate.BitsPerSecond.ShouldBe(RenderPlanner.LeastBitsPerSecond);
    }

    [Fact]
    public void Another_constant_rate_than_the_recordings_is_made_of_it()
    {
        var timing = Plan(With(p => p with { Timing = new TimingSettings(TimingRule.Constant, 12) })).Picture!.Timing;
        (timing.MostRepeatsLeftOut, timing.Constant, timing.Made, timing.Grid).ShouldBe((0, new FrameRate(12, 1), new FrameRate(12, 1), new FrameRate(30, 1)));
        Plan(With(p => p with { Timing = new TimingSettings(TimingRule.Constant, 30) })).Picture!.Timing.Constant.ShouldBeNull();
    }

    [Theory]
    [InlineData(H264Profile.High, 14_000_000, 31)]
    // Table A-1 gives level 3.1 14,000 units: 17.5 Mbit/s in High, 14 in the others (Table A-2).
    [InlineData(H264Profile.Main, 16_000_000, 32)]
    [InlineData(H264Profile.High, 16_000_000, 31)]
    [InlineData(H264Profile.ConstrainedBaseline, 21_000_000, 41)]
    public void The_level_holds_the_rate_that_is_aimed_at(H264Profile profile, long rate, int level) =>
        Plan(With(p => p with { H264Profile = profile, Rate = new RateSettings(RateRule.Average, BitsPerSecond: rate) }))
            .Picture!.Coding.H264!.Level.ShouldBe(level);

    [Fact]
    public void A_ceiling_is_kept_under_the_levels()
    {
        Plan(With(p => p with { Rate = RateSettings.Of(20) with { CeilingBitsPerSecond = 800_000 } })).Picture!.Coding.H264!.MaxBitsPerSecond.ShouldBe(800_000);
        Plan(Profiles.Web).Picture!.Coding.H264!.MaxBitsPerSecond.ShouldBe(17_500_000);
    }

    [Fact]
    public void Channels_are_as_chosen()
    {
        SoundPlan Of(SoundChannels channels, SoundFacts sound) =>
            Plan(Profiles.Web with { Sound = Profiles.Web.Sound! with { Channels = channels } }, null, sound).Sound!;
        var (stereo, surround, mono) = (new SoundFacts("aac", 2, null, 48_000), new SoundFacts("aac", 6, null, 48_000), new SoundFacts("aac", 1, null, 48_000));
        (Of(SoundChannels.Mono, stereo).Channels, Of(SoundChannels.Mono, stereo).Mixes[0]).ShouldBe((1, SoundMix.MonoFromBoth));
        (Of(SoundChannels.Mono, surround).Channels, Of(SoundChannels.Mono, surround).Mixes[0]).ShouldBe((1, SoundMix.MonoFromSurround));
        (Of(SoundChannels.Stereo, mono).Channels, Of(SoundChannels.Stereo, mono).BitsPerSecond).ShouldBe((2, 128_000));
        Of(SoundChannels.AsRecorded, stereo).Channels.ShouldBe(2);
    }

    private static readonly IReadOnlyList<Cue> Cues =
    [
        new(new TimeRange(Ms.Of(1000), Ms.Of(3000)), "One {two} \\N three\nand a line"),
        new(new TimeRange(Ms.Of(4000), Ms.Of(5000)), "Four"),
    ];

    [Fact]
    public void Burnt_in_captions_make_frames_where_they_come_and_go_and_belong_to_the_pictures_key()
    {
        var burnt = Profiles.Web with { Captions = CaptionPlace.BurntIn };
        var picture = Plan(burnt, new LessonLook(Captions: [Cues])).Picture!;
        picture.Timing.Changing.ShouldBe([30, 90, 120, 150]);
        Sample
            .Key(picture)
            .ShouldNotBe(
                Sample.Key(
                    Plan(
                        burnt,
                        new LessonLook(
                            Captions:
                            [
                                [Cues[0]],
                            ]
                        )
                    ).Picture!
                )
            );
        // Beside or inside, captions have no part in what is encoded.
        foreach (var place in new[] { CaptionPlace.None, CaptionPlace.Beside, CaptionPlace.Inside })
            Sample
                .Key(Plan(Profiles.Web with { Captions = place }, new LessonLook(Captions: [Cues])).Picture!)
                .ShouldBe(Sample.Key(Plan(Profiles.Web).Picture!));
        Plan(Profiles.Web with { Captions = CaptionPlace.Inside }, new LessonLook(Captions: [Cues, Cues])).File.CaptionTracks.ShouldBe(2);
        Plan(Profiles.Web with { Captions = CaptionPlace.Inside }).File.CaptionTracks.ShouldBe(0);
    }

    [Fact]
    public void A_script_for_burning_in_takes_their_meaning_from_braces_and_backslashes()
    {
        var script = BurntCaptions.Script(Cues, new PictureSize(1280, 720), null);
        script.ShouldContain("Dialogue: 0,0:00:01.00,0:00:03.00,Caption,,0,0,0,,One \\{two\\} \\\u2060N three\\Nand a line\n");
        script.ShouldContain("PlayResX: 1280");
    }

    [Fact]
    public void Captions_never_cover_the_house_mark()
    {
        foreach (var size in new PictureSize[] { new(1280, 720), new(854, 480), new(720, 1280), new(640, 480) })
        {
            foreach (var position in Enum.GetValues<MarkPosition>())
            {
                foreach (
                    var (width, mark) in new[]
                    {
                        (20, new PictureSize(400, 400)),
                        (20, new PictureSize(600, 200)),
                        (40, new PictureSize(600, 200)),
                        (60, new PictureSize(800, 100)),
                    }
                )
                {
                    var box = (MarkPlacement.Usual with { Position = position, WidthPercent = width }).On(size, mark);
                    var placed = CaptionPlacement.On(size, box);
                    placed.Touches(size, box, 0).ShouldBeFalse($"{size} {position} {width} {mark}");
                    (size.Width - placed.Left - placed.Right).ShouldBeGreaterThan(size.Width / 2);
                }
            }
        }
    }

    [Fact]
    public void Without_a_mark_captions_stand_at_the_bottom_in_the_middle() =>
        CaptionPlacement.On(new PictureSize(1280, 720), null).ShouldBe(new CaptionPlacement(43, 128, 128, 36));

    [Theory]
    [InlineData("en-GB", "eng")]
    [InlineData("de", "deu")]
    [InlineData("zh-Hant-TW", "zho")]
    [InlineData("gsw", "gsw")]
    [InlineData("x-desk", "und")]
    [InlineData("", "und")]
    public void Languages_are_named_by_three_letters_in_files(string tag, string letters) => LanguageCodes.ThreeLetters(tag).ShouldBe(letters);

    [Fact]
    public void Codecs_parameters_are_written_as_their_bindings_say()
    {
        // The examples of the AV1 and VP bindings' sections on the codecs parameter.
        CodecsString.Av1(0, 4, false, 10).ShouldBe("av01.0.04M.10");
        CodecsString.Vp9(2, 10, 10).ShouldBe("vp09.02.10.10");
        CodecsString.Avc(0x64, 0, 0x1F).ShouldBe("avc1.64001F");
    }
}
