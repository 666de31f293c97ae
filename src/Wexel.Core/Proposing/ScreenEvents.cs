using Wexel.Core.Screens;
using Wexel.Core.Speech;

namespace Wexel.Core.Proposing;

/// <summary>A moment at which much of the screen became another.</summary>
/// <param name="At">When, in recording time.</param>
/// <param name="Share">How much of it, 0 to 1.</param>
/// <param name="IsPage">Whether it is another page: another heading stands on it, or nearly all else is another. Otherwise something opened or closed.</param>
/// <param name="Heading">The largest text that came with it; null where none is larger than the rest.</param>
internal sealed record ScreenEvent(TimeSpan At, double Share, bool IsPage, string? Heading)
{
    /// <summary>From this share on it may be another page.</summary>
    internal const double Page = 0.14;

    /// <summary>From this share on something opened.</summary>
    internal const double Window = 0.035;
}

/// <summary>Finds those moments.</summary>
internal static class ScreenEvents
{
    /// <summary>What changes within this time changes together: pages come in parts.</summary>
    private static readonly TimeSpan Together = TimeSpan.FromSeconds(1);

    /// <summary>A page that is left sooner was a look aside.</summary>
    private static readonly TimeSpan Aside = TimeSpan.FromSeconds(6);

    /// <summary>Text is large from here on, by the height of most lines.</summary>
    private const double Large = 1.25;

    /// <summary>By how much less text at the bottom counts than text at the top, where headings stand (common practice, no source).</summary>
    private const double LessBelow = 0.6;

    /// <summary>How high a capital is at most for the width of a letter (common practice, no source).</summary>
    private const double HighForWidth = 1.5;

    /// <summary>How far the same text may move and be the same, by its height.</summary>
    private const double SamePlace = 2;

    private const double Sure = 0.8;
    private const int FewLetters = 4;

    /// <summary>The moments, in order; looks aside and back are left out.</summary>
    internal static IReadOnlyList<ScreenEvent> Find(ScreenText screen)
    {
        var events = new List<(TimeSpan From, TimeSpan Until, double Share)>();
        foreach (var change in screen.Changes.Where(c => c.Share >= ScreenEvent.Window))
        {
            if (events.Count > 0 && change.At - events[^1].Until <= Together)
                events[^1] = (change.Share > 2 * events[^1].Share ? change.At : events[^1].From, change.At, Math.Max(events[^1].Share, change.Share));
            else
                events.Add((change.At, change.At, change.Share));
        }

        return [.. WithoutAsides(events, screen).Select(e => Event(e, Before(screen, e.From), After(screen, e.Until)))];
    }

    private static ScreenEvent Event((TimeSpan From, TimeSpan Until, double Share) e, ScreenPicture? before, ScreenPicture? after)
    {
        var heading = Heading(before, after);
        // A change seen at a sample happened in the half second before it.
        return new ScreenEvent(
            e.From - TimeSpan.FromSeconds(0.25),
            e.Share,
            e.Share >= ScreenEvent.Page && (heading is not null || before is null || after is null || !Alike(before, after)),
            heading
        );
    }

    private static List<(TimeSpan From, TimeSpan Until, double Share)> WithoutAsides(
        List<(TimeSpan From, TimeSpan Until, double Share)> events,
        ScreenText screen
    )
    {
        var left = new List<(TimeSpan From, TimeSpan Until, double Share)>();
        for (var i = 0; i < events.Count; i++)
        {
            var back = events.FindIndex(i + 1, e => e.Share >= ScreenEvent.Page && e.From - events[i].Until <= Aside);
            if (
                events[i].Share >= ScreenEvent.Page
                && back > 0
                && Before(screen, events[i].From) is { } before
                && After(screen, events[back].Until) is { } after
                && Alike(before, after)
            )
                i = back;
            else
                left.Add(events[i]);
        }

        return left;
    }

    private static ScreenPicture? Before(ScreenText screen, TimeSpan at) => screen.Pictures.LastOrDefault(p => p.Span.Start < at);

    private static ScreenPicture? After(ScreenText screen, TimeSpan at) =>
        screen.Pictures.FirstOrDefault(p => p.Span.Start >= at) ?? (screen.Pictures.Count > 0 ? screen.Pictures[^1] : null);

    /// <summary>Whether two pictures show the same page: the heading is the same, and some of the other large lines.</summary>
    private static bool Alike(ScreenPicture a, ScreenPicture b)
    {
        var lines = a.Lines.Where(l => l.Confidence >= Sure).OrderByDescending(l => l.Height).Take(10).ToList();
        return lines.Count > 0 && lines.Count(l => b.Lines.Any(o => Same(l, o))) >= 0.5 * lines.Count && Heading(null, a) == Heading(null, b);
    }

    /// <summary>Whether the same text stands in the same place.</summary>
    private static bool Same(ScreenLine a, ScreenLine b) =>
        WordList.Plain(a.Text) == WordList.Plain(b.Text)
        && Math.Abs(a.Box.X - b.Box.X) <= SamePlace * Math.Max(a.Height, b.Height)
        && Math.Abs(a.Box.Y - b.Box.Y) <= SamePlace * Math.Max(a.Height, b.Height);

    /// <summary>A box that is high for the width of its letters has something else in it.</summary>
    private static double LikelyHeight(ScreenLine line) => Math.Min(line.Height, HighForWidth * line.Box.Width / line.Text.Length);

    /// <summary>The largest line, the sooner the further up it stands; null where it is not new or not larger than most.</summary>
    internal static string? Heading(ScreenPicture? before, ScreenPicture? after)
    {
        if (after is null || after.Lines.Count == 0)
            return null;
        var usual = after.Lines.Select(l => l.Height).Order().ElementAt(after.Lines.Count / 2);
        var lowest = (double)after.Lines.Max(l => l.Box.Y + l.Box.Height);
        var heading = after
            .Lines.Where(l => l.Confidence >= Sure && l.Text.Count(char.IsLetter) >= FewLetters && LikelyHeight(l) >= Large * usual)
            .MaxBy(l => LikelyHeight(l) * (1 - (LessBelow * l.Box.Y / lowest)));
        if (heading is null)
            return null;
        return before is not null && before.Lines.Any(o => Same(heading, o)) ? null : heading.Text;
    }
}
