using System.Collections.Frozen;
using Wexel.Core.Speech;

namespace Wexel.Core.Proposing;

/// <summary>
/// How much what is said becomes about something else at a sentence, by the words in the sentences before and behind it: the depth of their likeness, after
/// M. A. Hearst, “TextTiling: Segmenting Text into Multi-paragraph Subtopic Passages”, Computational Linguistics 23 (1997).
/// </summary>
internal sealed class WordChange
{
    /// <summary>How many sentences are compared on each side.</summary>
    private const int Window = 3;

    /// <summary>Words that are the same in their first letters are the same.</summary>
    private const int Stem = 5;

    private static readonly FrozenSet<string> Common = (
        "the and that this with from have has for are was were you your they them their his her its not but can will would what when where who how which there "
        + "here than then into over out off all any each one two more most some such only own same very just also about after before again now next first"
    )
        .Split(' ')
        .ToFrozenSet();

    private readonly double[] _depths;

    internal WordChange(IReadOnlyList<SaidSentence> said)
    {
        var stems = said.Select(s =>
                s.Text.Split(' ').Select(WordList.Plain).Where(w => w.Length > 2 && !Common.Contains(w)).Select(w => w[..Math.Min(Stem, w.Length)]).ToList()
            )
            .ToList();
        var likeness = Enumerable
            .Range(0, said.Count)
            .Select(i => Likeness(stems[Math.Max(0, i - Window)..i], stems[i..Math.Min(said.Count, i + Window)]))
            .ToList();
        _depths = [.. Enumerable.Range(0, said.Count).Select(i => Depth(likeness, i))];
    }

    /// <summary>How much, 0 to 1, at the sentence of a number.</summary>
    internal double At(int index) => _depths[index];

    private static double Likeness(IEnumerable<List<string>> before, IEnumerable<List<string>> behind)
    {
        var a = before.SelectMany(w => w).CountBy(w => w).ToDictionary();
        var b = behind.SelectMany(w => w).CountBy(w => w).ToDictionary();
        var norm = Math.Sqrt(a.Values.Sum(n => (double)n * n) * b.Values.Sum(n => (double)n * n));
        return norm == 0 ? 0 : a.Sum(p => (double)p.Value * b.GetValueOrDefault(p.Key)) / norm;
    }

    private static double Depth(List<double> likeness, int i)
    {
        if (i == 0)
            return 0;
        double left = likeness[i],
            right = likeness[i];
        for (var k = i; k > 0 && likeness[k] >= left; k--)
            left = likeness[k];
        for (var k = i; k < likeness.Count && likeness[k] >= right; k++)
            right = likeness[k];
        return Math.Min(1, (left - likeness[i]) + (right - likeness[i]));
    }
}
