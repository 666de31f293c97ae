using CsCheck;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Inspection;

public class ExpectedPictureTests
{
    [Fact]
    public void Still_stretches_follow_the_cuts()
    {
        var map = TimeMap.Of(new FrameRate(30, 1), Ms.Of(60_000), [new TimeRange(Ms.Of(10_000), Ms.Of(20_000))]);
        ExpectedPicture
            .Still([new TimeRange(Ms.Of(5000), Ms.Of(25_000)), new TimeRange(Ms.Of(11_000), Ms.Of(12_000))], map)
            .ShouldBe([new TimeRange(Ms.Of(5000), Ms.Of(15_000))]);
    }

    [Fact]
    public void Moments_lie_in_the_lesson_and_are_at_most_as_many_as_are_looked_at() =>
        Gen.Select(Gen.Int[1, 4000], Gen.Int[0, 120_000].Array[0, 40])
            .Sample(
                (frames, changes) =>
                {
                    var map = TimeMap.Of(new FrameRate(30, 1), TimeSpan.FromSeconds(frames / 30.0), []);
                    var chosen = ExpectedPicture.Frames([.. changes.Order().Select(c => Ms.Of(c))], map);
                    return chosen.Count is > 0 and <= ExpectedPicture.Moments
                        && chosen.All(f => f >= 0 && f < map.Frames)
                        && chosen.SequenceEqual(chosen.Distinct().Order());
                }
            );

    /// <summary>The source is decoded from its key frame to each moment, so one right behind a key frame costs little; each stays in its own part of
    /// the lesson, and in what is kept.</summary>
    [Fact]
    public void Moments_stand_behind_the_recordings_key_frames_where_those_are_known()
    {
        var reel = Reel.Of(Sample.Facts());
        var map = reel.Map([new TimeRange(Ms.Of(3000), Ms.Of(6000))]);
        var plan = RenderPlanner.Plan(reel, map, Profiles.Web, new LessonLook()).Picture! with { Copy = null };
        var spread = ExpectedPicture.Frames([], map);
        spread.Select(map.ToRecording).ShouldBe([244, 554, 864, 1174, 1484, 1794]);
        long?[] before = [140, 290, 700, null, 1250, 1250];
        // The key frame at 140 is cut away, the fourth is not known, and the last lies in the part of the moment before.
        ExpectedPicture.BehindKeyFrames(plan, spread, before).Select(map.ToRecording).ShouldBe([244, 296, 706, 1174, 1256, 1794]);
        ExpectedPicture.BehindKeyFrames(plan with { Copy = new CopyPlan([]) }, spread, before).ShouldBe(spread);
    }
}
