using System.Collections.Frozen;

namespace Wexel.Core.Captions;

/// <summary>Where a line of a caption, or a caption, may end: not between words that belong together (BBC Subtitle Guidelines, “Line breaks”: not between
/// article and noun, preposition and phrase, auxiliary and verb, title and name; from memory).</summary>
public static class LineBreaks
{
    private static readonly FrozenSet<string> Binding = (
        // Articles and what stands for them.
        "a an the this that these those my your his her its our their some any no every each "
        // Prepositions.
        + "of to in on at by for from with without into onto over under about after before between through until as than per "
        // Auxiliaries, and what needs a verb.
        + "is are was were be been am will would can could should must may might do does did has have had not don't doesn't can't cannot "
        // Persons, who do what follows.
        + "i you he she it we they who which "
        // Conjunctions, which begin what follows.
        + "and or but if because when while so that mr mrs ms dr"
    ).Split(' ').ToFrozenSet();

    private const int Bound = 40;
    private const int Loose = 12;
    private const int AfterComma = 2;

    /// <summary>How bad it is to end a line after a word; 0 after a sentence.</summary>
    /// <param name="word">The word, as it is written.</param>
    public static int Badness(string word)
    {
        if (word.TrimEnd('"', '”', '’', ')') is [.., '.' or '?' or '!' or '…'])
            return 0;
        if (word is [.., ',' or ';' or ':' or '–' or '—'])
            return AfterComma;
        return Binding.Contains(word.Trim('"', '“', '(').ToLowerInvariant()) ? Bound : Loose;
    }

    /// <summary>Words as lines: one where they fit, else two of which none is too long and the upper one is not much longer; as few as can be where they
    /// need more.</summary>
    /// <param name="words">As they are written; none has a line end.</param>
    public static string Lines(IReadOnlyList<string> words)
    {
        var whole = string.Join(' ', words);
        if (whole.Length <= CaptionGuidelines.LineLength)
            return whole;
        var best = (Cost: int.MaxValue, Lines: (string?)null);
        for (var at = 1; at < words.Count; at++)
        {
            var (upper, lower) = (string.Join(' ', words.Take(at)), string.Join(' ', words.Skip(at)));
            if (upper.Length > CaptionGuidelines.LineLength || lower.Length > CaptionGuidelines.LineLength)
                continue;
            var cost = Badness(words[at - 1]) + (Math.Abs(upper.Length - lower.Length) / 2) + (upper.Length > lower.Length ? 1 : 0);
            if (cost < best.Cost)
                best = (cost, $"{upper}\n{lower}");
        }

        return best.Lines ?? Filled(words);
    }

    private static string Filled(IReadOnlyList<string> words)
    {
        var lines = new List<string> { "" };
        foreach (var word in words)
        {
            if (lines[^1].Length == 0)
                lines[^1] = word;
            else if (lines[^1].Length + 1 + word.Length <= CaptionGuidelines.LineLength)
                lines[^1] += " " + word;
            else
                lines.Add(word);
        }

        return string.Join('\n', lines);
    }
}
