using System.Text.RegularExpressions;

namespace Wexel.Core.Recordings;

/// <summary>Proposes a lesson's title from the name of a recording's file.</summary>
public static partial class TitleProposal
{
    /// <summary>
    /// A title made from a file name without its date, counters and working words; null where nothing is left that says
    /// what the lesson is about ("Untitled 7.mov", "Recording 2026-11-04.mkv"), so that the person must be asked.
    /// </summary>
    /// <param name="fileName">The file's name, with or without its folder and ending.</param>
    public static string? From(string fileName)
    {
        var name = fileName.Replace('\\', '/');
        name = name[(name.LastIndexOf('/') + 1)..];
        name = Ending().Replace(name, "");
        name = Separators().Replace(name, " ");
        name = CaseJoint().Replace(name, "$1 $2");
        name = DateOrTime().Replace(name, " ");
        var words = name.Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Select(word => word.Trim('-', '–', ','))
            .Where(word => word.Length > 0 && !WorkingWord().IsMatch(word))
            .ToList();
        while (words.Count > 0 && words[^1].All(char.IsDigit))
            words.RemoveAt(words.Count - 1);
        if (!words.Any(word => word.Count(char.IsLetter) >= 2))
            return null;
        var title = string.Join(' ', words).Trim(' ', '-', '.', ',');
        if (title.All(c => !char.IsLower(c)))
            title = title.ToLowerInvariant();
        return char.ToUpperInvariant(title[0]) + title[1..];
    }

    [GeneratedRegex(@"\.[A-Za-z0-9]{2,4}$")]
    private static partial Regex Ending();

    [GeneratedRegex(@"[_\.\p{Cc}\s]+|(?<=\S)-(?=\S*[A-Za-z])|["" ]+")]
    private static partial Regex Separators();

    [GeneratedRegex(@"(\p{Ll})(\p{Lu})")]
    private static partial Regex CaseJoint();

    [GeneratedRegex(@"\b\d{4}[-. ]?\d{2}[-. ]?\d{2}\b|\b\d{1,2}[-.]\d{1,2}[-.]\d{2,4}\b|\b\d{6}\b|\b\d{1,2}[-:hH.]\d{2}([-:.]\d{2})?\b|\(\d+\)")]
    private static partial Regex DateOrTime();

    [GeneratedRegex(
        @"^(untitled|unnamed|recording|recordings?|record|rec|screen|screencast|screenshot|capture|video|movie|clip|mov|vid|img|new|project|"
            + @"copy|of|final|take\d*|v\d+|version|edit|export|test|neu|aufnahme|at|[-–+]+)$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex WorkingWord();
}
