namespace Wexel.Media.Speech;

/// <summary>What an engine is given of a script, in files of its own making.</summary>
/// <param name="LanguageModel">How likely words follow each other.</param>
/// <param name="Dictionary">How they are pronounced.</param>
public sealed record SpeechHints(string LanguageModel, string Dictionary);
