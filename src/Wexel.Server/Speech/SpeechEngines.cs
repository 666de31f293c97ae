using Wexel.Media.Speech;

namespace Wexel.Server.Speech;

/// <summary>The engines of this server, the one that is taken first at the front.</summary>
internal sealed class SpeechEngines(IEnumerable<ISpeechEngine> engines)
{
    /// <summary>The engine for a language; null where none knows it.</summary>
    /// <param name="language">As a BCP 47 tag.</param>
    internal ISpeechEngine? For(string language) => engines.FirstOrDefault(e => e.Missing() is null && e.Knows(language));

    /// <summary>Why there is none for a language, in a sentence.</summary>
    /// <param name="language">As a BCP 47 tag.</param>
    internal string WhyNone(string language) =>
        engines.Where(e => e.Knows(language)).Select(e => e.Missing()?.Sentence).FirstOrDefault(s => s is not null)
        ?? $"No speech engine of this server knows the language “{language}”, so there is no draft. Add a caption file, or write the captions here.";
}
