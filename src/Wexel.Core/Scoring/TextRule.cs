using System.Text.RegularExpressions;

namespace Wexel.Core.Scoring;

/// <summary>How closely a typed text must be what is accepted.</summary>
/// <param name="Capitals">Whether capitals count.</param>
/// <param name="Spaces">Whether every space counts; otherwise those at the ends do not, and several are one.</param>
/// <param name="Slips">Whether one slip of the pen is forgiven in a word of <see cref="ShortestForgiven"/> letters or more: a letter left out, put in, taken
/// for another, or changed with the next. Never one that makes another accepted text of it.</param>
public sealed partial record TextRule(bool Capitals = false, bool Spaces = false, bool Slips = true)
{
    /// <summary>The shortest text, in letters, of which a slip is forgiven; in shorter ones it makes another word too easily.</summary>
    public const int ShortestForgiven = 5;

    /// <summary>The accepted text that a typed one is taken for; the typed one itself where it is none of them.</summary>
    /// <param name="typed">What was typed.</param>
    /// <param name="accepted">What is accepted, the first that fits before others.</param>
    public string TakenFor(string typed, IReadOnlyList<string> accepted)
    {
        var plain = Plain(typed);
        return accepted.FirstOrDefault(a => a == typed)
            ?? accepted.FirstOrDefault(a => Plain(a) == plain)
            ?? (Slips ? accepted.FirstOrDefault(a => Plain(a) is { Length: >= ShortestForgiven } p && IsOneSlip(p, plain)) : null)
            ?? typed;
    }

    /// <summary>A text without what does not count in it.</summary>
    public string Plain(string text)
    {
        var plain = Curly().Replace(text, "'");
        if (!Spaces)
            plain = Blank().Replace(plain, " ").Trim(' ');
        return Capitals ? plain : plain.ToLowerInvariant();
    }

    /// <summary>Whether two different texts are one slip apart: an optimal string alignment distance of 1.</summary>
    private static bool IsOneSlip(string a, string b)
    {
        if (Math.Abs(a.Length - b.Length) > 1)
            return false;
        var start = 0;
        while (start < a.Length && start < b.Length && a[start] == b[start])
            start++;
        var (restA, restB) = (a[start..], b[start..]);
        return a.Length > b.Length ? restA[1..] == restB
            : a.Length < b.Length ? restA == restB[1..]
            : restA.Length > 0 && (restA[1..] == restB[1..] || (restA.Length > 1 && restA[0] == restB[1] && restA[1] == restB[0] && restA[2..] == restB[2..]));
    }

    [GeneratedRegex("[\u2018\u2019\u02BC]")]
    private static partial Regex Curly();

    [GeneratedRegex("[\\s\u00A0\u202F]+")]
    private static partial Regex Blank();
}
