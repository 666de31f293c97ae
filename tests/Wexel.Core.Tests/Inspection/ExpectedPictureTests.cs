using CsCheck;
using Wexel.Core.Editing;
using Wexel.Core.Inspection;
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
            var chosen = ExpectedPicture.Frames([.. changes.Order().Select(c => Ms.Of(c))], map);
            return chosen.Count is > 0 and <= ExpectedPicture.Moments && chosen.All(f => f >= 0 && f < map.Frames) && chosen.SequenceEqual(chosen.Distinct().Order());
        });
}
