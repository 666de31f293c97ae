using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Recordings;

public class SoundTracksTests
{
    private static readonly SoundLevels Silence = new(10, [.. Enumerable.Repeat(SoundLevels.Lowest, 200)]);
    private static readonly SoundLevels Hum = new(10, [.. Enumerable.Repeat(-30, 200)]);
    private static readonly SoundLevels Clicks = new(10, [.. Enumerable.Range(0, 200).Select(i => i % 50 < 2 ? -20 : -80)]);
    private static readonly SoundLevels Speech = new(10, [.. Enumerable.Range(0, 200).Select(i => i % 7 < 4 ? -22 : -60)]);

    [Fact]
    public void The_track_in_which_somebody_speaks_is_found_wherever_it_lies()
    {
        SoundTracks.Spoken([Silence, Speech]).ShouldBe(1);
        SoundTracks.Spoken([Speech, Hum]).ShouldBe(0);
        SoundTracks.Spoken([Hum, Clicks, Speech]).ShouldBe(2);
        SoundTracks.Spoken([Silence, Hum]).ShouldBe(1);
        SoundTracks.Spoken([Silence, Silence]).ShouldBe(0);
    }

    [Theory]
    [InlineData("2", new[] { 1 })]
    [InlineData("3+1", new[] { 0, 2 })]
    [InlineData(" all ", new[] { 0, 1, 2 })]
    [InlineData("4", null)]
    [InlineData("0", null)]
    [InlineData("first", null)]
    [InlineData("1+", null)]
    public void A_choice_is_read(string choice, int[]? places) => SoundTracks.Read(choice, 3).ShouldBe(places);

    [Fact]
    public void What_is_used_is_said_where_there_is_a_choice()
    {
        var facts = Sample.Facts() with { Sounds = [new("aac", 2, "stereo", 48_000), new("aac", 1, "mono", 48_000)] };
        SoundTracks.InWords(facts with { UsedSounds = [1] }).ShouldBe("There are 2 sound tracks; track 2 is used.");
        SoundTracks.InWords(facts with { UsedSounds = [0, 1] }).ShouldBe("There are 2 sound tracks; tracks 1 and 2 are used together.");
        SoundTracks.InWords(Sample.Facts()).ShouldBeNull();
        (facts with { UsedSounds = [1] }).Sound!.Channels.ShouldBe(1);
    }

    [Fact]
    public void Where_nobody_speaks_it_is_the_first_that_can_be_heard()
    {
        Hum.Edges().Count.ShouldBe(2);
        // What is as loud from end to end begins at the start and ends at the end.
        Hum.Edges().ShouldBe([TimeSpan.Zero, TimeSpan.FromSeconds(20)]);
        SoundTracks.Spoken([Silence, Silence, Silence]).ShouldBe(0);
    }

    [Fact]
    public void A_level_at_the_threshold_is_heard()
    {
        // Of the quietest tenth at −60 and the loud parts at −20: the threshold is −50.
        var levels = new SoundLevels(10, [.. Enumerable.Repeat(-60, 40), .. Enumerable.Repeat(-50, 20), .. Enumerable.Repeat(-20, 40)]);
        levels.Threshold.ShouldBe(-50);
        levels.Edges().ShouldBe([TimeSpan.FromSeconds(4), TimeSpan.FromSeconds(10)]);
        levels.Heard(levels.Threshold).ShouldBe([new(TimeSpan.FromSeconds(4), TimeSpan.FromSeconds(10))]);
    }

    [Fact]
    public void Of_two_sounds_the_first_ends_where_it_ends()
    {
        var levels = new SoundLevels(10, [.. Enumerable.Repeat(-20, 3), .. Enumerable.Repeat(-80, 5), .. Enumerable.Repeat(-20, 4)]);
        levels.Heard(-50).ShouldBe([new(TimeSpan.Zero, TimeSpan.FromSeconds(0.3)), new(TimeSpan.FromSeconds(0.8), TimeSpan.FromSeconds(1.2))]);
        // Three stretches of a tenth are as long as a gap between syllables: 0.25 s, rounded.
        new SoundLevels(10, [-20, -20, -80, -20, -20]).Heard(-50).ShouldBe([new(TimeSpan.Zero, TimeSpan.FromSeconds(0.5))]);
        new SoundLevels(10, [-20, -20, -80, -80, -20, -20]).Heard(-50).Count.ShouldBe(2);
    }
}
