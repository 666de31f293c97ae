using Wexel.Core.Cameras;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Cameras;

public class CameraPathTests
{
    private static readonly RecordingFacts Screen = Sample.Facts() with { Length = TimeSpan.FromSeconds(20) };
    private static readonly Reel Alone = Reel.Of(Screen);
    private static readonly CameraLook Plain = CameraLook.Usual with { KeepsClear = false };

    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static LaidCamera Laid(double starts, double lasts, double drift = 0) =>
        new(0, new CameraTake("screen", "camera", new CameraClock(TimeSpan.FromSeconds(starts), drift)), Screen with { Length = TimeSpan.FromSeconds(lasts) });

    private static IReadOnlyList<CameraShot> Shots(LaidCamera camera, CameraLook? look = null, CameraStretch[]? stretches = null, params TimeRange[] cuts) =>
        CameraPath.Of(look ?? Plain, stretches ?? [], [camera], Alone, Alone.Map(cuts), null).Shots;

    [Fact]
    public void A_clock_goes_both_ways()
    {
        var clock = new CameraClock(TimeSpan.FromSeconds(-2), 1000);
        clock.ToCamera(TimeSpan.FromSeconds(998)).ShouldBe(TimeSpan.FromSeconds(1001));
        clock.ToScreen(TimeSpan.FromSeconds(1001)).ShouldBe(TimeSpan.FromSeconds(998));
        new CameraClock(TimeSpan.FromDays(-40), double.NaN).Within().ShouldBe(new CameraClock(-CameraClock.FarthestStart, 0));
    }

    [Fact]
    public void It_is_seen_as_long_as_it_ran()
    {
        Shots(Laid(0, 30)).ShouldHaveSingleItem().ShouldBe(new CameraShot(0, 0, 600, CameraShown.Small, CameraCorner.BottomRight));
        Shots(Laid(2, 5)).Select(s => (s.First, s.Count)).ShouldBe([(60, 150)]);
        Shots(Laid(-3, 5)).Select(s => (s.First, s.Count)).ShouldBe([(0, 60)]);
        Shots(Laid(25, 5)).ShouldBeEmpty();
        Shots(Laid(-9, 5)).ShouldBeEmpty();
    }

    [Fact]
    public void Cuts_act_on_it_and_stretches_show_it_otherwise()
    {
        CameraStretch[] stretches = [new("c1", Range(4, 6), CameraShown.Large), new("c2", Range(10, 12), CameraShown.Hidden)];
        Shots(Laid(0, 30), null, stretches, Range(5, 7), Range(18, 20))
            .Select(s => (s.First, s.Count, s.Shown))
            .ShouldBe([(0, 120, CameraShown.Small), (120, 30, CameraShown.Large), (150, 90, CameraShown.Small), (300, 180, CameraShown.Small)]);
        Shots(Laid(0, 30), Plain with { Usually = CameraShown.Hidden }, stretches)
            .Select(s => (s.First, s.Count, s.Shown))
            .ShouldBe([(120, 60, CameraShown.Large)]);
    }

    [Fact]
    public void It_keeps_clear_of_what_changes_on_the_screen_also_where_that_is_moved_in_on()
    {
        // The pointer moves at the bottom right at 10 s.
        var (before, now) = (new byte[320 * 180], new byte[320 * 180]);
        foreach (var (x, y) in new[] { (290, 160), (291, 160), (290, 161), (291, 161) })
            now[(y * 320) + x] = 255;
        var change = ChangedFields.Between(TimeSpan.FromSeconds(10), before, now, new PictureSize(320, 180))!;
        change.IsWholeScreen.ShouldBeFalse();
        ChangedFields.Unpack(ChangedFields.Pack([change, change]))[1].Fields.ShouldBe(change.Fields);
        var placement = CanvasPlacement.Of(Screen.Picture!.ShownSize, Canvas.AsRecorded, null);
        CameraPath Of(params MoveIn[] moveIns) =>
            CameraPath.Of(
                CameraLook.Usual,
                [],
                [Laid(0, 30)],
                Alone,
                Alone.Map([]),
                new ScreenOnPicture(
                    Alone,
                    [
                        [change],
                    ],
                    [placement],
                    moveIns
                )
            );
        var shots = Of().Shots;
        shots.Single(s => s.First <= 300 && s.First + s.Count > 300).Corner.ShouldNotBe(CameraCorner.BottomRight);
        shots[0].Corner.ShouldBe(CameraCorner.BottomRight);
        // Moved in on the top left, what happens there is not seen.
        Of(new MoveIn("m1", Range(5, 15), new PicturePart(0, 0, 0.5, 0.5), TimeSpan.Zero))
            .Shots.ShouldHaveSingleItem()
            .Corner.ShouldBe(CameraCorner.BottomRight);
    }

