using CsCheck;
using Wexel.Core.Learning;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Learning;

public sealed class WatchPaceTests
{
    private static readonly Gen<TimeRange> Range = Gen.Select(Gen.Int[0, 3_600_000], Gen.Int[0, 600_000], (start, length) =>
        new TimeRange(TimeSpan.FromMilliseconds(start), TimeSpan.FromMilliseconds(start + length))
    );

    private static TimeRange Seconds(double from, double to) => new(TimeSpan.FromSeconds(from), TimeSpan.FromSeconds(to));

    private static TimeSpan Sum(IEnumerable<TimeRange> ranges) => ranges.Aggregate(TimeSpan.Zero, (sum, r) => sum + r.Length);

    [Fact]
    public void A_lesson_is_not_watched_in_a_moment() => WatchPace.After([], [Seconds(0, 999_999)], TimeSpan.FromSeconds(1)).ShouldBe([Seconds(0, 3)]);

    /// <summary>A hundred reports in ten seconds are no more than one.</summary>
    [Fact]
    public void Many_reports_gain_nothing()
    {
        IReadOnlyList<TimeRange> known = [];
        for (var i = 0; i < 100; i++)
            known = WatchPace.After(known, [Seconds(0, 999_999)], TimeSpan.FromSeconds(0.1));
        Sum(known).ShouldBeLessThanOrEqualTo(TimeSpan.FromSeconds(30));
        WatchPace.After(known, [Seconds(0, 999_999)], TimeSpan.Zero).ShouldBe(known);
    }

    [Fact]
    public void Whoever_watches_at_the_highest_speed_gets_all_of_it() =>
        WatchPace.After([Seconds(0, 20)], [Seconds(0, 40)], TimeSpan.FromSeconds(10)).ShouldBe([Seconds(0, 40)]);

    /// <summary>All that was watched is reported each time: what is known already takes nothing of what may be new.</summary>
    [Fact]
    public void What_was_known_stays_and_takes_no_time()
    {
        WatchPace.After([Seconds(0, 300)], [Seconds(0, 300), Seconds(400, 430)], TimeSpan.FromSeconds(15)).ShouldBe([Seconds(0, 300), Seconds(400, 430)]);
        // A line that was lost for five minutes is made up for.
        WatchPace.After([Seconds(0, 60)], [Seconds(0, 360)], TimeSpan.FromSeconds(300)).ShouldBe([Seconds(0, 360)]);
    }

    [Fact]
    public void Many_ranges_of_a_millisecond_are_not_kept()
    {
        var dust = Enumerable.Range(0, 5000).Select(i => new TimeRange(TimeSpan.FromMilliseconds(i * 10), TimeSpan.FromMilliseconds((i * 10) + 1)));
        var kept = WatchPace.After([Seconds(100, 200)], dust, TimeSpan.FromHours(1));
        kept.Count.ShouldBe(WatchPace.MostRanges);
        kept.ShouldContain(Seconds(100, 200));
    }

    [Fact]
    public void Nothing_is_added_that_was_not_reported_nothing_is_lost_and_never_more_than_can_have_been_played() =>
        Gen.Select(Range.Array[0, 20], Range.Array[0, 20], Gen.Int[0, 3600])
            .Sample(
                (before, reported, seconds) =>
                {
                    var since = TimeSpan.FromSeconds(seconds);
                    var after = WatchPace.After(before, reported, since);
                    TimeRange.Without(before, after).ShouldBeEmpty();
                    TimeRange.Without(after, before.Concat(reported)).ShouldBeEmpty();
                    (Sum(after) - Sum(TimeRange.Union(before))).ShouldBeLessThanOrEqualTo((since * 2) + TimeSpan.FromSeconds(5));
                }
            );
}
