using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Encoding;

public sealed class CopyRuleTests
{
    private static readonly EvenFrames Even = new(new FrameRate(30, 1), 1950, [.. Enumerable.Range(0, 8).Select(n => n * 250L)], 65 * 60_000, "High", 31);

    private static RecordingFacts Facts(EvenFrames? even = null)
    {
        var facts = Sample.Facts();
        return facts with { Picture = facts.Picture! with { Even = even ?? Even } };
    }

    private static TimeSpan Frame(double number) => TimeSpan.FromSeconds(number / 30);

    private static PicturePlan Plan(RecordingFacts facts, LessonLook? look = null, Profile? profile = null, params TimeRange[] cuts)
    {
        var reel = Reel.Of(facts);
        return RenderPlanner.Plan(reel, reel.Map(cuts), profile ?? Profiles.Web, look ?? new LessonLook()).Picture!;
    }

    private static Profile With(Func<PictureSettings, PictureSettings> change) => Profiles.Web with { Picture = change(Profiles.Web.Picture!) };

    [Fact]
    public void What_nothing_is_done_to_is_copied_whole()
    {
        var plan = Plan(Facts());
        plan.Copy!.Runs.ShouldBe([new CopyRun(0, 1950, 0, false, 0)]);
        plan.EncodedSince.ShouldBeNull();
        (plan.Coding.H264!.Profile, plan.Coding.H264.Level).ShouldBe((H264Profile.High, 31));
        Plan(Facts(), profile: Profiles.Master).Copy.ShouldNotBeNull();
    }

    [Fact]
    public void A_cut_at_the_start_leads_in_and_one_inside_is_encoded_to_the_next_key_frame()
    {
        var plan = Plan(
            Facts(),
            null,
            null,
            new TimeRange(TimeSpan.Zero, Frame(300)),
            new TimeRange(Frame(700), Frame(990)),
            new TimeRange(Frame(1900), Frame(1950))
        );
        plan.Copy!.Runs.ShouldBe([new CopyRun(300, 400, 0, false, 50), new CopyRun(990, 10, 400, true, 0), new CopyRun(1000, 900, 410, false, 0)]);
    }

    [Fact]
    public void A_section_at_a_key_frame_goes_on_and_one_between_is_encoded_to_the_next()
    {
        var plan = Plan(Facts(), new LessonLook([new Section("a", TimeSpan.Zero, "A"), new Section("b", Frame(500), "B"), new Section("c", Frame(740), "C")]));
        plan.Copy!.Runs.ShouldBe([new CopyRun(0, 740, 0, false, 0), new CopyRun(740, 10, 740, true, 0), new CopyRun(750, 1200, 750, false, 0)]);
    }

    [Fact]
    public void Some_frames_by_themselves_lead_in_where_they_begin_within_a_run()
    {
        var copy = new CopyPlan([new CopyRun(300, 400, 0, false, 50), new CopyRun(990, 10, 400, true, 0), new CopyRun(1000, 900, 410, false, 0)]);
        copy.Within(350, 120, Even)
            .Runs.ShouldBe([new CopyRun(650, 50, 0, false, 150), new CopyRun(990, 10, 50, true, 0), new CopyRun(1000, 60, 60, false, 0)]);
        copy.Within(404, 3, Even).Runs.ShouldBe([new CopyRun(994, 3, 0, true, 0)]);
        copy.Within(0, 1310, Even).Runs.ShouldBe(copy.Runs);
    }

