using CsCheck;
using Wexel.Core.Mixing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using static Wexel.Core.Tests.Mixing.Sounds;

namespace Wexel.Core.Tests.Mixing;

public class MixPlannerTests
{
    private static readonly TimeSpan Length = Ms.Of(60_000);

    [Fact]
    public void Nothing_laid_is_no_plan() => MixPlanner.Plan([], Speaking(), Length).ShouldBeNull();

    [Fact]
    public void Its_bars_follow_one_another_on_the_beat_and_it_ends_with_its_stretch()
    {
        var bed = MixPlanner.Plan([Bed(3_000, 31_000)], Speaking(), Length)!.Beds.ShouldHaveSingleItem();
        bed.Pieces.Select(p => (p.At, p.From, p.Ends))
            .ShouldBe([
                (Ms.Of(3_000), TimeSpan.Zero, Ms.Of(15_000)),
                (Ms.Of(15_000), TimeSpan.Zero, Ms.Of(27_000)),
                (Ms.Of(27_000), TimeSpan.Zero, Ms.Of(31_000)),
            ]);
        bed.Pieces.ShouldAllBe(p => p.Comes == TimeSpan.Zero && p.Goes == TimeSpan.Zero, "What was made to be joined is joined.");
    }

    [Fact]
    public void What_comes_before_the_first_bar_is_played_once_and_turns_lie_over_each_other()
    {
        var sound = Music with { FirstBeat = Ms.Of(700), Length = Ms.Of(11_500) };
        var pieces = MixPlanner.Plan([Bed(0, 25_000) with { Sound = sound }], Speaking(), Length)!.Beds[0].Pieces;
        // Five bars from 0.7 s to 10.7 s, and 0.8 s behind them to go on into.
        pieces
            .Select(p => (p.At, p.From, p.Length))
            .ShouldBe([(TimeSpan.Zero, TimeSpan.Zero, Ms.Of(10_710)), (Ms.Of(10_700), Ms.Of(700), Ms.Of(10_010)), (Ms.Of(20_700), Ms.Of(700), Ms.Of(4_300))]);
        pieces.Select(p => (p.Comes, p.Goes)).ShouldBe([(TimeSpan.Zero, Ms.Of(10)), (Ms.Of(10), Ms.Of(10)), (Ms.Of(10), TimeSpan.Zero)]);
    }

    [Fact]
    public void It_is_down_when_the_voice_begins_and_up_again_behind_it()
    {
        var bed = MixPlanner.Plan([Bed(0, 30_000)], Speaking((5_000, 8_000), (20_000, 21_000)), Length)!.Beds[0];
        double Db(long at) => Math.Round(20 * Math.Log10(bed.GainAt(Ms.Of(at))), 2);
        // −16 LUFS of music under −20 LUFS of voice: 20 LU under it is −24 dB, and 10 dB more where nobody speaks.
        (Db(0), Db(4_700), Db(5_000), Db(8_000), Db(8_800), Db(19_700), Db(20_500), Db(22_000)).ShouldBe((-14, -14, -24, -24, -14, -14, -24, -14));
        Db(4_850).ShouldBeInRange(-24, -14);
    }

    [Fact]
    public void In_a_short_pause_it_stays_down()
    {
        var bed = MixPlanner.Plan([Bed(0, 30_000)], Speaking((5_000, 8_000), (9_500, 12_000)), Length)!.Beds[0];
        bed.GainAt(Ms.Of(8_800)).ShouldBe(MixPlanner.Factor(-24), 1e-9);
    }

