using System.Collections.Frozen;

namespace Wexel.Core.Captions;

/// <summary>The names of languages as media files write them: three letters (ISO 639-2, terminological), where BCP 47 has two (ISO 639-1).</summary>
public static class LanguageCodes
{
    /// <summary>What is written where a language has no such name: undetermined.</summary>
    public const string Undetermined = "und";

    // The table of both codes, from memory; all languages that have a two-letter code.
    private static readonly FrozenDictionary<string, string> Three = (
        "aa aar ab abk ae ave af afr ak aka am amh an arg ar ara as asm av ava ay aym az aze ba bak be bel bg bul bh bih bi bis "
        + "bm bam bn ben bo bod br bre bs bos ca cat ce che ch cha co cos cr cre cs ces cu chu cv chv cy cym da dan de deu dv div "
        + "dz dzo ee ewe el ell en eng eo epo es spa et est eu eus fa fas ff ful fi fin fj fij fo fao fr fra fy fry ga gle gd gla "
        + "gl glg gn grn gu guj gv glv ha hau he heb hi hin ho hmo hr hrv ht hat hu hun hy hye hz her ia ina id ind ie ile ig ibo "
        + "ii iii ik ipk io ido is isl it ita iu iku ja jpn jv jav ka kat kg kon ki kik kj kua kk kaz kl kal km khm kn kan ko kor "
        + "kr kau ks kas ku kur kv kom kw cor ky kir la lat lb ltz lg lug li lim ln lin lo lao lt lit lu lub lv lav mg mlg mh mah "
        + "mi mri mk mkd ml mal mn mon mr mar ms msa mt mlt my mya na nau nb nob nd nde ne nep ng ndo nl nld nn nno no nor nr nbl "
        + "nv nav ny nya oc oci oj oji om orm or ori os oss pa pan pi pli pl pol ps pus pt por qu que rm roh rn run ro ron ru rus "
        + "rw kin sa san sc srd sd snd se sme sg sag sh hbs si sin sk slk sl slv sm smo sn sna so som sq sqi sr srp ss ssw st sot "
        + "su sun sv swe sw swa ta tam te tel tg tgk th tha ti tir tk tuk tl tgl tn tsn to ton tr tur ts tso tt tat tw twi ty tah "
        + "ug uig uk ukr ur urd uz uzb ve ven vi vie vo vol wa wln wo wol xh xho yi yid yo yor za zha zh zho zu zul"
    )
        .Split(' ')
        .Chunk(2)
        .ToFrozenDictionary(pair => pair[0], pair => pair[1]);

    private static readonly FrozenDictionary<string, string> Two = Three
        .DistinctBy(pair => pair.Value)
        .ToFrozenDictionary(pair => pair.Value, pair => pair.Key);

    /// <summary>The BCP 47 tag of a language as media files write it; null where the file does not say.</summary>
    /// <param name="code">Three letters, or a tag already.</param>
    public static string? Tag(string? code) =>
        code is null or Undetermined or "" ? null : LanguageTag.Parse(Two.GetValueOrDefault(code.ToLowerInvariant(), code));

    /// <summary>The three letters of a BCP 47 tag's language.</summary>
    /// <param name="tag">Such as <c>en-GB</c>; a language of three letters stays as it is.</param>
    public static string ThreeLetters(string tag)
    {
        var language = tag.Split('-')[0].ToLowerInvariant();
        return language.Length == 3 && language.All(char.IsAsciiLetterLower) ? language : Three.GetValueOrDefault(language, Undetermined);
    }
}
