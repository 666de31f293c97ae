namespace Wexel.Core.Cameras;

/// <summary>How a camera's time goes along the time of the screen's recording that it lies over.</summary>
/// <param name="Starts">The moment of the screen's recording at which the camera's begins; below 0 where the camera ran earlier.</param>
/// <param name="Drift">How much faster the camera's clock runs, in millionths: 1,000 are 3.6 s an hour.</param>
public readonly record struct CameraClock(TimeSpan Starts, double Drift)
{
    /// <summary>The most by which two clocks are thought to run apart, in millionths; clocks of recorders are good to some hundred (common practice, no
    /// source).</summary>
    public const double MostDrift = 5_000;

    /// <summary>The farthest that two recordings may begin apart.</summary>
    public static readonly TimeSpan FarthestStart = TimeSpan.FromHours(24);

    private double Rate => 1 + (Drift / 1e6);

    /// <summary>The moment of the camera's recording that belongs to a moment of the screen's; it may lie outside the camera's.</summary>
    public TimeSpan ToCamera(TimeSpan screen) => (screen - Starts) * Rate;

    /// <summary>The moment of the screen's recording that belongs to a moment of the camera's.</summary>
    public TimeSpan ToScreen(TimeSpan camera) => Starts + (camera / Rate);

    /// <summary>The nearest clock that can be.</summary>
    public CameraClock Within() =>
        new(
            Starts < -FarthestStart ? -FarthestStart
                : Starts > FarthestStart ? FarthestStart
                : Starts,
            double.IsFinite(Drift) ? Math.Clamp(Drift, -MostDrift, MostDrift) : 0
        );
}
