using System.Text.Json.Serialization;

namespace Wexel.Core.Mixing;

/// <summary>What is mixed with a lesson's voice: numbers alone, so that it sounds the same wherever it is done.</summary>
/// <param name="Beds">The sounds, in the order in which they begin.</param>
/// <param name="Gain">By what everything is multiplied, voice and sounds, so that nothing clips; 1 or less.</param>
public sealed record UnderPlan(IReadOnlyList<BedPlan> Beds, double Gain);

/// <summary>One sound that is mixed in.</summary>
/// <param name="Sound">The SHA-256 of its file.</param>
/// <param name="Channels">How many channels it has, 1 or 2.</param>
/// <param name="Pieces">What is played of it, in order.</param>
/// <param name="Gains">By what it is multiplied: straight lines between these points, nothing before the first and behind the last; in order.</param>
public sealed record BedPlan(string Sound, int Channels, IReadOnlyList<PlayedPiece> Pieces, IReadOnlyList<GainPoint> Gains)
{
    /// <summary>By what it is multiplied at a moment of the lesson.</summary>
    public double GainAt(TimeSpan at) => at < Gains[0].At || at > Gains[^1].At ? 0 : GainPoint.On(Gains, at);
}

/// <summary>A part of a sound that is played.</summary>
/// <param name="At">When it begins, in lesson time.</param>
/// <param name="From">Where in the sound it begins.</param>
/// <param name="Length">How long it is.</param>
/// <param name="Comes">How long it takes to come from nothing, in a straight line: where it follows upon another, both lie over each other so long.</param>
/// <param name="Goes">How long it takes to go.</param>
public readonly record struct PlayedPiece(TimeSpan At, TimeSpan From, TimeSpan Length, TimeSpan Comes, TimeSpan Goes)
{
    /// <summary>When it ends, in lesson time.</summary>
    [JsonIgnore]
    public TimeSpan Ends => At + Length;
}

/// <summary>By what a sound is multiplied at a moment.</summary>
/// <param name="At">The moment, in lesson time.</param>
/// <param name="Gain">The factor; 0 is silence.</param>
public readonly record struct GainPoint(TimeSpan At, double Gain)
{
    /// <summary>The value of straight lines between points; that of the nearest outside of them, and 1 where there are none.</summary>
    internal static double On(IReadOnlyList<GainPoint> points, TimeSpan at)
    {
        if (points.Count == 0)
            return 1;
        if (at <= points[0].At)
            return points[0].Gain;
        for (var i = 1; i < points.Count; i++)
        {
            if (at > points[i].At)
                continue;
            var (from, to) = (points[i - 1], points[i]);
            return to.At == from.At ? to.Gain : from.Gain + ((to.Gain - from.Gain) * ((at - from.At) / (to.At - from.At)));
        }

        return points[^1].Gain;
    }
}
