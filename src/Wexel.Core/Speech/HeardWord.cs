using Wexel.Core.Timing;

namespace Wexel.Core.Speech;

/// <summary>A word as a speech engine heard it.</summary>
/// <param name="Span">When it is spoken.</param>
/// <param name="Text">As the engine writes it; a single word, without spaces.</param>
/// <param name="Confidence">How sure the engine is of it, 0 to 1.</param>
public sealed record HeardWord(TimeRange Span, string Text, double Confidence)
{
    /// <summary>Below this a word is marked as unsure (common practice, no source; not measured yet).</summary>
    public const double Sure = 0.5;

    /// <summary>Whether somebody should look at it.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsUnsure => Confidence < Sure;
}

/// <summary>What was heard of a recording.</summary>
/// <param name="Engine">Which engine heard it, as it is shown.</param>
/// <param name="Writes">Whether the engine writes sentences itself, with their case and marks.</param>
/// <param name="Words">In order.</param>
public sealed record HeardSpeech(string Engine, bool Writes, IReadOnlyList<HeardWord> Words)
{
    /// <summary>Nothing so far.</summary>
    /// <param name="engine">Who listens.</param>
    /// <param name="writes">Whether it writes sentences.</param>
    public static HeardSpeech Nothing(string engine, bool writes) => new(engine, writes, []);
}
