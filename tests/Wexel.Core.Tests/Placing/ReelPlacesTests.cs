using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Placing;

/// <summary>A recording of 10 s comes behind the other, of which 8 s are left, and a new one stands between.</summary>
public class ReelPlacesTests
{
    private static TimeRange Span(double from, double to) => new(TimeSpan.FromSeconds(from), TimeSpan.FromSeconds(to));

    private static readonly ReelPlaces Turned = new([
        new ReelPlace(Span(10, 20), Span(0, 8)),
        new ReelPlace(null, Span(8, 20)),
        new ReelPlace(Span(0, 10), Span(20, 30)),
    ]);

    private static readonly ReelPlaces Longer = new([new ReelPlace(Span(0, 10), Span(0, 15))]);

    public static TheoryData<TimeRange, TimeRange[]> Stretches =>
        new()
        {
            { Span(2, 5), [Span(22, 25)] },
            { Span(0, 10), [Span(20, 30)] },
            { Span(10, 15), [Span(0, 5)] },
            // Over the joint, recording by recording in their old order.
            { Span(5, 15), [Span(25, 30), Span(0, 5)] },
            { Span(12, 20), [Span(2, 8)] },
            { Span(12, 25), [Span(2, 8)] },
            { Span(18, 20), [] },
            { Span(20, 25), [] },
        };

    [Theory]
    [MemberData(nameof(Stretches))]
    public void A_stretch_goes_with_its_recordings(TimeRange stretch, TimeRange[] moved)
    {
        Turned.Moved(stretch).ShouldBe(moved);
        Turned.Carried(stretch).ShouldBe(moved.Length > 0 ? moved[0] : null);
    }

    [Fact]
    public void What_went_on_to_the_end_of_a_take_goes_on_to_the_end_of_a_longer_one()
    {
        Longer.Moved(Span(5, 12)).ShouldBe([Span(5, 15)]);
        Longer.Moved(Span(5, 10)).ShouldBe([Span(5, 10)]);
        Longer.Moved(Span(5, 9)).ShouldBe([Span(5, 9)]);
    }

    [Theory]
    [InlineData(0, 20.0)]
    [InlineData(9.5, 29.5)]
    [InlineData(10, 0.0)]
    [InlineData(17.5, 7.5)]
    [InlineData(18, null)]
    [InlineData(20, null)]
    public void A_moment_goes_with_the_recording_that_it_is_on(double at, double? moved) =>
        (Turned.Carried(Span(at, at)) is { } to ? to.Start.TotalSeconds : (double?)null).ShouldBe(moved);
}
