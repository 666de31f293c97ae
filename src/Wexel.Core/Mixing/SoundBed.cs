using System.Text.Json;
using System.Text.Json.Serialization;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Mixing;

/// <summary>A sound that is laid under a stretch of a lesson.</summary>
/// <param name="Id">A name inside the lesson that stays.</param>
/// <param name="Span">Where it lies, in recording time; it ends earlier where it is not played again and is shorter, or ends at a bar.</param>
/// <param name="Sound">The sound, as it stood on the shelf.</param>
/// <param name="FadeIn">How long it takes to come, 0 to 30 s.</param>
/// <param name="FadeOut">How long it takes to go, 0 to 30 s.</param>
/// <param name="Apart">How far it lies under the voice where somebody speaks, in LU, <see cref="LeastApart"/> to <see cref="MostApart"/>.</param>
/// <param name="Duck">By how much it is brought down there, in dB, 0 to <see cref="MostDuck"/>: where nobody speaks it is so much louder.</param>
/// <param name="Attack">How long it takes to be down, 0.02 to 5 s; it is down when the voice begins.</param>
/// <param name="Release">How long it takes to be up again behind the voice, 0.02 to 5 s.</param>
/// <param name="Loops">Whether it is played again and again, on the beat, as long as the stretch is.</param>
/// <param name="EndsAtBar">Whether it ends with the last whole bar that the stretch has room for.</param>
public sealed record SoundBed(
    string Id,
    TimeRange Span,
    ShelfSound Sound,
    TimeSpan FadeIn,
    TimeSpan FadeOut,
    double Apart,
    double Duck,
    TimeSpan Attack,
    TimeSpan Release,
    bool Loops,
    bool EndsAtBar
) : IPlaced<SoundBed>, IJsonOnDeserialized
{
    /// <summary>How far sound must lie under a voice, at least, in LU, for the voice to be followed with ease (WCAG 2.2, success criterion 1.4.7, asks
    /// for 20 dB; common practice goes down to 15).</summary>
    public const double LeastApart = 15;

    /// <summary>Where nobody chose: what WCAG 2.2 asks for in success criterion 1.4.7, in LU.</summary>
    public const double UsualApart = 20;

    /// <summary>Further down nothing of it is heard, in LU.</summary>
    public const double MostApart = 50;

    /// <summary>The most that it is brought down, in dB.</summary>
    public const double MostDuck = 30;

    /// <inheritdoc cref="SoundBedKind"/>
    public static PlacedKind<SoundBed> Kind { get; } = new SoundBedKind();

    /// <summary>Where it ends, without its going further than its stretch.</summary>
    [JsonIgnore]
    public TimeSpan Ends
    {
        get
        {
            var length = Loops || Span.Length < Sound.Length ? Span.Length : Sound.Length;
            return Span.Start
                + (
                    EndsAtBar && Sound.Bar is { } bar && length - Sound.FirstBeat >= bar
                        ? Sound.FirstBeat + (bar * Math.Floor((length - Sound.FirstBeat) / bar))
                        : length
                );
        }
    }

    /// <summary>What was read may lack what nobody could do without.</summary>
    /// <exception cref="JsonException">It has no sound.</exception>
    void IJsonOnDeserialized.OnDeserialized()
    {
        if (Sound is not { Key: not null, Title: not null, Author: not null, Licence: not null })
            throw new JsonException("A sound under the voice does not say which it is.");
    }
}
