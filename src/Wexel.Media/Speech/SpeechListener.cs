using System.Globalization;
using Wexel.Core.Recordings;
using Wexel.Core.Speech;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Speech;

/// <summary>Has an engine listen to stretches of a recording.</summary>
public static class SpeechListener
{
    private const long Memory = 4L * 1024 * 1024 * 1024;

    /// <summary>How many times as long as the stretch itself an engine may take, and how long at least; a busy machine is slow.</summary>
    private const int MostTimes = 10;

    private static readonly TimeSpan Least = TimeSpan.FromMinutes(2);

    /// <summary>Listens to a stretch. The sound goes into a file of its own, which is gone afterwards.</summary>
    /// <param name="engine">Who listens.</param>
    /// <param name="recording">The recording's file.</param>
    /// <param name="facts">What a probe found of it.</param>
    /// <param name="stretch">Which part.</param>
    /// <param name="language">The language that is spoken, as a BCP 47 tag.</param>
    /// <param name="hints">What is known of what is said; null for nothing.</param>
    /// <param name="cancel">Ends it.</param>
    /// <returns>The words, in the recording's time.</returns>
    /// <exception cref="ToolFailedException">The sound could not be read, or the engine failed.</exception>
    public static async Task<IReadOnlyList<HeardWord>> ListenAsync(
        ISpeechEngine engine,
        string recording,
        RecordingFacts facts,
        TimeRange stretch,
        string language,
        SpeechHints? hints,
        CancellationToken cancel
    )
    {
        var folder = HalfMade.Folder();
        try
        {
            var sound = Path.Combine(folder, "speech.wav");
            await MediaTool.RunAsync(
                [
                    "-ss",
                    Seconds(stretch.Start),
                    .. MediaTool.SafeInput(recording),
                    "-t",
                    Seconds(stretch.Length),
                    .. SoundInput.Print(facts.Used, ""),
                    "-ac",
                    "1",
                    "-ar",
                    "16000",
                    "-c:a",
                    "pcm_s16le",
                    "-f",
                    "wav",
                    sound,
                ],
                null,
                null,
                cancel,
                aside: true
            );
            var time = stretch.Length * MostTimes > Least ? stretch.Length * MostTimes : Least;
            var words = await engine.ListenAsync(sound, language, hints, new ChildLimits(Memory, time, time), cancel);
            return [.. words.Where(w => w.Span.Start < stretch.Length).Select(w => w with { Span = Later(w.Span, stretch) })];
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static TimeRange Later(TimeRange word, TimeRange stretch)
    {
        var end = stretch.Start + word.End;
        return new TimeRange(stretch.Start + word.Start, end < stretch.End ? end : stretch.End);
    }

    private static string Seconds(TimeSpan time) => time.TotalSeconds.ToString("0.###", CultureInfo.InvariantCulture);
}
