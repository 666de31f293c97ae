using Wexel.Core.People;

namespace Wexel.Core.Tests.People;

/// <summary>When those who follow are told: at once, or in the morning, whatever clocks do in the night.</summary>
public class TellingTimesTests
{
    private static readonly TimeZoneInfo Zone = TimeZoneInfo.FindSystemTimeZoneById("Europe/Berlin");

    [Theory]
    [InlineData("2026-11-30T05:59:59Z", "2026-11-30T06:00:00Z")]
    [InlineData("2026-11-30T06:00:00Z", "2026-12-01T06:00:00Z")]
    [InlineData("2026-11-30T22:30:00Z", "2026-12-01T06:00:00Z")]
    // Past midnight there it is another day already.
    [InlineData("2026-11-30T23:30:00Z", "2026-12-01T06:00:00Z")]
    // In the night before, clocks go forward by an hour (from memory: the last Sunday in March, at 1:00 UTC), and back in October.
    [InlineData("2026-03-28T12:00:00Z", "2026-03-29T05:00:00Z")]
    [InlineData("2026-10-24T12:00:00Z", "2026-10-25T06:00:00Z")]
    public void One_mail_a_day_goes_at_seven_in_the_morning(string now, string due) =>
        TellingTimes.Due(DateTimeOffset.Parse(now, null), daily: true, Zone).ShouldBe(DateTimeOffset.Parse(due, null));

    [Fact]
    public void Who_wants_each_by_itself_is_told_at_once() => TellingTimes.Due(DateTimeOffset.UnixEpoch, daily: false, Zone).ShouldBe(DateTimeOffset.UnixEpoch);

    [Fact]
    public void A_morning_that_is_left_out_or_comes_twice_is_one_moment()
    {
        var odd = TimeZoneInfo.CreateCustomTimeZone(
            "odd",
            TimeSpan.Zero,
            "odd",
            "odd",
            "odd, later",
            [
                TimeZoneInfo.AdjustmentRule.CreateAdjustmentRule(
                    new DateTime(2026, 1, 1),
                    new DateTime(2026, 12, 31),
                    TimeSpan.FromHours(1),
                    TimeZoneInfo.TransitionTime.CreateFixedDateRule(new DateTime(1, 1, 1, 6, 30, 0), 5, 10),
                    TimeZoneInfo.TransitionTime.CreateFixedDateRule(new DateTime(1, 1, 1, 7, 30, 0), 9, 10)
                ),
            ]
        );
        // From 6:30 to 7:29 nothing is on the clock.
        TellingTimes
            .Due(new DateTimeOffset(2026, 5, 9, 12, 0, 0, TimeSpan.Zero), true, odd)
            .ShouldBe(new DateTimeOffset(2026, 5, 10, 6, 30, 0, TimeSpan.Zero));
        // Seven comes twice: the first of them.
        TellingTimes.Due(new DateTimeOffset(2026, 9, 9, 12, 0, 0, TimeSpan.Zero), true, odd).ShouldBe(new DateTimeOffset(2026, 9, 10, 6, 0, 0, TimeSpan.Zero));
    }
}
