using CsCheck;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Timing;

public class TimingTests
{
    [Theory]
    [InlineData("0:05", 5_000)]
    [InlineData("12:30.5", 750_500)]
    [InlineData("1:02:30", 3_750_000)]
    [InlineData("75:00", 4_500_000)]
    [InlineData("00:00:01,250", 1_250)]
    public void Reads_times_as_people_write_them(string text, long expected) => TimeCode.Parse(text).ShouldBe(Ms.Of(expected));

    [Theory]
    [InlineData("5")]
    [InlineData("1:60")]
    [InlineData("1:75:00")]
    [InlineData("-1:00")]
    [InlineData("1:2:3:4")]
    [InlineData("a:b")]
    [InlineData("")]
    [InlineData(null)]
    public void Refuses_what_is_not_a_time(string? text) => TimeCode.Parse(text).ShouldBeNull();

    [Fact]
    public void Printing_and_reading_a_time_is_the_identity() => Gen.Long[0, 360_000_000].Sample(ms => TimeCode.Parse(TimeCode.Full(Ms.Of(ms))) == Ms.Of(ms));

    [Theory]
    [InlineData("30000/1001", 30000, 1001)]
    [InlineData("25/1", 25, 1)]
    [InlineData("25", 25, 1)]
    public void Reads_rates_exactly(string text, int numerator, int denominator) => FrameRate.Parse(text).ShouldBe(new FrameRate(numerator, denominator));

    [Theory]
    [InlineData("0/0")]
    [InlineData("-25/1")]
    [InlineData("x")]
    [InlineData(null)]
    public void Refuses_what_is_not_a_rate(string? text) => FrameRate.Parse(text).ShouldBeNull();

    [Fact]
    public void A_frame_is_on_screen_at_its_own_time_rounded_to_milliseconds() =>
        Gen.Select(Pick.From(new FrameRate(30, 1), new FrameRate(30000, 1001), new FrameRate(25, 1), new FrameRate(60, 1)), Gen.Long[0, 1_000_000])
            .Sample((rate, frame) => rate.FrameAt(Ms.Of((long)Math.Round(rate.TimeOf(frame).TotalMilliseconds))) == frame);

    [Fact]
    public void A_union_is_in_order_without_overlap_and_covers_the_same_milliseconds() =>
        Gen.Select(Gen.Int[0, 60], Gen.Int[0, 60])
            .Array[0, 12]
            .Sample(pairs =>
            {
                var ranges = pairs.Select(p => new TimeRange(Ms.Of(p.Item1), Ms.Of(p.Item2))).ToList();
                var union = TimeRange.Union(ranges);
                bool In(IEnumerable<TimeRange> list, int ms) => list.Any(r => r.Start <= Ms.Of(ms) && Ms.Of(ms) < r.End);
                return Enumerable.Range(0, 61).All(ms => In(ranges, ms) == In(union, ms))
                    && union.Zip(union.Skip(1)).All(pair => pair.First.End < pair.Second.Start);
            });

    [Theory]
    [InlineData(3_599_400, "59:59 min")]
    [InlineData(3_600_000, "1:00:00 h")]
    public void A_length_has_its_unit(long milliseconds, string shown) => TimeCode.InWords(Ms.Of(milliseconds)).ShouldBe(shown);

    [Theory]
    [InlineData(3_599_999, "59:59")]
    [InlineData(3_600_000, "1:00:00")]
    public void From_an_hour_on_hours_are_told(long milliseconds, string shown) => TimeCode.Brief(Ms.Of(milliseconds)).ShouldBe(shown);
}
