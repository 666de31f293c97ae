using Wexel.Core;
using Wexel.Core.Speech;
using Wexel.Media.Tools;

namespace Wexel.Media.Speech;

/// <summary>
/// Makes words with their times of speech. An engine is a class beside this and a line where engines are registered. What listens is a process
/// of its own, which may hang or die without harm.
/// </summary>
public interface ISpeechEngine
{
    /// <summary>What it is called, as it is shown.</summary>
    string Name { get; }

    /// <summary>Whether it writes sentences, with capitals and marks; otherwise single words in small letters.</summary>
    bool Writes { get; }

    /// <summary>Whether it knows a language.</summary>
    /// <param name="language">As a BCP 47 tag.</param>
    bool Knows(string language);

    /// <summary>Why it cannot be used on this machine, or null.</summary>
    Problem? Missing();

    /// <summary>Makes ready to listen to somebody who reads a script; null where the engine cannot make use of one.</summary>
    /// <param name="script">The script.</param>
    /// <param name="language">Its language, as a BCP 47 tag.</param>
    /// <param name="folder">Where its files go.</param>
    /// <param name="cancel">Ends it.</param>
    /// <exception cref="ToolFailedException">What it needs for that failed.</exception>
    Task<SpeechHints?> PrepareAsync(ScriptText script, string language, string folder, CancellationToken cancel);

    /// <summary>Listens to a sound of seconds.</summary>
    /// <param name="sound">A WAV file of one channel, 16,000 samples a second of 16 bits.</param>
    /// <param name="language">The language that is spoken, as a BCP 47 tag.</param>
    /// <param name="hints">What is known of what is said, from <see cref="PrepareAsync"/>; null for nothing.</param>
    /// <param name="limits">What it may use.</param>
    /// <param name="cancel">Ends it.</param>
    /// <returns>The words, in the sound's own time.</returns>
    /// <exception cref="ToolFailedException">It died, hung, or printed what are no words.</exception>
    Task<IReadOnlyList<HeardWord>> ListenAsync(string sound, string language, SpeechHints? hints, ChildLimits limits, CancellationToken cancel);
}