    [Fact]
    public void It_comes_and_goes_and_shares_the_room_where_there_is_too_little()
    {
        var bed = MixPlanner.Plan([Bed(0, 10_000) with { FadeIn = Ms.Of(2_000), FadeOut = Ms.Of(4_000) }], Speaking(), Length)!.Beds[0];
        (bed.GainAt(TimeSpan.Zero), bed.GainAt(Ms.Of(10_000)), bed.GainAt(Ms.Of(10_001))).ShouldBe((0, 0, 0));
        bed.GainAt(Ms.Of(1_000)).ShouldBe(bed.GainAt(Ms.Of(3_000)) / 2, 1e-9);
        bed.GainAt(Ms.Of(8_000)).ShouldBe(bed.GainAt(Ms.Of(3_000)) / 2, 1e-9);
        var tight = MixPlanner.Plan([Bed(0, 3_000) with { FadeIn = Ms.Of(2_000), FadeOut = Ms.Of(4_000) }], Speaking(), Length)!.Beds[0];
        tight.Gains.Select(g => g.At).ShouldBe([TimeSpan.Zero, Ms.Of(1_000), Ms.Of(3_000)]);
    }

    [Fact]
    public void Five_seconds_under_an_hour_are_played_seven_hundred_and_twenty_times()
    {
        var sound = Music with { Length = Ms.Of(5_000), Tempo = null };
        var hour = MixPlanner.Plan([Bed(0, 3_600_000) with { Sound = sound }], Speaking(), TimeSpan.FromHours(1))!.Beds[0].Pieces;
        (hour.Count, hour[^1].Ends, hour[^1].At).ShouldBe((720, TimeSpan.FromHours(1), Ms.Of(3_595_000)));
    }

    /// <summary>A tempo whose bars are no whole milliseconds does not run away from its beat.</summary>
    [Fact]
    public void Turns_stay_on_the_beat_for_an_hour()
    {
        var sound = Music with { Tempo = 97, Length = TimeSpan.FromMinutes(4 * 5 / 97.0) };
        var pieces = MixPlanner.Plan([Bed(0, 3_600_000) with { Sound = sound }], Speaking(), TimeSpan.FromHours(1))!.Beds[0].Pieces;
        var bars = TimeSpan.FromMinutes(20 / 97.0);
        pieces.Index().ShouldAllBe(p => Math.Abs((p.Item.At - (bars * p.Index)).TotalMilliseconds) <= 1);
    }

    [Fact]
    public void All_at_their_peaks_together_are_no_more_than_full_scale()
    {
        var loud = Bed(0, 30_000) with { Apart = 15, Duck = 30, Sound = Music with { TruePeak = 0 } };
        var plan = MixPlanner.Plan([loud, loud with { Id = "s2" }], Speaking() with { TruePeak = 0 }, Length)!;
        plan.Gain.ShouldBeLessThan(1);
        (plan.Gain * (1 + plan.Beds.Sum(b => b.Gains.Max(g => g.Gain)))).ShouldBeLessThanOrEqualTo(1);
        MixPlanner.Plan([Bed(0, 30_000)], Speaking() with { TruePeak = -6 }, Length)!.Gain.ShouldBe(1);
    }

    /// <summary>Whatever is laid wherever: points are in order and whole milliseconds, no gain passes the loudest, and pieces fill the stretch.</summary>
    [Fact]
    public void Every_plan_is_in_order() =>
        Gen.Select(Gen.Int[0, 50_000], Gen.Int[50, 30_000], Gen.Int[0, 9_000], Gen.Int[0, 9_000], Gen.Int[20, 5_000], Gen.Bool, Gen.Int[0, 3_000])
            .Select(Gen.Select(Gen.Int[0, 55_000], Gen.Int[200, 8_000]).List[0, 6])
            .Sample(
                (laid, said) =>
                {
                    var (from, length, comes, goes, turn, atBar, first) = laid;
                    var bed = Bed(from, from + length) with
                    {
                        FadeIn = Ms.Of(comes),
                        FadeOut = Ms.Of(goes),
                        Attack = Ms.Of(turn),
                        Release = Ms.Of(turn),
                        EndsAtBar = atBar,
                        Sound = Music with { FirstBeat = Ms.Of(first) },
                    };
                    var voice = Speaking() with { Spoken = TimeRange.Union(said.Select(s => new TimeRange(Ms.Of(s.Item1), Ms.Of(s.Item1 + s.Item2)))) };
                    if (MixPlanner.Plan([bed], voice, Length) is not { Beds: [var plan] })
                        return;
                    plan.Gains.Zip(plan.Gains.Skip(1)).ShouldAllBe(g => g.First.At < g.Second.At);
                    plan.Gains.ShouldAllBe(g => g.At.Ticks % TimeSpan.TicksPerMillisecond == 0 && g.Gain >= 0 && g.Gain <= MixPlanner.Factor(-14) + 1e-9);
                    (plan.Gains[0].At, plan.Gains[^1].At).ShouldBe((plan.Pieces[0].At, plan.Pieces[^1].Ends));
                    plan.Pieces.Zip(plan.Pieces.Skip(1)).ShouldAllBe(p => p.First.Ends >= p.Second.At && p.Second.Comes == p.First.Goes);
                    plan.Pieces.ShouldAllBe(p => p.From >= TimeSpan.Zero && p.From + p.Length <= bed.Sound.Length + Ms.Of(6));
                },
                iter: 2_000
            );

