namespace Wexel.Core.Captions;

/// <summary>How the files of several tracks are told apart.</summary>
public static class CaptionFileName
{
    /// <summary>A part of a file's name for each track: its language, and a number where there are several of one.</summary>
    /// <param name="languages">The tracks' languages as BCP 47 tags, in their order.</param>
    public static IReadOnlyList<string> ForLanguages(IReadOnlyList<string> languages) =>
        [.. languages.Select((language, i) => languages.Take(i).Count(l => l == language) is > 0 and var before ? $"{language}-{before + 1}" : language)];
}
