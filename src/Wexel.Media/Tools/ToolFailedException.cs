namespace Wexel.Media.Tools;

/// <summary>A media tool ended with an error.</summary>
/// <param name="tool">Which tool.</param>
/// <param name="said">The last lines that it wrote, as it wrote them.</param>
/// <param name="exitCode">What it ended with: over 128 where it was ended by a signal.</param>
/// <param name="outOfTime">Whether it was ended for having used all the time that it may.</param>
public sealed class ToolFailedException(string tool, string said, int exitCode = 1, bool outOfTime = false) : Exception($"{tool} failed: {said}")
{
    /// <summary>What is said of a file that was not written to its end.</summary>
    internal const string NotWhole = "was not written to its end";

    private const int BySignal = 128;

    private const string FullDisk = "No space left";
    private const string NoMemory = "Cannot allocate memory";

    /// <summary>What the tool itself said.</summary>
    public string Said { get; } =
        outOfTime ? $"{tool} was ended after using all the time that it may."
        : string.IsNullOrWhiteSpace(said) ? $"{tool} ended with code {exitCode} and said nothing."
        : said;

    /// <summary>Whether the same may well work a second time: something else ended the tool.</summary>
    public bool MayHelpToTryAgain { get; } = exitCode > BySignal && !outOfTime;

    /// <summary>Whether what kept it from working may be gone later: a disk that was full, memory that was short.</summary>
    public bool MayPass => MayHelpToTryAgain || new[] { FullDisk, NoMemory, NotWhole }.Any(sign => Said.Contains(sign, StringComparison.OrdinalIgnoreCase));

    /// <summary>What a person can try.</summary>
    public string Advice =>
        Said switch
        {
            _ when outOfTime => "The file takes far longer than files of its length do. Export or copy it again, as MP4, and bring it in anew.",
            _ when MayHelpToTryAgain => "Something on the server ended the encoder. Try again; if it happens again, the server may lack memory.",
            _ when Said.Contains(FullDisk, StringComparison.OrdinalIgnoreCase) => "The disk is full. Free some room and render again.",
            _ when Said.Contains(NotWhole, StringComparison.Ordinal) =>
                "The disk may be full, or it fails. Free some room and try again; if it happens again, have the disk looked at.",
            _ when Said.Contains("Invalid data", StringComparison.OrdinalIgnoreCase) =>
                "The recording is damaged. Export or copy it again and bring it in anew.",
            _ when Said.Contains(NoMemory, StringComparison.OrdinalIgnoreCase) =>
                "The machine ran out of memory. Try a smaller profile, or render when less is going on.",
            _ when Said.Contains("No such file", StringComparison.OrdinalIgnoreCase) => "The recording is no longer in the store. Bring it in again.",
            _ => "Try again; if it fails again, try “Web 720p”, and bring in the recording as MP4.",
        };
}
