using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Placing;

public class ReelAnalysisTests
{
    private static readonly Reel Two = Reel.Of([
        (Sample.Facts() with { Length = TimeSpan.FromSeconds(10) }, null),
        (Sample.Facts() with { Length = TimeSpan.FromSeconds(5) }, null),
    ]);

    private static RecordingAnalysis Found(params int[] peaks) =>
        Sample.Analysis() with
        {
            Peaks = peaks,
            Still = [new(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(3))],
            PictureMoments = [TimeSpan.Zero, TimeSpan.FromSeconds(2)],
        };

    [Fact]
    public void What_was_found_stands_along_the_reel()
    {
        var all = ReelAnalysis.Join(Two, [Found([.. Enumerable.Repeat(50, 98)]), Found([.. Enumerable.Repeat(20, 60)])])!;
        all.LookedUntil.ShouldBeNull();
        all.PictureMoments.Select(m => m.TotalSeconds).ShouldBe([0, 2, 10, 12]);
        all.Still.ShouldBe([new(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(3)), new(TimeSpan.FromSeconds(11), TimeSpan.FromSeconds(13))]);
        all.Scenes.ShouldBe([TimeSpan.FromSeconds(10)], "a joint changes the whole picture");
        all.Peaks.Count.ShouldBe(150);
        (all.Peaks[97], all.Peaks[98], all.Peaks[100], all.Peaks[149]).ShouldBe((50, 0, 20, 20));
    }

    [Fact]
    public void It_is_looked_through_as_far_as_the_first_that_is_not()
    {
        ReelAnalysis.Join(Two, [null, Found(1)]).ShouldBeNull();
        ReelAnalysis.Join(Two, [Found(1), null])!.LookedUntil.ShouldBe(TimeSpan.FromSeconds(10));
        ReelAnalysis.Join(Two, [Found(1), Found(1) with { LookedUntil = TimeSpan.FromSeconds(2) }])!.LookedUntil.ShouldBe(TimeSpan.FromSeconds(12));
        var alone = Found(1);
        ReelAnalysis.Join(Reel.Of(Sample.Facts()), [alone]).ShouldBeSameAs(alone);
    }

    [Fact]
    public void How_much_changes_is_weighed_by_length() =>
        // A tenth of ten seconds, and half of five: 3.5 of 15.
        ReelAnalysis.Join(Two, [Found(1) with { ChangedShare = 0.1 }, Found(1) with { ChangedShare = 0.5 }])!.ChangedShare.ShouldBe(3.5 / 15, 1e-9);
}
