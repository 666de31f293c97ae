using Wexel.Core.Contents;
using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Proposing;

/// <summary>Proposes contents from what changes on the screen, pauses, how people begin something new, a script's headings, and large text.</summary>
public static class ContentsProposals
{
    /// <summary>How many are proposed where nobody chose, 0 (few) to 1 (many).</summary>
    public const double UsualAmount = 0.5;

    /// <summary>Sections that are nearer to each other are one.</summary>
    public static readonly TimeSpan Same = TimeSpan.FromSeconds(3);

    /// <summary>How long into a sentence what it is about may come on the screen.</summary>
    private static readonly TimeSpan Following = TimeSpan.FromSeconds(5);

    /// <summary>What begins nearer to the end is no section.</summary>
    private static readonly TimeSpan Shortest = TimeSpan.FromSeconds(8);

    private static readonly TimeSpan Preceding = TimeSpan.FromSeconds(1);

    /// <summary>Fewer words are no title.</summary>
    private const int FewWords = 2;

    private const int MostWords = 7;

    private sealed record Place(TimeSpan At, SaidSentence? Sentence, TimeSpan Pause, ScreenEvent? Event)
    {
        internal Dictionary<SectionSign, double> Signs { get; } = [];

        internal double Weight => Signs.Values.Sum();

        /// <summary>Whether it is known and not concluded.</summary>
        internal bool IsCertain => Signs.ContainsKey(SectionSign.Script) || Signs.ContainsKey(SectionSign.Recording);

        internal string? Title { get; set; }
    }

    /// <summary>The sections that are proposed, in order; the first is at the beginning.</summary>
    /// <param name="signs">What is known of the lesson.</param>
    /// <param name="amount">Few (0) to many (1).</param>
    public static IReadOnlyList<SectionProposal> Find(LessonSigns signs, double amount)
    {
        amount = Math.Clamp(amount, 0, 1);
        var (least, apart) = (Between(1.7, 0.4, amount), TimeSpan.FromSeconds(Between(22, 5, amount)));
        var taken = new List<Place>();
        foreach (var place in Places(signs).Where(p => p.Weight >= least).OrderByDescending(p => p.Weight).ThenBy(p => p.At))
        {
            var near =
                place.IsCertain ? Same
                : place.Event is { IsPage: true, Heading: not null } ? Later(Same, apart / 2)
                : apart;
            if (!taken.Exists(t => (t.At - place.At).Duration() < near))
                taken.Add(place);
        }

        return
        [
            .. taken
                .OrderBy(p => p.At)
                .Select(p => new SectionProposal(
                    p.At,
                    p.Title ?? p.Event?.Heading ?? Title(p.Sentence?.Text ?? ""),
                    [.. p.Signs.OrderByDescending(s => s.Value).Select(s => s.Key)],
                    p.Pause,
                    Math.Round(p.Weight, 3)
                )),
        ];
    }

    private static double Between(double few, double many, double amount) => few + ((many - few) * amount);

