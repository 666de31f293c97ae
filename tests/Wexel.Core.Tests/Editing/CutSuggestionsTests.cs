using CsCheck;
using Wexel.Core.Editing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Editing;

public sealed class CutSuggestionsTests
{
    private static readonly TimeSpan Minute = TimeSpan.FromSeconds(60);

    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    /// <summary>A minute with speech at the given stretches, over quiet noise.</summary>
    private static RecordingAnalysis Speaking(IEnumerable<TimeRange> speech, params TimeRange[] still)
    {
        var levels = Enumerable
            .Range(0, 1200)
            .Select(i => TimeSpan.FromSeconds(i / 20.0))
            .Select(at => speech.Any(s => s.Start <= at && at < s.End) ? -20 : -65);
        return Sample.Analysis() with { Levels = new SoundLevels(20, [.. levels]), Still = still };
    }

    private static IReadOnlyList<CutSuggestion> Of(RecordingAnalysis analysis, SuggestionSettings? settings = null) =>
        CutSuggestions.Find(analysis, Minute, settings ?? SuggestionSettings.Default);

    [Fact]
    public void Silence_at_both_ends_is_cut_up_to_a_breath_and_pauses_are_shortened()
    {
        var found = Of(Speaking([Range(4, 20), Range(21.5, 30), Range(34, 45), Range(55, 57)], Range(0, 60)));
        found.ShouldBe([
            new CutSuggestion(SuggestionKind.BeforeFirstWord, Range(0, 3.7), false),
            new CutSuggestion(SuggestionKind.Pause, Range(30.4, 33.6), false),
            new CutSuggestion(SuggestionKind.NothingHappens, Range(45.4, 54.6), false),
            new CutSuggestion(SuggestionKind.AfterLastWord, Range(57.3, 60), false),
        ]);
    }

    [Fact]
    public void What_is_shown_without_a_word_is_told_from_what_stands_still()
    {
        var speech = new[] { Range(0, 20), Range(40, 60) };
        Of(Speaking(speech)).ShouldBe([new CutSuggestion(SuggestionKind.Pause, Range(20.4, 39.6), true)]);
        // Something is shown from 20 to 25 and from 35 to 36; only what stands still between is suggested.
        Of(Speaking(speech, Range(25, 35), Range(36, 60)))
            .ShouldBe([
                new CutSuggestion(SuggestionKind.NothingHappens, Range(25.4, 34.6), false),
                new CutSuggestion(SuggestionKind.Pause, Range(36.4, 39.6), false),
            ]);
    }

    [Fact]
    public void Without_sound_only_what_stands_still_for_long_is_suggested()
    {
        var silent = Sample.Analysis() with { Levels = null, Still = [Range(0, 6), Range(10, 30)] };
        CutSuggestion[] expected = [new(SuggestionKind.NothingHappens, Range(10.4, 29.6), false)];
        Of(silent).ShouldBe(expected);
        Of(silent with { Levels = new SoundLevels(20, [.. Enumerable.Repeat(-75, 1200)]) })
            .ShouldBe(expected, "a track on which nothing can be heard is no sound");
    }

    [Fact]
    public void Thresholds_can_be_chosen()
    {
        var analysis = Speaking([Range(4, 20), Range(25, 58)], Range(0, 60));
        var settings = new SuggestionSettings(null, TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(6), TimeSpan.FromSeconds(2));
        Of(analysis, settings).Select(s => s.Range).ShouldBe([Range(0, 3), Range(59, 60)]);
        Of(analysis, settings with { Threshold = -70 }).ShouldBeEmpty("then the noise itself is heard");
        new SuggestionSettings(5, TimeSpan.FromSeconds(-1), TimeSpan.Zero, TimeSpan.FromSeconds(9))
            .Within()
            .ShouldBe(new SuggestionSettings(-10, TimeSpan.Zero, TimeSpan.FromSeconds(0.5), TimeSpan.FromSeconds(0.5)));
    }

    [Fact]
    public void The_sheet_folds_what_is_quiet_and_still()
    {
        var analysis = Speaking([Range(4, 20), Range(40, 58)], Range(0, 10), Range(18, 30), Range(33, 36));
        CutSuggestions.Quiet(analysis, Minute, TimeSpan.FromSeconds(3)).ShouldBe([Range(0, 4), Range(20, 30), Range(33, 36)]);
    }

    [Fact]
    public void Suggestions_lie_apart_within_the_recording_and_take_no_word()
    {
        var stretches = Gen.Double[0, 60]
            .Array[0, 14]
            .Select(edges =>
                TimeRange.Union(edges.Order().Chunk(2).Where(c => c.Length == 2).Select(c => Range(Math.Round(c[0] * 20) / 20, Math.Round(c[1] * 20) / 20)))
            );
        Gen.Select(stretches, stretches, Gen.Double[0, 2], Gen.Double[0.5, 5], Gen.Double[0, 3])
            .Sample(
                (speech, still, breath, longest, kept) =>
                {
                    var analysis = Speaking(speech, [.. still]);
                    var found = Of(
                        analysis,
                        new SuggestionSettings(null, TimeSpan.FromSeconds(breath), TimeSpan.FromSeconds(longest), TimeSpan.FromSeconds(kept))
                    );
                    found.ShouldAllBe(s => s.Range.Start >= TimeSpan.Zero && s.Range.End <= Minute && s.Range.Length > TimeSpan.Zero);
                    found.Zip(found.Skip(1)).ShouldAllBe(p => p.First.Range.End <= p.Second.Range.Start);
                    if (analysis.Levels is { CarriesSound: true } levels)
                        levels.Heard(levels.Threshold).ShouldAllBe(word => found.All(s => s.Range.End <= word.Start || s.Range.Start >= word.End));
                },
                iter: 400
            );
    }

    [Theory]
    [InlineData("0:59 - 1:00", null)]
    [InlineData("1:00 - 1:01", "cuts-late")]
    [InlineData("0:10 - 0:10", "cuts-backward")]
    public void A_cut_begins_before_the_end(string line, string? code) =>
        (CutsText.Read(line, TimeSpan.FromMinutes(1)).Problems is [var problem] ? problem.Code : null).ShouldBe(code);
}
