using System.Text.RegularExpressions;
using Wexel.Core.Captions;

namespace Wexel.Core.Speech;

/// <summary>Why a word is proposed otherwise.</summary>
public enum CorrectionKind
{
    /// <summary>The house writes it otherwise.</summary>
    HouseWord,

    /// <summary>It wants a capital: a lone “i”, or what begins a sentence.</summary>
    Capital,

    /// <summary>No dictionary has it.</summary>
    Spelling,
}

/// <summary>Words of a caption that could be written otherwise.</summary>
/// <param name="Cue">The caption's name.</param>
/// <param name="At">Where in its text they begin, in characters.</param>
/// <param name="Length">How many characters they are.</param>
/// <param name="Written">As they stand there.</param>
/// <param name="Instead">As they could be written; the first is taken by one click.</param>
/// <param name="Kind">Why.</param>
public sealed record Correction(string Cue, int At, int Length, string Written, IReadOnlyList<string> Instead, CorrectionKind Kind);

/// <summary>Proposes corrections of a track's words.</summary>
public static partial class CaptionCorrections
{
    /// <summary>All proposals, in order.</summary>
    /// <param name="cues">In order of time.</param>
    /// <param name="house">How the house writes its words.</param>
    /// <param name="isEnglish">Whether a lone “i” is the person who speaks.</param>
    /// <param name="unknown">Words that no dictionary has, plain, with what each could be; may be empty.</param>
    public static IReadOnlyList<Correction> Find(
        IReadOnlyList<Cue> cues,
        WordList house,
        bool isEnglish,
        IReadOnlyDictionary<string, IReadOnlyList<string>> unknown
    )
    {
        var finder = new WordFinder(house);
        var own = house.Words.SelectMany(w => WordList.PlainWords(w.Written)).ToHashSet();
        var (found, ended) = (new List<Correction>(), true);
        foreach (var cue in cues)
        {
            var words = Word().Matches(cue.Text).Select(m => (m.Index, m.Value)).ToList();
            var plain = words.ConvertAll(w => WordList.Plain(w.Value));
            for (var i = 0; i < words.Count; )
            {
                var begins = ended;
                var count = 1;
                if (finder.At(plain, i) is { } known)
                {
                    count = known.Count;
                    var (from, to) = (words[i].Index, words[i + count - 1].Index + words[i + count - 1].Value.Length);
                    var written = cue.Text[from..to];
                    var wanted = begins ? Capitalised(known.Word.Written) : known.Word.Written;
                    if (!string.Equals(WithoutLineEnds(written), wanted, StringComparison.Ordinal) && written != known.Word.Written)
                        found.Add(new Correction(cue.Id, from, to - from, written, [wanted], CorrectionKind.HouseWord));
                }
                else if (isEnglish && IsLoneI(cue.Text, words[i].Index, words[i].Value))
                    found.Add(new Correction(cue.Id, words[i].Index, 1, words[i].Value[..1], ["I"], CorrectionKind.Capital));
                else if (begins && char.IsLower(words[i].Value[0]))
                    found.Add(
                        new Correction(cue.Id, words[i].Index, words[i].Value.Length, words[i].Value, [Capitalised(words[i].Value)], CorrectionKind.Capital)
                    );
                else if (unknown.TryGetValue(plain[i], out var others) && !own.Contains(plain[i]))
                    found.Add(new Correction(cue.Id, words[i].Index, words[i].Value.Length, words[i].Value, others, CorrectionKind.Spelling));
                var last = words[i + count - 1];
                var after = i + count < words.Count ? words[i + count].Index : cue.Text.Length;
                // A letter with a point is an abbreviation, and so is a point within a word.
                var between = cue.Text.AsSpan(last.Index + last.Value.Length, after - last.Index - last.Value.Length);
                ended = between.IndexOfAny('.', '?', '!') >= 0 && !(between is "." && i + count < words.Count) && last.Value is not [>= 'a' and <= 'z'];
                i += count;
            }
        }

        return found;
    }

    /// <summary>A small “i” that speaks, alone or before a verb that is written on; not one of “i.e.”.</summary>
    private static bool IsLoneI(string text, int at, string word) =>
        (word is "i" && !(at + 2 < text.Length && text[at + 1] == '.' && char.IsLetter(text[at + 2])))
        || word.StartsWith("i'", StringComparison.Ordinal)
        || word.StartsWith("i’", StringComparison.Ordinal);

    private static string WithoutLineEnds(string text) => text.Replace('\n', ' ');

    private static string Capitalised(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    [GeneratedRegex(@"[\p{L}\p{N}]+(['’][\p{L}\p{N}]+)*", RegexOptions.NonBacktracking)]
    private static partial Regex Word();
}
