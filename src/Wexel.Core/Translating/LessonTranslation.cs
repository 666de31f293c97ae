using System.Text.Json.Serialization;
using Wexel.Core.Captions;
using Wexel.Core.Keys;
using Wexel.Core.Placing;

namespace Wexel.Core.Translating;

/// <summary>What a lesson says of itself, in another language; what is said in it stands in a caption track of that language.</summary>
/// <param name="Language">As a BCP 47 tag.</param>
/// <param name="Texts">Its texts, each at most once.</param>
/// <param name="GoesOut">Whether learners also get what a machine wrote and nobody has looked through; it is called a draft there too.</param>
public sealed record LessonTranslation(
    string Language,
    IReadOnlyList<TranslatedText> Texts,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool GoesOut = false
)
{
    /// <summary>The most languages that a lesson may have.</summary>
    public const int Most = 50;

    /// <summary>Whether both say the same.</summary>
    public bool Equals(LessonTranslation? other) =>
        other is not null && Language == other.Language && GoesOut == other.GoesOut && Texts.SequenceEqual(other.Texts);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Language, GoesOut, Texts.Count);

    /// <summary>The texts that learners get.</summary>
    [JsonIgnore]
    public IEnumerable<TranslatedText> ForLearners => Texts.Where(t => t.Text.Length > 0 && (GoesOut || !t.Draft));

    /// <summary>A text that learners get; null where there is none.</summary>
    /// <param name="of">What it is a translation of, see <see cref="TranslatedText.Of"/>.</param>
    public string? Shown(string of) => ForLearners.FirstOrDefault(t => t.Of == of)?.Text;

    /// <summary>Without texts of what the lesson no longer has, and each text within its limit.</summary>
    /// <param name="texts">The lesson's texts.</param>
    internal LessonTranslation Tidy(IReadOnlyList<LessonText> texts)
    {
        var known = texts.ToDictionary(u => u.Id);
        return this with
        {
            Texts = [.. Texts.Where(t => known.ContainsKey(t.Of)).DistinctBy(t => t.Of).Select(t => t with { Text = known[t.Of].Tidy(t.Text) })],
        };
    }

    /// <summary>Two people's changes of one translation.</summary>
    internal static LessonTranslation Merged(ThreeWay three, LessonTranslation before, LessonTranslation theirs, LessonTranslation mine) =>
        mine with
        {
            GoesOut = three.Value(before.GoesOut, theirs.GoesOut, mine.GoesOut, $"who gets the draft in {mine.Language}"),
            Texts = three.List(before.Texts, theirs.Texts, mine.Texts, t => t.Of, _ => $"a text in {mine.Language}", (_, _, own) => own),
        };

    /// <summary>What of it is part of the lesson's key.</summary>
    internal static void Declare(KeyFields key, LessonTranslation translation) =>
        key.Add("language", translation.Language)
            .Each("texts", [.. translation.ForLearners], (k, t) => k.Add("of", t.Of).Add("text", t.Text).Add("draft", t.Draft));
}

/// <summary>One text in another language.</summary>
/// <param name="Of">What it is a translation of: the name of the <see cref="LessonText"/>.</param>
/// <param name="Source">What that said when it was translated.</param>
/// <param name="Text">The translation.</param>
/// <param name="Draft">Whether a machine wrote it, and nobody has looked at it.</param>
public sealed record TranslatedText(
    string Of,
    string Source,
    string Text,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Draft = false
);

/// <summary>A translation of a lesson as it is made or brought in: for the lesson's document.</summary>
/// <param name="Translation">Title, description and contents.</param>
/// <param name="Track">What is said; null where the lesson has no captions, or none of them is translated.</param>
public sealed record TranslatedLesson(LessonTranslation Translation, CaptionTrack? Track);
