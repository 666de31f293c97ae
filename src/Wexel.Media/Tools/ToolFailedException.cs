namespace Wexel.Media.Tools;

/// <summary>A media tool ended with an error.</summary>
/// <param name="tool">Which tool.</param>
/// <param name="said">The last lines that it wrote, as it wrote them.</param>
public sealed class ToolFailedException(string tool, string said) : Exception($"{tool} failed: {said}")
{
    /// <summary>What the tool itself said.</summary>
    public string Said { get; } = said;

    /// <summary>What a person can try.</summary>
    public string Advice => Said switch
    {
        _ when Said.Contains("No space left", StringComparison.OrdinalIgnoreCase) => "The disk is full. Free some room and render again.",
        _ when Said.Contains("Invalid data", StringComparison.OrdinalIgnoreCase) => "The recording is damaged. Export or copy it again and bring it in anew.",
        _ when Said.Contains("Cannot allocate memory", StringComparison.OrdinalIgnoreCase) => "The machine ran out of memory. Try a smaller profile, or render when less is going on.",
        _ when Said.Contains("No such file", StringComparison.OrdinalIgnoreCase) => "The recording is no longer in the store. Bring it in again.",
        _ => "Try again; if it fails again, try “Web 720p”, and bring in the recording as MP4.",
    };
}
