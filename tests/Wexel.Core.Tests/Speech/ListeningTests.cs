using Wexel.Core.Recordings;
using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Speech;

/// <summary>Where a recording is listened to, what is known before, and how errors are counted.</summary>
public class ListeningTests
{
    private const int PerSecond = 20;
    private const int Voice = -20;
    private const int Noise = -70;

    [Fact]
    public void Pieces_are_parted_at_pauses_cover_all_that_is_heard_and_pass_over_silence()
    {
        var levels = Levels((10, Noise), (8, Voice), (0.6, Noise), (14, Voice), (0.6, Noise), (12, Voice), (60, Noise), (5, Voice));
        var pieces = SpeechStretches.Find(levels, TimeSpan.FromSeconds(110.2));
        pieces.ShouldAllBe(p => p.Length <= SpeechStretches.Longest);
        pieces.Zip(pieces.Skip(1)).ShouldAllBe(p => p.First.End <= p.Second.Start);
        pieces[0].Start.ShouldBe(TimeSpan.FromSeconds(9.75));
        foreach (var heard in levels.Heard(levels.Threshold))
            pieces.ShouldContain(p => p.Start <= heard.Start && p.End >= heard.End);
        pieces.Sum(p => p.Length.TotalSeconds).ShouldBeLessThan(45);
    }

    [Fact]
    public void A_sound_without_a_pause_is_parted_where_it_is_quietest()
    {
        var levels = Levels((5, Noise), (25, Voice), (0.1, Voice - 4), (40, Voice), (5, Noise));
        var pieces = SpeechStretches.Find(levels, TimeSpan.FromSeconds(75.1));
        pieces.Count.ShouldBeGreaterThan(1);
        pieces[0].End.TotalSeconds.ShouldBe(30, 0.2);
        TimeRange.Union(pieces).Count.ShouldBe(1);
    }

    [Fact]
    public void Silence_is_not_listened_to()
    {
        SpeechStretches.Find(null, TimeSpan.FromSeconds(9)).ShouldBeEmpty();
        SpeechStretches.Find(Levels((9, -80)), TimeSpan.FromSeconds(9)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(-20, -70, 90, "")]
    [InlineData(-45, -75, 30, "speech-quiet")]
    [InlineData(-20, -32, 90, "speech-noisy")]
    [InlineData(-8, -60, 100, "speech-clipped")]
    [InlineData(-80, -85, 1, "speech-none")]
    public void A_poor_draft_is_known_before(int voice, int noise, int peak, string code)
    {
        var levels = Levels((3, noise), (20, voice), (3, noise), (20, voice));
        var found = new RecordingAnalysis(
            null,
            [],
            0,
            [],
            [],
            null,
            null,
            1,
            [.. levels.Dbfs.Chunk(PerSecond).Select(s => s.Max() >= voice ? peak : 1)],
            levels,
            new Loudness(-20, 3, peak >= 100 ? 0.4 : -2)
        );
        string.Join(' ', SpeechOutlook.Find(found).Select(p => p.Code)).ShouldBe(code);
    }

    /// <summary>The example of NIST's sclite manual has one of each kind: a word taken for another, one left out, one added (from memory).</summary>
    [Theory]
    [InlineData("a b c d", "a x c d e", 1, 0, 1)]
    [InlineData("a b c d", "a c d", 0, 1, 0)]
    [InlineData("", "a", 0, 0, 1)]
    [InlineData("a b", "", 0, 2, 0)]
    [InlineData("open the desk for the day", "help on the desk for the day", 1, 0, 1)]
    public void Errors_are_counted_as_words_wrong_missed_and_added(string said, string heard, int wrong, int missed, int added) =>
        WordErrors.Of(WordList.PlainWords(said), WordList.PlainWords(heard)).ShouldBe(new WordErrors(WordList.PlainWords(said).Length, wrong, missed, added));

    private static SoundLevels Levels(params (double Seconds, int Dbfs)[] parts) =>
        new(PerSecond, [.. parts.SelectMany(p => Enumerable.Repeat(p.Dbfs, (int)Math.Round(p.Seconds * PerSecond)))]);
}
