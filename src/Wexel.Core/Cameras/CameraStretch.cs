using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Cameras;

/// <summary>A stretch of a lesson in which the camera is shown otherwise than usually.</summary>
/// <param name="Id">A name inside the lesson that stays.</param>
/// <param name="Span">Where it lies, in recording time.</param>
/// <param name="Shown">How it is shown there.</param>
public sealed record CameraStretch(string Id, TimeRange Span, CameraShown Shown) : IPlaced<CameraStretch>
{
    /// <inheritdoc cref="CameraStretchKind"/>
    public static PlacedKind<CameraStretch> Kind { get; } = new CameraStretchKind();
}
