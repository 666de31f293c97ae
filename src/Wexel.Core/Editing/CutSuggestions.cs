using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Editing;

/// <summary>Why a cut is suggested.</summary>
public enum SuggestionKind
{
    /// <summary>Silence before the first word.</summary>
    BeforeFirstWord,

    /// <summary>Silence after the last word.</summary>
    AfterLastWord,

    /// <summary>A pause between words.</summary>
    Pause,

    /// <summary>A long while in which neither picture nor sound does anything.</summary>
    NothingHappens,
}

/// <summary>A cut that is suggested.</summary>
/// <param name="Kind">Why.</param>
/// <param name="Range">What would be cut, in recording time; the breath and what is kept of a pause are not in it.</param>
/// <param name="ScreenChanges">Whether something on the screen changes in it, so that a cut takes more than silence.</param>
public sealed record CutSuggestion(SuggestionKind Kind, TimeRange Range, bool ScreenChanges);

/// <summary>How cuts are suggested.</summary>
/// <param name="Threshold">The level from which something counts as heard, in dBFS, −90 to −10; null for the recording's own, see <see
/// cref="SoundLevels.Threshold"/>.</param>
/// <param name="Breath">What is left before the first and after the last word, 0 to 5 s.</param>
/// <param name="LongestPause">A pause longer than this is suggested, 0.5 s to 60 s.</param>
/// <param name="KeptPause">What is kept of it, 0 s up to the longest pause.</param>
public sealed record SuggestionSettings(int? Threshold, TimeSpan Breath, TimeSpan LongestPause, TimeSpan KeptPause)
{
    /// <summary>What is used where nobody chose: 0.3 s of breath; pauses longer than 2 s are shortened to 0.8 s.</summary>
    public static SuggestionSettings Default { get; } = new(null, TimeSpan.FromSeconds(0.3), TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(0.8));

    /// <summary>The nearest settings that can be used.</summary>
    public SuggestionSettings Within()
    {
        static TimeSpan Clamp(TimeSpan time, double least, double most) => TimeSpan.FromSeconds(Math.Clamp(time.TotalSeconds, least, most));
        var longest = Clamp(LongestPause, 0.5, 60);
        return new SuggestionSettings(
            Threshold is { } t ? Math.Clamp(t, SoundLevels.Lowest, -10) : null,
            Clamp(Breath, 0, 5),
            longest,
            Clamp(KeptPause, 0, longest.TotalSeconds)
        );
    }
}

/// <summary>Suggests cuts: silence at both ends, pauses, and stretches in which nothing happens.</summary>
public static class CutSuggestions
{
    /// <summary>From this length on a pause in which the screen stands still is one in which nothing happens.</summary>
    public static readonly TimeSpan NothingFrom = TimeSpan.FromSeconds(8);

    /// <summary>A shorter cut is not worth suggesting.</summary>
    private static readonly TimeSpan Shortest = TimeSpan.FromSeconds(0.3);

    /// <summary>The suggestions for a recording, in order; none overlaps another.</summary>
    /// <param name="analysis">What looking through it found.</param>
    /// <param name="length">Its length.</param>
    /// <param name="settings">How they are made; see <see cref="SuggestionSettings.Within"/>.</param>
    public static IReadOnlyList<CutSuggestion> Find(RecordingAnalysis analysis, TimeSpan length, SuggestionSettings settings)
    {
        settings = settings.Within();
        var heard = Heard(analysis, settings.Threshold);
        return heard.Count == 0
            ? [.. StillParts(analysis, new TimeRange(TimeSpan.Zero, length), NothingFrom, settings.KeptPause)]
            :
            [
                .. Ends(analysis, heard, length, settings.Breath)
                    .Concat(Pauses(analysis, heard, settings))
                    .Where(s => s.Range.Length >= Shortest)
                    .OrderBy(s => s.Range.Start),
            ];
    }

