using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>One caption: what is shown, and when.</summary>
/// <param name="Span">When it is shown, in recording time.</param>
/// <param name="Text">Plain text; lines are parted by <c>\n</c>.</param>
public sealed record Cue(TimeRange Span, string Text);

/// <summary>What was read from a caption file.</summary>
/// <param name="Cues">In order of time.</param>
/// <param name="Problems">One for each thing that could not be read; the rest is kept.</param>
public sealed record CaptionReading(IReadOnlyList<Cue> Cues, IReadOnlyList<Problem> Problems);
