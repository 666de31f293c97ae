using Wexel.Core.Documents;

namespace Wexel.Core.Speech;

/// <summary>A name, acronym or phrase as the house writes it.</summary>
/// <param name="Written">How it is written: <c>BFL</c>.</param>
/// <param name="Said">How it is said, in plain words: <c>bee eff ell</c>; may be empty.</param>
/// <param name="HeardAs">What it is often heard as: <c>be if l</c>.</param>
public sealed record HouseWord(string Written, string Said, IReadOnlyList<string> HeardAs);

/// <summary>The house's words. They set case and spelling, in drafts and in what is proposed for captions that are there.</summary>
/// <param name="Words">In the order in which they are shown.</param>
public sealed record WordList(IReadOnlyList<HouseWord> Words)
{
    /// <summary>The most words.</summary>
    public const int Most = 2000;

    /// <summary>The most ways in which one may be heard.</summary>
    public const int MostHeardAs = 20;

    /// <summary>The longest of any, in characters.</summary>
    public const int Longest = 80;

    /// <summary>How it is kept.</summary>
    public static DocumentFormat<WordList> Format { get; } = new("words");

    /// <summary>No words.</summary>
    public static WordList None { get; } = new([]);

    /// <summary>A word without case and marks, by which words are compared; empty for what has no letter and no digit.</summary>
    public static string Plain(string word) =>
        string.Concat(word.Normalize().Where(c => char.IsLetterOrDigit(c) || c is '\'' or '’')).Replace('’', '\'').Trim('\'').ToLowerInvariant();

    /// <summary>The words of a text, each plain.</summary>
    public static string[] PlainWords(string text) =>
        [.. text.Split([' ', '\n', '\t', '-', '\u00A0', '–', '—', '/'], StringSplitOptions.RemoveEmptyEntries).Select(Plain).Where(w => w.Length > 0)];

    /// <summary>As it is kept: trimmed, without empty ones, each way once.</summary>
    public WordList Tidy() =>
        new([
            .. Words
                .Select(w => new HouseWord(
                    OneLine(w.Written),
                    OneLine(w.Said ?? ""),
                    [.. (w.HeardAs ?? []).Select(OneLine).Where(h => h.Length > 0).Distinct(StringComparer.OrdinalIgnoreCase)]
                ))
                .Where(w => w.Written.Length > 0),
        ]);

    /// <summary>Why it cannot be kept, or null.</summary>
    public Problem? Refusal()
    {
        if (Words.Count > Most)
            return new Problem("words-too-many", $"There are {Words.Count:N0} words; {Most:N0} is the most that the list takes.", "words");
        if (Words.FirstOrDefault(w => PlainWords(w.Written).Length == 0) is { } empty)
            return new Problem("words-no-letters", $"“{Problem.Shown(empty.Written)}” has no letter or digit, so nobody can say it.", "written");
        if (Words.FirstOrDefault(w => w.HeardAs.Count > MostHeardAs) is { } often)
            return new Problem("words-heard-too-often", $"“{Problem.Shown(often.Written)}” is heard in more than {MostHeardAs} ways.", "heardAs");
        if (Words.SelectMany(w => w.HeardAs.Append(w.Written).Append(w.Said)).FirstOrDefault(t => t.Length > Longest) is { } tooLong)
            return new Problem("words-too-long", $"“{Problem.Shown(tooLong)}” is longer than {Longest} characters.", "written");
        var clash = Words
            .SelectMany(w => WaysOf(w).Select(way => (Way: string.Join(' ', way), w.Written)).Distinct())
            .GroupBy(w => w.Way)
            .FirstOrDefault(g => g.Select(w => w.Written).Distinct().Count() > 1);
        return clash is null
            ? null
            : new Problem(
                "words-clash",
                $"“{Problem.Shown(clash.Key)}” is given for “{string.Join("” and “", clash.Select(w => w.Written).Distinct())}”.",
                "heardAs"
            );
    }

    private static string OneLine(string text) => string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    /// <summary>All ways in which a word may stand in what is heard, each in plain words.</summary>
    internal static IEnumerable<string[]> WaysOf(HouseWord word) =>
        word.HeardAs.Append(word.Said).Append(word.Written).Select(PlainWords).Where(w => w.Length > 0);
}
