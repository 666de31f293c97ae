using Wexel.Media.Tools;

namespace Wexel.Media.Translating;

/// <summary>
/// Translates sentences. A translator is a class beside this and a line where translators are registered; what translates is a process of its own,
/// which may hang or die without harm.
/// </summary>
public interface ITranslator
{
    /// <summary>What it is called, as it is shown.</summary>
    string Name { get; }

    /// <summary>The languages into which it can translate.</summary>
    /// <param name="from">As a BCP 47 tag.</param>
    /// <returns>Languages without script and region, in order; none where it knows no way.</returns>
    IReadOnlyList<string> Into(string from);

    /// <summary>Translates sentences.</summary>
    /// <param name="sentences">Each on one line.</param>
    /// <param name="from">Their language, as a BCP 47 tag.</param>
    /// <param name="to">The language that is wanted; one of <see cref="Into"/>, with or without region.</param>
    /// <param name="cancel">Ends it.</param>
    /// <returns>As many, in the same order.</returns>
    /// <exception cref="ToolFailedException">It died, hung, or gave back another number of sentences.</exception>
    Task<IReadOnlyList<string>> TranslateAsync(IReadOnlyList<string> sentences, string from, string to, CancellationToken cancel);
}