    /// <summary>
    /// Measured by ITU-R BS.1770-4: where somebody speaks the music lies as far under the voice as was asked for, and where nobody does it is as much
    /// louder as it was brought down.
    /// </summary>
    [Theory]
    [InlineData(20, 10)]
    [InlineData(15, 0)]
    [InlineData(30, 18)]
    public void It_is_as_far_under_the_voice_as_was_asked(double apart, double duck)
    {
        const int rate = LoudnessMeter.Rate;
        float[] Tone(double hz, double lufs, int seconds)
        {
            var samples = new float[rate * seconds];
            for (var i = 0; i < samples.Length; i++)
                samples[i] = (float)(0.1 * Math.Sin(Math.Tau * hz * i / rate));
            var factor = (float)MixPlanner.Factor(lufs - Loud(samples));
            return [.. samples.Select(s => s * factor)];
        }

        var music = Tone(300, -16, 12);
        var bed = Bed(0, 40_000) with { Apart = apart, Duck = duck };
        var plan = MixPlanner.Plan([bed], Speaking((10_000, 25_000)), Length)!;
        var mixed = new float[rate * 40];
        new SoundMixer(plan, 1, rate, (_, from, into) => music.AsSpan((int)from, into.Length).CopyTo(into)).Mix(mixed);
        (-20 - Loud(mixed.AsSpan((rate * 10)..(rate * 25)))).ShouldBe(apart, 0.1);
        (-20 - Loud(mixed.AsSpan((rate * 26)..(rate * 40)))).ShouldBe(apart - duck, 0.1);
    }

    private static double Loud(ReadOnlySpan<float> samples)
    {
        var meter = new LoudnessMeter(1);
        meter.Take(samples);
        return meter.Heard().Integrated!.Value;
    }

    /// <summary>However the sound comes in, the mix is the same.</summary>
    [Fact]
    public void The_mix_does_not_depend_on_the_blocks_in_which_it_streams()
    {
        var sound = Music with { FirstBeat = Ms.Of(123), Length = Ms.Of(6_500) };
        var plan = MixPlanner.Plan(
            [Bed(200, 9_700) with { Sound = sound, FadeIn = Ms.Of(700), FadeOut = Ms.Of(900) }, Bed(3_000, 8_000) with { Id = "s2" }],
            Speaking((2_000, 4_000)),
            Length
        )!;
        void Read(int bed, long from, Span<float> into)
        {
            for (var i = 0; i < into.Length; i++)
                into[i] = (float)Math.Sin((from + (i / 2)) * 0.013 * (bed + 1));
        }

        float[] Mixed(int block)
        {
            var samples = Enumerable.Range(0, 20_000).Select(i => (float)Math.Cos(i * 0.1) * 0.3f).ToArray();
            var mixer = new SoundMixer(plan, 2, 1000, Read);
            for (var at = 0; at < samples.Length; at += block)
                mixer.Mix(samples.AsSpan(at, Math.Min(block, samples.Length - at)));
            return samples;
        }

        var whole = Mixed(20_000);
        Mixed(14).Zip(whole).ShouldAllBe(s => Math.Abs(s.First - s.Second) < 1e-6);
        Mixed(2_222).Zip(whole).ShouldAllBe(s => Math.Abs(s.First - s.Second) < 1e-6);
    }
}
