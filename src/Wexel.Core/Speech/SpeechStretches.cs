using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Speech;

/// <summary>Where a recording is listened to for speech, piece by piece: what was heard of one piece is kept before the next begins.</summary>
public static class SpeechStretches
{
    /// <summary>The longest piece; less is lost when one is broken off, more makes an engine surer of what it hears.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromSeconds(30);

    /// <summary>A pause from which on a piece ends where it is long enough.</summary>
    private static readonly TimeSpan Enough = TimeSpan.FromSeconds(20);

    /// <summary>A pause that is passed over.</summary>
    private static readonly TimeSpan LongPause = TimeSpan.FromSeconds(3);

    /// <summary>What is listened to before and after a sound, since words begin and end softly.</summary>
    private static readonly TimeSpan Margin = TimeSpan.FromSeconds(0.25);

    /// <summary>The pieces, in order and apart; none where nothing can be heard.</summary>
    /// <param name="levels">How loud the recording is from moment to moment; null without sound.</param>
    /// <param name="length">The recording's length.</param>
    public static IReadOnlyList<TimeRange> Find(SoundLevels? levels, TimeSpan length)
    {
        if (levels is not { CarriesSound: true })
            return [];
        var pieces = new List<TimeRange>();
        foreach (var sound in levels.Heard(levels.Threshold))
        {
            var wide = new TimeRange(Max(pieces.Count > 0 ? pieces[^1].End : TimeSpan.Zero, sound.Start - Margin), Min(length, sound.End + Margin));
            if (wide.End <= wide.Start)
                continue;
            if (pieces.Count > 0 && Joins(pieces[^1], wide))
                pieces[^1] = pieces[^1] with { End = wide.End };
            else
                pieces.AddRange(Parts(wide, levels));
        }

        return pieces;
    }

    private static bool Joins(TimeRange piece, TimeRange next) =>
        next.Start - piece.End < LongPause && piece.Length < Enough && next.End - piece.Start <= Longest;

    /// <summary>A sound without a pause is parted where it is most quiet.</summary>
    private static IEnumerable<TimeRange> Parts(TimeRange sound, SoundLevels levels)
    {
        var from = sound.Start;
        while (sound.End - from > Longest)
        {
            var (first, last) = (Index(from + Enough, levels), Index(from + Longest, levels));
            var quietest = Enumerable.Range(first, last - first).MinBy(i => levels.Dbfs[i]);
            var at = TimeSpan.FromSeconds((double)quietest / levels.PerSecond);
            yield return new TimeRange(from, at);
            from = at;
        }

        yield return new TimeRange(from, sound.End);
    }

    private static int Index(TimeSpan at, SoundLevels levels) => Math.Min(levels.Dbfs.Count, (int)(at.TotalSeconds * levels.PerSecond));

    private static TimeSpan Max(TimeSpan a, TimeSpan b) => a > b ? a : b;

    private static TimeSpan Min(TimeSpan a, TimeSpan b) => a < b ? a : b;
}