    [Fact]
    public void Where_a_tick_may_have_no_frame_the_beginning_and_the_last_frame_are_encoded()
    {
        var facts = Facts(Even with { Gaps = true });
        Plan(facts).Copy!.Runs.ShouldBe([new CopyRun(0, 1949, 0, false, 0), new CopyRun(1949, 1, 1949, true, 0)]);
        var plan = Plan(facts, null, null, new TimeRange(TimeSpan.Zero, Frame(240)), new TimeRange(Frame(1900), Frame(1950)));
        plan.Copy!.Runs.ShouldBe([new CopyRun(240, 10, 0, true, 0), new CopyRun(250, 1649, 10, false, 0), new CopyRun(1899, 1, 1659, true, 0)]);
        plan.Copy.Within(350, 120, Even with { Gaps = true }).Runs.ShouldBe([new CopyRun(590, 120, 0, true, 0)]);
        plan.Copy.Within(350, 300, Even with { Gaps = true }).Runs.ShouldBe([new CopyRun(590, 160, 0, true, 0), new CopyRun(750, 140, 160, false, 0)]);
        Plan(facts, profile: With(p => p with { Timing = TimingSettings.AsRecorded })).EncodedSince!.ShouldContain("makes every frame");
    }

    /// <summary>Whatever is cut and wherever sections begin: the runs are the lesson, frame after frame, and each begins where decoding can.</summary>
    [Fact]
    public void Runs_are_the_lesson_without_a_gap() =>
        Gen.Select(Gen.Select(Gen.Int[0, 1949], Gen.Int[1, 300]).Array[0, 4], Gen.Int[0, 1949].Array[0, 4], Gen.Bool)
            .Sample(
                (cuts, sections, gaps) =>
                {
                    var reel = Reel.Of(Facts(Even with { Gaps = gaps }));
                    var map = reel.Map([.. cuts.Select(c => new TimeRange(Frame(c.Item1), Frame(Math.Min(1950, c.Item1 + c.Item2))))]);
                    if (map.Frames == 0)
                        return;
                    List<Section> contents = [.. sections.Order().Distinct().Select(f => new Section($"{f}", Frame(f), "A"))];
                    var plan = RenderPlanner.Plan(reel, map, Profiles.Web, new LessonLook(Section.Kind.Following(contents, map))).Picture!;
                    if (plan.Copy is not { Runs: var runs })
                    {
                        plan.EncodedSince.ShouldBe("cuts and sections lie so close that little of it would be copied");
                        return;
                    }

                    var frames = runs.SelectMany(r => Enumerable.Range(0, (int)r.Count).Select(n => (At: r.At + n, From: r.First + n))).ToList();
                    frames.Select(f => f.At).ShouldBe(Enumerable.Range(0, (int)map.Frames).Select(n => (long)n));
                    frames.Select(f => f.From).ShouldBe(plan.Parts[0].Kept.SelectMany(k => Enumerable.Range(0, (int)k.Count).Select(n => k.First + n)));
                    runs.Where(r => !r.Encoded).ShouldAllBe(r => Even.KeyFrames.Contains(r.First - r.LeadIn));
                    plan.Timing.SectionFrames.ShouldAllBe(s =>
                        runs.Any(r => r.At == s) || runs.Any(r => !r.Encoded && s > r.At && s < r.At + r.Count && Even.KeyFrames.Contains(r.First + s - r.At))
                    );
                    runs.Skip(gaps ? 0 : 1).ShouldAllBe(r => r.LeadIn == 0);
                }
            );

    public static TheoryData<string, string> Reasons =>
        new()
        {
            { "profile", "the profile says so" },
            { "av1", "something else than H.264" },
            { "webm", "something else than H.264" },
            { "mark", "mark" },
            { "captions", "burnt in" },
            { "canvas", "canvas or the size" },
            { "height", "canvas or the size" },
            { "move-in", "move-ins" },
            { "rate", "sets its rate" },
            { "constant", "sets its rate" },
            { "colour", "not BT.709" },
            { "transfer", "not BT.709" },
            { "uneven", "taken apart frame by frame" },
            { "profile-of-stream", "taken apart frame by frame" },
            { "level", "level is above" },
            { "far", "seeking would be slow" },
            { "damaged", "damaged in places" },
            { "many", "up to 8.3 s and 301 frames apart, and seeking would be slow" },
            { "heavy", "too much for this quality" },
            { "close", "lie so close" },
            { "turned", "canvas or the size" },
            { "ceiling", "too much for this quality" },
        };