    /// <summary>The stretches in which nothing changes and nobody speaks, which the run sheet folds: in order, apart, at least as long as asked.</summary>
    /// <param name="analysis">What looking through the recording found.</param>
    /// <param name="length">Its length.</param>
    /// <param name="shortest">The shortest that counts.</param>
    public static IReadOnlyList<TimeRange> Quiet(RecordingAnalysis analysis, TimeSpan length, TimeSpan shortest)
    {
        var quiet = new List<TimeRange>();
        var from = TimeSpan.Zero;
        foreach (var heard in Heard(analysis, null).Append(new TimeRange(length, length)))
        {
            quiet.AddRange(Within(analysis.Still, new TimeRange(from, heard.Start)).Where(r => r.Length >= shortest));
            from = heard.End;
        }

        return quiet;
    }

    private static IReadOnlyList<TimeRange> Heard(RecordingAnalysis analysis, int? threshold) =>
        analysis.Levels is { CarriesSound: true } levels ? levels.Heard(threshold ?? levels.Threshold) : [];

    private static IEnumerable<CutSuggestion> Ends(RecordingAnalysis analysis, IReadOnlyList<TimeRange> heard, TimeSpan length, TimeSpan breath)
    {
        var before = new TimeRange(TimeSpan.Zero, heard[0].Start - breath);
        if (before.End > before.Start)
            yield return new CutSuggestion(SuggestionKind.BeforeFirstWord, before, Changes(analysis, before));
        var after = new TimeRange(heard[^1].End + breath, length);
        if (after.End > after.Start)
            yield return new CutSuggestion(SuggestionKind.AfterLastWord, after, Changes(analysis, after));
    }

    private static IEnumerable<CutSuggestion> Pauses(RecordingAnalysis analysis, IReadOnlyList<TimeRange> heard, SuggestionSettings settings)
    {
        for (var i = 0; i + 1 < heard.Count; i++)
        {
            var pause = new TimeRange(heard[i].End, heard[i + 1].Start);
            if (pause.Length <= settings.LongestPause)
                continue;
            var cut = Shrunk(pause, settings.KeptPause);
            if (!Changes(analysis, cut))
            {
                yield return new CutSuggestion(Named(pause), cut, false);
                continue;
            }

            // Somebody may be showing something without a word: what stands still in it is suggested by itself.
            var still = StillParts(analysis, pause, settings.LongestPause, settings.KeptPause).ToList();
            if (still.Count == 0)
                yield return new CutSuggestion(SuggestionKind.Pause, cut, true);
            foreach (var part in still)
                yield return part;
        }
    }

    private static IEnumerable<CutSuggestion> StillParts(RecordingAnalysis analysis, TimeRange within, TimeSpan longerThan, TimeSpan kept) =>
        Within(analysis.Still, within).Where(part => part.Length > longerThan).Select(part => new CutSuggestion(Named(part), Shrunk(part, kept), false));

    private static SuggestionKind Named(TimeRange quiet) => quiet.Length >= NothingFrom ? SuggestionKind.NothingHappens : SuggestionKind.Pause;

    private static TimeRange Shrunk(TimeRange range, TimeSpan kept) => new(range.Start + kept / 2, range.End - kept / 2);

    private static IEnumerable<TimeRange> Within(IReadOnlyList<TimeRange> ranges, TimeRange bounds) =>
        ranges.Select(r => new TimeRange(r.Start > bounds.Start ? r.Start : bounds.Start, r.End < bounds.End ? r.End : bounds.End)).Where(r => r.End > r.Start);

    /// <summary>Whether anything on the screen changes in a stretch: less than all of it stands still, but for the time between two samples.</summary>
    private static bool Changes(RecordingAnalysis analysis, TimeRange range)
    {
        var still = Within(analysis.Still, range).Aggregate(TimeSpan.Zero, (sum, r) => sum + r.Length);
        return range.Length - still > TimeSpan.FromSeconds(0.05);
    }
}
