namespace Wexel.Core.Speech;

/// <summary>Finds the house's words in what is said.</summary>
/// <param name="list">The words.</param>
public sealed class WordFinder(WordList list)
{
    private readonly Dictionary<string, List<(string[] Way, HouseWord Word)>> _ways = list
        .Words.SelectMany(w => WordList.WaysOf(w).Select(way => (Way: way, Word: w)))
        .GroupBy(w => w.Way[0])
        .ToDictionary(g => g.Key, g => g.OrderByDescending(w => w.Way.Length).ToList());

    /// <summary>The word that begins at a place, where one does; of several the one with the most words.</summary>
    /// <param name="plain">The words said, each as <see cref="WordList.Plain"/> has it.</param>
    /// <param name="at">The place.</param>
    /// <returns>The word and how many of the words said it takes; null where none begins there.</returns>
    public (HouseWord Word, int Count)? At(IReadOnlyList<string> plain, int at)
    {
        if (!_ways.TryGetValue(plain[at], out var ways))
            return null;
        foreach (var (way, word) in ways)
        {
            if (at + way.Length <= plain.Count && !way.Where((part, i) => plain[at + i] != part).Any())
                return (word, way.Length);
        }

        return null;
    }
}
