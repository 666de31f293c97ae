namespace Wexel.Core.Searching;

/// <summary>A place where something is said that was looked for.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="At">When it is said, in recording time; null for what holds for all of the lesson.</param>
/// <param name="Text">What it says.</param>
/// <param name="Found">Where in it the words stand, in order and apart.</param>
public sealed record TextHit(TextKind Kind, TimeSpan? At, string Text, IReadOnlyList<FoundWord> Found);

/// <summary>Where a word stands in a text.</summary>
/// <param name="Start">Its first character, from 0.</param>
/// <param name="Length">How many characters it has.</param>
public readonly record struct FoundWord(int Start, int Length);

/// <summary>Words that are looked for in lessons. All of them must be said somewhere in a lesson, whole or as a part of a word, in any letters' case.</summary>
public sealed class TextSearch
{
    /// <summary>The most words that are looked for; more are left out.</summary>
    public const int MostWords = 8;

    /// <summary>The most places that are shown of a lesson.</summary>
    public const int MostHits = 4;

    private TextSearch(IReadOnlyList<string> words) => Words = words;

    /// <summary>The words; one or more.</summary>
    public IReadOnlyList<string> Words { get; }

    /// <summary>Reads what somebody typed; null where there is no word in it.</summary>
    public static TextSearch? Parse(string typed)
    {
        var words = typed.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).Distinct(StringComparer.OrdinalIgnoreCase).Take(MostWords).ToList();
        return words.Count == 0 ? null : new TextSearch(words);
    }

    /// <summary>Where a lesson says them: at most <see cref="MostHits"/> places, those with most of the words first, then by kind and time.</summary>
    /// <param name="texts">What it says.</param>
    /// <returns>None where one of the words is said nowhere.</returns>
    public IReadOnlyList<TextHit> In(IEnumerable<LessonText> texts)
    {
        var lines = texts.SelectMany(t => t.Lines, (text, line) => (text.Kind, Line: line, Words: WordsIn(line.Text))).Where(l => l.Words.Count > 0).ToList();
        if (lines.SelectMany(l => l.Words).Distinct().Count() < Words.Count)
            return [];
        return
        [
            .. lines
                .OrderByDescending(l => l.Words.Count)
                .ThenBy(l => l.Kind)
                .ThenBy(l => l.Line.At)
                .Take(MostHits)
                .Select(l => new TextHit(l.Kind, l.Line.At, l.Line.Text, Places(l.Line.Text))),
        ];
    }

    private List<string> WordsIn(string text) => [.. Words.Where(w => text.Contains(w, StringComparison.OrdinalIgnoreCase))];

    private List<FoundWord> Places(string text)
    {
        var found = new bool[text.Length];
        foreach (var word in Words)
            for (var at = 0; (at = text.IndexOf(word, at, StringComparison.OrdinalIgnoreCase)) >= 0; at++)
                Array.Fill(found, true, at, word.Length);
        var places = new List<FoundWord>();
        for (var i = 0; i < found.Length; i++)
        {
            if (!found[i])
                continue;
            var start = i;
            while (i < found.Length && found[i])
                i++;
            places.Add(new FoundWord(start, i - start));
        }

        return places;
    }
}