    private static List<Place> Places(LessonSigns signs)
    {
        var events = ScreenEvents.Find(signs.Screen).ToList();
        var words = new WordChange(signs.Said);
        var usual = Usual(signs.Said);
        var places = new List<Place>();
        foreach (var (index, sentence) in signs.Said.Index())
        {
            var pause = sentence.Span.Start - (index == 0 ? TimeSpan.Zero : signs.Said[index - 1].Span.End);
            var until = index + 1 < signs.Said.Count ? signs.Said[index + 1].Span.Start - Preceding : signs.Length;
            var (from, to) = (sentence.Span.Start - Preceding, Earlier(until, Later(sentence.Span.End, sentence.Span.Start + Following)));
            var seen = events.Where(e => e.At >= from && e.At < to).MaxBy(e => (e.IsPage, e.Heading is not null, e.Share));
            events.RemoveAll(e => e.At >= from && e.At < to);
            var place = new Place(Snapped(sentence.Span.Start, index == 0 ? TimeSpan.Zero : signs.Said[index - 1].Span.End, seen), sentence, pause, seen);
            Weigh(place, seen);
            if (pause > usual * 1.25 && pause > TimeSpan.FromSeconds(0.8))
                place.Signs[SectionSign.Pause] = 0.35 * Math.Min(1, (pause / usual) - 1);
            if (Openers.Weight(sentence.Text) is > 0 and var opens)
                place.Signs[SectionSign.Phrase] = 0.9 * opens;
            if (words.At(index) is > 0.2 and var other)
                place.Signs[SectionSign.OtherWords] = 0.6 * other;
            places.Add(place);
        }

        // What happens where nobody speaks.
        foreach (var seen in events)
        {
            var place = new Place(seen.At, null, TimeSpan.Zero, seen);
            Weigh(place, seen);
            places.Add(place);
        }

        foreach (var joint in signs.Joints)
            Near(places, joint).Signs[SectionSign.Recording] = 2;
        foreach (var (at, title) in signs.Headings)
        {
            var place = Near(places, at);
            (place.Signs[SectionSign.Script], place.Title) = (4, title);
        }

        var first = Near(places, TimeSpan.Zero);
        var beginning = new Place(TimeSpan.Zero, first.Sentence ?? Near(places, TimeSpan.FromSeconds(2)).Sentence, TimeSpan.Zero, null)
        {
            Title = first.Title ?? FirstHeading(signs),
        };
        beginning.Signs[SectionSign.Beginning] = 5;
        var end = signs.Length - Shortest;
        return [beginning, .. places.Where(p => p.At >= Same && (p.At <= end || p.IsCertain))];
    }

    private static void Weigh(Place place, ScreenEvent? seen)
    {
        if (seen is null)
            return;
        if (seen.IsPage)
            place.Signs[SectionSign.PageChanged] = 1.6;
        else
            place.Signs[SectionSign.WindowChanged] = 0.3 + (0.6 * Math.Min(1, (seen.Share - ScreenEvent.Window) / (ScreenEvent.Page - ScreenEvent.Window)));
        if (seen.Heading is not null)
            place.Signs[SectionSign.LargestText] = 0.4;
    }

    private static string? FirstHeading(LessonSigns signs) => signs.Screen.Pictures.Count == 0 ? null : ScreenEvents.Heading(null, signs.Screen.Pictures[0]);

    /// <summary>Where the page changes while nobody speaks it is there, otherwise where the sentence begins.</summary>
    private static TimeSpan Snapped(TimeSpan begins, TimeSpan silentSince, ScreenEvent? seen) =>
        seen is not null && seen.At >= silentSince && seen.At < begins ? seen.At : begins;

    private static Place Near(List<Place> places, TimeSpan at)
    {
        var near = places.MinBy(p => (p.At - at).Duration());
        if (near is not null && (near.At - at).Duration() < Same)
            return near;
        var place = new Place(at, null, TimeSpan.Zero, null);
        places.Add(place);
        return place;
    }

    /// <summary>How long the voice usually pauses between sentences.</summary>
    private static TimeSpan Usual(IReadOnlyList<SaidSentence> said)
    {
        var pauses = said.Zip(said.Skip(1)).Select(p => p.Second.Span.Start - p.First.Span.End).Where(p => p > TimeSpan.Zero).Order().ToList();
        return pauses.Count == 0 ? TimeSpan.FromSeconds(1) : pauses[pauses.Count / 2];
    }

    /// <summary>A sentence as a title: without what only begins it, to its first mark.</summary>
    /// <param name="sentence">The sentence, on one line.</param>
    public static string Title(string sentence)
    {
        var said = Openers.Without(sentence.Trim());
        var words = said.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var count = Array.FindIndex(words, w => w[^1] is '.' or ',' or ';' or ':' or '?' or '!') is var mark and >= FewWords - 1 ? mark + 1 : words.Length;
        var title = string.Join(' ', words.Take(Math.Min(count, MostWords))).TrimEnd('.', ',', ';', ':', '?', '!');
        if (title.Length > 0 && count > MostWords)
            title += "…";
        return title.Length == 0 ? "" : SectionRules.OneLine(char.ToUpperInvariant(title[0]) + title[1..]);
    }

    private static TimeSpan Later(TimeSpan a, TimeSpan b) => a > b ? a : b;

    private static TimeSpan Earlier(TimeSpan a, TimeSpan b) => a < b ? a : b;
}
