using System.Text.RegularExpressions;

namespace Wexel.Core.Proposing;

/// <summary>How people begin something new when they explain (common practice, no source; English alone).</summary>
internal static partial class Openers
{
    /// <summary>How much a sentence sounds like a beginning, 0 to 1.</summary>
    internal static double Weight(string sentence) =>
        Strong().IsMatch(sentence) ? 1
        : Weak().IsMatch(sentence) ? 0.5
        : 0;

    /// <summary>A sentence without the words that only begin it.</summary>
    internal static string Without(string sentence) => Address().Replace(Leading().Replace(sentence, ""), "");

    [GeneratedRegex(
        @"^(and |so |okay,? |ok,? |well,? |right,? )?"
            + @"(now(?!\s+and\s+then)|next|let us|let's|finally|lastly|first of all|to begin|to start|the next|another|at the end)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Strong();

    [GeneratedRegex(
        @"^(and |so |okay,? |well,? )?"
            + @"(on (?!the)|(then|when|if you want|some|a|an|for|below|above|into|in the (evening|morning)|up to|each|type|press)\b)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Weak();

    [GeneratedRegex(
        @"^((and|so|okay|ok|well|right|now|next|then|first|finally|lastly|second|third|again)\b[,.:]?\s+)+",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Leading();

    [GeneratedRegex(@"^(let us|let's|we|you can|you|i will|i)\s+(?=\w)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Address();
}
