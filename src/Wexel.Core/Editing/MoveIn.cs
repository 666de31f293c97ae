using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Editing;

/// <summary>A stretch in which a part of the picture is seen large.</summary>
/// <param name="Id">A name inside the lesson that stays.</param>
/// <param name="Span">From the start of moving in to the end of moving out, in recording time.</param>
/// <param name="Part">What must be seen, as shares of the recording's picture; the canvas shows at least that.</param>
/// <param name="Ease">How long moving in and moving out take, each.</param>
public sealed record MoveIn(string Id, TimeRange Span, PicturePart Part, TimeSpan Ease) : IPlaced<MoveIn>
{
    /// <inheritdoc cref="MoveInKind"/>
    public static PlacedKind<MoveIn> Kind { get; } = new MoveInKind();

    /// <summary>How long moving takes where nobody chose.</summary>
    public static readonly TimeSpan UsualEase = TimeSpan.FromSeconds(0.5);
}
