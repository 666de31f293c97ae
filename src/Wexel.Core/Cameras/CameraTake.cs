using System.Text.Json;
using System.Text.Json.Serialization;

namespace Wexel.Core.Cameras;

/// <summary>A camera's recording that is laid over one of the screen, of the same time.</summary>
/// <param name="Over">The hash of the screen's recording.</param>
/// <param name="Recording">The hash of the camera's.</param>
/// <param name="Clock">How their times go along each other.</param>
public sealed record CameraTake(string Over, string Recording, CameraClock Clock) : IJsonOnDeserialized
{
    /// <summary>What was read may lack what nobody could do without.</summary>
    /// <exception cref="JsonException">It names no recording.</exception>
    void IJsonOnDeserialized.OnDeserialized()
    {
        if (string.IsNullOrEmpty(Over) || string.IsNullOrEmpty(Recording))
            throw new JsonException("A camera does not say which recording it is, or over which it lies.");
    }
}
