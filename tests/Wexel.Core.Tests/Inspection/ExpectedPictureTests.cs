using CsCheck;
using Wexel.Core.Editing;
using Wexel.Core.Inspection;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Inspection;

public class ExpectedPictureTests
{
    [Fact]
    public void Still_stretches_follow_the_cuts()
    {
        var map = TimeMap.Of(new FrameRate(30, 1), Ms.Of(60_000), [new TimeRange(Ms.Of(10_000), Ms.Of(20_000))]);
        ExpectedPicture.Still([new TimeRange(Ms.Of(5000), Ms.Of(25_000)), new TimeRange(Ms.Of(11_000), Ms.Of(12_000))], map).ShouldBe([new TimeRange(Ms.Of(5000), Ms.Of(15_000))]);
    }

    [Fact]
    public void Moments_lie_in_the_lesson_and_are_at_most_as_many_as_are_looked_at() =>
        Gen.Select(Gen.Int[1, 4000], Gen.Int[0, 120_000].Array[0, 40]).Sample((frames, changes) =>
        {
            var map = TimeMap.Of(new FrameRate(30, 1), TimeSpan.FromSeconds(frames / 30.0), []);
            var chosen = ExpectedPicture.Frames([.. changes.Order().Select(c => Ms.Of(c))], map, null);
            return chosen.Count is > 0 and <= ExpectedPicture.Moments && chosen.All(f => f >= 0 && f < map.Frames) && chosen.SequenceEqual(chosen.Distinct().Order());
        });

    /// <summary>The source is decoded from its key frame to each moment, so one right behind a key frame costs little; each stays in its own part of the lesson, and in what is kept.</summary>
    [Fact]
    public void Moments_stand_behind_the_recordings_key_frames_where_those_are_known()
    {
        var facts = Sample.Facts();
        var even = new EvenFrames(new FrameRate(30, 1), 1950, [0, 140, 290, 700, 1100, 1250], 65 * 60_000, "High", 31);
        var known = Reel.Of(facts with { Picture = facts.Picture! with { Even = even } });
        var map = known.Map([new TimeRange(Ms.Of(3000), Ms.Of(6000))]);
        var spread = ExpectedPicture.Frames([], map, null);
        var chosen = ExpectedPicture.Frames([], map, known);
        spread.Select(map.ToRecording).ShouldBe([244, 554, 864, 1174, 1484, 1794]);
        // The key frame at 140 is cut away, and the one before the last moment lies in the part of the moment before.
        chosen.Select(map.ToRecording).ShouldBe([244, 291, 701, 1101, 1251, 1794]);
        ExpectedPicture.Frames([], map, Reel.Of(facts)).ShouldBe(spread);
    }
}
