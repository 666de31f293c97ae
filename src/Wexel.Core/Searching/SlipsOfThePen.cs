namespace Wexel.Core.Searching;

/// <summary>What somebody may have meant by a word that is said nowhere.</summary>
public static class SlipsOfThePen
{
    /// <summary>The most words that one may have been meant by.</summary>
    public const int Most = 3;

    /// <summary>The words that are written most like another: one letter away, or two in a word of five letters and more.</summary>
    /// <param name="word">What was typed.</param>
    /// <param name="said">Words that are said.</param>
    public static IReadOnlyList<string> Meant(string word, IEnumerable<string> said)
    {
        var typed = word.ToLowerInvariant();
        var most = word.Length < 5 ? 1 : 2;
        return
        [
            .. said.Select(s => (Word: s, Distance: Distance(typed, s)))
                .Where(s => s.Distance <= most)
                .OrderBy(s => s.Distance)
                // Few people slip at the first letter, and fewer leave one out than put two the wrong way round.
                .ThenBy(s => s.Word[0] != char.ToLowerInvariant(word[0]))
                .ThenBy(s => Math.Abs(s.Word.Length - word.Length))
                .ThenBy(s => s.Word, StringComparer.Ordinal)
                .Select(s => s.Word)
                .Take(Most),
        ];
    }

    /// <summary>How many letters must be put in, left out, changed, or changed places with the next, at least, to make one word of another (Damerau, “A
    /// technique for computer detection and correction of spelling errors”, 1964).</summary>
    private static int Distance(string one, string other)
    {
        var far = new int[one.Length + 1, other.Length + 1];
        for (var i = 0; i <= one.Length; i++)
        for (var j = 0; j <= other.Length; j++)
        {
            if (i == 0 || j == 0)
            {
                far[i, j] = i + j;
                continue;
            }

            var changed = far[i - 1, j - 1] + (one[i - 1] == other[j - 1] ? 0 : 1);
            far[i, j] = Math.Min(Math.Min(far[i - 1, j], far[i, j - 1]) + 1, changed);
            if (i > 1 && j > 1 && one[i - 1] == other[j - 2] && one[i - 2] == other[j - 1])
                far[i, j] = Math.Min(far[i, j], far[i - 2, j - 2] + 1);
        }

        return far[one.Length, other.Length];
    }
}
