using System.Text.Json.Serialization;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>One caption: what is shown, and when.</summary>
/// <param name="Span">When it is shown, in recording time.</param>
/// <param name="Text">Plain text; lines are parted by <c>\n</c>.</param>
/// <param name="Markup">The same with bold, italics and underlines, see <see cref="CueMarkup"/>; null where there are none.</param>
/// <param name="AtTop">Whether it stands at the top of the picture and not at its bottom.</param>
/// <param name="Id">A name inside its track that stays when it is corrected; empty where nobody needs one.</param>
public sealed record Cue(
    TimeRange Span,
    string Text,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Markup = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool AtTop = false,
    string Id = ""
) : IPlaced<Cue>
{
    /// <inheritdoc cref="CueKind"/>
    public static PlacedKind<Cue> Kind { get; } = new CueKind();
}

/// <summary>What was read from a caption file.</summary>
/// <param name="Cues">In order of time.</param>
/// <param name="Problems">One for each thing that could not be read; the rest is kept.</param>
public sealed record CaptionReading(IReadOnlyList<Cue> Cues, IReadOnlyList<Problem> Problems);
