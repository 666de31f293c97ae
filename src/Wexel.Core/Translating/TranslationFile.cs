namespace Wexel.Core.Translating;

/// <summary>What translators are given, and give back.</summary>
/// <param name="Lesson">What names the lesson.</param>
/// <param name="From">Its language, as a BCP 47 tag.</param>
/// <param name="To">The language of the translation.</param>
/// <param name="Texts">Its texts, in order.</param>
public sealed record TranslationFile(string Lesson, string From, string To, IReadOnlyList<FiledText> Texts);

/// <summary>A text for translators.</summary>
/// <param name="Text">What is to be translated.</param>
/// <param name="Translation">What there is; null for nothing.</param>
/// <param name="IsSure">Whether somebody wrote or corrected that.</param>
public sealed record FiledText(LessonText Text, string? Translation, bool IsSure);
