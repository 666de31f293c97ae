using System.Text;

namespace Wexel.Core.Speech;

/// <summary>Sounds of English as speech engines name them: the phonemes of CMU's pronouncing dictionary (ARPAbet without stress).</summary>
public static class Phonemes
{
    // International Phonetic Alphabet to ARPAbet; longer ones first where one begins another. The table is from memory.
    private static readonly (string Ipa, string Arpabet)[] Table =
    [
        .. (
            "tʃ CH dʒ JH aɪ AY aʊ AW ɔɪ OY eɪ EY oʊ OW əʊ OW oː AO ɔː AO ɑː AA iː IY uː UW ɜː ER ɝ ER ɚ ER əl AH-L n̩ AH-N l̩ AH-L "
            + "p P b B t T d D k K ɡ G g G f F v V θ TH ð DH s S z Z ʃ SH ʒ ZH h HH m M n N ŋ NG l L ɫ L ɹ R r R w W j Y ʍ W ɾ T ʔ T x K ç HH "
            + "i IY ɪ IH ᵻ IH ɨ IH ɛ EH e EH æ AE a AE ɑ AA ɒ AA ɔ AO ʊ UH u UW ʌ AH ə AH ɐ AH o OW"
        )
            .Split(' ')
            .Chunk(2)
            .Select(p => (p[0], p[1].Replace('-', ' ')))
            .OrderByDescending(p => p.Item1.Length),
    ];

    /// <summary>A word that is written in the International Phonetic Alphabet as engines have it; marks of stress and length count nothing.</summary>
    /// <param name="ipa">Such as <c>skˈɛɹi</c>.</param>
    /// <returns>Such as <c>S K EH R IY</c>; empty where no sound of it is known.</returns>
    public static string FromIpa(string ipa)
    {
        var sounds = new StringBuilder();
        var plain = ipa.Replace("ˈ", "", StringComparison.Ordinal).Replace("ˌ", "", StringComparison.Ordinal);
        for (var at = 0; at < plain.Length; )
        {
            var (known, sound) = Array.Find(Table, t => string.CompareOrdinal(plain, at, t.Ipa, 0, t.Ipa.Length) == 0);
            if (known is not null)
                sounds.Append(sounds.Length > 0 ? " " : "").Append(sound);
            at += known?.Length ?? 1;
        }

        return sounds.ToString();
    }
}
