using System.Globalization;

namespace Wexel.Core.Speech;

/// <summary>English numbers that are spoken, as figures. By custom numbers below ten stay words (common practice, no source).</summary>
public static class NumberWords
{
    private static readonly string[] Small =
    [
        "zero",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
        "thirteen",
        "fourteen",
        "fifteen",
        "sixteen",
        "seventeen",
        "eighteen",
        "nineteen",
    ];

    private static readonly string[] Tens = ["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"];

    private const int FirstFigure = 10;

    /// <summary>The number that begins at a place.</summary>
    /// <param name="plain">The words said, in small letters.</param>
    /// <param name="at">The place.</param>
    /// <returns>Its figures and how many words it takes; null where none begins there, or one that stays a word.</returns>
    public static (string Figures, int Count)? At(IReadOnlyList<string> plain, int at)
    {
        if (Whole(plain, at) is not { } whole)
            return null;
        var next = at + whole.Count;
        var decimals = string.Concat(plain.Skip(next + 1).TakeWhile(w => Digit(w) is not null).Select(w => Digit(w)));
        if (next < plain.Count && plain[next] == "point" && decimals.Length > 0)
            return (string.Create(CultureInfo.InvariantCulture, $"{whole.Value}.{decimals}"), whole.Count + 1 + decimals.Length);
        return whole.Value < FirstFigure ? null : (whole.Value.ToString(whole.Value >= 10_000 ? "N0" : "0", CultureInfo.InvariantCulture), whole.Count);
    }

    private static (long Value, int Count)? Whole(IReadOnlyList<string> plain, int at)
    {
        var (thousands, below) = (0L, UpToThousand(plain, at));
        if (below is not { } first)
            return null;
        var (value, count) = first;
        while (at + count < plain.Count && plain[at + count] is "thousand" or "million")
        {
            var scale = plain[at + count] == "million" ? 1_000_000L : 1000L;
            // A thousand millions are not said so.
            if (thousands % (scale * 1000) != 0)
                break;
            (thousands, value, count) = (thousands + (value * scale), 0, count + 1);
            var and = at + count < plain.Count && plain[at + count] == "and" ? 1 : 0;
            if (at + count + and < plain.Count && UpToThousand(plain, at + count + and) is { } rest)
                (value, count) = (rest.Value, count + and + rest.Count);
            else
                break;
        }

        return (thousands + value, count);
    }

    /// <summary>0 to 999.</summary>
    private static (long Value, int Count)? UpToThousand(IReadOnlyList<string> plain, int at)
    {
        if (UpToHundred(plain, at) is not { } first)
            return null;
        var (value, count) = first;
        if (at + count >= plain.Count || plain[at + count] != "hundred" || value is 0 or > 99)
            return first;
        (value, count) = (value * 100, count + 1);
        var and = at + count < plain.Count && plain[at + count] == "and" ? 1 : 0;
        return at + count + and < plain.Count && UpToHundred(plain, at + count + and) is { Value: > 0 } rest
            ? (value + rest.Value, count + and + rest.Count)
            : (value, count);
    }

    private static (long Value, int Count)? UpToHundred(IReadOnlyList<string> plain, int at)
    {
        if (at >= plain.Count)
            return null;
        if (Array.IndexOf(Small, plain[at]) is >= 0 and var small)
            return (small, 1);
        if (Array.IndexOf(Tens, plain[at]) is not (>= 0 and var tens))
            return null;
        var value = (tens + 2) * 10L;
        return at + 1 < plain.Count && Array.IndexOf(Small, plain[at + 1]) is >= 1 and <= 9 and var unit ? (value + unit, 2) : (value, 1);
    }

    private static string? Digit(string word) =>
        word is "oh" ? "0"
        : Array.IndexOf(Small, word) is >= 0 and <= 9 and var digit ? digit.ToString(CultureInfo.InvariantCulture)
        : null;
}
