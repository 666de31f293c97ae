using System.Text.Json.Serialization;
using Wexel.Core.Overlays;
using Wexel.Core.Scoring;

namespace Wexel.Core.Packages;

/// <summary>A clickable area as the player shows it.</summary>
/// <param name="Id">Its name inside the lesson.</param>
/// <param name="From">Since when it is there, in lesson time.</param>
/// <param name="Until">Until when, in lesson time.</param>
/// <param name="Text">What its button is called.</param>
/// <param name="Shape">What its outline is.</param>
/// <param name="Outline">Where it is seen: once where it does not move; otherwise its corners go straight from one to the next.</param>
/// <param name="Does">What happens when it is clicked.</param>
public sealed record PlayerArea(string Id, TimeSpan From, TimeSpan Until, string Text, ShapeKind Shape, IReadOnlyList<PlayerOutline> Outline, AreaDoes Does);

/// <summary>Where an area is seen at a moment.</summary>
/// <param name="At">The moment, in lesson time.</param>
/// <param name="Points">Its corners, as shares of the picture.</param>
public sealed record PlayerOutline(TimeSpan At, IReadOnlyList<Place> Points);

/// <summary>A note over the picture as the player shows it.</summary>
/// <param name="Id">Its name inside the lesson.</param>
/// <param name="From">Since when it is there, in lesson time.</param>
/// <param name="Until">Until when, in lesson time.</param>
/// <param name="Text">What it says; lines are kept.</param>
/// <param name="Corner">Where it stands.</param>
/// <param name="Address">An address that it leads to; null for none.</param>
/// <param name="Picture">Where its picture lies, relative to the page; null for none.</param>
public sealed record PlayerNote(
    string Id,
    TimeSpan From,
    TimeSpan Until,
    string Text,
    NoteCorner Corner,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Address = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Picture = null
)
{
    /// <summary>Notes as the player shows them.</summary>
    /// <param name="notes">They, in lesson time.</param>
    public static IReadOnlyList<PlayerNote> List(IReadOnlyList<Note> notes) =>
        [.. notes.Select(n => new PlayerNote(n.Id, n.Span.Start, n.Span.End, n.Text, n.Corner, SafeLink.OnPage(n.Address), LessonFiles.ShownOf(n.Picture)))];
}
