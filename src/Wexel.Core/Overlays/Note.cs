using System.Text.Json;
using System.Text.Json.Serialization;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Overlays;

/// <summary>Where a note stands on the picture.</summary>
public enum NoteCorner
{
    /// <summary>At the top, at the left.</summary>
    TopLeft,

    /// <summary>At the top, at the right.</summary>
    TopRight,

    /// <summary>In the middle.</summary>
    Middle,

    /// <summary>At the bottom, at the left.</summary>
    BottomLeft,

    /// <summary>At the bottom, at the right.</summary>
    BottomRight,
}

/// <summary>Something that is to be read over the picture for a stretch.</summary>
/// <param name="Id">A name inside the lesson that stays.</param>
/// <param name="Span">As long as it is there, in recording time.</param>
/// <param name="Text">What it says; plain text, lines are kept.</param>
/// <param name="Corner">Where it stands.</param>
/// <param name="Address">An address that it leads to, see <see cref="SafeLink"/>; empty for none.</param>
/// <param name="Picture">The key of a picture that it shows; null for none.</param>
public sealed record Note(
    string Id,
    TimeRange Span,
    string Text,
    NoteCorner Corner = NoteCorner.TopRight,
    string Address = "",
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Picture = null
) : IPlaced<Note>, IJsonOnDeserialized
{
    /// <summary>The longest text, in characters: more covers the picture.</summary>
    public const int LongestText = 500;

    /// <inheritdoc cref="NoteKind"/>
    public static PlacedKind<Note> Kind { get; } = new NoteKind();

    /// <summary>What was read may lack what nobody could do without.</summary>
    /// <exception cref="JsonException">It says nothing.</exception>
    void IJsonOnDeserialized.OnDeserialized()
    {
        if (Text is null || Address is null)
            throw new JsonException("A note says nothing.");
    }
}
