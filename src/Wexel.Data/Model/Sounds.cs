namespace Wexel.Data.Model;

/// <summary>A sound that somebody put on the shelf.</summary>
public sealed class KeptSound
{
    /// <summary>The SHA-256 of its file.</summary>
    public required string Key { get; init; }

    /// <summary>The <see cref="Core.Mixing.ShelvedSound"/> as JSON.</summary>
    public required string Sound { get; set; }

    /// <summary>Who put it there.</summary>
    public required string By { get; set; }

    public DateTimeOffset At { get; set; }
}
