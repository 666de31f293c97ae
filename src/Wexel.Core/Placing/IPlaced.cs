using Wexel.Core.Timing;

namespace Wexel.Core.Placing;

/// <summary>Something that is placed along a lesson's recordings: at a moment or over a stretch, in recording time.</summary>
public interface IPlaced
{
    /// <summary>A name that stays, whatever is changed of it; no two of a kind have the same.</summary>
    string Id { get; }

    /// <summary>Where it lies, in recording time; at a moment, start and end are the same.</summary>
    TimeRange Span { get; }
}

/// <summary>Something that is placed, and knows what holds for all of its kind.</summary>
/// <typeparam name="TSelf">Itself.</typeparam>
public interface IPlaced<TSelf> : IPlaced
    where TSelf : class, IPlaced<TSelf>
{
    /// <summary>What holds for all of its kind.</summary>
    static abstract PlacedKind<TSelf> Kind { get; }
}
