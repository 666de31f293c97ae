using CsCheck;
using Wexel.Core.Encoding;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Encoding;

public sealed class LevellingTests
{
    [Theory]
    [InlineData(-23.0, -10.0, 7.0, false)]
    [InlineData(-23.0, -6.0, 7.0, true)]
    [InlineData(-12.0, -0.2, -4.0, false)]
    [InlineData(-16.0, -3.0, null, false)]
    [InlineData(-16.0, 0.4, 0.0, true)]
    [InlineData(-55.0, -30.0, null, false)]
    public void One_gain_is_enough_where_no_peak_passes_the_ceiling(double integrated, double peak, double? gain, bool holds) =>
        Levelling.For(new Loudness(integrated, 5, peak), -16).ShouldBe(gain is { } g ? new Levelling(g, holds) : null);

    [Fact]
    public void Nothing_is_done_without_a_target_or_without_anything_to_hear()
    {
        Levelling.For(new Loudness(-30, 5, -12), null).ShouldBeNull();
        Levelling.For(new Loudness(null, 0, null), -16).ShouldBeNull();
        Levelling.For(null, -16).ShouldBeNull();
    }

    [Fact]
    public void A_gain_alone_never_takes_a_peak_over_the_ceiling() =>
        Gen.Select(Gen.Double[-60, 0], Gen.Double[-40, 3], Gen.Double[-31, -10])
            .Sample(
                (integrated, peak, target) =>
                {
                    var step = Levelling.For(new Loudness(integrated, 5, peak), target);
                    if (step is { HoldsPeaks: false })
                        (peak + step.GainDb).ShouldBeLessThanOrEqualTo(Levelling.HeldUnder);
                    if (step is not null)
                        (integrated + step.GainDb).ShouldBe(target, 0.051);
                }
            );

    [Fact]
    public void What_holding_peaks_takes_away_is_given_back_within_reason()
    {
        var step = new Levelling(10, true);
        step.Corrected(new Loudness(-16.4, 5, -2), -16).ShouldBe(step);
        step.Corrected(new Loudness(-18, 5, -2), -16).ShouldBe(new Levelling(12, true));
        step.Corrected(new Loudness(-40, 5, -2), -16).ShouldBe(new Levelling(16, true));
    }

    [Fact]
    public void Says_what_happens_to_the_sound()
    {
        Levelling.InWords(new Loudness(-23.4, 5, -14), -16).ShouldBe("Recorded at −23.4 LUFS; it is brought to −16 LUFS, 7.4 dB louder.");
        Levelling
            .InWords(new Loudness(-30, 5, -8), -16)
            .ShouldBe("Recorded at −30 LUFS; it is brought to −16 LUFS, 14 dB louder, with peaks held under −1 dBTP.");
        Levelling.InWords(new Loudness(-12, 5, -2), -16).ShouldBe("Recorded at −12 LUFS; it is brought to −16 LUFS, 4 dB softer.");
        Levelling.InWords(new Loudness(-16, 5, -6), -16).ShouldBe("Recorded at −16 LUFS; it stays as it is.");
        Levelling
            .InWords(new Loudness(null, 0, null), -16)
            .ShouldBe("There is hardly anything to hear, so the sound is left as it is: louder, it would be noise.");
        Levelling.InWords(null, -16).ShouldBeNull();
    }

    [Fact]
    public void Half_a_decibel_is_near_enough_and_room_is_made_below_the_ceiling()
    {
        var step = new Levelling(10, true);
        step.Corrected(new Loudness(-16.5, 5, -2), -16).ShouldBe(step);
        step.Corrected(new Loudness(-15.5, 5, -2), -16).ShouldBe(step);
        step.Corrected(new Loudness(-16.6, 5, -2), -16).GainDb.ShouldBe(10.6);
        // Half a decibel over −1, and 0.2 to spare: from −2 to −2.7.
        step.WithHeadroom(-0.5).HeldAt.ShouldBe(-2.7);
        step.WithHeadroom(-0.5).WithHeadroom(-0.9).HeldAt.ShouldBe(-3);
        new Levelling(10, false).WithHeadroom(-0.5).ShouldBe(step);
    }
}
