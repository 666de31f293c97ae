using System.Globalization;
using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>What of the guidelines a caption breaks.</summary>
public enum GuidelineBreak
{
    /// <summary>More lines than can be shown.</summary>
    TooManyLines,

    /// <summary>A line is longer than is read at a glance.</summary>
    LineTooLong,

    /// <summary>A line ends between words that belong together.</summary>
    BadLineBreak,

    /// <summary>It is gone before it can be read.</summary>
    TooFast,

    /// <summary>It is shown for too short a time to be noticed.</summary>
    TooShort,

    /// <summary>It stays for too long.</summary>
    TooLong,

    /// <summary>It is still there when the next one comes.</summary>
    Overlaps,

    /// <summary>There is hardly a gap to the next one, so that nobody sees the change.</summary>
    GapTooShort,

    /// <summary>It goes over a cut: what is said on both sides of it stands in one.</summary>
    OverCut,
}

/// <summary>Something that breaks a guideline, with what mends it.</summary>
/// <param name="Cue">The caption's name.</param>
/// <param name="At">Where it begins, in recording time.</param>
/// <param name="Break">What it breaks.</param>
/// <param name="Sentence">What is wrong, with its figures.</param>
/// <param name="MendWords">What the mend does, as a verb: “Show it longer”; null where only its words can be made fewer.</param>
/// <param name="Mend">What changes then; null where nothing does by itself.</param>
public sealed record GuidelineFinding(string Cue, TimeSpan At, GuidelineBreak Break, string Sentence, string? MendWords, CueChanges? Mend);

/// <summary>Finds what in a track breaks <see cref="CaptionGuidelines"/>, each with the mend that one click makes.</summary>
/// <param name="guidelines">What is kept to.</param>
/// <param name="grid">The lesson's frames.</param>
/// <param name="cuts">What is cut, in recording time.</param>
/// <param name="length">The recording's length.</param>
public sealed class GuidelineCheck(CaptionGuidelines guidelines, FrameRate grid, IReadOnlyList<TimeRange> cuts, TimeSpan length)
{
    /// <summary>A line that ends in a word that binds as an article does.</summary>
    private const int Bound = 40;

    /// <summary>How much too fast it must be to be said, so that rounding to milliseconds is no fault.</summary>
    private const double Tolerance = 0.05;

    /// <summary>All findings, in order of time.</summary>
    /// <param name="cues">In order of time.</param>
    public IReadOnlyList<GuidelineFinding> Find(IReadOnlyList<Cue> cues) =>
        [.. cues.Index().SelectMany(c => Find(c.Item, c.Index > 0 ? cues[c.Index - 1] : null, c.Index + 1 < cues.Count ? cues[c.Index + 1] : null))];

    private IEnumerable<GuidelineFinding> Find(Cue cue, Cue? before, Cue? next) =>
        new[] { Lines(cue), Speed(cue, before, next), Edge(cue, next), OverCut(cue) }.OfType<GuidelineFinding>();

    private static GuidelineFinding? Lines(Cue cue)
    {
        var lines = cue.Text.Split('\n');
        var longest = lines.Max(l => l.Length);
        var words = cue.Text.Split(['\n', ' '], StringSplitOptions.RemoveEmptyEntries);
        var rebroken = LineBreaks.Lines(words);
        var fits = rebroken.Split('\n').Length <= CaptionGuidelines.MostLines;
        var mend = fits ? Set(cue with { Text = rebroken, Markup = null }) : Parted(cue, words);
        var mendWords = fits ? "Break the lines anew" : "Part it in two";
        if (lines.Length > CaptionGuidelines.MostLines)
            return new(
                cue.Id,
                cue.Span.Start,
                GuidelineBreak.TooManyLines,
                $"It has {lines.Length} lines; {CaptionGuidelines.MostLines} are shown well.",
                mendWords,
                mend
            );
        if (longest > CaptionGuidelines.LineLength)
            return new(
                cue.Id,
                cue.Span.Start,
                GuidelineBreak.LineTooLong,
                $"A line has {longest} characters; {CaptionGuidelines.LineLength} are read at a glance.",
                mend is null ? null : mendWords,
                mend
            );
        var bound = lines.SkipLast(1).Select(l => l.Split(' ')[^1]).FirstOrDefault(w => LineBreaks.Badness(w) >= Bound);
        if (bound is null)
            return null;
        var isBetter = fits && rebroken != cue.Text && rebroken.Split('\n').SkipLast(1).All(l => LineBreaks.Badness(l.Split(' ')[^1]) < Bound);
        return new(
            cue.Id,
            cue.Span.Start,
            GuidelineBreak.BadLineBreak,
            $"A line ends with “{bound}”, apart from what it belongs to.",
            isBetter ? mendWords : null,
            isBetter ? mend : null
        );
    }

    private GuidelineFinding? Speed(Cue cue, Cue? before, Cue? next)
    {
        var speed = CaptionGuidelines.PerSecond(cue.Text, cue.Span.Length);
        var isFast = speed > guidelines.MostPerSecond + Tolerance;
        if (cue.Span.Length > CaptionGuidelines.Longest)
        {
            var words = cue.Text.Split(['\n', ' '], StringSplitOptions.RemoveEmptyEntries);
            var parted = Parted(cue, words);
            return new(
                cue.Id,
                cue.Span.Start,
                GuidelineBreak.TooLong,
                $"It stays for {Seconds(cue.Span.Length)}; after {Seconds(CaptionGuidelines.Longest)} it is read a second time.",
                parted is null ? "End it earlier" : "Part it in two",
                parted ?? Set(cue with { Span = cue.Span with { End = cue.Span.Start + CaptionGuidelines.Longest } })
            );
        }

        if (!isFast && cue.Span.Length >= CaptionGuidelines.Shortest)
            return null;
        var longer = Longer(cue, before, next);
        return new(
            cue.Id,
            cue.Span.Start,
            isFast ? GuidelineBreak.TooFast : GuidelineBreak.TooShort,
            isFast
                ? $"{Number(speed)} characters a second; {Number(guidelines.MostPerSecond)} can be read."
                : $"It is shown for {Seconds(cue.Span.Length)}; under {Seconds(CaptionGuidelines.Shortest)} it is missed.",
            longer is null ? null : "Show it longer",
            longer
        );
    }

