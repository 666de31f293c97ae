using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>What a finished file was found to be.</summary>
/// <param name="Bytes">Its size in bytes; of a folder of pieces, that of all of them.</param>
/// <param name="Codecs">What it is coded in, as RFC 6381 writes it.</param>
/// <param name="Check">All facts with their verdicts.</param>
/// <param name="Seen">What was seen and heard, for the next file that is put together from the same; null for a folder of pieces.</param>
public sealed record CheckedFile(long Bytes, string Codecs, IReadOnlyList<CheckedFact> Check, SeenAndHeard? Seen);

/// <summary>Checks finished files, whatever they are.</summary>
public static class FileChecker
{
    /// <summary>The checker's name and version, for the key of what it found.</summary>
    public const string Checker = "check/3";

    /// <summary>Measures a finished file and holds it against its plan and its source.</summary>
    /// <param name="path">Where it lies, as <see cref="Rendering.Muxing.FinishAsync"/> made it.</param>
    /// <param name="from">What it was made from.</param>
    /// <param name="sections">How many chapters there should be.</param>
    /// <param name="before">What was seen and heard in a file that was put together from the same; null where none was looked at.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The file cannot be read at all.</exception>
    public static async Task<CheckedFile> CheckAsync(string path, MadeFrom from, int sections, SeenAndHeard? before, CancellationToken cancel)
    {
        if (ContainerFacts.Of(from.Plan.File.Container).IsFolder)
        {
            var stream = await StreamMeasurer.MeasureAsync(path, from, cancel);
            return new CheckedFile(stream.Facts.Bytes, stream.Codecs, FileCheck.Findings(stream.Facts, from.Plan, stream.Expected), null);
        }

        var (facts, expected, seen) = await RenditionMeasurer.MeasureAsync(path, from, before, cancel);
        return new CheckedFile(facts.Bytes, facts.Codecs, FileCheck.Findings(facts, from.Plan, sections, expected), seen);
    }
}
