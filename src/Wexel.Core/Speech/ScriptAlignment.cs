using Wexel.Core.Timing;

namespace Wexel.Core.Speech;

/// <summary>How a script and the voice differ somewhere.</summary>
public enum ScriptDifferenceKind
{
    /// <summary>It stands in the script and is not said.</summary>
    LeftOut,

    /// <summary>It is said and does not stand in the script.</summary>
    Added,

    /// <summary>It is said elsewhere than where it stands.</summary>
    Elsewhere,
}

/// <summary>Where a script and the voice differ.</summary>
/// <param name="Kind">How.</param>
/// <param name="At">When, in recording time: where it would be said, or is.</param>
/// <param name="Words">What stands there or is heard there.</param>
/// <param name="Count">How many words that is.</param>
public sealed record ScriptDifference(ScriptDifferenceKind Kind, TimeSpan At, string Words, int Count);

/// <summary>A heading of a script, where what stands under it is said.</summary>
/// <param name="At">When, in recording time.</param>
/// <param name="Title">What it says.</param>
public sealed record PlacedHeading(TimeSpan At, string Title);

/// <summary>A script that is kept with a lesson.</summary>
/// <param name="FileName">The name of its file.</param>
/// <param name="Text">What it says, as it came.</param>
/// <param name="Track">The captions that were made of it, by their track's name; null while it is still to be laid along the voice.</param>
/// <param name="Headings">Those under which something is said, in order of time.</param>
/// <param name="Differences">Where it and the voice differ, in order of time.</param>
public sealed record KeptScript(
    string FileName,
    string Text,
    string? Track,
    IReadOnlyList<PlacedHeading> Headings,
    IReadOnlyList<ScriptDifference> Differences
);

