using Wexel.Core.Mixing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using static Wexel.Core.Tests.Mixing.Sounds;

namespace Wexel.Core.Tests.Mixing;

public class SoundBedTests
{
    /// <summary>A bar of so many beats at so many a minute lasts beats × 60 / tempo seconds (common practice, no source).</summary>
    [Theory]
    [InlineData(120, 4, 2000)]
    [InlineData(120, 3, 1500)]
    [InlineData(96, 4, 2500)]
    [InlineData(60, 1, 1000)]
    public void A_bar_is_its_beats(double tempo, int beats, long expected) => (Music with { Tempo = tempo, Beats = beats }).Bar.ShouldBe(Ms.Of(expected));

    [Fact]
    public void A_sound_without_a_beat_or_a_whole_bar_has_none()
    {
        (Music with { Tempo = null }).Bar.ShouldBeNull();
        (Music with { Length = Ms.Of(1900) }).Bar.ShouldBeNull();
        (Music with { FirstBeat = Ms.Of(10_500) }).Bar.ShouldBeNull();
    }

    [Theory]
    [InlineData(0, 0, 12_000)]
    [InlineData(500, 500, 10_000)]
    [InlineData(0, 0, 12_000, 11_998)]
    public void What_is_played_again_is_its_whole_bars(long first, long from, long length, long whole = 12_000)
    {
        var loop = (Music with { FirstBeat = Ms.Of(first), Length = Ms.Of(whole) }).Loop;
        loop.ShouldBe((Ms.Of(from), Ms.Of(length)));
    }

    [Theory]
    [InlineData(30_000, true, false, 30_000)]
    [InlineData(30_000, false, false, 12_000)]
    [InlineData(9_000, false, false, 9_000)]
    [InlineData(31_500, true, true, 30_000)]
    [InlineData(9_900, false, true, 8_000)]
    [InlineData(1_500, true, true, 1_500)]
    public void It_ends_with_its_stretch_or_its_own_end_or_at_a_bar(long length, bool loops, bool atBar, long expected) =>
        (Bed(5_000, 5_000 + length) with { Loops = loops, EndsAtBar = atBar }).Ends.ShouldBe(Ms.Of(5_000 + expected));

    [Fact]
    public void What_is_out_of_range_is_brought_into_it()
    {
        var tidy = SoundBed
            .Kind.Tidy(
                [
                    Bed(-2_000, 90_000) with
                    {
                        Apart = 3,
                        Duck = double.NaN,
                        Attack = TimeSpan.Zero,
                        Release = TimeSpan.FromMinutes(5),
                        FadeIn = TimeSpan.FromSeconds(-1),
                        Sound = Music with { Tempo = 5000, Beats = 0 },
                    },
                    Bed(70_000, 70_000),
                ],
                Ms.Of(60_000)
            )
            .ShouldHaveSingleItem();
        tidy.Span.ShouldBe(new TimeRange(TimeSpan.Zero, Ms.Of(60_000)));
        (tidy.Apart, tidy.Duck, tidy.Attack, tidy.Release, tidy.FadeIn).ShouldBe((15, 0, Ms.Of(20), Ms.Of(5_000), TimeSpan.Zero));
        (tidy.Sound.Tempo, tidy.Sound.Beats).ShouldBe((400, 1));
    }

    [Fact]
    public void Two_people_change_one_and_both_changes_stand()
    {
        var before = Bed(0, 20_000);
        var merged = SoundBed.Kind.Merged(before, before with { Apart = 25 }, before with { Sound = Music with { Key = new string('b', 64) } });
        (merged.Apart, merged.Sound.Key).ShouldBe((25, new string('b', 64)));
    }

    [Fact]
    public void A_cut_takes_it_along_and_a_split_gives_each_lesson_its_part()
    {
        var reel = Reel.Of(Sample.Facts());
        var map = reel.Map([new TimeRange(Ms.Of(5_000), Ms.Of(8_000))]);
        SoundBed.Kind.Following([Bed(2_000, 20_000)], map).ShouldHaveSingleItem().Span.ShouldBe(new TimeRange(Ms.Of(2_000), Ms.Of(17_000)));
        SoundBed.Kind.Gone([Bed(5_500, 7_000)], map).ShouldHaveSingleItem();
        SoundBed.Kind.Before([Bed(2_000, 20_000)], Ms.Of(10_000)).ShouldHaveSingleItem();
        SoundBed.Kind.From([Bed(2_000, 20_000)], Ms.Of(10_000)).ShouldHaveSingleItem();
    }

    [Theory]
    [InlineData("CC0-1.0", null)]
    [InlineData("CC-BY-4.0", "Sound: “Morning tide” by Elin Moor, CC BY 4.0, Attribution (https://creativecommons.org/licenses/by/4.0/).")]
    [InlineData("LicenseRef-AllRightsReserved", null)]
    [InlineData("Name me, please", "Sound: “Morning tide” by Elin Moor, Name me, please.")]
    public void A_licence_that_asks_for_the_author_gets_it(string licence, string? expected)
    {
        var sound = Music with { Author = "Elin Moor", Licence = licence };
        (sound.AsksForCredit ? sound.Credit : null).ShouldBe(expected);
    }

    [Fact]
    public void Where_somebody_speaks_is_what_the_look_through_heard_and_of_several_the_softest_counts()
    {
        var reel = Reel.Of([(Sample.Facts(), SoundSides.Same), (Sample.Facts(), SoundSides.Same)]);
        RecordingAnalysis Heard(double lufs, double peak) =>
            Sample.Analysis() with
            {
                // A second of silence, two of speech, and silence again.
                Levels = new SoundLevels(10, [.. Enumerable.Repeat(-80, 10), .. Enumerable.Repeat(-20, 20), .. Enumerable.Repeat(-80, 620)]),
                Loudness = new Loudness(lufs, 5, peak),
            };
        var voice = Voice.Of(reel, [Heard(-16, -5), Heard(-23, -1)], reel.Map([new TimeRange(TimeSpan.Zero, Ms.Of(1_500))]));
        voice.ShouldSatisfyAllConditions(
            v => v.Spoken.ShouldBe([new TimeRange(TimeSpan.Zero, Ms.Of(1_500)), new TimeRange(Ms.Of(64_500), Ms.Of(66_500))]),
            v => (v.Lufs, v.TruePeak).ShouldBe((-23, -1))
        );
        var nobody = Voice.Of(reel, [null, Sample.Analysis()], reel.Map([]));
        (nobody.Spoken.Count, nobody.Lufs, nobody.TruePeak).ShouldBe((0, null, null));
    }
}
