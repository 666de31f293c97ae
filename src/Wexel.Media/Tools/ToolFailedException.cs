namespace Wexel.Media.Tools;

/// <summary>A media tool ended with an error.</summary>
/// <param name="tool">Which tool.</param>
/// <param name="said">The last lines that it wrote, as it wrote them.</param>
/// <param name="exitCode">What it ended with: over 128 where it was ended by a signal.</param>
public sealed class ToolFailedException(string tool, string said, int exitCode = 1) : Exception($"{tool} failed: {said}")
{
    private const int BySignal = 128;

    /// <summary>What the tool itself said.</summary>
    public string Said { get; } = string.IsNullOrWhiteSpace(said) ? $"{tool} ended with code {exitCode} and said nothing." : said;

    /// <summary>Whether the same may well work a second time: something else ended the tool.</summary>
    public bool MayHelpToTryAgain { get; } = exitCode > BySignal;

    /// <summary>What a person can try.</summary>
    public string Advice => Said switch
    {
        _ when MayHelpToTryAgain => "Something on the server ended the encoder. Try again; if it happens again, the server may lack memory.",
        _ when Said.Contains("No space left", StringComparison.OrdinalIgnoreCase) => "The disk is full. Free some room and render again.",
        _ when Said.Contains("Invalid data", StringComparison.OrdinalIgnoreCase) => "The recording is damaged. Export or copy it again and bring it in anew.",
        _ when Said.Contains("Cannot allocate memory", StringComparison.OrdinalIgnoreCase) => "The machine ran out of memory. Try a smaller profile, or render when less is going on.",
        _ when Said.Contains("No such file", StringComparison.OrdinalIgnoreCase) => "The recording is no longer in the store. Bring it in again.",
        _ => "Try again; if it fails again, try “Web 720p”, and bring in the recording as MP4.",
    };
}