/// <summary>A script along the voice that reads it.</summary>
/// <param name="Words">The script's words that are said, in order of time, with its spelling and marks.</param>
/// <param name="Starts">For each word of the script when it begins; null where it is not said.</param>
/// <param name="Differences">In order of time.</param>
/// <param name="Share">How many of the script's words were heard as they are, or nearly, 0 to 1.</param>
public sealed record ScriptAlignment(
    IReadOnlyList<WrittenWord> Words,
    IReadOnlyList<TimeSpan?> Starts,
    IReadOnlyList<ScriptDifference> Differences,
    double Share
)
{
    /// <summary>Words in a row by which places are found that cannot be others.</summary>
    private const int Anchor = 3;

    /// <summary>The largest table that is reckoned between two anchors, in cells; what is larger is not the same text.</summary>
    private const long MostCells = 9_000_000;

    /// <summary>How many words in a row may have been heard as others.</summary>
    private const int LongestGuess = 8;

    /// <summary>From how many words on something left out or added is said.</summary>
    private const int FewWords = 4;

    /// <summary>How like a word that is heard must be to one of the script so that it can be that one, 0 to 1.</summary>
    private const double Like = 0.6;

    /// <summary>
    /// Aligns them: places that are the same beyond doubt first, between them by dynamic programming. Words of the script for which another was heard lie
    /// between their neighbours; several that nothing was heard for are left out, and paragraphs that are said elsewhere are taken from there.
    /// </summary>
    /// <param name="script">The script.</param>
    /// <param name="heard">What was heard, in order.</param>
    public static ScriptAlignment Of(ScriptText script, IReadOnlyList<HeardWord> heard)
    {
        var said = heard.Select(w => WordList.Plain(w.Text)).ToArray();
        var plain = script.Words.Select(w => w.Plain).ToArray();
        var anchors = Anchors(plain, said);
        var chain = Longest(anchors);
        var match = new int[plain.Length];
        Array.Fill(match, -1);
        var (from, to) = (0, 0);
        foreach (var (s, h) in chain.Append((plain.Length, said.Length)))
        {
            if (s < from || h < to)
                continue;
            Fill(plain, said, from, s, to, h, match);
            for (var k = 0; k < Anchor && s + k < plain.Length && h + k < said.Length; k++)
                match[s + k] = h + k;
            (from, to) = (s + Anchor, h + Anchor);
        }

        var elsewhere = Moved(script, anchors, match, said.Length);
        return Timed(script, heard, match, elsewhere);
    }

    /// <summary>Where a script's headings are said: where the first word under each is, so far as it is said before the next.</summary>
    /// <param name="script">The script of which this is the alignment.</param>
    public IReadOnlyList<PlacedHeading> Place(ScriptText script) =>
        [
            .. script
                .Headings.Select(
                    (heading, i) =>
                        (
                            heading.Title,
                            At: Starts
                                .Skip(heading.BeforeWord)
                                .Take((i + 1 < script.Headings.Count ? script.Headings[i + 1].BeforeWord : Starts.Count) - heading.BeforeWord)
                                .FirstOrDefault(s => s is not null)
                        )
                )
                .Where(h => h.At is not null && h.Title.Length > 0)
                .Select(h => new PlacedHeading(h.At!.Value, h.Title))
                .OrderBy(h => h.At),
        ];

    /// <summary>Places at which the same words stand in both, and nowhere else in either.</summary>
    private static List<(int Script, int Heard)> Anchors(string[] script, string[] heard)
    {
        var places = new Dictionary<string, (int Script, int Heard)>();
        const int None = -1,
            Several = -2;
        for (var i = 0; i + Anchor <= script.Length; i++)
        {
            var key = string.Join(' ', script.AsSpan(i, Anchor));
            places[key] = places.ContainsKey(key) ? (Several, None) : (i, None);
        }

        for (var i = 0; i + Anchor <= heard.Length; i++)
        {
            var key = string.Join(' ', heard.AsSpan(i, Anchor));
            if (places.TryGetValue(key, out var place) && place.Script >= 0)
                places[key] = place with { Heard = place.Heard == None ? i : Several };
        }

        return [.. places.Values.Where(p => p is { Script: >= 0, Heard: >= 0 }).OrderBy(p => p.Script)];
    }

    /// <summary>The longest chain of anchors that are in the same order in both (patience sorting).</summary>
    private static List<(int Script, int Heard)> Longest(List<(int Script, int Heard)> anchors)
    {
        var (tops, before) = (new List<int>(), new int[anchors.Count]);
        for (var i = 0; i < anchors.Count; i++)
        {
            var (low, high) = (0, tops.Count);
            while (low < high)
            {
                var middle = (low + high) / 2;
                (low, high) = anchors[tops[middle]].Heard < anchors[i].Heard ? (middle + 1, high) : (low, middle);
            }

            before[i] = low > 0 ? tops[low - 1] : -1;
            if (low == tops.Count)
                tops.Add(i);
            else
                tops[low] = i;
        }

        var chain = new List<(int, int)>();
        for (var at = tops.Count > 0 ? tops[^1] : -1; at >= 0; at = before[at])
            chain.Add(anchors[at]);
        chain.Reverse();
        return chain;
    }

    /// <summary>Aligns what lies between two anchors.</summary>
    private static void Fill(string[] script, string[] heard, int s0, int s1, int h0, int h1, int[] match)
    {
        var (rows, columns) = (s1 - s0, h1 - h0);
        if (rows <= 0 || columns <= 0 || (long)rows * columns > MostCells)
            return;
        var costs = new float[rows + 1, columns + 1];
        const float Gap = 0.6f;
        for (var i = 0; i <= rows; i++)
        {
            for (var j = 0; j <= columns; j++)
                costs[i, j] =
                    i == 0 ? j * Gap
                    : j == 0 ? i * Gap
                    : Math.Min(costs[i - 1, j - 1] + Other(script[s0 + i - 1], heard[h0 + j - 1]), Math.Min(costs[i - 1, j], costs[i, j - 1]) + Gap);
        }

        for (var (i, j) = (rows, columns); i > 0 && j > 0; )
        {
            if (costs[i, j] >= costs[i - 1, j - 1] + Other(script[s0 + i - 1], heard[h0 + j - 1]) - 1e-4f)
            {
                match[s0 + i - 1] = h0 + j - 1;
                (i, j) = (i - 1, j - 1);
            }
            else if (costs[i, j] >= costs[i - 1, j] + Gap - 1e-4f)
                i--;
            else
                j--;
        }
    }

    /// <summary>What it costs that one word was heard for another: 0 for the same, 1 for such as have nothing in common.</summary>
    private static float Other(string word, string heard) => word == heard ? 0 : (float)(1 - (0.8 * Likeness(word, heard)));

    /// <summary>The share of letters that two words have in common in the same order, 0 to 1.</summary>
    private static double Likeness(string a, string b)
    {
        Span<int> row = stackalloc int[Math.Min(b.Length, 63) + 1];
        foreach (var letter in a.AsSpan(0, Math.Min(a.Length, 63)))
        {
            var corner = 0;
            for (var j = 1; j < row.Length; j++)
            {
                var above = row[j];
                row[j] = letter == b[j - 1] ? corner + 1 : Math.Max(row[j], row[j - 1]);
                corner = above;
            }
        }

        return 2.0 * row[^1] / (a.Length + b.Length);
    }

    /// <summary>Paragraphs of which nothing is in the chain and that are heard elsewhere: their words are matched there.</summary>
    private static HashSet<int> Moved(ScriptText script, List<(int Script, int Heard)> anchors, int[] match, int heardCount)
    {
        var (taken, moved) = (new bool[heardCount], new HashSet<int>());
        foreach (var h in match.Where((h, s) => h >= 0))
            taken[h] = true;
        foreach (var group in anchors.GroupBy(a => script.Words[a.Script].Paragraph))
        {
            var paragraph = script.Words.Index().Where(w => w.Item.Paragraph == group.Key).Select(w => w.Index).ToList();
            var outside = group.Where(a => match[a.Script] != a.Heard).ToList();
            // Most of what is known of the paragraph lies elsewhere.
            if (outside.Count < 2 || outside.Count * 2 < group.Count())
                continue;
            var shift = outside.Select(a => a.Heard - a.Script).Order().ElementAt(outside.Count / 2);
            foreach (var s in paragraph)
                match[s] = -1;
            foreach (var (s, h) in outside.Where(a => Math.Abs(a.Heard - a.Script - shift) <= paragraph.Count))
            {
                for (var k = 0; k < Anchor; k++)
                    match[s + k] = h + k;
            }

            moved.Add(group.Key);
        }

        return moved;
    }

    private static ScriptAlignment Timed(ScriptText script, IReadOnlyList<HeardWord> heard, int[] match, HashSet<int> moved)
    {
        var spans = new TimeRange?[match.Length];
        for (var s = 0; s < match.Length; s++)
        {
            if (match[s] >= 0 && (moved.Contains(script.Words[s].Paragraph) || Likeness(script.Words[s].Plain, WordList.Plain(heard[match[s]].Text)) >= Like))
                spans[s] = heard[match[s]].Span;
        }

        var alike = spans.Count(s => s is not null);
        Between(script, heard, match, spans);
        var words = script
            .Words.Index()
            .Where(w => spans[w.Index] is not null)
            .Select(w => new WrittenWord(spans[w.Index]!.Value, w.Item.Text, match[w.Index] >= 0 ? heard[match[w.Index]].Confidence : 0, w.Item.EndsSentence))
            .OrderBy(w => w.Span.Start)
            .ToList();
        return new ScriptAlignment(
            words,
            [.. spans.Select(s => s?.Start)],
            Differ(script, heard, match, spans, moved),
            match.Length == 0 ? 0 : Math.Min(1, (double)alike / match.Length)
        );
    }

    /// <summary>Words for which others were heard lie between those around them, each as long as its letters.</summary>
    private static void Between(ScriptText script, IReadOnlyList<HeardWord> heard, int[] match, TimeRange?[] spans)
    {
        for (var s = 0; s < spans.Length; s++)
        {
            if (spans[s] is not null)
                continue;
            var end = s;
            while (end < spans.Length && spans[end] is null && script.Words[end].Paragraph == script.Words[s].Paragraph)
                end++;
            var (before, after) = (
                s > 0 && spans[s - 1] is not null ? match[s - 1] : -1,
                end < spans.Length && spans[end] is not null ? match[end] : heard.Count
            );
            var room = heard.Skip(before + 1).Take(Math.Max(0, after - before - 1)).ToList();
            // As many words were heard there, or nearly: they are these. Of a longer run nobody can tell.
            if (end - s <= LongestGuess && (before >= 0 || after < heard.Count) && before < after && room.Count > 0 && room.Count * 2 >= end - s)
            {
                var (from, to) = (room[0].Span.Start, room[^1].Span.End);
                var letters = script.Words.Skip(s).Take(end - s).Sum(w => w.Plain.Length + 1.0);
                var passed = 0.0;
                for (var k = s; k < end; k++)
                {
                    var begins = from + ((to - from) * (passed / letters));
                    passed += script.Words[k].Plain.Length + 1;
                    spans[k] = new TimeRange(begins, from + ((to - from) * (passed / letters)));
                    match[k] = Math.Min(heard.Count - 1, before + 1 + ((k - s) * room.Count / (end - s)));
                }
            }

            s = end - 1;
        }
    }

    private static List<ScriptDifference> Differ(ScriptText script, IReadOnlyList<HeardWord> heard, int[] match, TimeRange?[] spans, HashSet<int> moved)
    {
        var differences = new List<ScriptDifference>();
        foreach (var paragraph in moved)
        {
            var words = script.Words.Index().Where(w => w.Item.Paragraph == paragraph).ToList();
            var at = words.Select(w => spans[w.Index]?.Start).FirstOrDefault(t => t is not null) ?? TimeSpan.Zero;
            differences.Add(new ScriptDifference(ScriptDifferenceKind.Elsewhere, at, Shown(words.Select(w => w.Item.Text)), words.Count));
        }

        for (var s = 0; s < spans.Length; s++)
        {
            var end = s;
            while (end < spans.Length && spans[end] is null && !moved.Contains(script.Words[end].Paragraph))
                end++;
            if (end - s >= FewWords)
            {
                var at = s > 0 ? spans.Take(s).LastOrDefault(t => t is not null)?.End ?? TimeSpan.Zero : TimeSpan.Zero;
                differences.Add(new ScriptDifference(ScriptDifferenceKind.LeftOut, at, Shown(script.Words.Skip(s).Take(end - s).Select(w => w.Text)), end - s));
            }

            s = Math.Max(s, end - 1);
        }

        var known = match.Where((h, s) => h >= 0 && spans[s] is not null).ToHashSet();
        var placed = spans.OfType<TimeRange>().ToList();
        var starts = TimeRange.Union(placed);
        for (var h = 0; h < heard.Count; h++)
        {
            var end = h;
            while (end < heard.Count && !known.Contains(end) && !Within(starts, heard[end].Span))
                end++;
            if (end - h >= FewWords)
                differences.Add(
                    new ScriptDifference(ScriptDifferenceKind.Added, heard[h].Span.Start, Shown(heard.Skip(h).Take(end - h).Select(w => w.Text)), end - h)
                );
            h = Math.Max(h, end - 1);
        }

        return [.. differences.OrderBy(d => d.At)];
    }

    private static bool Within(IReadOnlyList<TimeRange> ranges, TimeRange word)
    {
        var (low, high) = (0, ranges.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            (low, high) = ranges[middle].End <= word.Start ? (middle + 1, high) : (low, middle);
        }

        return low < ranges.Count && ranges[low].Start < word.End;
    }

    private static string Shown(IEnumerable<string> words)
    {
        var text = string.Join(' ', words);
        return text.Length <= 120 ? text : text[..119] + "…";
    }
}
