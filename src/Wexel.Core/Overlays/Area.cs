using System.Text.Json;
using System.Text.Json.Serialization;
using Wexel.Core.Placing;
using Wexel.Core.Scoring;
using Wexel.Core.Timing;

namespace Wexel.Core.Overlays;

/// <summary>A part of the picture that can be clicked over a stretch; it goes along where the picture moves in.</summary>
/// <param name="Id">A name inside the lesson that stays.</param>
/// <param name="Span">As long as it is there, in recording time.</param>
/// <param name="Shape">Where it is, as shares of the recording's picture.</param>
/// <param name="Text">What is there, in a few words: what its button is called for whoever sees no picture.</param>
/// <param name="Action">What happens when it is clicked.</param>
public sealed record Area(string Id, TimeRange Span, Shape Shape, string Text, AreaAction Action) : IPlaced<Area>, IJsonOnDeserialized
{
    /// <summary>The longest text, in characters.</summary>
    public const int LongestText = 200;

    /// <inheritdoc cref="AreaKind"/>
    public static PlacedKind<Area> Kind { get; } = new AreaKind();

    /// <summary>What was read may lack what nobody could do without.</summary>
    /// <exception cref="JsonException">It does not say where it is or what it does.</exception>
    void IJsonOnDeserialized.OnDeserialized()
    {
        if (Action is null || Text is null || Shape?.Points is null)
            throw new JsonException("A clickable area does not say where it is and what it does.");
    }
}
