using System.Text.RegularExpressions;

namespace Wexel.Core.Searching;

/// <summary>Words that a learner looks for, as a query of PostgreSQL's text search: all of them, each also as the beginning of a longer one.</summary>
public sealed partial class SearchWords
{
    /// <summary>The longest word, in characters; of a longer one its beginning is looked for.</summary>
    private const int Longest = 60;

    private SearchWords(IReadOnlyList<string> words) => Words = words;

    /// <summary>The words; one or more.</summary>
    public IReadOnlyList<string> Words { get; }

    /// <summary>The query for places that say all of them.</summary>
    public string All => string.Join(" & ", Words.Select(Query));

    /// <summary>The query for places that say any of them.</summary>
    public string Any => string.Join(" | ", Words.Select(Query));

    /// <summary>Reads what somebody typed; null where there is no word in it.</summary>
    public static SearchWords? Parse(string? typed)
    {
        var words = Word().Matches(typed ?? "").Select(m => m.Value.Length <= Longest ? m.Value : m.Value[..Longest]);
        var taken = words.Distinct(StringComparer.OrdinalIgnoreCase).Take(TextSearch.MostWords).ToList();
        return taken.Count == 0 ? null : new SearchWords(taken);
    }

    /// <summary>The same with another word in place of one of them.</summary>
    public SearchWords With(string word, string instead) => new([.. Words.Select(w => w == word ? instead : w)]);

    // Quoted, so that nothing in it means anything; a quote cannot stand in it.
    private static string Query(string word) => $"'{word}':*";

    /// <summary>Letters, marks on them and digits; what else stands between them parts words.</summary>
    [GeneratedRegex(@"[\p{L}\p{M}\p{N}]+")]
    private static partial Regex Word();
}