    [Fact]
    public void It_says_where_it_cannot_be_shown()
    {
        var (before, now) = (new byte[320 * 180], new byte[320 * 180]);
        foreach (var (x, y) in new[] { (20, 20), (300, 20), (20, 160), (300, 160) })
        {
            for (var i = 0; i < 8; i++)
                now[(y * 320) + x + i] = 255;
        }

        var change = ChangedFields.Between(TimeSpan.FromSeconds(10), before, now, new PictureSize(320, 180))!;
        var placement = CanvasPlacement.Of(Screen.Picture!.ShownSize, Canvas.AsRecorded, null);
        var path = CameraPath.Of(
            CameraLook.Usual,
            [],
            [Laid(0, 30)],
            Alone,
            Alone.Map([]),
            new ScreenOnPicture(
                Alone,
                [
                    [change],
                ],
                [placement],
                []
            )
        );
        path.InTheWay.ShouldBe([Range(9.5, 11.5)]);
        path.Shots.Sum(s => s.Count).ShouldBe(540);
    }

    [Fact]
    public void A_screen_that_changes_altogether_points_at_nothing() =>
        ChangedFields
            .Between(TimeSpan.Zero, new byte[320 * 180], [.. Enumerable.Repeat((byte)255, 320 * 180)], new PictureSize(320, 180))!
            .IsWholeScreen.ShouldBeTrue();

    [Fact]
    public void The_plan_knows_its_frames_makes_the_one_in_which_it_is_gone_and_copies_nothing()
    {
        var map = Alone.Map([]);
        var look = Plain with { Usually = CameraShown.Hidden };
        CameraStretch[] stretches = [new("c1", Range(2, 3), CameraShown.Small), new("c2", Range(3, 4), CameraShown.Large)];
        var over = new CamerasOnPicture(look, [Laid(0, 30)], CameraPath.Of(look, stretches, [Laid(0, 30)], Alone, map, null));
        var plan = RenderPlanner.Plan(Alone, map, Profiles.Web, new LessonLook(Camera: over)).Picture!;
        plan.CameraSeen.ShouldBe([new FrameRun(60, 60)]);
        plan.Timing.Changing.ShouldBe([120]);
        plan.Copy.ShouldBeNull();
        var camera = plan.Cameras!.ShouldHaveSingleItem();
        camera.Kept.ShouldBe([new KeptStretch(60, 60, 60)]);
        camera.Views.Select(v => v.Places.Single().Run).ShouldBe([new FrameRun(60, 30), new FrameRun(90, 30)]);
        camera.Within(new FrameRun(85, 3))!.Views.ShouldHaveSingleItem().Places.ShouldHaveSingleItem().Run.ShouldBe(new FrameRun(85, 3));
        camera.Within(new FrameRun(120, 30)).ShouldBeNull();
        EveryField.MakesADifference(
            new RenderPlan(map.Length, [plan with { Effort = Effort.Balanced }], null, RenderPlanner.Plan(Alone, map, Profiles.Web, new LessonLook()).File),
            p => RenditionKeys.Of(p, map, ["screen"]).Pictures[0],
            60,
            but: [.. NotOfPicture, "$.pictures[0].cameras[0].rate.numerator", "$.pictures[0].cameras[0].rate.denominator"]
        );
    }

    /// <summary>What no picture depends on.</summary>
    private static readonly string[] NotOfPicture = ["$.length", "$.file.container", "$.file.captionTracks", "$.file.chapters", "$.file.indexAtFront"];

    [Fact]
    public void It_is_estimated_larger_and_longer_where_it_is_seen()
    {
        var map = Alone.Map([]);
        RenderEstimate With(CamerasOnPicture? over) =>
            RenderEstimator.Estimate(RenderPlanner.Plan(Alone, map, Profiles.Web, new LessonLook(Camera: over)), Alone, 0.1, MachineSpeed.Small);
        CamerasOnPicture Over(CameraLook look) => new(look, [Laid(0, 30)], CameraPath.Of(look, [], [Laid(0, 30)], Alone, map, null));
        var (none, small, large) = (With(null), With(Over(Plain)), With(Over(Plain with { Usually = CameraShown.Large })));
        small.Bytes.ShouldBeGreaterThan(none.Bytes);
        large.Bytes.ShouldBeGreaterThan(small.Bytes);
        small.Time.ShouldBeGreaterThan(none.Time);
    }
}
