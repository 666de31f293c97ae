using System.Text.RegularExpressions;

namespace Wexel.Core.Speech;

/// <summary>Swear words, which engines hear in noise and unclear speech, and which no draft should put before a trainer or a class.</summary>
public static partial class CoarseWords
{
    /// <summary>What stands in a draft in their place.</summary>
    public const string Unclear = "[unclear]";

    /// <summary>The words as they were heard; a swear word is unclear, and nobody is sure of it.</summary>
    /// <param name="heard">What was heard.</param>
    public static IReadOnlyList<HeardWord> Without(IReadOnlyList<HeardWord> heard) =>
        [.. heard.Select(w => IsCoarse(w.Text) ? w with { Text = Unclear, Confidence = 0 } : w)];

    private static bool IsCoarse(string word) => Coarse().IsMatch(WordList.Plain(word));

    // English, what dictionaries mark as vulgar, with its endings (from memory).
    [GeneratedRegex(
        "^((mother)?fuck|(bull)?shit|cunt|bitch|whore|asshole|nigger|faggot|wank)(s|es|ed|er|ers|in|ing|y|ty|ter)?$",
        RegexOptions.CultureInvariant | RegexOptions.NonBacktracking
    )]
    private static partial Regex Coarse();
}
