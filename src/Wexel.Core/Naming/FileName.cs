using System.Collections.Frozen;
using System.Globalization;
using System.Text;

namespace Wexel.Core.Naming;

/// <summary>
/// Names of files and folders that are safe on Windows, macOS and Linux. What Windows does not take is documented in "Naming Files, Paths, and
/// Namespaces" (Microsoft Learn, Win32): characters, reserved names, dots and spaces at the end. Linux counts bytes, Windows and macOS units of
/// UTF-16: 255 of either.
/// </summary>
public static class FileName
{
    /// <summary>The longest name of a file, in bytes of UTF-8 and in units of UTF-16.</summary>
    public const int Longest = 255;

    /// <summary>What stands before an ending and a number that tells names apart, so that both still fit.</summary>
    private const int Room = 40;

    private const string NotTaken = "<>:\"/\\|?*";

    /// <summary>Joins letters of some scripts, and emoji; all else of its kind can turn what is read around (Unicode Standard Annex 9).</summary>
    private static readonly Rune[] Joiners = [new('\u200c'), new('\u200d')];

    private static readonly FrozenSet<string> Reserved = new[] { "CON", "PRN", "AUX", "NUL" }
        .Concat("123456789¹²³".SelectMany(n => new[] { $"COM{n}", $"LPT{n}" }))
        .ToFrozenSet(StringComparer.OrdinalIgnoreCase);

    /// <summary>A text as a name without its ending; short enough that an ending and a number fit behind it.</summary>
    /// <param name="text">The text, such as a title.</param>
    /// <param name="otherwise">The name of what has none, or one of which nothing is left; it is safe itself.</param>
    public static string Safe(string text, string otherwise)
    {
        var name = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
            name.Append(Taken(rune));
        var words = string.Join(' ', name.ToString().Split(' ', StringSplitOptions.RemoveEmptyEntries));
        var whole = Shortened(words.TrimStart('.', ' ')).TrimEnd('.', ' ');
        if (whole.Trim('-', ' ', '.').Length == 0)
            return otherwise;
        // Reserved is what stands before the first dot, whatever comes behind it.
        var stem = whole.Split('.')[0];
        return Reserved.Contains(stem.TrimEnd(' ')) ? whole.Insert(stem.TrimEnd(' ').Length, "_") : whole;
    }

    private static string Taken(Rune rune)
    {
        if (rune == Rune.ReplacementChar || (rune.IsAscii && NotTaken.Contains((char)rune.Value, StringComparison.Ordinal)))
            return "-";
        if (Rune.IsWhiteSpace(rune) || Rune.IsControl(rune))
            return " ";
        return Rune.GetUnicodeCategory(rune) == UnicodeCategory.Format && !Joiners.Contains(rune) ? "" : rune.ToString();
    }

    /// <summary>The start of a name that fits, in whole characters as people see them (Unicode Standard Annex 29).</summary>
    private static string Shortened(string name)
    {
        var (bytes, end) = (0, 0);
        foreach (var start in StringInfo.ParseCombiningCharacters(name))
        {
            var length = StringInfo.GetNextTextElementLength(name, start);
            bytes += System.Text.Encoding.UTF8.GetByteCount(name.AsSpan(start, length));
            if (bytes > Longest - Room || start + length > Longest - Room)
                break;
            end = start + length;
        }

        return name[..end];
    }
}

/// <summary>Names in one folder, of which no two are alike: not by letter case either, which neither Windows nor macOS tells apart.</summary>
public sealed class DistinctNames
{
    private readonly HashSet<string> _taken = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Names that are taken already.</summary>
    public DistinctNames(IEnumerable<string> taken) => _taken.UnionWith(taken);

    /// <summary>No name is taken yet.</summary>
    public DistinctNames() { }

    /// <summary>Takes a name, or the first free one with a number behind it.</summary>
    /// <param name="name">The name, which is safe.</param>
    /// <param name="ending">Its ending, with the dot; empty for a folder.</param>
    public string Take(string name, string ending = "")
    {
        var free = name + ending;
        for (var n = 2; !_taken.Add(free); n++)
            free = $"{name} ({n.ToString(CultureInfo.InvariantCulture)}){ending}";
        return free;
    }
}
