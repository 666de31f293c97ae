using System.Globalization;
using Wexel.Core.Captions;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Takes the captions out that stand inside a recording.</summary>
public static class SubtitleReader
{
    /// <summary>Reads a track of subtitles.</summary>
    /// <param name="path">The recording.</param>
    /// <param name="place">Which of its subtitle tracks, from 0.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">There is no such track, or it is no text.</exception>
    public static async Task<CaptionReading> ReadAsync(string path, int place, CancellationToken cancel)
    {
        using var text = new MemoryStream();
        await MediaTool.StreamAsync(
            [.. MediaTool.SafeInput(path), "-map", string.Create(CultureInfo.InvariantCulture, $"0:s:{place}"), "-c:s", "webvtt", "-f", "webvtt", "pipe:1"],
            (stream, token) => stream.CopyToAsync(text, token),
            cancel
        );
        return CaptionFile.Read(text.ToArray());
    }

    /// <summary>The same captions so much later.</summary>
    public static IReadOnlyList<Cue> Later(IReadOnlyList<Cue> cues, TimeSpan by) =>
        [.. cues.Select(c => c with { Span = new TimeRange(c.Span.Start + by, c.Span.End + by) })];
}
