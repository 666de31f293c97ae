namespace Wexel.Cli;

/// <summary>What is said of an option that there is not.</summary>
internal static class Mistyped
{
    /// <summary>Says that there is no such option, and which one may have been meant.</summary>
    internal static string Sentence(string given, IReadOnlyList<string> options)
    {
        var name = given.Split('=')[0];
        var nearest = options.MinBy(o => Distance(name, o))!;
        return $"There is no option “{name}”{(Distance(name, nearest) <= 3 ? $"; did you mean {nearest}?" : ";")} ./wexel make --help lists them all.";
    }

    /// <summary>How many letters must be put in, taken away or changed to come from one word to another (Levenshtein 1966).</summary>
    private static int Distance(string from, string to)
    {
        var row = Enumerable.Range(0, to.Length + 1).ToArray();
        for (var i = 1; i <= from.Length; i++)
        {
            var corner = row[0];
            row[0] = i;
            for (var j = 1; j <= to.Length; j++)
                (corner, row[j]) = (row[j], Math.Min(Math.Min(row[j], row[j - 1]) + 1, corner + (from[i - 1] == to[j - 1] ? 0 : 1)));
        }

        return row[^1];
    }
}