    /// <summary>Into what is free after it, and then before it.</summary>
    private CueChanges? Longer(Cue cue, Cue? before, Cue? next)
    {
        var toRead = guidelines.ToRead(cue.Text);
        var wanted = toRead > CaptionGuidelines.Shortest ? toRead : CaptionGuidelines.Shortest;
        wanted = wanted > CaptionGuidelines.Longest ? CaptionGuidelines.Longest : wanted;
        var gap = CaptionGuidelines.Gap(grid);
        var latest = next is null ? length : next.Span.Start - gap;
        var earliest = before is null ? TimeSpan.Zero : before.Span.End + gap;
        var end = Max(cue.Span.End, Min(latest, cue.Span.Start + wanted));
        var start = Min(cue.Span.Start, Max(earliest, end - wanted));
        var span = new TimeRange(start, end);
        return span.Length > cue.Span.Length ? Set(cue with { Span = span }) : null;
    }

    private GuidelineFinding? Edge(Cue cue, Cue? next)
    {
        if (next is null)
            return null;
        var (between, gap) = (next.Span.Start - cue.Span.End, CaptionGuidelines.Gap(grid));
        // Times are kept in whole milliseconds.
        if (between >= gap - TimeSpan.FromMilliseconds(1))
            return null;
        var end = next.Span.Start - gap;
        var mend = end > cue.Span.Start ? Set(cue with { Span = cue.Span with { End = end } }) : null;
        return between < TimeSpan.Zero
            ? new(
                cue.Id,
                cue.Span.Start,
                GuidelineBreak.Overlaps,
                $"It is still there for {Seconds(-between)} when the next one comes.",
                mend is null ? null : "End it before",
                mend
            )
            : new(
                cue.Id,
                cue.Span.Start,
                GuidelineBreak.GapTooShort,
                $"The gap to the next one is shorter than {CaptionGuidelines.GapFrames} frames, so that nobody sees the change.",
                mend is null ? null : "End it before",
                mend
            );
    }

    private GuidelineFinding? OverCut(Cue cue)
    {
        var cut = cuts.FirstOrDefault(c => c.Start > cue.Span.Start && c.End < cue.Span.End);
        if (cut.Length <= TimeSpan.Zero)
            return null;
        var words = cue.Text.Split(['\n', ' '], StringSplitOptions.RemoveEmptyEntries);
        var share = (cut.Start - cue.Span.Start) / (cue.Span.Length - cut.Length);
        var at = Enumerable
            .Range(1, Math.Max(0, words.Length - 1))
            .Cast<int?>()
            .MinBy(i => Math.Abs((CharactersBefore(words, i!.Value) / (double)cue.Text.Length) - share));
        CueChanges? mend = at is { } word
            ? new(
                [
                    cue with
                    {
                        Span = cue.Span with { End = cut.Start },
                        Text = LineBreaks.Lines(words[..word]),
                        Markup = null,
                    },
                    new Cue(cue.Span with { Start = cut.End }, LineBreaks.Lines(words[word..]), AtTop: cue.AtTop, Id: cue.Id + "+"),
                ],
                []
            )
            : null;
        return new(
            cue.Id,
            cue.Span.Start,
            GuidelineBreak.OverCut,
            "It goes over a cut, so that words stand there that are not said.",
            mend is null ? null : "Part it at the cut",
            mend
        );
    }

    /// <summary>Two captions of one, parted where it is best; null where it has one word, or a part would be too short.</summary>
    private static CueChanges? Parted(Cue cue, string[] words)
    {
        if (words.Length < 2)
            return null;
        var whole = string.Join(' ', words).Length;
        var at = Enumerable.Range(1, words.Length - 1).MinBy(i => LineBreaks.Badness(words[i - 1]) + Math.Abs((2 * CharactersBefore(words, i)) - whole));
        var middle = cue.Span.Start + TimeSpan.FromMilliseconds(Math.Round(cue.Span.Length.TotalMilliseconds * CharactersBefore(words, at) / whole));
        if (middle - cue.Span.Start < CaptionGuidelines.Shortest || cue.Span.End - middle < CaptionGuidelines.Shortest)
            return null;
        return new(
            [
                cue with
                {
                    Span = cue.Span with { End = middle },
                    Text = LineBreaks.Lines(words[..at]),
                    Markup = null,
                },
                new Cue(cue.Span with { Start = middle }, LineBreaks.Lines(words[at..]), AtTop: cue.AtTop, Id: cue.Id + "+"),
            ],
            []
        );
    }

    private static int CharactersBefore(string[] words, int at) => words.Take(at).Sum(w => w.Length + 1) - 1;

    private static CueChanges Set(Cue cue) => new([cue], []);

    private static string Number(double number) => number.ToString(number < 100 ? "0.#" : "0", CultureInfo.InvariantCulture);

    private static string Seconds(TimeSpan time) => $"{Number(Math.Round(time.TotalSeconds, 1))} s";

    private static TimeSpan Max(TimeSpan a, TimeSpan b) => a > b ? a : b;

    private static TimeSpan Min(TimeSpan a, TimeSpan b) => a < b ? a : b;
}