    [Theory]
    [MemberData(nameof(Reasons))]
    public void Where_it_is_encoded_the_reason_is_said(string what, string reason)
    {
        var facts = Facts();
        PictureFacts Picture(Func<PictureFacts, PictureFacts> change) => change(facts.Picture!);
        var plan = what switch
        {
            "profile" => Plan(facts, profile: With(p => p with { Copy = false })),
            "av1" => Plan(facts, profile: With(p => p with { Codec = PictureCodec.Av1 })),
            "webm" => Plan(facts, profile: Profiles.Web with { Container = Container.Hls }),
            "mark" => Plan(facts, new LessonLook(Mark: new MarkOnPicture("key", new PictureSize(100, 50), MarkPlacement.Usual))),
            "captions" => Plan(
                facts,
                new LessonLook(
                    Captions:
                    [
                        [new Cue(new TimeRange(TimeSpan.Zero, TimeSpan.FromSeconds(1)), "Hello")],
                    ]
                ),
                Profiles.Web with
                {
                    Captions = CaptionPlace.BurntIn,
                }
            ),
            "canvas" => Plan(facts, new LessonLook(Canvas: Canvas.AsRecorded with { Size = new PictureSize(1280, 800) })),
            "height" => Plan(facts, profile: Profiles.Small480),
            "move-in" => Plan(
                facts,
                new LessonLook(
                    MoveIns:
                    [
                        new MoveIn(
                            "m",
                            new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(4)),
                            new PicturePart(0.2, 0.2, 0.5, 0.5),
                            TimeSpan.FromSeconds(0.5)
                        ),
                    ]
                )
            ),
            "rate" => Plan(facts, profile: With(p => p with { Rate = new RateSettings(RateRule.Average, BitsPerSecond: 500_000, Passes: 1) })),
            "constant" => Plan(facts, profile: With(p => p with { Timing = new TimingSettings(TimingRule.Constant, 25) })),
            "colour" => Plan(facts with { Picture = Picture(p => p with { Colour = p.Colour with { FullRange = true } }) }),
            "transfer" => Plan(facts with { Picture = Picture(p => p with { Colour = p.Colour with { Transfer = "iec61966-2-1" } }) }),
            "uneven" => Plan(Sample.Facts()),
            "profile-of-stream" => Plan(Facts(Even with { Profile = "High 4:4:4 Predictive" })),
            "level" => Plan(facts, profile: With(p => p with { Level = 30 })),
            "far" => Plan(Facts(Even with { KeyFrames = [0, 1200] })),
            "damaged" => Plan(facts with { Picture = Picture(p => p with { Damaged = true }) }),
            "many" => Plan(Facts(Even with { MostBetweenKeyFrames = 301 })),
            "heavy" => Plan(Facts(Even with { Bytes = 65 * 500_000 })),
            "ceiling" => Plan(facts, profile: With(p => p with { Rate = p.Rate with { CeilingBitsPerSecond = 300_000 } })),
            "close" => Plan(facts, new LessonLook([.. Enumerable.Range(1, 15).Select(n => new Section($"{n}", Frame(n * 120), "A"))])),
            _ => Plan(facts with { Picture = Picture(p => p with { RotationDegrees = 180 }) }),
        };
        plan.Copy.ShouldBeNull();
        plan.EncodedSince!.ShouldContain(reason);
    }

    [Fact]
    public void What_is_copied_has_a_key_of_its_own_and_why_not_has_none()
    {
        Sample.Key(Plan(Facts())).ShouldNotBe(Sample.Key(Plan(Sample.Facts())));
        Sample.Key(Plan(Sample.Facts())).ShouldBe(Sample.Key(Plan(Facts(), profile: With(p => p with { Copy = false }))));
    }
}
