namespace Wexel.Cli;

/// <summary>Names of files that are made from titles.</summary>
internal static class FileNames
{
    /// <summary>A title as a file's name: lower case, words joined by hyphens.</summary>
    internal static string FromTitle(string title) =>
        string.Join(
            '-',
            new string([.. title.ToLowerInvariant().Select(c => char.IsLetterOrDigit(c) ? c : ' ')]).Split(' ', StringSplitOptions.RemoveEmptyEntries)
        )
            is { Length: > 0 } name
            ? name
            : "lesson";
}
